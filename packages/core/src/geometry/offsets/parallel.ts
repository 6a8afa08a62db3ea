import { arcOfCubic } from '../paths/arc-of.ts';
import type { Point } from '../paths/matrix.ts';
import { isLine, lineSegment, pieceOf, pointAt, type Segment, velocityAt } from '../paths/segments.ts';
import { chordsOf } from '../questions/crossings.ts';

/*
 * Parallel curves. A point of a curve is moved by `distance` to the right of its direction, (dy, −dx). Below 0 it is moved to
 * the left. Where the curve bends to that side more tightly than the distance, the parallel curve folds back: it
 * has no place in an offset there, and is told apart.
 */

/** How far a fitted parallel curve strays from the true one, in mm. */
const fitTolerance = 0.004;
/** How often the handles of a fit are bettered. */
const fitRounds = 4;
/** How many times a piece is halved at most until a cubic fits it. */
const deepest = 12;
/** Between how many places of a curve a change of its fold is looked for. */
const samples = 24;
/** A cubic this near to an arc, in mm, is taken for one. */
const arcTolerance = 5e-5;

/** A piece of a segment: what lies parallel to it, or, where that folds back, chords of the piece itself. */
export type ParallelPiece =
  | { readonly folded: false; readonly segments: readonly Segment[] }
  | { readonly folded: true; readonly chords: readonly Segment[] };

/** The unit vector to the right of the direction at `t`. */
export function rightAt(s: Segment, t: number): Point {
  const { x, y } = velocityAt(s, t);
  const length = Math.sqrt(x * x + y * y);
  return { x: y / length, y: -x / length };
}

function speedAt(s: Segment, t: number): number {
  const { x, y } = velocityAt(s, t);
  return Math.hypot(x, y);
}

/** A segment in pieces that have a direction throughout: cut at a cusp, where it stands still and turns back. */
export function withoutCusps(s: Segment): readonly Segment[] {
  if (isLine(s) || neverTurnsBack(s)) return [s];
  let slowest = 1;
  let fastest = 0;
  for (let i = 1; i < samples; i++) {
    if (speedAt(s, i / samples) < speedAt(s, slowest / samples)) slowest = i;
    fastest = Math.max(fastest, speedAt(s, i / samples));
  }
  let [low, high] = [(slowest - 1) / samples, (slowest + 1) / samples];
  for (let k = 0; k < 60; k++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (speedAt(s, a) < speedAt(s, b)) high = b;
    else low = a;
  }
  const t = (low + high) / 2;
  const isInside = t > 1e-6 && t < 1 - 1e-6;
  return isInside && speedAt(s, t) < 1e-4 * fastest ? [pieceOf(s, 0, t), pieceOf(s, t, 1)] : [s];
}

/** Whether the legs of a curve's control points all go one way, within a right angle: so does the curve, and never stands still. */
function neverTurnsBack([x0, y0, x1, y1, x2, y2, x3, y3]: Segment): boolean {
  const [ax, ay, bx, by, cx, cy] = [x1 - x0, y1 - y0, x2 - x1, y2 - y1, x3 - x2, y3 - y2];
  return ax * bx + ay * by > 0 && bx * cx + by * cy > 0 && ax * cx + ay * cy > 0;
}

/**
 * Whether a curve bends so little that its parallel at `distance` cannot fold back. Its curvature is at most that of the
 * bounds of its first and second changes, by their control points (the hull of a Bézier curve).
 */
function neverFolds([x0, y0, x1, y1, x2, y2, x3, y3]: Segment, distance: number): boolean {
  const [ax, ay, bx, bY, cx, cy] = [x1 - x0, y1 - y0, x2 - x1, y2 - y1, x3 - x2, y3 - y2];
  const [ux, uy] = [x3 - x0, y3 - y0];
  const slowest = Math.min(ax * ux + ay * uy, bx * ux + bY * uy, cx * ux + cy * uy) / Math.hypot(ux, uy);
  if (!(slowest > 0)) return false;
  const turning = Math.max(Math.abs(ax * bY - ay * bx), Math.abs(ax * cy - ay * cx) / 2, Math.abs(bx * cy - bY * cx));
  // v × a is 18 times what turns, the speed 3 times the legs.
  return (Math.abs(distance) * 2 * turning) / (3 * slowest ** 3) < 0.99;
}

