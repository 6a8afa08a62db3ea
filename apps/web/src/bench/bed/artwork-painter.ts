import { boundsOf, type Item } from '@lambent/core/document';
import { type Box, boxesMeet, emptyBox, growBox, isEmpty, type Matrix, uniteBoxes } from '@lambent/core/geometry';
import type { Context2D } from './context-2d.ts';
import { type ArtworkLook, drawGlow, drawSceneItems } from './draw-artwork.ts';
import type { Look } from './look.ts';
import type { Scene, SceneFill, SceneItem } from './scene.ts';
import type { View } from './view.ts';

/** More items changed than this, and everything is drawn afresh. */
const mostMended = 600;
/** More items lifted than this are drawn once, and moved as a picture. */
const mostLifted = 300;
/** How far, in pixels, an item's drawing reaches beyond its bounds. */
const roomPx = 5;

/** A picture as a worker paints it: what rests, and what is dragged. */
export interface PaintedPictures {
  readonly resting: ImageBitmap;
  readonly lifted: ImageBitmap | null;
}

export interface Base {
  readonly view: View;
  readonly width: number;
  readonly height: number;
  readonly ratio: number;
  readonly as: Look;
  readonly ink: string;
  readonly faint: boolean;
  readonly fine: boolean;
  readonly pictures: unknown;
}

/**
 * Draws the artwork, and only what has changed of it: a picture of everything that stays where it is is kept, and
 * mended where items came, went or changed. What is dragged is drawn over it.
 */
export class ArtworkPainter {
  private base: Base | null = null;
  private readonly canvas = new OffscreenCanvas(1, 1);
  private drawn: readonly SceneItem[] = [];
  /** What the kept picture is of, and what of it is lifted off to be dragged. */
  private scene: Scene | null = null;
  private fills: readonly SceneFill[] = [];
  private liftedIds: ReadonlySet<string> | null = null;
  private liftedItems: readonly SceneItem[] = [];
  private liftedPicture: OffscreenCanvas | null = null;

  /** Whether the kept picture is of all this but for the view. */
  showsAllBut({ items: scene }: Scene, look: ArtworkLook, base: Omit<Base, 'view'>): boolean {
    const { base: kept } = this;
    if (!kept || look.live || look.pointedOut.size > 0 || scene.length !== this.drawn.length) return false;
    return same({ ...base, view: kept.view }, kept);
  }

  /** Draws the kept picture as it would be under another view: moved and grown. */
  drawMoved(target: CanvasRenderingContext2D, view: View): void {
    const { base, canvas } = this;
    if (!base) return;
    const grown = view.scale / base.view.scale;
    const x = view.x - base.view.x * grown;
    const y = view.y - base.view.y * grown;
    target.drawImage(canvas, x, y, (canvas.width / base.ratio) * grown, (canvas.height / base.ratio) * grown);
  }

  draw(target: Context2D, scene: Scene, look: ArtworkLook, base: Base): void {
    this.keepUp(scene, look, base);
    target.drawImage(this.canvas, 0, 0, base.width, base.height);
    if (look.live) this.drawLifted(target, look.live, look, base);
    this.drawPointedOut(target, scene, look, base);
  }

  /** What rests, and what is lifted off it to be dragged, as pictures of their own; for a worker. */
  pictures(scene: Scene, look: ArtworkLook, base: Base): PaintedPictures {
    this.keepUp(scene, look, base);
    const resting = new OffscreenCanvas(this.canvas.width, this.canvas.height);
    const target = resting.getContext('2d');
    if (target) {
      target.drawImage(this.canvas, 0, 0);
      target.scale(base.ratio, base.ratio);
      this.drawPointedOut(target, scene, look, base);
    }
    const lifted = look.live ? this.pictureOf(this.liftedItems, look, base) : null;
    return { resting: resting.transferToImageBitmap(), lifted: lifted?.transferToImageBitmap() ?? null };
  }

  /** Brings the kept picture up to what is to be seen. */
  private keepUp(scene: Scene, look: ArtworkLook, base: Base): void {
    const { items } = scene;
    const lifted = look.live === null ? null : look.selection;
    const stands = this.base !== null && same(base, this.base);
    // Most frames only move what is lifted, or point something else out.
    if (!stands || scene !== this.scene || lifted !== this.liftedIds) {
      const resting = lifted ? items.filter(({ item }) => !lifted.has(item.id)) : items;
      // While something is dragged, layers are not filled anew: what of them is dragged shows its outlines.
      const fills = lifted ? [] : scene.fills;
      const filledAlike = fills === this.fills || (fills.length === 0 && this.fills.length === 0);
      this.fills = fills;
      if (stands && filledAlike) this.mend(resting, look, base);
      else this.drawAll(resting, look, base);
      this.scene = scene;
      this.liftedIds = lifted;
      this.liftedItems = lifted ? items.filter(({ item }) => lifted.has(item.id)) : [];
      this.liftedPicture = null;
    }
  }

  private drawPointedOut(target: Context2D, { items }: Scene, look: ArtworkLook, base: Base): void {
    if (look.pointedOut.size === 0) return;
    onBed(target, base, () => {
      const out = items.filter(({ item }) => look.pointedOut.has(item.id));
      drawGlow(target, base.view, out, look);
    });
  }

