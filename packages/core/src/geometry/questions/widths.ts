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
  hull.forEach(([x, y], i) => {
    const [nx, ny] = hull[(i + 1) % hull.length];
    const [dx, dy] = [nx - x, ny - y];
    const length = Math.hypot(dx, dy);
    const across = hull.reduce((far, [px, py]) => Math.max(far, Math.abs(dx * (py - y) - dy * (px - x)) / length), 0);
    if (length > 0) least = Math.min(least, across);
    most = hull.reduce((far, [px, py]) => Math.max(far, Math.hypot(px - x, py - y)), most);
  });
  return { least, most };
}

/** The convex hull of points, by Andrew's monotone chain (1979). */
function convexHull(points: Float64Array): [number, number][] {
  const sorted = Array.from({ length: points.length / 2 }, (_, i): [number, number] => [
    points[2 * i],
    points[2 * i + 1],
  ]);
  sorted.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: [number, number][]) => {
    const chain: [number, number][] = [];
    for (const [x, y] of from) {
      while (chain.length > 1) {
        const [[ax, ay], [bx, by]] = chain.slice(-2);
        if ((bx - ax) * (y - ay) - (by - ay) * (x - ax) > 0) break;
        chain.pop();
      }
      chain.push([x, y]);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}