/** What lies parallel to a segment, piece by piece along it. */
export function parallelTo(s: Segment, distance: number): ParallelPiece[] {
  if (isLine(s)) {
    const { x, y } = rightAt(s, 0);
    return [
      {
        folded: false,
        segments: [lineSegment(s[0] + distance * x, s[1] + distance * y, s[6] + distance * x, s[7] + distance * y)],
      },
    ];
  }
  const arc = arcOfCubic(s, arcTolerance);
  if (arc) {
    // A span above 0 turns to the left, as this file counts: what lies to the right is further from the centre.
    const grown = arc.radius + (arc.span > 0 ? distance : -distance);
    return grown > 0
      ? [{ folded: false, segments: [scaledAbout(s, arc.cx, arc.cy, grown / arc.radius)] }]
      : [folded(s)];
  }
  return foldsOf(s, distance).map(({ from, to, folds }) => {
    if (folds) return folded(pieceOf(s, from, to));
    const segments: Segment[] = [];
    fit(s, distance, from, to, 0, segments);
    return { folded: false, segments };
  });
}

function scaledAbout(s: Segment, cx: number, cy: number, factor: number): Segment {
  return s.map((value, i) => {
    const centre = i % 2 === 0 ? cx : cy;
    return centre + (value - centre) * factor;
  }) as unknown as Segment;
}

function folded(s: Segment): ParallelPiece {
  const chords = chordsOf([s], fitTolerance).filter(({ x0, y0, x1, y1 }) => x0 !== x1 || y0 !== y1);
  return { folded: true, chords: chords.map(({ x0, y0, x1, y1 }) => lineSegment(x0, y0, x1, y1)) };
}

/** By how much the parallel curve goes on for each step of the curve; below 0 where it folds back. */
function progressAt(s: Segment, distance: number, t: number): number {
  const v = velocityAt(s, t);
  const speed = Math.sqrt(v.x * v.x + v.y * v.y);
  const ax = 6 * ((1 - t) * (s[4] - 2 * s[2] + s[0]) + t * (s[6] - 2 * s[4] + s[2]));
  const ay = 6 * ((1 - t) * (s[5] - 2 * s[3] + s[1]) + t * (s[7] - 2 * s[5] + s[3]));
  const curvature = (v.x * ay - v.y * ax) / (speed * speed * speed);
  return Number.isFinite(curvature) ? 1 + distance * curvature : 1;
}

function foldsOf(s: Segment, distance: number): { from: number; to: number; folds: boolean }[] {
  if (neverFolds(s, distance)) return [{ from: 0, to: 1, folds: false }];
  const isFolded = (t: number) => progressAt(s, distance, t) < 0;
  // Not at the ends themselves: a handle that lies on its end has no curvature there.
  const placeOf = (i: number) => Math.min(1 - 1e-6, Math.max(1e-6, i / samples));
  const out: { from: number; to: number; folds: boolean }[] = [];
  let from = 0;
  let folds = isFolded(placeOf(0));
  for (let i = 1; i <= samples; i++) {
    const now = isFolded(placeOf(i));
    if (now === folds) continue;
    let [low, high] = [placeOf(i - 1), placeOf(i)];
    for (let k = 0; k < 40; k++) {
      const middle = (low + high) / 2;
      if (isFolded(middle) === folds) low = middle;
      else high = middle;
    }
    if (high - from > 1e-9) out.push({ from, to: high, folds });
    from = high;
    folds = now;
  }
  out.push({ from, to: 1, folds });
  return out;
}

/** Fits cubics to the parallel of a segment from one parameter to another, and adds them. */
function fit(s: Segment, distance: number, from: number, to: number, depth: number, out: Segment[]): void {
  const fitted = bestFit(s, distance, from, to);
  if (fitted || depth >= deepest) {
    const [a, b] = [offsetAt(s, distance, from), offsetAt(s, distance, to)];
    out.push(fitted ?? lineSegment(a.x, a.y, b.x, b.y));
    return;
  }
  const middle = (from + to) / 2;
  fit(s, distance, from, middle, depth + 1, out);
  fit(s, distance, middle, to, depth + 1, out);
}

