import type Flatbush from 'flatbush';
import { type Box, growBox } from '../paths/box.ts';
import { indexBoxes } from '../paths/box-index.ts';
import { cubicSteps } from '../paths/flatten.ts';
import { isLine, pointAt, type Segment, velocityAt } from '../paths/segments.ts';

/** How far a chord may stray from its curve, in mm, while crossings are looked for; they are then made exact. */
const chordTolerance = 0.01;

/** A straight piece of a segment, by the segment's place in its list and the parameters at the piece's ends. */
export interface Chord {
  readonly segment: number;
  readonly from: number;
  readonly to: number;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Where two segments meet: which ones, at which parameters of theirs. */
export interface Crossing {
  readonly a: number;
  readonly ta: number;
  readonly b: number;
  readonly tb: number;
  readonly x: number;
  readonly y: number;
}

/** Segments as chords that stray no further than `tolerance` mm from them. */
export function chordsOf(segments: readonly Segment[], tolerance = chordTolerance): Chord[] {
  const out: Chord[] = [];
  segments.forEach((s, segment) => {
    const steps = chordCount(s, tolerance);
    let from = { x: s[0], y: s[1] };
    for (let i = 0; i < steps; i++) {
      const to = pointAt(s, (i + 1) / steps);
      out.push({ segment, from: i / steps, to: (i + 1) / steps, x0: from.x, y0: from.y, x1: to.x, y1: to.y });
      from = to;
    }
  });
  return out;
}

/** Into how many chords, of equal steps of its parameter, a segment is cut for them to stray no further than `tolerance`. */
export function chordCount(s: Segment, tolerance: number): number {
  return isLine(s) ? 1 : Math.min(2000, cubicSteps(...s, tolerance));
}

/** An index over chords, to find those near a place. */
export function indexOf(chords: readonly Chord[]): Flatbush | null {
  return indexBoxes(chords.map(chordBox));
}

function chordBox({ x0, y0, x1, y1 }: Chord): Box {
  return { minX: Math.min(x0, x1), minY: Math.min(y0, y1), maxX: Math.max(x0, x1), maxY: Math.max(y0, y1) };
}

/**
 * Every point where a segment of `a` meets one of `b`, exact to 1e-9 mm where they truly cross. Segments that
 * run along each other meet nowhere. With `b` left out, the segments of `a` among themselves, joints not counted.
 */
export function crossingsOf(a: readonly Segment[], b?: readonly Segment[]): Crossing[] {
  const chordsA = chordsOf(a);
  const chordsB = b ? chordsOf(b) : chordsA;
  const index = indexOf(chordsB);
  const out: Crossing[] = [];
  if (!index) return out;
  const slack = chordTolerance * 2;
  chordsA.forEach((p, i) => {
    const { minX, minY, maxX, maxY } = growBox(chordBox(p), slack);
    const near = index.search(minX, minY, maxX, maxY);
    for (const j of near) {
      const q = chordsB[j];
      if (!b && (j <= i + 1 || (p.segment === q.segment && q.from <= p.to))) continue;
      const start = meet(p, q);
      if (!start) continue;
      const found = refine(a[p.segment], (b ?? a)[q.segment], start.ta, start.tb);
      if (!found) continue;
      const crossing = { a: p.segment, b: q.segment, ...found };
      if (!b && isJoint(a, crossing)) continue;
      if (!out.some((known) => sameCrossing(known, crossing))) out.push(crossing);
    }
  });
  return out;
}

function sameCrossing(p: Crossing, q: Crossing): boolean {
  return p.a === q.a && p.b === q.b && Math.abs(p.x - q.x) < 1e-6 && Math.abs(p.y - q.y) < 1e-6;
}

/** Whether segments of one list only meet there because one goes on from the other. */
function isJoint(segments: readonly Segment[], { a, ta, b, tb }: Crossing): boolean {
  const atEnd = (t: number) => t < 1e-9 || t > 1 - 1e-9;
  if (!atEnd(ta) || !atEnd(tb)) return false;
  const next = Math.abs(a - b) === 1 || Math.abs(a - b) === segments.length - 1;
  return next && ta < 0.5 !== tb < 0.5;
}

/** Where two chords cross, or nearly do at their ends, as parameters of their segments; null where they do not. */
function meet(p: Chord, q: Chord): { ta: number; tb: number } | null {
  const [px, py, qx, qy] = [p.x1 - p.x0, p.y1 - p.y0, q.x1 - q.x0, q.y1 - q.y0];
  const cross = px * qy - py * qx;
  const [lengthP, lengthQ] = [Math.hypot(px, py), Math.hypot(qx, qy)];
  if (Math.abs(cross) <= 1e-9 * lengthP * lengthQ) return null;
  const [dx, dy] = [q.x0 - p.x0, q.y0 - p.y0];
  const u = (dx * qy - dy * qx) / cross;
  const v = (dx * py - dy * px) / cross;
  const overP = (2 * chordTolerance) / lengthP;
  const overQ = (2 * chordTolerance) / lengthQ;
  if (u < -overP || u > 1 + overP || v < -overQ || v > 1 + overQ) return null;
  const within = (value: number) => Math.max(0, Math.min(1, value));
  return { ta: p.from + within(u) * (p.to - p.from), tb: q.from + within(v) * (q.to - q.from) };
}

/** Newton's steps to where two segments meet; null when they lead out of either. */
export function refine(
  a: Segment,
  b: Segment,
  startA: number,
  startB: number,
): { ta: number; tb: number; x: number; y: number } | null {
  let [ta, tb] = [startA, startB];
  for (let i = 0; i < 12; i++) {
    const [p, q] = [pointAt(a, ta), pointAt(b, tb)];
    const [dx, dy] = [q.x - p.x, q.y - p.y];
    if (Math.hypot(dx, dy) < 1e-10) break;
    const [v, w] = [velocityAt(a, ta), velocityAt(b, tb)];
    const cross = v.x * w.y - v.y * w.x;
    if (cross === 0) return null;
    ta += (dx * w.y - dy * w.x) / cross;
    tb += (dx * v.y - dy * v.x) / cross;
    if (!(ta > -0.2 && ta < 1.2 && tb > -0.2 && tb < 1.2)) return null;
  }
  // An end that lies on the other segment but for rounding meets it.
  const settle = (t: number, s: Segment) => {
    const reach = 1e-6 / Math.max(1e-9, Math.hypot(s[6] - s[0], s[7] - s[1]));
    return Math.abs(t) <= reach ? 0 : Math.abs(t - 1) <= reach ? 1 : t;
  };
  ta = settle(ta, a);
  tb = settle(tb, b);
  if (ta < 0 || ta > 1 || tb < 0 || tb > 1) return null;
  const [p, q] = [pointAt(a, ta), pointAt(b, tb)];
  return Math.hypot(p.x - q.x, p.y - q.y) < 1e-6 ? { ta, tb, x: p.x, y: p.y } : null;
}
