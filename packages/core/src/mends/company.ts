import { boundsOf, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { itemsNear } from '../picking/nearby.ts';

/** The ids of items with those that they touch or hold, and their groups: a hole moves with its plate. */
export function withCompany({ drawing }: JobDocument, items: readonly Item[]): string[] {
  const ids = new Set(items.map(({ id }) => id));
  const byGroup = new Map<string, Item[]>();
  for (const item of drawing.items) {
    if (item.groupId === null) continue;
    const mates = byGroup.get(item.groupId);
    if (mates) mates.push(item);
    else byGroup.set(item.groupId, [item]);
  }
  const waiting = drawing.items.filter(({ id }) => ids.has(id));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const mates = next.groupId === null ? [] : (byGroup.get(next.groupId) ?? []);
    for (const other of [...mates, ...itemsNear(drawing, boundsOf(next))]) {
      if (ids.has(other.id) || other.hidden) continue;
      ids.add(other.id);
      waiting.push(other);
    }
  }
  return [...ids];
}
