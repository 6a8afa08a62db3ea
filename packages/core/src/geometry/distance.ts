import type { Polyline } from './flatten.ts';

/** How far a point is from the nearest of some lines, in mm; infinite when there are none. */
export function distanceToLines(lines: readonly Polyline[], x: number, y: number): number {
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
