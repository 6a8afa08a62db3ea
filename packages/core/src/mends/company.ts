import { boundsOf, type Drawing, type Item, perItems } from '../document/item.ts';
import { gatherBy } from '../lists/gather.ts';
import { itemsNear } from '../picking/nearby.ts';
import { nearItems } from '../plan/near-items.ts';

/** Items of a drawing with those that they touch or hold, and their groups: a hole moves with its plate. */
export function withCompany(drawing: Drawing, items: readonly Item[]): Item[] {
  const mates = matesIn(drawing.items);
  // Of a great many that lie apart, nothing is looked up by place.
  const { near } = nearItems(drawing.items);
  const isNear = new Set(near);
  const all = new Set(items);
  const waiting = [...items];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const others = next.groupId === null ? [] : (mates.get(next.groupId) ?? []);
    const met = isNear.has(next) ? itemsNear({ items: near }, boundsOf(next)) : [];
    for (const other of [...others, ...met]) {
      if (all.has(other) || other.hidden) continue;
      all.add(other);
      waiting.push(other);
    }
  }
  return [...all];
}

/** By group: the items right in it. */
const matesIn = perItems((items) => gatherBy(items, ({ groupId }) => groupId));
