import { type Box, boxContains, boxHeight, boxWidth, growBox } from '../geometry/box.ts';
import { type Polyline, polylineContains } from '../geometry/flatten.ts';
import { boundsOf, type Drawing, type Item, polylinesOf, topGroupOf } from './item.ts';

/**
 * What lies at a point of the bed: the item whose line is nearest within `reach` mm, else the smallest
 * item that encloses the point; of equals the one in front. Null when there is none. Hidden items are passed over.
 */
export function itemAt(drawing: Drawing, x: number, y: number, reach: number): Item | null {
  let nearest: { item: Item; distance: number } | null = null;
  let smallest: { item: Item; size: number } | null = null;
  for (let i = drawing.items.length - 1; i >= 0; i--) {
    const item = drawing.items[i];
    if (item.hidden) continue;
    const bounds = boundsOf(item);
    if (!boxContains(growBox(bounds, reach), { minX: x, minY: y, maxX: x, maxY: y })) continue;
    const lines = polylinesOf(item);
    const distance = distanceTo(lines, x, y);
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
  return drawing.items.filter((item) => !item.hidden && boxContains(box, boundsOf(item)));
}

function distanceTo(lines: readonly Polyline[], x: number, y: number): number {
  let least = Infinity;
  for (const { points, closed } of lines) {
    const count = points.length;
    for (let i = 0; i < count; i += 2) {
      const j = i + 2 < count ? i + 2 : 0;
      if (j === 0 && !closed) break;
      const dx = points[j] - points[i];
      const dy = points[j + 1] - points[i + 1];
      const px = x - points[i];
      const py = y - points[i + 1];
      const square = dx * dx + dy * dy;
      const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
      least = Math.min(least, Math.hypot(px - t * dx, py - t * dy));
    }
  }
  return least;
}

/** The items that belong with an item: its outermost group's, else itself alone. */
export function companionsOf(drawing: Drawing, item: Item): Item[] {
  const home = topGroupOf(drawing, item);
  return home ? drawing.items.filter((other) => !other.hidden && topGroupOf(drawing, other) === home) : [item];
}
