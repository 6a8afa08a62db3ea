import type { PathBuilder } from '../../geometry/paths/path.ts';
import { type FittedCubic, fitCubic } from './fit-cubic.ts';
import { cornersOf, Ring, unit } from './ring-corners.ts';

export interface RingFit {
  /** How far an outline may stray from its contour, in pixels. */
  readonly tolerance: number;
  /** A turn of at least so many degrees is a corner. */
  readonly cornerDegrees: number;
}

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
