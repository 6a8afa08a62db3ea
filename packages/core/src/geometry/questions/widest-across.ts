import type { Polyline } from '../paths/flatten.ts';

/** How far an outline is across where it is widest, in mm: what lies furthest apart are two corners of its convex hull. */
export function widestAcross({ points }: Polyline): number {
  const hull = convexHull(points);
  let most = 0;
  for (const [x, y] of hull) for (const [px, py] of hull) most = Math.max(most, (px - x) ** 2 + (py - y) ** 2);
  return Math.sqrt(most);
}

/** The convex hull of points, by Andrew's monotone chain (1979). */
function convexHull(points: Float64Array): [number, number][] {
  const sorted = Array.from({ length: points.length / 2 }, (_, i): [number, number] => [
    points[2 * i],
    points[2 * i + 1],
  ]);
  sorted.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: readonly [number, number][]) => {
    const chain: [number, number][] = [];
    for (const point of from) {
      while (chain.length > 1 && !turnsOn(chain[chain.length - 2], chain[chain.length - 1], point)) chain.pop();
      chain.push(point);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

function turnsOn([ax, ay]: [number, number], [bx, by]: [number, number], [x, y]: [number, number]): boolean {
  return (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 0;
}
