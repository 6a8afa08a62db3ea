import { boundsOf, type Drawing, type Item, perItems } from '../document/item.ts';
import { gatherBy } from '../lists/gather.ts';
import { itemsNear } from '../picking/nearby.ts';

/** Items of a drawing with those that they touch or hold, and their groups: a hole moves with its plate. */
export function withCompany(drawing: Drawing, items: readonly Item[]): Item[] {
  const mates = matesIn(drawing.items);
  const all = new Set(items);
  const waiting = [...items];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const others = next.groupId === null ? [] : (mates.get(next.groupId) ?? []);
    for (const other of [...others, ...itemsNear(drawing, boundsOf(next))]) {
      if (all.has(other) || other.hidden) continue;
      all.add(other);
      waiting.push(other);
    }
  }
  return [...all];
}

/** By group: the items right in it. */
const matesIn = perItems((items) => gatherBy(items, ({ groupId }) => groupId));
