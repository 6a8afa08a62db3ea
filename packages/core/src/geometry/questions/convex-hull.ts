/**
 * The corners of the convex hull of points, by Andrew's monotone chain (1979): the leftmost first, none twice, one that
 * lies on an edge left out.
 *
 * @param points x and y in turn
 */
export function convexHull(points: ArrayLike<number>): [number, number][] {
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
