import {
  boundsOf,
  type Drawing,
  type Group,
  groupsAround,
  type Item,
  polylinesOf,
  topGroupOf,
} from '../document/item.ts';
import { type Box, boxContains, boxHeight, boxWidth, growBox } from '../geometry/paths/box.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { distanceToLines } from '../geometry/questions/distance.ts';
import { itemsNear } from './nearby.ts';

const none: ReadonlySet<string> = new Set();

/**
 * What lies at a point of the bed: the item whose line is nearest within `reach` mm, else the smallest
 * item that encloses the point; of equals the one in front. Null when there is none. Hidden and locked items are passed over.
 *
 * @param passedOver items that are passed over too, by id
 */
export function itemAt(
  drawing: Drawing,
  x: number,
  y: number,
  reach: number,
  passedOver: ReadonlySet<string> = none,
): Item | null {
  let nearest: { item: Item; distance: number } | null = null;
  let smallest: { item: Item; size: number } | null = null;
  const near = itemsNear(drawing, growBox({ minX: x, minY: y, maxX: x, maxY: y }, reach));
  for (const item of near.reverse()) {
    if (item.hidden || item.locked || passedOver.has(item.id)) continue;
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

/** The items that lie in a box whole. @param passedOver items that are passed over, by id, as hidden and locked ones are */
export function itemsWithin(drawing: Drawing, box: Box, passedOver: ReadonlySet<string> = none): Item[] {
  return itemsNear(drawing, box).filter(
    (item) => !item.hidden && !item.locked && !passedOver.has(item.id) && boxContains(box, boundsOf(item)),
  );
}

/**
 * The items that belong with an item: its outermost group's, else itself alone.
 * @param openId a group that is open: within it, its own groups and items are things by themselves.
 */
export function companionsOf(drawing: Drawing, item: Item, openId: string | null = null): Item[] {
  const isOpen = openId !== null && groupsAround(drawing, item).some(({ id }) => id === openId);
  const open = isOpen ? openId : null;
  const home = closedGroupOf(drawing, item, open);
  if (!home) return [item];
  return drawing.items.filter((other) => !other.hidden && closedGroupOf(drawing, other, open) === home);
}

/** The outermost group that an item is in, within the one that is open where it is in that; null where there is none. */
export function closedGroupOf(drawing: Drawing, item: Item, openId: string | null): Group | null {
  if (openId === null) return topGroupOf(drawing, item);
  const around = groupsAround(drawing, item);
  const open = around.findIndex(({ id }) => id === openId);
  return around[open + 1] ?? null;
}
