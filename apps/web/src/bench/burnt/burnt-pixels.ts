import { type BurnShares, BurntCode } from '@lambent/core/recipes';
import { burntColours } from './burnt-colours.ts';

/** What rounding leaves of the last of several passes still cuts through. */
const enough = 0.97;
/** How dark a recipe burns, as a share of the darkest there is; more energy burns darker. */
const usualDark = 0.8;

/** How far a picture was changed, in pixels; the later ends do not count. */
interface Changed {
  fromX: number;
  fromY: number;
  toX: number;
  toY: number;
}

/** What each pixel got, as it was at some time. */
export interface BurntState {
  readonly through: Float32Array;
  readonly dark: Float32Array;
}

/** How many bytes a pixel takes that is kept, with those of the ways over it. */
export const keptBytes = 12;

/** The stock while it burns, as pixels: what each got so far, by which it is brown, dark, or cut through. */
export class BurntPixels {
  private readonly through: Float32Array;
  private readonly dark: Float32Array;
  private changed: Changed = unchanged();

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.through = new Float32Array(width * height);
    this.dark = new Float32Array(width * height);
  }

  /** What the stock got so far, to come back to. */
  kept(): BurntState {
    return { through: this.through.slice(), dark: this.dark.slice() };
  }

  /** Comes back to what was kept: all of the picture has changed. */
  comeBack({ through, dark }: BurntState): void {
    this.through.set(through);
    this.dark.set(dark);
    this.changed = { fromX: 0, fromY: 0, toX: this.width, toY: this.height };
  }

  /** Burns along a line, from its first pixel up to the one before its last. @param wide how wide the burn is, in pixels */
  line(x0: number, y0: number, x1: number, y1: number, wide: number, { through, dark }: BurnShares): void {
    this.strokes(x0, y0, x1, y1, wide, (pixel) => {
      this.through[pixel] += through;
      this.dark[pixel] += dark;
    });
  }

  /** Burns a scan line of an area: lines closer than pixels add up. @param wide how far lines are apart, in pixels */
  row(x0: number, y0: number, x1: number, y1: number, wide: number, { dark }: BurnShares): void {
    const share = dark * Math.min(1, wide);
    if (wide >= 1) {
      this.strokes(x0, y0, x1, y1, wide, (pixel) => {
        this.dark[pixel] += share;
      });
      return;
    }
    // Split between the two that it lies between, so that no stripes come of where rows fall among pixels.
    this.steps(x0, y0, x1, y1, (across, pixelOf) => {
      const low = Math.floor(across - 0.5);
      const part = across - 0.5 - low;
      const [first, second] = [pixelOf(low), pixelOf(low + 1)];
      if (first >= 0) this.dark[first] += share * (1 - part);
      if (second >= 0) this.dark[second] += share * part;
    });
  }

  /** How a pixel looks: see `BurntCode`. */
  codeAt(pixel: number): number {
    const through = this.through[pixel];
    if (through >= enough) return BurntCode.through;
    const dark = Math.min(1, usualDark * (this.dark[pixel] + through));
    return Math.round(dark * BurntCode.darkest);
  }

  /** Paints what has changed since it was asked last. @param paint puts a part of a picture at a place */
  flush(paint: (part: ImageData, x: number, y: number) => void): void {
    const { fromX, fromY, toX, toY } = this.changed;
    this.changed = unchanged();
    if (fromX >= toX || fromY >= toY) return;
    const part = new ImageData(toX - fromX, toY - fromY);
    const colours = new Uint32Array(part.data.buffer);
    for (let y = fromY, i = 0; y < toY; y++)
      for (let x = fromX; x < toX; x++, i++) colours[i] = burntColours[this.codeAt(y * this.width + x)];
    paint(part, fromX, fromY);
  }

  /** Lines side by side that make one so many pixels wide. */
  private strokes(x0: number, y0: number, x1: number, y1: number, wide: number, burn: (pixel: number) => void): void {
    const count = Math.max(1, Math.round(wide));
    for (let k = 0; k < count; k++) {
      const aside = k - (count - 1) / 2;
      this.steps(x0, y0, x1, y1, (across, pixelOf) => {
        const pixel = pixelOf(Math.floor(across + aside));
        if (pixel >= 0) burn(pixel);
      });
    }
  }

  /** Goes along a line pixel by pixel, by the axis along which it is longer; one that is shorter than a pixel has none. */
  private steps(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    take: (across: number, pixelOf: (across: number) => number) => void,
  ): void {
    const isFlat = Math.abs(x1 - x0) >= Math.abs(y1 - y0);
    const [a0, a1, b0, b1] = isFlat ? [x0, x1, y0, y1] : [y0, y1, x0, x1];
    const [along, across] = isFlat ? [this.width, this.height] : [this.height, this.width];
    const reach = 64;
    if (Math.max(b0, b1) < -reach || Math.min(b0, b1) > across + reach) return;
    const from = Math.max(0, Math.round(Math.min(a0, a1)));
    const to = Math.min(along, Math.round(Math.max(a0, a1)));
    const slope = (b1 - b0) / (a1 - a0 || 1);
    let a = from;
    const pixelOf = (b: number) => {
      if (b < 0 || b >= across) return -1;
      const [x, y] = isFlat ? [a, b] : [b, a];
      this.touch(x, y);
      return y * this.width + x;
    };
    for (; a < to; a++) take(b0 + (a + 0.5 - a0) * slope, pixelOf);
  }

  private touch(x: number, y: number): void {
    const { changed } = this;
    if (x < changed.fromX) changed.fromX = x;
    if (x >= changed.toX) changed.toX = x + 1;
    if (y < changed.fromY) changed.fromY = y;
    if (y >= changed.toY) changed.toY = y + 1;
  }
}

function unchanged(): Changed {
  return { fromX: Number.POSITIVE_INFINITY, fromY: Number.POSITIVE_INFINITY, toX: 0, toY: 0 };
}
