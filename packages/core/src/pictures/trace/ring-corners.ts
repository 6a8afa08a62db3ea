/** Directions are taken over so many pixels of a contour. */
const windowPx = 4;
/** As near as this to a corner, in pixels, a contour is rounded by its pixels. */
const roundedPx = 1.2;
/** The longest stretch beside a corner that its sides are taken from, in pixels. */
const longestSide = 16;

/** Where a contour turns sharply: by which of its points, and where its sides meet. */
export interface Corner {
  readonly index: number;
  readonly x: number;
  readonly y: number;
}

/** A closed contour, with how far along it each point lies. */
export class Ring {
  readonly count: number;
  readonly length: number;
  private readonly along: Float64Array;

  constructor(readonly points: Float64Array) {
    this.count = points.length / 2;
    this.along = new Float64Array(this.count + 1);
    for (let i = 0; i < this.count; i++) {
      const next = (i + 1) % this.count;
      const step = Math.hypot(this.x(next) - this.x(i), this.y(next) - this.y(i));
      this.along[i + 1] = this.along[i] + step;
    }
    this.length = this.along[this.count];
  }

  x(i: number): number {
    return this.points[2 * (((i % this.count) + this.count) % this.count)];
  }

  y(i: number): number {
    return this.points[2 * (((i % this.count) + this.count) % this.count) + 1];
  }

  /** How far along the ring a point lies; of points beyond the last, once more around. */
  place(i: number): number {
    const rounds = Math.floor(i / this.count);
    return this.along[i - rounds * this.count] + rounds * this.length;
  }

  /** The furthest point from one, in steps of +1 or −1, that lies no further along than a distance. */
  within(i: number, step: 1 | -1, distance: number): number {
    const from = this.place(i);
    let k = i;
    while (Math.abs(k + step - i) < this.count && Math.abs(this.place(k + step) - from) <= distance) k += step;
    return k;
  }

  /** The direction of the ring at a point, as a unit. */
  tangent(i: number): [number, number] {
    const [a, b] = [this.within(i, -1, windowPx * 0.75), this.within(i, 1, windowPx * 0.75)];
    return unit(this.x(b) - this.x(a), this.y(b) - this.y(a));
  }

  /** The whole ring, from its first point to that again. */
  smoothRun(): Float64Array {
    const run = new Float64Array(2 * this.count + 2);
    run.set(this.points);
    run[2 * this.count] = this.points[0];
    run[2 * this.count + 1] = this.points[1];
    return run;
  }

  /** The points from one corner to the next, without those that pixels have rounded. */
  run(from: Corner, to: Corner): Float64Array {
    const end = to.index > from.index ? to.index : to.index + this.count;
    const [first, last] = [this.place(from.index) + roundedPx, this.place(end) - roundedPx];
    const points = [from.x, from.y];
    for (let i = from.index + 1; i < end; i++) {
      if (this.place(i) >= first && this.place(i) <= last) points.push(this.x(i), this.y(i));
    }
    points.push(to.x, to.y);
    return Float64Array.from(points);
  }
}

/** A direction as a vector of length 1. */
export function unit(dx: number, dy: number): [number, number] {
  const length = Math.hypot(dx, dy) || 1;
  return [dx / length, dy / length];
}

/** Where a contour turns sharply: more than a curve would that turns on. */
export function cornersOf(ring: Ring, least: number): Corner[] {
  const near = Math.min(windowPx, ring.length / 6);
  const turns = Float64Array.from({ length: ring.count }, (_, i) => turnAt(ring, i, near));
  const found: number[] = [];
  for (let i = 0; i < ring.count; i++) {
    if (Math.abs(turns[i]) < least) continue;
    const [from, to] = [ring.within(i, -1, near), ring.within(i, 1, near)];
    let isPeak = true;
    for (let k = from; k <= to && isPeak; k++) {
      const other = Math.abs(turns[((k % ring.count) + ring.count) % ring.count]);
      if (other > Math.abs(turns[i]) || (other === Math.abs(turns[i]) && k < i)) isPeak = false;
    }
    if (!isPeak) continue;
    // A tight curve turns on beyond; a corner does not.
    const wider = Math.abs(turnAt(ring, i, 2 * near));
    if (Math.abs(turns[i]) < 0.7 * wider) continue;
    found.push(i);
  }
  return found.map((i) => cornerAt(ring, i));
}

/** By how much a contour turns at a point, in radians, between its directions before and after. */
function turnAt(ring: Ring, i: number, reach: number): number {
  const skip = Math.min(roundedPx * 0.6, reach / 4);
  const [a, b] = [ring.within(i, -1, reach), ring.within(i, -1, skip)];
  const [c, d] = [ring.within(i, 1, skip), ring.within(i, 1, reach)];
  const [ux, uy] = [ring.x(b) - ring.x(a), ring.y(b) - ring.y(a)];
  const [vx, vy] = [ring.x(d) - ring.x(c), ring.y(d) - ring.y(c)];
  return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
}

/** The corner where the sides beside a point meet. */
function cornerAt(ring: Ring, i: number): Corner {
  const [x, y] = [ring.x(i), ring.y(i)];
  const before = sideOf(ring, i, -1);
  const after = sideOf(ring, i, 1);
  if (!before || !after) return { index: i, x, y };
  const cross = before.dx * after.dy - before.dy * after.dx;
  if (Math.abs(cross) < 0.1) return { index: i, x, y };
  const t = ((after.x - before.x) * after.dy - (after.y - before.y) * after.dx) / cross;
  const [cx, cy] = [before.x + t * before.dx, before.y + t * before.dy];
  return Math.hypot(cx - x, cy - y) < 2.5 ? { index: i, x: cx, y: cy } : { index: i, x, y };
}

/** The straight line beside a corner, on one side: the longest stretch that keeps to one. */
function sideOf(ring: Ring, i: number, step: 1 | -1) {
  let best: { x: number; y: number; dx: number; dy: number } | null = null;
  const first = ring.within(i, step, roundedPx) + step;
  for (let reach = windowPx; reach <= longestSide; reach *= 2) {
    const last = ring.within(i, step, Math.min(reach, ring.length / 4));
    const side = lineThrough(ring, Math.min(first, last), Math.max(first, last));
    if (!side || (best && side.off > 0.12)) break;
    best = side;
  }
  return best;
}

/** The line nearest to some points of a ring, by total least squares, and how far they lie off it on average. */
function lineThrough(ring: Ring, from: number, to: number) {
  const count = to - from + 1;
  if (count < 2) return null;
  let [x, y] = [0, 0];
  for (let i = from; i <= to; i++) {
    x += ring.x(i) / count;
    y += ring.y(i) / count;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (let i = from; i <= to; i++) {
    const [dx, dy] = [ring.x(i) - x, ring.y(i) - y];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  const off = Math.sqrt(Math.max(0, xx * dy * dy - 2 * xy * dx * dy + yy * dx * dx) / count);
  return { x, y, dx, dy, off };
}