  private drawAll(resting: readonly SceneItem[], look: ArtworkLook, base: Base): void {
    drawAfresh(this.canvas, within(resting, viewed(base)), look, base, this.fills);
    this.base = base;
    this.drawn = resting;
  }

  /** Draws afresh where what is to be seen is not what was drawn. */
  private mend(resting: readonly SceneItem[], look: ArtworkLook, base: Base): void {
    const changed = changedBetween(this.drawn, resting);
    if (changed === null) {
      this.drawAll(resting, look, base);
      return;
    }
    if (changed.length === 0) return;
    const own = this.canvas.getContext('2d');
    if (changed.length > mostMended || !own) {
      this.drawAll(resting, look, base);
      return;
    }
    const room = roomPx / base.view.scale;
    const boxes = changed
      .map((item) => boundsOf(item))
      .filter((box) => !isEmpty(box))
      .map((box) => growBox(box, room));
    onBed(own, base, () => {
      own.beginPath();
      for (const { minX, minY, maxX, maxY } of boxes) own.rect(minX, minY, maxX - minX, maxY - minY);
      own.clip();
      for (const { minX, minY, maxX, maxY } of boxes) own.clearRect(minX, minY, maxX - minX, maxY - minY);
      const all = boxes.reduce(uniteBoxes, emptyBox);
      const touched = resting.filter(
        ({ bounds }) => boxesMeet(all, bounds) && boxes.some((box) => boxesMeet(box, bounds)),
      );
      drawSceneItems(own, base.view, touched, look, this.fills);
    });
    this.drawn = resting;
  }

  private drawLifted(target: Context2D, live: Matrix, look: ArtworkLook, base: Base): void {
    if (this.liftedItems.length <= mostLifted) {
      onBed(target, base, () => {
        target.transform(...live);
        drawSceneItems(target, base.view, this.liftedItems, look);
      });
      return;
    }
    this.liftedPicture ??= this.pictureOf(this.liftedItems, look, base);
    const { scale, x, y } = base.view;
    target.save();
    target.transform(scale, 0, 0, scale, x, y);
    target.transform(...live);
    target.transform(1 / scale, 0, 0, 1 / scale, -x / scale, -y / scale);
    target.drawImage(this.liftedPicture, 0, 0, base.width, base.height);
    target.restore();
  }

  /** A picture of items of its own, as large as the view. */
  private pictureOf(items: readonly SceneItem[], look: ArtworkLook, base: Base): OffscreenCanvas {
    const canvas = new OffscreenCanvas(1, 1);
    drawAfresh(canvas, items, look, base);
    return canvas;
  }
}

/** Makes a canvas as large as the view, and draws items on it. */
function drawAfresh(
  canvas: OffscreenCanvas,
  items: readonly SceneItem[],
  look: ArtworkLook,
  base: Base,
  fills: readonly SceneFill[] = [],
): void {
  canvas.width = Math.round(base.width * base.ratio);
  canvas.height = Math.round(base.height * base.ratio);
  const context = canvas.getContext('2d');
  if (!context) return;
  context.scale(base.ratio, base.ratio);
  onBed(context, base, () => drawSceneItems(context, base.view, items, look, fills));
}

function onBed(context: Context2D, { view }: Base, draw: () => void): void {
  context.save();
  context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
  draw();
  context.restore();
}

/** The part of the bed that is in view. */
function viewed({ view, width, height }: Base): Box {
  const room = roomPx / view.scale;
  return growBox(
    {
      minX: -view.x / view.scale,
      minY: -view.y / view.scale,
      maxX: (width - view.x) / view.scale,
      maxY: (height - view.y) / view.scale,
    },
    room,
  );
}

function within(scene: readonly SceneItem[], box: Box): readonly SceneItem[] {
  return scene.filter(({ bounds }) => boxesMeet(box, bounds));
}

/** The items that came, went or are drawn otherwise; null where others changed their order. */
function changedBetween(before: readonly SceneItem[], after: readonly SceneItem[]): Item[] | null {
  if (before === after) return [];
  if (before.length === after.length) {
    const changed: Item[] = [];
    const [gone, come] = [new Set<Item>(), new Set<Item>()];
    for (let i = 0; i < after.length; i++) {
      if (before[i] === after[i]) continue;
      gone.add(before[i].item);
      come.add(after[i].item);
      changed.push(before[i].item, after[i].item);
    }
    // An item that only moved within the order is in both.
    for (const item of come) if (gone.has(item) && changed.length > 2) return null;
    return changed;
  }
  const [known, wanted] = [new Set(before), new Set(after)];
  const gone = before.filter((drawn) => !wanted.has(drawn));
  const come = after.filter((drawn) => !known.has(drawn));
  const stayed = before.filter((drawn) => wanted.has(drawn));
  let index = 0;
  for (const drawn of after) if (known.has(drawn) && stayed[index++] !== drawn) return null;
  return [...gone, ...come].map(({ item }) => item);
}

function same(a: Base, b: Base): boolean {
  return (Object.keys(a) as (keyof Base)[]).every((name) => a[name] === b[name]);
}
