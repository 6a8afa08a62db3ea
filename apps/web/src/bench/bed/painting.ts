import type { Item } from '@lambent/core/document';
import { identity, type Matrix } from '@lambent/core/geometry';
import type { PreparedJob } from '@lambent/core/plan';
import { ArtworkPainter, type Base, type PaintedPictures } from './artwork-painter.ts';
import { drawParts } from './draw-parts.ts';
import { fetchPicture, keepPictures, pictureIdsIn } from './pictures.ts';
import { outlineFor, sceneOf } from './scene.ts';
import type { View } from './view.ts';

export type { PaintedPictures } from './artwork-painter.ts';

const nothing: ReadonlySet<string> = new Set();

/** What of a job's artwork is to be painted, and how. */
export interface ArtworkWish extends Omit<Base, 'pictures' | 'fine'> {
  readonly asBurnt: boolean;
  readonly pointedOut: ReadonlySet<string>;
  /** What is dragged, and painted by itself; null while nothing is. */
  readonly lifted: ReadonlySet<string> | null;
}

/** What arrives, and how it is to be painted. */
export interface ArrivalWish {
  readonly view: View;
  readonly width: number;
  readonly height: number;
  readonly ratio: number;
  readonly ink: string;
  /** From the drawing as read to its place on the bed. */
  readonly map: Matrix;
  readonly pointedOut: ReadonlySet<string>;
  readonly measured: string | null;
}

let painter: ArtworkPainter | null = null;
/** The view of the last picture, by which the painter knows that it stands. */
let lastView: View = { scale: 1, x: 0, y: 0 };

/** Paints a job's artwork, in a worker, once its pictures are there. */
export async function paintArtwork(prepared: PreparedJob, wish: ArtworkWish): Promise<PaintedPictures> {
  const { asBurnt, pointedOut, lifted, view, ...rest } = wish;
  const ids = pictureIdsIn(prepared.job.drawing.items);
  keepPictures(ids);
  await Promise.all([...ids].map(fetchPicture));
  if (lastView.scale !== view.scale || lastView.x !== view.x || lastView.y !== view.y) lastView = view;
  const base: Base = { ...rest, view: lastView, fine: true, pictures: null };
  const look = { ...base, selection: lifted ?? nothing, live: lifted && identity, pointedOut };
  painter ??= new ArtworkPainter();
  return painter.pictures(sceneOf(prepared, asBurnt), look, base);
}

/** Paints what arrives, in a worker. */
export function paintArrival(items: readonly Item[], wish: ArrivalWish): PaintedPictures {
  const { view, width, height, ratio, ink, map, pointedOut, measured } = wish;
  const canvas = new OffscreenCanvas(Math.round(width * ratio), Math.round(height * ratio));
  const context = canvas.getContext('2d');
  if (context) {
    context.scale(ratio, ratio);
    context.transform(view.scale, 0, 0, view.scale, view.x, view.y);
    context.transform(...map);
    const px = 1 / (view.scale * Math.hypot(map[0], map[1]));
    const parts = items.map((item) => ({ item, outline: outlineFor(item) }));
    drawParts(context, parts, pointedOut, px, ink, measured);
  }
  return { resting: canvas.transferToImageBitmap(), lifted: null };
}

/** What goes over to the page, and is not copied. */
export function bitmapsOf({ resting, lifted }: PaintedPictures): ImageBitmap[] {
  return lifted ? [resting, lifted] : [resting];
}
