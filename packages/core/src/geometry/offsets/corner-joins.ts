import { addEllipticArc } from '../paths/arc.ts';
import { PathBuilder } from '../paths/path.ts';
import { isLine, lineSegment, pointAt, type Segment, subpathsOf } from '../paths/segments.ts';
import { rightAt } from './parallel.ts';

/* How an offset curve goes round corners and ends. */

/** How an offset goes round corners: on a circle, on to a point, or straight across. */
export type Join = 'round' | 'miter' | 'bevel';
/** How the offset of an open line goes round its ends: on a circle, straight across, or straight across further on. */
export type Cap = 'round' | 'flat' | 'square';

interface Settings {
  readonly by: number;
  readonly join: Join;
  readonly miterLimit: number;
  readonly cap: Cap;
}

/** Turns smaller than this, in radians, are no corners: the two sides are joined straight. */
const leastTurn = 1e-3;
/** Arcs round corners that rise less than this above their chord, in mm, are that chord. */
const leastSagitta = 5e-4;
/** Of curves that turn back by all but this, in radians, the ends alone do not tell to which side. */
const nearlyBack = 0.3;
/** Where they are looked at, in mm from the corner, and how far apart they must be there. */
const looks = [0.02, 0.05, 0.1, 0.3, 1];
const leastApart = 0.006;

/** What leads from the side of one segment to that of the next; whether that is on the inner side of the corner. */
export function cornerBetween(
  a: Segment,
  b: Segment,
  { by, join, miterLimit }: Settings,
): { curve: Segment[]; isInner: boolean } {
  const [x, y] = [a[6], a[7]];
  const [m, n] = [rightAt(a, 1), rightAt(b, 0)];
  const [x0, y0, x1, y1] = [x + by * m.x, y + by * m.y, x + by * n.x, y + by * n.y];
  const outer = (curve: Segment[]) => ({ curve, isInner: false });
  const turn = turnBetween(a, b, Math.atan2(m.x * n.y - m.y * n.x, m.x * n.x + m.y * n.y));
  const isSlight = Math.abs(by) * (1 - Math.cos(turn / 2)) < leastSagitta && turn * by > 0;
  if (Math.abs(turn) < leastTurn || isSlight) return outer([lineSegment(x0, y0, x1, y1)]);
  const turnsBack = Math.abs(Math.PI - Math.abs(turn)) < leastTurn;
  // On the inner side of a corner the curve leads through the corner itself: what it goes round there does not count.
  if (turn * by < 0 && !turnsBack)
    return { curve: [lineSegment(x0, y0, x, y), lineSegment(x, y, x1, y1)], isInner: true };
  if (join === 'round') return outer(arc(x, y, by, m, turn * by > 0 ? turn : -turn, { x: x1, y: y1 }));
  if (join === 'bevel') return outer([lineSegment(x0, y0, x1, y1)]);
  const [cos, sin] = [Math.cos(turn / 2), Math.abs(Math.sin(turn / 2))];
  if (!turnsBack && cos > 0 && 1 / cos <= miterLimit) {
    const share = by / (1 + m.x * n.x + m.y * n.y);
    const [px, py] = [x + share * (m.x + n.x), y + share * (m.y + n.y)];
    return outer([lineSegment(x0, y0, px, py), lineSegment(px, py, x1, y1)]);
  }
  // Both sides go on until they are as far out as the limit allows; the curve is to the left of what is right of it.
  const on = (Math.abs(by) * (miterLimit - cos)) / sin;
  const [ax, ay, bx, bY] = [x0 - on * m.y, y0 + on * m.x, x1 + on * n.y, y1 - on * n.x];
  return outer([lineSegment(x0, y0, ax, ay), lineSegment(ax, ay, bx, bY), lineSegment(bx, bY, x1, y1)]);
}

/** The curve round an open line's end. */
export function capAt(last: Segment, { by, cap }: Settings): Segment[] {
  const [x, y] = [last[6], last[7]];
  const n = rightAt(last, 1);
  const [x0, y0, x1, y1] = [x + by * n.x, y + by * n.y, x - by * n.x, y - by * n.y];
  if (cap === 'round') return arc(x, y, by, n, Math.sign(by) * Math.PI, { x: x1, y: y1 });
  if (cap === 'flat') return [lineSegment(x0, y0, x1, y1)];
  // On by the distance: the curve is to the left of what is right of it.
  const [fx, fy] = [-n.y * Math.abs(by), n.x * Math.abs(by)];
  return [
    lineSegment(x0, y0, x0 + fx, y0 + fy),
    lineSegment(x0 + fx, y0 + fy, x1 + fx, y1 + fy),
    lineSegment(x1 + fx, y1 + fy, x1, y1),
  ];
}

/** Round a point, from where its side is to where that is after a turn. */
function arc(
  cx: number,
  cy: number,
  distance: number,
  from: { x: number; y: number },
  span: number,
  end: { x: number; y: number },
): Segment[] {
  const builder = new PathBuilder().moveTo(cx + distance * from.x, cy + distance * from.y);
  const start = Math.atan2(distance * from.y, distance * from.x);
  addEllipticArc(builder, cx, cy, Math.abs(distance), Math.abs(distance), 0, start, span, end);
  return [...subpathsOf(builder.build())].flatMap(({ segments }) => segments);
}

/**
 * How far a path turns where one segment meets the next, in radians. Where curves turn back nearly along themselves, in a
 * tip, to which side they do is told from where they have come apart: at the very tip they may lie across each other
 * by as much as they were cut with.
 *
 * @param turn by their directions at the corner
 */
function turnBetween(a: Segment, b: Segment, turn: number): number {
  if (Math.PI - Math.abs(turn) > nearlyBack || (isLine(a) && isLine(b))) return turn;
  const [x, y] = [b[0], b[1]];
  for (const away of looks) {
    const [p, q] = [pointAt(a, paramAway(a, x, y, away, true)), pointAt(b, paramAway(b, x, y, away, false))];
    if (Math.hypot(p.x - q.x, p.y - q.y) < leastApart) continue;
    const side = Math.sign((x - p.x) * (q.y - y) - (y - p.y) * (q.x - x));
    return side * turn < 0 ? turn + side * 2 * Math.PI : turn;
  }
  return turn;
}

/** Where a segment is so far from a point that it begins, or ends, at; its other end where it is nowhere that far. */
function paramAway(s: Segment, x: number, y: number, away: number, fromEnd: boolean): number {
  const parameterAt = (u: number) => (fromEnd ? 1 - u : u);
  let [low, high] = [0, 1];
  const isNear = (u: number) => {
    const p = pointAt(s, parameterAt(u));
    return Math.hypot(p.x - x, p.y - y) < away;
  };
  if (isNear(1)) return parameterAt(1);
  for (let k = 0; k < 20; k++) {
    const middle = (low + high) / 2;
    if (isNear(middle)) low = middle;
    else high = middle;
  }
  return parameterAt(high);
}
