import { boundsOf, type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { offsetOutlines, plainOffset } from '../geometry/offsets/offset.ts';
import { boxCentre } from '../geometry/paths/box.ts';
import { scaling } from '../geometry/paths/matrix.ts';
import { transformEach } from './items.ts';

/** Makes filled outlines thicker by so many mm on every side; a text becomes its outlines. */
export function thickenItems(job: JobDocument, ids: ReadonlySet<string>, mm: number): JobDocument {
  const thicker = (item: Item): Item => {
    const path = offsetOutlines([{ path: pathOf(item), rule: item.fillRule }], { ...plainOffset, by: mm });
    const { link: _, ...free } = item;
    return reshaped(free, { kind: 'path', path });
  };
  const items = job.drawing.items.map((item) =>
    ids.has(item.id) && item.shape.kind !== 'picture' ? thicker(item) : item,
  );
  return { ...job, drawing: { ...job.drawing, items } };
}

/** Makes items larger, each about its own middle. @param factors by how much, by the items' ids */
export function enlargeItems(job: JobDocument, factors: ReadonlyMap<string, number>): JobDocument {
  const maps = job.drawing.items.flatMap((item) => {
    const factor = factors.get(item.id);
    return factor === undefined ? [] : [[item.id, scaling(factor, factor, boxCentre(boundsOf(item)))] as const];
  });
  return transformEach(job, new Map(maps));
}
