import { boundsOf, type Drawing, type Item, polylinesOf, topGroupOf } from '../document/item.ts';
import { type Box, boxContains, boxHeight, boxWidth, growBox } from '../geometry/paths/box.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { distanceToLines } from '../geometry/questions/distance.ts';
import { itemsNear } from './nearby.ts';

/**
 * What lies at a point of the bed: the item whose line is nearest within `reach` mm, else the smallest
 * item that encloses the point; of equals the one in front. Null when there is none. Hidden and locked items are passed over.
 */
export function itemAt(drawing: Drawing, x: number, y: number, reach: number): Item | null {
  let nearest: { item: Item; distance: number } | null = null;
  let smallest: { item: Item; size: number } | null = null;
  const near = itemsNear(drawing, growBox({ minX: x, minY: y, maxX: x, maxY: y }, reach));
  for (const item of near.reverse()) {
    if (item.hidden || item.locked) continue;
    const bounds = boundsOf(item);
    const lines = polylinesOf(item);
    const distance = distanceToLines(lines, x, y);
    if (distance <= reach) {
      if (!nearest || distance < nearest.distance) nearest = { item, distance };
    } else if (!nearest) {
      const size = boxWidth(bounds) * boxHeight(bounds);
      const crossings = lines.filter((line) => line.closed && polylineContains(line, x, y)).length;
      const inside = item.paint.fill === null ? crossings > 0 : crossings % 2 === 1;
      if (inside && (!smallest || size < smallest.size)) smallest = { item, size };
    }
  }
  return nearest?.item ?? smallest?.item ?? null;
}

/** The items that lie in a box whole. */
export function itemsWithin(drawing: Drawing, box: Box): Item[] {
  return itemsNear(drawing, box).filter((item) => !item.hidden && !item.locked && boxContains(box, boundsOf(item)));
}

/** The items that belong with an item: its outermost group's, else itself alone. */
export function companionsOf(drawing: Drawing, item: Item): Item[] {
  const home = topGroupOf(drawing, item);
  return home ? drawing.items.filter((other) => !other.hidden && topGroupOf(drawing, other) === home) : [item];
}
