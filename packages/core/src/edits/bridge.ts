import { type Item, pathOf, reshaped } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { combineOutlines, type Outline } from '../geometry/areas/combine.ts';
import type { Box } from '../geometry/paths/box.ts';
import { removeItems } from './items.ts';

/** A hole whose middle is to be held: the item that has the hole's edge, those that have the middles', and the bars. */
export interface Bridged {
  readonly holeId: string;
  /** Items other than the hole's own. */
  readonly middleIds: readonly string[];
  /** Where stock is to be left, in bed mm. */
  readonly bars: readonly Box[];
}

/** Leaves bars of stock across holes, so that what lies loose in them stays; the hole's item becomes outlines. */
export function bridgeHoles(job: JobDocument, bridged: readonly Bridged[]): JobDocument {
  const items = new Map(job.drawing.items.map((item) => [item.id, item]));
  const gone = new Set<string>();
  for (const { holeId, middleIds, bars } of bridged) {
    const hole = items.get(holeId);
    const middles = middleIds.map((id) => items.get(id));
    if (!hole || middles.some((middle) => !middle)) continue;
    const taken = (middles as Item[]).map((middle): Outline => ({ path: pathOf(middle), rule: 'evenodd' }));
    const rest = bars.map((bar): Outline => ({ path: outlineOf(rectangleOf(bar)), rule: 'nonzero' }));
    const path = combineOutlines([{ path: pathOf(hole), rule: 'evenodd' }, ...taken, ...rest], 'subtract');
    const { link: _, ...free } = hole;
    items.set(holeId, reshaped(free, { kind: 'path', path }));
    for (const id of middleIds) gone.add(id);
  }
  const kept = job.drawing.items.map((item) => items.get(item.id) ?? item);
  return removeItems({ ...job, drawing: { ...job.drawing, items: kept } }, gone);
}
