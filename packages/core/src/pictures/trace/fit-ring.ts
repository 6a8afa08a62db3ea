import type { PathBuilder } from '../../geometry/paths/path.ts';
import { type FittedCubic, fitCubic } from './fit-cubic.ts';

export interface RingFit {
  /** How far an outline may stray from its contour, in pixels. */
  readonly tolerance: number;
  /** A turn of at least so many degrees is a corner. */
  readonly cornerDegrees: number;
}

/** Directions are taken over so many pixels of a contour. */
const windowPx = 4;
/** As near as this to a corner, in pixels, a contour is rounded by its pixels. */
const roundedPx = 1.2;
/** The longest stretch beside a corner that its sides are taken from, in pixels. */
const longestSide = 16;

/** Adds a closed contour to a path, as lines and as few cubics as keep to it. @returns how many nodes it has */
export function addFittedRing(builder: PathBuilder, ring: Float64Array, { tolerance, cornerDegrees }: RingFit): number {
  const line = new Ring(ring);
  if (line.count < 3) return 0;
  const corners = cornersOf(line, (cornerDegrees * Math.PI) / 180);
  const start = corners[0] ?? { index: 0, x: line.x(0), y: line.y(0) };
  builder.moveTo(start.x, start.y);
  let nodes = 0;
  if (corners.length === 0) nodes += addRun(builder, line.smoothRun(), tolerance, line.tangent(0));
  for (const [i, corner] of corners.entries()) {
    nodes += addRun(builder, line.run(corner, corners[(i + 1) % corners.length]), tolerance, null);
  }
  builder.close();
  return nodes;
}

/** Adds an open line to a path, as lines and as few cubics as keep to it. @returns how many nodes it has */
export function addFittedLine(builder: PathBuilder, points: Float64Array, { tolerance }: RingFit): number {
  if (points.length < 4) return 0;
  builder.moveTo(points[0], points[1]);
  return 1 + addRun(builder, points, tolerance, null);
}

/** Adds an open line with corners of its own to a path, as lines and cubics. @returns how many nodes it has */
export function addFittedArc(
  builder: PathBuilder,
  points: Float64Array,
  { tolerance, cornerDegrees }: RingFit,
): number {
  const count = points.length / 2;
  if (count < 2) return 0;
  // Gone there and back it is a ring, with a turn at each end.
  const there = new Ring(thereAndBack(points));
  const corners = cornersOf(there, (cornerDegrees * Math.PI) / 180).filter(
    ({ index }) => index > 0 && index < count - 1,
  );
  const ends = [0, count - 1].map((index) => ({ index, x: there.x(index), y: there.y(index) }));
  const isLoop = Math.hypot(ends[1].x - ends[0].x, ends[1].y - ends[0].y) < 1e-9;
  // One line cannot go around.
  const half = Math.floor((count - 1) / 2);
  const between = corners.length > 0 || !isLoop ? corners : [{ index: half, x: there.x(half), y: there.y(half) }];
  const stops = [ends[0], ...between, ends[1]];
  builder.moveTo(stops[0].x, stops[0].y);
  let nodes = 1;
  for (let i = 1; i < stops.length; i++) nodes += addRun(builder, there.run(stops[i - 1], stops[i]), tolerance, null);
  return nodes;
}

function thereAndBack(points: Float64Array): Float64Array {
  const count = points.length / 2;
  const out = new Float64Array(4 * (count - 1));
  out.set(points);
  for (let i = 1; i < count - 1; i++) {
    out[2 * (count - 1 + i)] = points[2 * (count - 1 - i)];
    out[2 * (count - 1 + i) + 1] = points[2 * (count - 1 - i) + 1];
  }
  return out;
}

interface Corner {
  readonly index: number;
  readonly x: number;
  readonly y: number;
}

/** A closed contour, with how far along it each point lies. */
class Ring {
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

function unit(dx: number, dy: number): [number, number] {
  const length = Math.hypot(dx, dy) || 1;
  return [dx / length, dy / length];
}

/** Where a contour turns sharply: more than a curve would that turns on. */
function cornersOf(ring: Ring, least: number): Corner[] {
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

/**
 * Adds a run of points that has no corner within: a line, or cubics, each as long as it keeps to them.
 * @param tangent the direction at both ends of a run that closes smoothly; null where its ends are corners
 * @returns how many nodes were added
 */
function addRun(
  builder: PathBuilder,
  run: Float64Array,
  tolerance: number,
  tangent: readonly [number, number] | null,
): number {
  const last = run.length / 2 - 1;
  let from = 0;
  let out = tangent;
  let nodes = 0;
  while (from < last) {
    nodes++;
    if ((!tangent || from > 0) && isStraight(run, from, last, tolerance)) {
      builder.lineTo(run[2 * last], run[2 * last + 1]);
      return nodes;
    }
    const start = out ?? directionFrom(run, from, 1, last);
    const fitTo = (end: number) => {
      const into = end < last ? tangentIn(run, end) : (tangent ?? opposite(directionFrom(run, last, -1, from)));
      return fitCubic(run.subarray(2 * from, 2 * end + 2), start, opposite(into));
    };
    // A run that closes is at least two cubics.
    const furthest = tangent && from === 0 ? last - 1 : last;
    const { end: good, fitted } = longest(from, furthest, tolerance, fitTo);
    const [, , x1, y1, x2, y2, x3, y3] = fitted.cubic;
    builder.cubicTo(x1, y1, x2, y2, x3, y3);
    out = good < last ? tangentIn(run, good) : null;
    from = good;
  }
  return nodes;
}

/** So many points are tried first. */
const firstSpan = 12;

/** How far one cubic goes: twice as far as long as it keeps to the points, then halving between. */
function longest(from: number, last: number, tolerance: number, fitTo: (end: number) => FittedCubic) {
  let [good, bad] = [from + 1, last + 1];
  let fitted = fitTo(good);
  for (let span = firstSpan; good < last && bad - good > 1; span *= 2) {
    const end = bad <= last ? Math.floor((good + bad) / 2) : Math.min(last, from + span);
    const attempt = fitTo(end);
    if (attempt.error <= tolerance) [good, fitted] = [end, attempt];
    else bad = end;
  }
  return { end: good, fitted };
}

const opposite = ([x, y]: readonly [number, number]): [number, number] => [-x, -y];

function isStraight(run: Float64Array, from: number, to: number, tolerance: number): boolean {
  const [ax, ay, bx, by] = [run[2 * from], run[2 * from + 1], run[2 * to], run[2 * to + 1]];
  const [dx, dy] = unit(bx - ax, by - ay);
  for (let i = from + 1; i < to; i++) {
    if (Math.abs((run[2 * i] - ax) * dy - (run[2 * i + 1] - ay) * dx) > tolerance) return false;
  }
  return true;
}

/** The direction of a run at a point within it, as a unit. */
function tangentIn(run: Float64Array, i: number): [number, number] {
  const last = run.length / 2 - 1;
  const [a, b] = [Math.max(0, i - 4), Math.min(last, i + 4)];
  return unit(run[2 * b] - run[2 * a], run[2 * b + 1] - run[2 * a + 1]);
}

/** The direction in which a run leaves its end, as a unit. */
function directionFrom(run: Float64Array, i: number, step: 1 | -1, end: number): [number, number] {
  const k = step > 0 ? Math.min(end, i + 4) : Math.max(end, i - 4);
  return unit(run[2 * k] - run[2 * i], run[2 * k + 1] - run[2 * i + 1]);
}
