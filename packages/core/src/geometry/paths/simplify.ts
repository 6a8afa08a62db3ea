/** Runs of more points than this are parted near their middle. */
const longRun = 200;

/**
 * Thins a run of points to those that matter: what is left strays no more than `tolerance` mm.
 * Ramer–Douglas–Peucker, with a stack in place of recursion; both ends stay. A long run is parted at the point nearest
 * to its middle that strays further, not at the farthest: a comb would else take the square of its points.
 */
export function simplifyPolyline(points: Float64Array, tolerance: number): Float64Array {
  const count = points.length / 2;
  if (count < 3) return points;
  const keep = new Uint8Array(count);
  keep[0] = keep[count - 1] = 1;
  const stack: [number, number][] = [[0, count - 1]];
  for (let range = stack.pop(); range; range = stack.pop()) {
    const [first, last] = range;
    const split =
      last - first > longRun
        ? middleSplit(points, first, last, tolerance)
        : farthestSplit(points, first, last, tolerance);
    if (split === null) continue;
    keep[split] = 1;
    stack.push([first, split], [split, last]);
  }
  return points.filter((_, i) => keep[i >> 1]);
}

/** The point between two that is farthest from the line from one to the other; null where none strays beyond `tolerance`. */
function farthestSplit(points: Float64Array, first: number, last: number, tolerance: number): number | null {
  let farthest: number | null = null;
  let most = tolerance * tolerance;
  for (let i = first + 1; i < last; i++) {
    const square = squareToSegment(points, i, first, last);
    if (square > most) {
      most = square;
      farthest = i;
    }
  }
  return farthest;
}

/** The point nearest to the middle of two that strays beyond `tolerance` from the line between them; null where none does. */
function middleSplit(points: Float64Array, first: number, last: number, tolerance: number): number | null {
  const middle = (first + last) >> 1;
  for (let off = 0; off <= last - middle; off++) {
    for (const i of [middle - off, middle + off]) {
      if (i > first && i < last && squareToSegment(points, i, first, last) > tolerance * tolerance) return i;
    }
  }
  return null;
}

function squareToSegment(points: Float64Array, i: number, from: number, to: number): number {
  const x0 = points[from * 2];
  const y0 = points[from * 2 + 1];
  const dx = points[to * 2] - x0;
  const dy = points[to * 2 + 1] - y0;
  const px = points[i * 2] - x0;
  const py = points[i * 2 + 1] - y0;
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
  const ox = px - t * dx;
  const oy = py - t * dy;
  return ox * ox + oy * oy;
}
