import { type Anchor, anchorPoint, boundsOf, type Item, type JobDocument, type Shape } from '@lambent/core/document';
import { moveItems, replaceShape } from '@lambent/core/edits';
import { newId } from '../new-id.ts';

export type Side = 'width' | 'height';

/** How large a thing is along its own sides, in mm, where its shape keeps both as numbers; null where it does not. */
export function ownSizeOf({ shape, matrix: [a, b, c, d] }: Item): Readonly<Record<Side, number>> | null {
  const [across, down] = [Math.hypot(a, b), Math.hypot(c, d)];
  if (shape.kind === 'rectangle') return { width: shape.width * across, height: shape.height * down };
  if (shape.kind === 'ellipse') return { width: 2 * shape.rx * across, height: 2 * shape.ry * down };
  return null;
}

/**
 * Gives one side of a thing another length, by its shape's own number: its corners stay as they are, and the point of its
 * frame that an anchor names stays where it is. Linked copies follow. The same job where the shape has no such number.
 * @param mm more than 0
 */
export function resizeOwn(job: JobDocument, item: Item, side: Side, mm: number, anchor: Anchor): JobDocument {
  const own = ownSizeOf(item);
  const shape = own && resized(item.shape, side, mm / own[side]);
  if (!shape) return job;
  const after = replaceShape(job, item.id, [shape], newId);
  const was = anchorPoint(boundsOf(item), anchor);
  const is = anchorPoint(boundsOf({ ...item, shape }), anchor);
  return moveItems(after, new Set([item.id]), was.x - is.x, was.y - is.y);
}

function resized(shape: Shape, side: Side, factor: number): Shape | null {
  if (shape.kind === 'rectangle') {
    // A side that is typed goes by the stock's thickness no more.
    const { tied, ...plain } = shape;
    return { ...(tied?.side === side ? plain : shape), [side]: shape[side] * factor };
  }
  if (shape.kind === 'ellipse') {
    const { bolt: _, ...plain } = shape;
    return side === 'width' ? { ...plain, rx: shape.rx * factor } : { ...plain, ry: shape.ry * factor };
  }
  return null;
}
