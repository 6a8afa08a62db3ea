import Flatbush from 'flatbush';
import type { Box } from '../geometry/box.ts';
import { isEmpty } from '../geometry/box.ts';
import { boundsOf, type Drawing, type Item } from './item.ts';

const indexes = new WeakMap<readonly Item[], Flatbush | null>();

/** The items whose bounds meet a box, hidden ones too, in the drawing's order. */
export function itemsNear({ items }: Pick<Drawing, 'items'>, box: Box): Item[] {
  let index = indexes.get(items);
  if (index === undefined) {
    index = indexOf(items);
    indexes.set(items, index);
  }
  if (!index) return [];
  return index
    .search(box.minX, box.minY, box.maxX, box.maxY)
    .sort((a, b) => a - b)
    .map((i) => items[i]);
}

function indexOf(items: readonly Item[]): Flatbush | null {
  if (items.length === 0) return null;
  const index = new Flatbush(items.length);
  for (const item of items) {
    const box = boundsOf(item);
    // An item without extent, such as an empty combination, is nowhere.
    if (isEmpty(box)) index.add(Infinity, Infinity, Infinity, Infinity);
    else index.add(box.minX, box.minY, box.maxX, box.maxY);
  }
  index.finish();
  return index;
}
