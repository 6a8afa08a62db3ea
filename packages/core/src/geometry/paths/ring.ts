/** Edges shorter than this, in mm, are looked at for steps aside, which are passed over below so many mm. */
const shortEdge = 0.03;
const leastStep = 0.003;

/** A closed line of straight edges, measured once. */
export interface Ring {
  readonly count: number;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** Directions of the edges, each from its point to the next, and how far along the ring it starts. */
  readonly dx: Float64Array;
  readonly dy: Float64Array;
  readonly along: Float64Array;
  /** How long the edges are. */
  readonly sizes: Float64Array;
  readonly length: number;
  readonly area: number;
}

/**
 * Measures a closed line; null where it has no extent.
 * @param points x and y one after the other, the first not repeated
 */
export function ringOf(points: Float64Array): Ring | null {
  const xs = new Float64Array(points.length / 2);
  const ys = new Float64Array(points.length / 2);
  let count = 0;
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i];
    const y = points[i + 1];
    if (count > 0) {
      const near = Math.abs(x - xs[count - 1]) + Math.abs(y - ys[count - 1]);
      if (near < (count === 1 ? leastStep : 1e-9)) continue;
      // A step aside that is smaller than matters would fold a way beside it for nothing: its first point goes.
      if (count > 1 && near < shortEdge && stepAside(xs, ys, count, x, y) < leastStep) count--;
    }
    xs[count] = x;
    ys[count] = y;
    count++;
  }
  while (count > 3 && Math.abs(xs[0] - xs[count - 1]) + Math.abs(ys[0] - ys[count - 1]) < leastStep) count--;
  if (count < 3) return null;
  const dx = new Float64Array(count);
  const dy = new Float64Array(count);
  const along = new Float64Array(count);
  const sizes = new Float64Array(count);
  let length = 0;
  let twice = 0;
  for (let i = 0; i < count; i++) {
    const j = i + 1 < count ? i + 1 : 0;
    const ex = xs[j] - xs[i];
    const ey = ys[j] - ys[i];
    const size = Math.sqrt(ex * ex + ey * ey);
    if (size === 0) return null;
    dx[i] = ex / size;
    dy[i] = ey / size;
    along[i] = length;
    sizes[i] = size;
    length += size;
    twice += xs[i] * ys[j] - xs[j] * ys[i];
  }
  if (Math.abs(twice) < 1e-9) return null;
  return { count, xs, ys, dx, dy, along, sizes, length, area: twice / 2 };
}

/** How far the last of some points is from the line between the one before it and a point. */
function stepAside(xs: Float64Array, ys: Float64Array, count: number, x: number, y: number): number {
  const fromX = xs[count - 2];
  const fromY = ys[count - 2];
  const ux = x - fromX;
  const uy = y - fromY;
  return Math.abs((xs[count - 1] - fromX) * uy - (ys[count - 1] - fromY) * ux) / Math.sqrt(ux * ux + uy * uy);
}

/** How far a point is from an edge of a ring, in mm. */
export function edgeDistance(
  { xs, ys, dx, dy, sizes }: Ring,
  i: number,
  x: number,
  y: number,
  from = 0,
  to = sizes[i],
): number {
  const px = x - xs[i];
  const py = y - ys[i];
  const t = Math.max(from, Math.min(to, px * dx[i] + py * dy[i]));
  const qx = px - t * dx[i];
  const qy = py - t * dy[i];
  return Math.sqrt(qx * qx + qy * qy);
}

/** Where two straight lines meet, each by its ends; null where they do not. */
export function meetingOf(
  ax: number,
  ay: number,
  bx: number,
  distance: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): { x: number; y: number } | null {
  const [ux, uy, vx, vy] = [bx - ax, distance - ay, dx - cx, dy - cy];
  const cross = ux * vy - uy * vx;
  if (Math.abs(cross) < 1e-15) return null;
  const s = ((cx - ax) * vy - (cy - ay) * vx) / cross;
  const t = ((cx - ax) * uy - (cy - ay) * ux) / cross;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? { x: ax + s * ux, y: ay + s * uy } : null;
}
