import { boundsOf, type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { combineOutlines } from '../geometry/areas/combine.ts';
import { boxesMeet } from '../geometry/paths/box.ts';

/**
 * Takes items out of what lies under them, and leaves them where they are, on a layer that does not burn. What is taken
 * out of becomes its outlines; what would be gone altogether goes.
 * @param underIds what may be taken out of, as far as it lies under them
 */
export function knockOut(
  job: JobDocument,
  overIds: ReadonlySet<string>,
  underIds: ReadonlySet<string>,
  layerId: string,
): JobDocument {
  const { items } = job.drawing;
  const places = new Map(items.map((item, place) => [item, place]));
  const over = items.filter(({ id }) => overIds.has(id));
  const without = (item: Item): Item[] => {
    const holes = over.filter(
      (hole) => (places.get(hole) ?? 0) > (places.get(item) ?? 0) && boxesMeet(boundsOf(hole), boundsOf(item)),
    );
    if (!underIds.has(item.id) || holes.length === 0) return [item];
    const outlines = [item, ...holes].map((entry) => ({ path: pathOf(entry), rule: entry.fillRule }));
    const path = combineOutlines(outlines, 'subtract');
    const { link: _, ...free } = item;
    return path.verbs.length === 0 ? [] : [reshaped(free, { kind: 'path', path })];
  };
  const left = items.flatMap((item) => (overIds.has(item.id) ? [{ ...item, pinned: layerId }] : without(item)));
  return { ...job, drawing: { ...job.drawing, items: left } };
}
