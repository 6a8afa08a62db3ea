import type { Polyline } from '../paths/flatten.ts';

/** How wide an outline is where it is narrowest, turned any way, and where it is widest; in mm. */
export interface Widths {
  readonly least: number;
  readonly most: number;
}

/**
 * The width of an outline, turned any way: the least is found at an edge of its convex hull (Toussaint, "Solving
 * geometric problems with the rotating calipers", 1983), the most between two of its corners.
 */
export function widthsOf({ points }: Polyline): Widths {
  const hull = convexHull(points);
  let [least, most] = [hull.length < 3 ? 0 : Number.POSITIVE_INFINITY, 0];
  for (let i = 0; i < hull.length; i++) {
    const [x, y] = hull[i];
    const [nx, ny] = hull[(i + 1) % hull.length];
    const [dx, dy] = [nx - x, ny - y];
    const length = Math.hypot(dx, dy);
    let [across, far] = [0, 0];
    for (const [px, py] of hull) {
      across = Math.max(across, Math.abs(dx * (py - y) - dy * (px - x)));
      far = Math.max(far, (px - x) ** 2 + (py - y) ** 2);
    }
    if (length > 0) least = Math.min(least, across / length);
    most = Math.max(most, Math.sqrt(far));
  }
  return { least, most };
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
