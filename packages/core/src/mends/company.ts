import { boundsOf, type Drawing, type Item } from '../document/item.ts';
import { gatherBy } from '../lists/gather.ts';
import { perEach } from '../lists/per-each.ts';
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
  const take = (other: Item) => {
    if (all.has(other) || other.hidden) return;
    all.add(other);
    waiting.push(other);
  };
  const groups = new Set<string>();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { groupId } = next;
    if (groupId !== null && !groups.has(groupId)) {
      groups.add(groupId);
      for (const i of mates.get(groupId) ?? []) take(drawing.items[i]);
    }
    if (isNear.has(next)) for (const other of itemsNear({ items: near }, boundsOf(next))) take(other);
  }
  return [...all];
}

/** By group: the places of the items right in it. */
function matesIn(items: readonly Item[]): ReadonlyMap<string, readonly number[]> {
  const groups = groupOfEach(items);
  const known = placesByGroup.get(groups) ?? gatherBy(groups.keys(), (i) => groups[i]);
  placesByGroup.set(groups, known);
  return known;
}

const groupOfEach = perEach((items: readonly Item[]) => items.map(({ groupId }) => groupId));

/** Few edits change groups: the list of them stays the same. */
const placesByGroup = new WeakMap<readonly (string | null)[], ReadonlyMap<string, readonly number[]>>();
