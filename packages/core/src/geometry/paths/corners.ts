import { addEllipticArc } from './arc.ts';
import type { Point } from './matrix.ts';
import { type Path, PathBuilder } from './path.ts';
import {
  isLine,
  lengthOf,
  lineSegment,
  pathOfSubpaths,
  pieceOf,
  pointAt,
  type Segment,
  subpathsOf,
  velocityAt,
} from './segments.ts';

/** A corner of a path that is rounded or cut off: the node it is at, and its radius or how much of each edge goes, in mm. */
export interface Corner {
  readonly x: number;
  readonly y: number;
  readonly kind: 'round' | 'cut';
  readonly size: number;
}

/** How near a node must be to be the one a corner names, in mm. */
const sameNode = 1e-4;

/** A path with some of its corners rounded or cut off. A corner larger than its edges allow is as large as they do. */
export function shapeCorners(path: Path, corners: readonly Corner[]): Path {
  if (corners.length === 0) return path;
  const subpaths = [...subpathsOf(path)].map(({ segments, closed }) => {
    let all = [...segments];
    for (const corner of corners) {
      const index = jointAt(all, closed, corner);
      if (index !== null) all = shaped(all, index, corner);
    }
    return { segments: all, closed };
  });
  return pathOfSubpaths(subpaths);
}

/** The size that a corner can have at most, in mm; 0 where there is no corner to shape. */
export function largestCorner(path: Path, place: Point, kind: Corner['kind']): number {
  for (const { segments, closed } of subpathsOf(path)) {
    const joint = jointAt(segments, closed, place);
    if (joint === null) continue;
    const [a, b] = edgesAt(segments, joint);
    return turnBetween(a, b) === 0 ? 0 : largestSize(a, b, kind);
  }
  return 0;
}

/** The joint at a point: the place of the segment that ends there. Null when none does, or nothing goes on from it. */
function jointAt(segments: readonly Segment[], closed: boolean, { x, y }: Point): number | null {
  const last = segments.length - 1;
  const found = segments.findIndex((s, i) => (closed || i < last) && Math.hypot(s[6] - x, s[7] - y) < sameNode);
  return found < 0 || segments.length < 2 ? null : found;
}

function edgesAt(segments: readonly Segment[], joint: number): [Segment, Segment] {
  return [segments[joint], segments[(joint + 1) % segments.length]];
}

/** How a path turns from one segment to the next, in radians; 0 where it goes straight on or back. */
function turnBetween(a: Segment, b: Segment): number {
  const [v, w] = [velocityAt(a, 1), velocityAt(b, 0)];
  const angle = Math.atan2(v.x * w.y - v.y * w.x, v.x * w.x + v.y * w.y);
  return Math.abs(angle) < 1e-6 || Math.abs(angle) > Math.PI - 1e-6 ? 0 : angle;
}

function shaped(segments: Segment[], joint: number, { kind, size }: Corner): Segment[] {
  const [a, b] = edgesAt(segments, joint);
  if (!(size > 0) || turnBetween(a, b) === 0) return segments;
  const fit = fitCorner(a, b, kind, size) ?? fitCorner(a, b, kind, largestSize(a, b, kind));
  if (!fit) return segments;
  const next = (joint + 1) % segments.length;
  const out: Segment[] = [];
  const keep = (segment: Segment) => {
    if (segment[0] !== segment[6] || segment[1] !== segment[7]) out.push(segment);
  };
  segments.forEach((segment, i) => {
    const piece = i === next ? pieceOf(segment, fit.tb, i === joint ? fit.ta : 1) : segment;
    keep(i === joint && i !== next ? pieceOf(piece, 0, fit.ta) : piece);
    if (i === joint) out.push(...fit.between);
  });
  return out;
}

interface Fit {
  readonly ta: number;
  readonly tb: number;
  readonly between: readonly Segment[];
}

function fitCorner(a: Segment, b: Segment, kind: Corner['kind'], size: number): Fit | null {
  if (kind === 'round') return fitRound(a, b, size);
  const ta = paramBefore(a, size);
  const tb = paramAfter(b, size);
  if (ta === null || tb === null) return null;
  const [p, q] = [pointAt(a, ta), pointAt(b, tb)];
  return { ta, tb, between: [lineSegment(p.x, p.y, q.x, q.y)] };
}

