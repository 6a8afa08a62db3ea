import { type Box, boxesMeet } from '../paths/box.ts';
import type { Polyline } from '../paths/flatten.ts';

/** Whether a segment of a line, closed or taken so, has bounds that meet a box. */
export function lineMeetsBox({ points }: Polyline, place: Box): boolean {
  const last = points.length - 2;
  let [x, y] = [points[last], points[last + 1]];
  for (let i = 0; i < points.length; i += 2) {
    const [px, py] = [x, y];
    [x, y] = [points[i], points[i + 1]];
    const box = { minX: Math.min(x, px), minY: Math.min(y, py), maxX: Math.max(x, px), maxY: Math.max(y, py) };
    if (boxesMeet(box, place)) return true;
  }
  return false;
}
