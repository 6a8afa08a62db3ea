import type Flatbush from 'flatbush';
import { boxesOfEach, type Drawing, type Item } from '../document/item.ts';
import { type Box, boxAt, isEmpty } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';

interface Placed {
  /** Those with an extent: an empty combination, for one, is nowhere. */
  readonly items: readonly Item[];
  readonly index: Flatbush | null;
}

const placedItems = new WeakMap<readonly Item[], Placed>();

/** The items whose bounds meet a box, hidden ones too, in the drawing's order. */
export function itemsNear({ items }: Pick<Drawing, 'items'>, box: Box): Item[] {
  let placed = placedItems.get(items);
  if (!placed) {
    const boxes = boxesOfEach(items);
    const some: Item[] = [];
    const someBoxes: Box[] = [];
    for (const [i, item] of items.entries()) {
      const box = boxAt(boxes, i);
      if (isEmpty(box)) continue;
      some.push(item);
      someBoxes.push(box);
    }
    placed = { items: some, index: indexBoxes(someBoxes) };
    placedItems.set(items, placed);
  }
  const found = placed.index?.search(box.minX, box.minY, box.maxX, box.maxY) ?? [];
  return found.sort((a, b) => a - b).map((i) => (placed as Placed).items[i]);
}
