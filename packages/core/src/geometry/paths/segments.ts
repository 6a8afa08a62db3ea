import type { Point } from './matrix.ts';
import { coordsOf, cubicAt, type Path, PathBuilder, Verb } from './path.ts';

/** One segment of a path, a line or a cubic, by its four control points; a line's handles lie on its ends. */
export type Segment = readonly [
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
];

/** The segments of one subpath; a closed one's last edge is among them. Segments without extent are left out. */
export interface Subpath {
  readonly segments: readonly Segment[];
  readonly closed: boolean;
}

/** The subpaths of a path, each as cubic segments; segments of no length are left out. */
export function* subpathsOf({ verbs, coords }: Path): Generator<Subpath> {
  let segments: Segment[] = [];
  let index = 0;
  let [x, y, startX, startY] = [0, 0, 0, 0];
  const line = (toX: number, toY: number) => {
    if (x !== toX || y !== toY) segments.push([x, y, x, y, toX, toY, toX, toY]);
  };
  for (const verb of verbs) {
    if (verb === Verb.move) {
      if (segments.length > 0) yield { segments, closed: false };
      segments = [];
      [startX, startY] = [coords[index], coords[index + 1]];
    } else if (verb === Verb.line) {
      line(coords[index], coords[index + 1]);
    } else if (verb === Verb.cubic) {
      const c = coords;
      segments.push([x, y, c[index], c[index + 1], c[index + 2], c[index + 3], c[index + 4], c[index + 5]]);
    } else {
      line(startX, startY);
      if (segments.length > 0) yield { segments, closed: true };
      segments = [];
      [x, y] = [startX, startY];
    }
    index += coordsOf[verb];
    if (verb !== Verb.close) [x, y] = [coords[index - 2], coords[index - 1]];
  }
  if (segments.length > 0) yield { segments, closed: false };
}

/** Whether a segment is a straight line. */
export function isLine([x0, y0, x1, y1, x2, y2, x3, y3]: Segment): boolean {
  return x0 === x1 && y0 === y1 && x2 === x3 && y2 === y3;
}

/** The path that subpaths make. */
export function pathOfSubpaths(subpaths: Iterable<Subpath>): Path {
  const builder = new PathBuilder();
  for (const { segments, closed } of subpaths) {
    if (segments.length === 0) continue;
    builder.moveTo(segments[0][0], segments[0][1]);
    segments.forEach((segment, i) => {
      // The last edge of a closed subpath is its closing, if it is straight.
      if (closed && i === segments.length - 1 && isLine(segment)) return;
      addSegment(builder, segment);
    });
    if (closed) builder.close();
  }
  return builder.build();
}

/** Adds a segment from where the builder stands. */
export function addSegment(builder: PathBuilder, segment: Segment): void {
  const [, , x1, y1, x2, y2, x3, y3] = segment;
  if (isLine(segment)) builder.lineTo(x3, y3);
  else builder.cubicTo(x1, y1, x2, y2, x3, y3);
}

/** A straight segment as a cubic one, its handles on its ends. */
export function lineSegment(x0: number, y0: number, x1: number, y1: number): Segment {
  return [x0, y0, x0, y0, x1, y1, x1, y1];
}

/** The point at `t`, from 0 to 1. A line's handles lie on its ends, so it is measured as a line. */
export function pointAt(s: Segment, t: number): Point {
  if (t === 0) return { x: s[0], y: s[1] };
  if (t === 1) return { x: s[6], y: s[7] };
  if (isLine(s)) return { x: s[0] + (s[6] - s[0]) * t, y: s[1] + (s[7] - s[1]) * t };
  return { x: cubicAt(s[0], s[2], s[4], s[6], t), y: cubicAt(s[1], s[3], s[5], s[7], t) };
}

/** The change of place with `t`; never without a direction, but for a segment without extent. */
export function velocityAt(s: Segment, t: number): Point {
  if (isLine(s)) return { x: s[6] - s[0], y: s[7] - s[1] };
  const u = 1 - t;
  const [a, b, c] = [3 * u * u, 6 * u * t, 3 * t * t];
  const x = a * (s[2] - s[0]) + b * (s[4] - s[2]) + c * (s[6] - s[4]);
  const y = a * (s[3] - s[1]) + b * (s[5] - s[3]) + c * (s[7] - s[5]);
  if (x * x + y * y > 1e-18) return { x, y };
  // A handle lies on its end: the direction is that to the next control point.
  const near = t < 0.5 ? pointAt(s, t + 1e-4) : pointAt(s, t - 1e-4);
  const here = pointAt(s, t);
  return t < 0.5 ? { x: near.x - here.x, y: near.y - here.y } : { x: here.x - near.x, y: here.y - near.y };
}

