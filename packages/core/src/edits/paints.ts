import { type Item, type Paint, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { subpathsOf } from '../geometry/paths/segments.ts';
import { changeItems } from './items.ts';

/*
 * Changing what items are painted with.
 */

/**
 * Gives items lines of a thickness. What has a fill alone gets a line of its colour, and loses the fill where its outline is
 * open: there is nothing to fill.
 * @param mm more than 0 @throws RangeError for another thickness
 */
export function setLineWidth(job: JobDocument, ids: ReadonlySet<string>, mm: number): JobDocument {
  if (!(mm > 0 && Number.isFinite(mm))) throw new RangeError(`setLineWidth: must be more than 0, got ${mm}`);
  // Items that shared a paint go on sharing it.
  const lines = new Map<Paint, Paint>();
  const linesAlone = new Map<Paint, Paint>();
  return changeItems(job, ids, (item) => {
    if (item.shape.kind === 'picture') return item;
    const isAlone = item.paint.stroke === null && hasOpenLine(item);
    const made = isAlone ? linesAlone : lines;
    let paint = made.get(item.paint);
    if (!paint) {
      const { stroke, fill } = item.paint;
      paint = { ...item.paint, stroke: stroke ?? fill ?? '#000000', strokeWidthMm: mm };
      if (isAlone) paint = withoutFill(paint);
      made.set(item.paint, paint);
    }
    return { ...item, paint };
  });
}

function withoutFill({ fade: _, ...paint }: Paint): Paint {
  return { ...paint, fill: null };
}

function hasOpenLine(item: Item): boolean {
  return [...subpathsOf(pathOf(item))].some(({ closed }) => !closed);
}

/** Paints items as another is painted, and puts them on the layers that it was put on by hand. */
export function paintLike(
  job: JobDocument,
  ids: ReadonlySet<string>,
  like: Pick<Item, 'paint' | 'pinned' | 'also'>,
): JobDocument {
  const { paint, pinned, also } = like;
  return changeItems(job, ids, ({ also: _, ...item }) => ({
    ...item,
    ...(item.shape.kind === 'picture' ? {} : { paint }),
    pinned,
    ...(also === undefined ? {} : { also }),
  }));
}