function offsetAt(s: Segment, distance: number, t: number): Point {
  const [p, n] = [pointAt(s, t), rightAt(s, t)];
  return { x: p.x + distance * n.x, y: p.y + distance * n.y };
}

/** The cubic with the right ends and directions that is near enough; null when none is. */
function bestFit(s: Segment, distance: number, from: number, to: number): Segment | null {
  const [a, b] = [offsetAt(s, distance, from), offsetAt(s, distance, to)];
  const [na, nb] = [rightAt(s, from), rightAt(s, to)];
  // The direction there: to the left of what is right of it.
  const [ta, tb] = [
    { x: -na.y, y: na.x },
    { x: -nb.y, y: nb.x },
  ];
  const withHandles = (ha: number, hb: number): Segment => [
    a.x,
    a.y,
    a.x + ha * ta.x,
    a.y + ha * ta.y,
    b.x - hb * tb.x,
    b.y - hb * tb.y,
    b.x,
    b.y,
  ];
  const third = (to - from) / 3;
  const handle = (t: number) => Math.max(0, third * speedAt(s, t) * progressAt(s, distance, t));
  let [ha, hb] = [handle(from), handle(to)];
  for (let round = 0; round <= fitRounds; round++) {
    const guess = withHandles(ha, hb);
    const misses = missesOf(guess, s, distance, from, to);
    if (misses.every(({ miss }) => Math.abs(miss) <= fitTolerance)) return guess;
    // The handles' lengths that bring all the misses down most: least squares, linear around these lengths.
    let [aa, ab, bb, am, bm] = [0, 0, 0, 0, 0];
    for (const { u, miss, n } of misses) {
      const da = 3 * u * (1 - u) ** 2 * (ta.x * n.x + ta.y * n.y);
      const db = -3 * u * u * (1 - u) * (tb.x * n.x + tb.y * n.y);
      aa += da * da;
      ab += da * db;
      bb += db * db;
      am += da * miss;
      bm += db * miss;
    }
    const det = aa * bb - ab * ab;
    if (!(det > 1e-12 * (aa + bb) ** 2)) return null;
    ha -= (bb * am - ab * bm) / det;
    hb -= (aa * bm - ab * am) / det;
    if (!(ha >= 0 && hb >= 0)) return null;
  }
  return null;
}

/** How far beyond the parallel of a segment's piece a curve is, in mm, at places between its ends. */
function missesOf(guess: Segment, s: Segment, distance: number, from: number, to: number) {
  // The segment as a polynomial: this is where the time goes.
  const [x0, y0, x1, y1, x2, y2, x3, y3] = s;
  const [cx, cy] = [3 * (x1 - x0), 3 * (y1 - y0)];
  const [bx, bY] = [3 * (x2 - 2 * x1 + x0), 3 * (y2 - 2 * y1 + y0)];
  const [ax, ay] = [x3 - x0 - cx - bx, y3 - y0 - cy - bY];
  const out: { u: number; miss: number; n: Point }[] = [];
  for (let i = 1; i < 10; i++) {
    const u = i / 10;
    const p = pointAt(guess, u);
    let t = from + u * (to - from);
    // The place of the segment that the point is square to, by Newton's method.
    for (let k = 0; k < 4; k++) {
      const dx = p.x - (((ax * t + bx) * t + cx) * t + x0);
      const dy = p.y - (((ay * t + bY) * t + cy) * t + y0);
      const [vx, vy] = [(3 * ax * t + 2 * bx) * t + cx, (3 * ay * t + 2 * bY) * t + cy];
      const speed = Math.sqrt(vx * vx + vy * vy);
      const along = (dx * vx + dy * vy) / speed;
      const reach = (dx * vy - dy * vx) / speed;
      const curvature = (vx * (6 * ay * t + 2 * bY) - vy * (6 * ax * t + 2 * bx)) / (speed * speed * speed);
      const rate = speed * (1 + reach * curvature);
      if (!(rate > 1e-9)) break;
      t = Math.min(to, Math.max(from, t + along / rate));
      if (Math.abs(along) < 1e-7) break;
    }
    const [c, n] = [pointAt(s, t), rightAt(s, t)];
    out.push({ u, miss: (p.x - c.x) * n.x + (p.y - c.y) * n.y - distance, n });
  }
  return out;
}