/** The piece of a segment from `from` to `to`, by its blossom (de Casteljau); the other way round where `from` is the larger. */
export function pieceOf(s: Segment, from: number, to: number): Segment {
  if (from > to) return reversed(pieceOf(s, to, from));
  if (from <= 0 && to >= 1) return s;
  const a = pointAt(s, from);
  const b = pointAt(s, to);
  if (isLine(s)) return lineSegment(a.x, a.y, b.x, b.y);
  const blossom = (k: 0 | 1, t0: number, t1: number, t2: number) => {
    const [p0, p1, p2, p3] = [s[k], s[2 + k], s[4 + k], s[6 + k]];
    const mix = (p: number, q: number, t: number) => p + (q - p) * t;
    const [q0, q1, q2] = [mix(p0, p1, t0), mix(p1, p2, t0), mix(p2, p3, t0)];
    return mix(mix(q0, q1, t1), mix(q1, q2, t1), t2);
  };
  return [
    ...([a.x, a.y] as const),
    ...([blossom(0, from, from, to), blossom(1, from, from, to)] as const),
    ...([blossom(0, from, to, to), blossom(1, from, to, to)] as const),
    ...([b.x, b.y] as const),
  ];
}

/** A segment the other way round. */
export function reversed([x0, y0, x1, y1, x2, y2, x3, y3]: Segment): Segment {
  return [x3, y3, x2, y2, x1, y1, x0, y0];
}

/** A subpath the other way round. */
export function reversedSubpath({ segments, closed }: Subpath): Subpath {
  return { segments: segments.map(reversed).reverse(), closed };
}

/** Where on a segment it is nearest to a point, and how near, in mm. */
export function nearestOn(s: Segment, x: number, y: number): { t: number; distance: number } {
  const far = (t: number) => {
    const p = pointAt(s, t);
    return Math.hypot(p.x - x, p.y - y);
  };
  if (isLine(s)) {
    const [dx, dy] = [s[6] - s[0], s[7] - s[1]];
    const t = Math.max(0, Math.min(1, ((x - s[0]) * dx + (y - s[1]) * dy) / (dx * dx + dy * dy)));
    return { t, distance: far(t) };
  }
  const steps = 16;
  let best = 0;
  for (let i = 1; i <= steps; i++) if (far(i / steps) < far(best)) best = i / steps;
  let [low, high] = [Math.max(0, best - 1 / steps), Math.min(1, best + 1 / steps)];
  // Golden section between the two samples beside the nearest.
  const share = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 48; i++) {
    const [a, b] = [high - share * (high - low), low + share * (high - low)];
    if (far(a) < far(b)) high = b;
    else low = a;
  }
  const found = (low + high) / 2;
  const t = [0, 1, found].reduce(
    (least, candidate) => (far(candidate) < far(least) - 1e-12 ? candidate : least),
    found,
  );
  return { t, distance: far(t) };
}

/** The length of a segment in mm, within 1e-6 of it, by Gauss–Legendre quadrature over halves. */
export function lengthOf(s: Segment): number {
  if (isLine(s)) return Math.hypot(s[6] - s[0], s[7] - s[1]);
  const over = (from: number, to: number): number => {
    let sum = 0;
    gaussNodes.forEach((node, i) => {
      const v = velocityAt(s, from + ((node + 1) / 2) * (to - from));
      sum += gaussWeights[i] * Math.hypot(v.x, v.y);
    });
    return (sum * (to - from)) / 2;
  };
  const halves = (from: number, to: number, whole: number, depth: number): number => {
    const middle = (from + to) / 2;
    const [a, b] = [over(from, middle), over(middle, to)];
    if (depth > 12 || Math.abs(a + b - whole) < 1e-8 * Math.max(1, whole)) return a + b;
    return halves(from, middle, a, depth + 1) + halves(middle, to, b, depth + 1);
  };
  return halves(0, 1, over(0, 1), 0);
}

const gaussNodes = [-0.906179845938664, -0.5384693101056831, 0, 0.5384693101056831, 0.906179845938664];
const gaussWeights = [
  0.2369268850561891, 0.4786286704993665, 0.5688888888888889, 0.4786286704993665, 0.2369268850561891,
];

/** How long the legs of a segment's control points are in all, in mm: it is no longer than that. */
export function legsOf([x0, y0, x1, y1, x2, y2, x3, y3]: Segment): number {
  return Math.hypot(x1 - x0, y1 - y0) + Math.hypot(x2 - x1, y2 - y1) + Math.hypot(x3 - x2, y3 - y2);
}

/** Segments shorter than this, in mm, are rounding where curves cross. */
const leastLength = 0.002;

/** A subpath without what rounding left where curves cross: those next to it meet. */
export function withoutShort({ segments, closed }: Subpath): Subpath {
  const isLong = (s: Segment) => legsOf(s) > leastLength;
  if (segments.every(isLong)) return { segments, closed };
  const kept = segments.filter(isLong);
  if (kept.length < 2) return { segments, closed };
  const moved = kept.map((s, i): Segment => {
    if (i === 0 && !closed) return s;
    const before = kept[(i + kept.length - 1) % kept.length];
    if (isLine(s)) return lineSegment(before[6], before[7], s[6], s[7]);
    const [dx, dy] = [before[6] - s[0], before[7] - s[1]];
    return [before[6], before[7], s[2] + dx, s[3] + dy, s[4], s[5], s[6], s[7]];
  });
  return { segments: moved, closed };
}