function largestSize(a: Segment, b: Segment, kind: Corner['kind']): number {
  const [longA, longB] = [lengthOf(a), lengthOf(b)];
  if (kind === 'cut') return Math.min(longA, longB);
  if (isLine(a) && isLine(b)) return Math.min(longA, longB) / Math.tan(Math.abs(turnBetween(a, b)) / 2);
  let [low, high] = [0, Math.min(longA, longB) * 10];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (fitRound(a, b, middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Where a segment is `size` mm, along it, before its end; null when it is shorter. */
function paramBefore(s: Segment, size: number): number | null {
  const whole = lengthOf(s);
  if (size > whole + 1e-9) return null;
  if (isLine(s)) return Math.max(0, 1 - size / whole);
  let [low, high] = [0, 1];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (lengthOf(pieceOf(s, middle, 1)) > size) low = middle;
    else high = middle;
  }
  return low;
}

function paramAfter(s: Segment, size: number): number | null {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = s;
  const before = paramBefore([x3, y3, x2, y2, x1, y1, x0, y0], size);
  return before === null ? null : 1 - before;
}

/** The arc of a radius that goes from one segment to the next without a kink; null when it does not fit. */
function fitRound(a: Segment, b: Segment, radius: number): Fit | null {
  const angle = turnBetween(a, b);
  const side = Math.sign(angle);
  const back = radius * Math.tan(Math.abs(angle) / 2);
  const [longA, longB] = [lengthOf(a), lengthOf(b)];
  let ta = 1 - back / longA;
  let tb = back / longB;
  if (!isLine(a) || !isLine(b)) {
    const found = meetOffsets(a, b, radius * side, ta, tb);
    if (!found) return null;
    [ta, tb] = found;
  }
  const reach = 1e-9;
  if (ta < -reach || tb > 1 + reach || ta > 1 || tb < 0) return null;
  ta = Math.max(0, ta);
  tb = Math.min(1, tb);
  const centre = offsetPoint(a, ta, radius * side);
  const [p, q] = [pointAt(a, ta), pointAt(b, tb)];
  const from = Math.atan2(p.y - centre.y, p.x - centre.x);
  const to = Math.atan2(q.y - centre.y, q.x - centre.x);
  const full = 2 * Math.PI;
  const turned = (((to - from) % full) + full) % full;
  const span = side > 0 ? turned : turned - full;
  const builder = new PathBuilder().moveTo(p.x, p.y);
  addEllipticArc(builder, centre.x, centre.y, radius, radius, 0, from, span, q);
  const [arc] = subpathsOf(builder.build());
  return { ta, tb, between: arc?.segments ?? [] };
}

/** The point `distance` mm from a segment, to the right of its direction on the screen. */
function offsetPoint(s: Segment, t: number, distance: number): Point {
  const p = pointAt(s, t);
  const v = velocityAt(s, t);
  const length = Math.hypot(v.x, v.y);
  return { x: p.x - (v.y / length) * distance, y: p.y + (v.x / length) * distance };
}

/** Where the parallels of two segments meet, by Newton's steps with differences. */
function meetOffsets(
  a: Segment,
  b: Segment,
  distance: number,
  startA: number,
  startB: number,
): [number, number] | null {
  const within = (t: number) => Math.max(-0.5, Math.min(1.5, t));
  let [ta, tb] = [Math.max(0.02, startA), Math.min(0.98, startB)];
  const gap = (u: number, v: number) => {
    const [p, q] = [offsetPoint(a, u, distance), offsetPoint(b, v, distance)];
    return [p.x - q.x, p.y - q.y];
  };
  const h = 1e-6;
  for (let i = 0; i < 40; i++) {
    const [fx, fy] = gap(ta, tb);
    if (Math.hypot(fx, fy) < 1e-9) return [ta, tb];
    const [ax, ay] = gap(ta + h, tb);
    const [bx, by2] = gap(ta, tb + h);
    const [j00, j10, j01, j11] = [(ax - fx) / h, (ay - fy) / h, (bx - fx) / h, (by2 - fy) / h];
    const det = j00 * j11 - j01 * j10;
    if (Math.abs(det) < 1e-14) return null;
    ta = within(ta - (fx * j11 - fy * j01) / det);
    tb = within(tb - (fy * j00 - fx * j10) / det);
  }
  return null;
}
