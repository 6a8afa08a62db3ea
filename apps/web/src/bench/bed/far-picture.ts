import type { Matrix } from '@lambent/core/geometry';
import { sentenceOf } from '../../api.ts';
import type { Context2D } from './context-2d.ts';
import type { View } from './view.ts';

/** Drawings of more lines and curves than this are painted by a worker, not by the page. */
export const farFrom = 50_000;

/** Pictures from a worker: what rests, and what is dragged. */
interface Painted<Bitmap> {
  readonly resting: Bitmap;
  readonly lifted: Bitmap | null;
}

/** What a picture is to be of. Two wishes are alike where each of their fields is the same. */
export interface Wish {
  readonly view: View;
  readonly width: number;
  readonly height: number;
}

/**
 * The picture of something that takes too long to be drawn within a frame: a worker paints it. Until the next picture
 * comes, the last one is shown, moved along with the view.
 */
export class FarPicture<W extends Wish, Bitmap extends { close(): void } = ImageBitmap> {
  private shown: { readonly wish: W; readonly painted: Painted<Bitmap> } | null = null;
  private wanted: W | null = null;
  private painting: W | null = null;
  private failed: { readonly wish: W; readonly why: string } | null = null;
  /** Where what is dragged was last. */
  private live: Matrix | null = null;
  private closed = false;
  /** Which picture it is, counted. */
  version = 0;

  /** @param changed is told when there is another picture, or none could be painted */
  constructor(
    private readonly paint: (wish: W) => Promise<Painted<Bitmap>>,
    private readonly changed: () => void,
  ) {}

  /** Why the last picture that was wanted could not be painted; null where it could. */
  get trouble(): string | null {
    return this.failed?.why ?? null;
  }

  get hasPicture(): boolean {
    return this.shown !== null;
  }

  /** Has it painted anew, unless that is done, or under way. */
  want(wish: W): void {
    this.closed = false;
    const last = this.wanted ?? this.painting ?? this.failed?.wish ?? this.shown?.wish;
    if (last && alike(last, wish)) return;
    this.wanted = wish;
    if (!this.painting) void this.paintOn();
  }

  /** Paints what is wanted by then, until nothing else is. */
  private async paintOn(): Promise<void> {
    while (this.wanted && !this.closed) {
      const wish = this.wanted;
      this.wanted = null;
      this.painting = wish;
      try {
        this.show(wish, await this.paint(wish));
      } catch (error) {
        this.failed = { wish, why: sentenceOf(error) };
      }
      this.painting = null;
      if (!this.closed) this.changed();
    }
  }

  private show(wish: W, painted: Painted<Bitmap>): void {
    this.release();
    this.shown = { wish, painted };
    this.version++;
    this.failed = null;
    this.live = null;
    if (this.closed) this.release();
  }

  private release(): void {
    this.shown?.painted.resting.close();
    this.shown?.painted.lifted?.close();
    this.shown = null;
  }

  /** Lets go of its picture; what is wanted after that is painted anew. */
  close(): void {
    this.closed = true;
    this.release();
  }

  /** A wish for another view is painted when there was time for it. @param live where what is dragged is */
  draw(target: Pick<Context2D, 'drawImage' | 'save' | 'restore' | 'transform'>, view: View, live: Matrix | null): void {
    if (!this.shown) return;
    const { wish, painted } = this.shown;
    const grown = view.scale / wish.view.scale;
    const [x, y] = [view.x - wish.view.x * grown, view.y - wish.view.y * grown];
    const draw = (bitmap: Bitmap) => {
      target.drawImage(bitmap as unknown as ImageBitmap, x, y, wish.width * grown, wish.height * grown);
    };
    draw(painted.resting);
    if (!painted.lifted) return;
    // What was put down stays where it was put until a picture shows it there.
    this.live = live ?? this.live;
    target.save();
    if (this.live) {
      target.transform(view.scale, 0, 0, view.scale, view.x, view.y);
      target.transform(...this.live);
      target.transform(1 / view.scale, 0, 0, 1 / view.scale, -view.x / view.scale, -view.y / view.scale);
    }
    draw(painted.lifted);
    target.restore();
  }
}

function alike<W extends object>(a: W, b: W): boolean {
  return (Object.keys(a) as (keyof W)[]).every((name) => a[name] === b[name]);
}
