import type { Polyline } from '../paths/flatten.ts';

/** The point of a line nearest to another: where, how far from it in mm, and on the segment from which of its points on. */
export interface Near {
  readonly x: number;
  readonly y: number;
  readonly distance: number;
  readonly i: number;
}

/** The point of a line nearest to (x, y). */
export function nearestOnLine({ points, closed }: Polyline, x: number, y: number): Near {
  let least = Infinity;
  let [nearX, nearY, nearI] = [points[0], points[1], 0];
  const count = points.length;
  for (let i = 0; i < count; i += 2) {
    const j = i + 2 < count ? i + 2 : 0;
    if (j === 0 && !closed && i > 0) break;
    const dx = points[j] - points[i];
    const dy = points[j + 1] - points[i + 1];
    const px = x - points[i];
    const py = y - points[i + 1];
    const square = dx * dx + dy * dy;
    const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
    const distance = Math.hypot(px - t * dx, py - t * dy);
    if (distance >= least) continue;
    least = distance;
    nearX = points[i] + t * dx;
    nearY = points[i + 1] + t * dy;
    nearI = i / 2;
  }
  return { x: nearX, y: nearY, distance: least, i: nearI };
}

/** How far a point is from the nearest of some lines, in mm; infinite when there are none. */
export function distanceToLines(lines: readonly Polyline[], x: number, y: number): number {
  return lines.reduce((least, line) => Math.min(least, nearestOnLine(line, x, y).distance), Infinity);
}
