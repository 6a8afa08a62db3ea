import { type Item, outlineOf } from '@lambent/core/document';
import { applyTo, invert, type Matrix, multiply, type Path, type Point } from '@lambent/core/geometry';
import { pictureOf } from '../../../../bed/pictures.ts';
import { pathToCanvas } from '../../../../bed/scene.ts';

/** A picture that lies on the face of a part. */
export interface FacePicture {
  /** As it shows there: only what lies on the part, and in its crop. */
  readonly canvas: HTMLCanvasElement;
  /** Its corners in the frame of the part, from its first one round, in mm. */
  readonly corners: readonly Point[];
}

/** So many pixels a side has at most. */
const mostPixels = 1024;

/**
 * A picture on a part; null where it is none, or is still coming.
 *
 * @param toPart takes the bed to the part's frame.
 * @param cut the part's outline, in its frame.
 */
export function facePicture({ shape, matrix }: Item, toPart: Matrix, cut: Path): FacePicture | null {
  if (shape.kind !== 'picture') return null;
  const bitmap = pictureOf(shape.pictureId);
  const place = multiply(toPart, matrix);
  const back = invert(place);
  const canvas = document.createElement('canvas');
  const { width, height } = shape;
  const scale = Math.min(1, mostPixels / Math.max(width, height));
  canvas.width = Math.max(1, Math.round(width * scale));
  canvas.height = Math.max(1, Math.round(height * scale));
  const context = canvas.getContext('2d');
  if (!bitmap || !back || !context) return null;
  context.scale(scale, scale);
  context.clip(pathToCanvas(outlineOf(shape)));
  const onPart = new Path2D();
  onPart.addPath(pathToCanvas(cut), new DOMMatrix([...back]));
  context.clip(onPart, 'evenodd');
  context.drawImage(bitmap, 0, 0, width, height);
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ].map(([x, y]) => applyTo(place, x, y));
  return { canvas, corners };
}
