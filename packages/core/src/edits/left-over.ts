import { type Item, pathOf, perItem, polylinesOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type Box, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { removeItems } from './items.ts';

/** What is smaller than this both ways, in mm, is no shape: it is left over. */
const leftOverMm = 0.05;

/** Whether what has such bounds is too small to be a shape. */
export function isLeftOver(box: Box): boolean {
  return boxWidth(box) < leftOverMm && boxHeight(box) < leftOverMm;
}

/** The parts of an item that are too small to be a shape, and whether it has no others. */
interface LeftOver {
  readonly places: readonly Box[];
  readonly isAll: boolean;
}

const none: LeftOver = { places: [], isAll: false };

/** Where an item has parts that are too small to be a shape, in bed mm, and whether it has no others. */
export const leftOverOf: (item: Item) => LeftOver = perItem((item) => {
  if (item.shape.kind === 'picture') return none;
  const lines = polylinesOf(item);
  const places = lines.map(polylineBounds).filter(isLeftOver);
  return places.length === 0 && lines.length > 0 ? none : { places, isAll: places.length === lines.length };
});

/** Takes away what is too small to be a shape: whole items, and parts of those that are paths. */
export function removeLeftOver(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  const gone = new Set<string>();
  const items = job.drawing.items.map((item) => {
    if (!ids.has(item.id)) return item;
    const { places, isAll } = leftOverOf(item);
    if (isAll) gone.add(item.id);
    if (isAll || places.length === 0 || item.shape.kind !== 'path') return item;
    // Parts of no length at all are no subpaths.
    const kept = [...subpathsOf(pathOf(item))].filter((part) => !isLeftOver(pathBounds(pathOfSubpaths([part]))));
    return reshaped(item, { kind: 'path', path: pathOfSubpaths(kept) });
  });
  return removeItems({ ...job, drawing: { ...job.drawing, items } }, gone);
}
