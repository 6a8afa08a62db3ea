import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { isFollowing } from '../document/shape.ts';
import { changeItems } from '../edits/items.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { settleItems } from './follow.ts';

/** A picture in another's place: its pixels, and where they lie on the bed. */
export interface PictureInstead {
  readonly pictureId: string;
  readonly width: number;
  readonly height: number;
  readonly matrix: Matrix;
}

/**
 * Puts another picture in the place of one. What was decided of its greys stays; its crop goes, and outlines that were
 * found in it stay as they are.
 */
export function replacePicture(job: JobDocument, id: string, { matrix, ...instead }: PictureInstead): JobDocument {
  const made = job.drawing.items.filter(({ shape }) => isFollowing(shape) && shape.sources.includes(id));
  const settled = settleItems(job, new Set(made.map((item) => item.id)));
  return changeItems(settled, new Set([id]), (item): Item => {
    if (item.shape.kind !== 'picture') return item;
    const { tone } = item.shape;
    return { ...item, shape: { kind: 'picture', ...instead, ...(tone ? { tone } : {}) }, matrix };
  });
}
