import { type Box, boxContains, boxesMeet, boxOf, growBox } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';

/**
 * Where in a room something of a size can be put clear of what is there by `gap` mm: the place nearest to the top,
 * then to the left, beside what is there or at the room's edges; null where there is none.
 */
export function freePlace(room: Box, width: number, height: number, taken: readonly Box[], gap: number): Point | null {
  const near = taken.map((box) => growBox(box, gap)).filter((box) => boxesMeet(box, room));
  const xs = [room.minX, ...near.map(({ maxX }) => maxX + 1e-6)].sort((a, b) => a - b);
  const ys = [room.minY, ...near.map(({ maxY }) => maxY + 1e-6)].sort((a, b) => a - b);
  for (const y of ys) {
    for (const x of xs) {
      const box = boxOf(x, y, width, height);
      if (boxContains(room, box, 1e-6) && !near.some((other) => boxesMeet(other, box))) return { x, y };
    }
  }
  return null;
}
