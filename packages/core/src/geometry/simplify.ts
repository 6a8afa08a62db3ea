/**
 * Thins a run of points to those that matter: what is left strays no more than `tolerance` mm.
 * Ramer–Douglas–Peucker, with a stack in place of recursion; both ends stay.
 */
export function simplifyPolyline(points: Float64Array, tolerance: number): Float64Array {
  const count = points.length / 2;
  if (count < 3) return points;
  const keep = new Uint8Array(count);
  keep[0] = keep[count - 1] = 1;
  const stack: [number, number][] = [[0, count - 1]];
  for (let range = stack.pop(); range; range = stack.pop()) {
    const [first, last] = range;
    let farthest = -1;
    let most = tolerance;
    for (let i = first + 1; i < last; i++) {
      const distance = distanceToSegment(points, i, first, last);
      if (distance > most) {
        most = distance;
        farthest = i;
      }
    }
    if (farthest < 0) continue;
    keep[farthest] = 1;
    stack.push([first, farthest], [farthest, last]);
  }
  return points.filter((_, i) => keep[i >> 1]);
}

function distanceToSegment(points: Float64Array, i: number, from: number, to: number): number {
  const x0 = points[from * 2];
  const y0 = points[from * 2 + 1];
  const dx = points[to * 2] - x0;
  const dy = points[to * 2 + 1] - y0;
  const px = points[i * 2] - x0;
  const py = points[i * 2 + 1] - y0;
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
  return Math.hypot(px - t * dx, py - t * dy);
}
