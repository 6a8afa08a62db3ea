import { addEllipticArc } from '../paths/arc.ts';
import { PathBuilder } from '../paths/path.ts';
import { edgeDistance, meetingOf, type Ring, ringOf } from '../paths/ring.ts';
import { lineSegment, type Segment, subpathsOf } from '../paths/segments.ts';
import { localReach, ringsComeNear } from './near-rings.ts';

/*
 * The offset curve of a closed line of straight edges, found the simple way: every edge is moved, and folds in tight turns
 * are cut off where their sides meet. Where a fold is no simple one, there is none: `offsetOutlines` has one then.
 */

/** A turn on the outer side is rounded by one point where that is at most so far beyond its circle, in mm. */
const leastBeyond = 0.003;
/** And where it turns by at most this, in radians. */
const slightTurn = 0.2;
/** How far chords round an outer corner may be inside its circle, in mm. */
const chordTolerance = 0.002;
/** How far along the ring a fold may reach, as times the whole width. */
const foldReach = 6;
/** How much nearer to the ring than asked a point may come, in mm. */
const slack = 0.003;

/**
 * The ring at a small distance from a closed one, round outer corners in chords within 0.002 mm.
 *
 * @param points x and y one after the other, the first not repeated
 * @param distance in mm; the ring grows, below 0 it shrinks
 * @returns null where far parts of the ring come near each other, or a fold is no simple one
 */
export function offsetRing(points: Float64Array, distance: number): Float64Array | null {
  const ring = ringOf(points);
  if (!ring || ringsComeNear([ring], 2 * Math.abs(distance))) return null;
  const curve = offsetCurveOf(ring, distance * Math.sign(ring.area));
  return curve && interleaved(curve.xs, curve.ys);
}

/**
 * The offset curve to the right of a ring, to its left where `distance` is below 0, its outer corners true arcs. Far parts of the
 * ring are taken not to come near each other (`nearnessOf`).
 *
 * @returns null where a fold is no simple one, or nothing is left
 */
export function roundOffsetRing(ring: Ring, distance: number): Segment[] | null {
  const curve = offsetCurveOf(ring, distance);
  if (!curve || !keepsClear(curve, ring, Math.abs(distance))) return null;
  const { xs, ys, ownerOf, isRound } = curve;
  const total = xs.length;
  const goesOn = (k: number) => {
    const before = (k + total - 1) % total;
    return isRound(k) && isRound(before) && ownerOf(k) === ownerOf(before);
  };
  // Begun where no corner goes on through the beginning.
  let k = 0;
  while (goesOn(k)) if (++k === total) return null;
  const out: Segment[] = [];
  for (let n = 0; n < total; ) {
    const from = k;
    do {
      k = (k + 1) % total;
      n++;
    } while (n < total && goesOn(k));
    const [x0, y0, x1, y1] = [xs[from], ys[from], xs[k], ys[k]];
    const corner = ownerOf(from);
    if (isRound(from)) out.push(...arcAbout(ring.xs[corner], ring.ys[corner], Math.abs(distance), x0, y0, x1, y1));
    else out.push(lineSegment(x0, y0, x1, y1));
  }
  return out;
}

/** The shorter arc about a centre, from a point to another. */
function arcAbout(cx: number, cy: number, radius: number, x0: number, y0: number, x1: number, y1: number): Segment[] {
  const [ax, ay, bx, by] = [x0 - cx, y0 - cy, x1 - cx, y1 - cy];
  const span = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  const builder = new PathBuilder().moveTo(x0, y0);
  addEllipticArc(builder, cx, cy, radius, radius, 0, Math.atan2(ay, ax), span, { x: x1, y: y1 });
  return [...subpathsOf(builder.build())].flatMap(({ segments }) => segments);
}

/** The offset curve of a ring. */
interface OffsetCurve {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
  /** Of each piece, from its point to the next, the point of the ring that it is at. */
  readonly ownerOf: (k: number) => number;
  /** Whether it goes round that, not along the edge from there on. */
  readonly isRound: (k: number) => boolean;
}

function offsetCurveOf(ring: Ring, d: number): OffsetCurve | null {
  const raw = movedEdges(ring, d);
  return raw && withoutFolds(raw, ring, Math.abs(d));
}

/** Every edge moved to its right, joined; of each piece of the curve, which point of the ring it is at. */
interface Raw {
  readonly xs: number[];
  readonly ys: number[];
  readonly owners: number[];
  /** Whether the piece from a point on goes against the edge that it is of. */
  readonly inverted: boolean[];
}

function movedEdges({ count, xs, ys, dx, dy }: Ring, d: number): Raw | null {
  const raw: Raw = { xs: [], ys: [], owners: [], inverted: [] };
  const put = (x: number, y: number, owner: number) => {
    raw.xs.push(x);
    raw.ys.push(y);
    raw.owners.push(owner);
    raw.inverted.push(false);
  };
  const slight = Math.min(slightTurn, 2 * Math.acos(1 / (1 + leastBeyond / Math.abs(d))));
  for (let i = 0; i < count; i++) {
    const h = i > 0 ? i - 1 : count - 1;
    const cross = dx[h] * dy[i] - dy[h] * dx[i];
    const dot = dx[h] * dx[i] + dy[h] * dy[i];
    const outer = cross * d > 0;
    if (dot < -0.99) return null;
    if (!outer || Math.abs(cross) < slight * Math.max(0, dot)) {
      const share = d / (1 + dot);
      put(xs[i] + share * (dy[h] + dy[i]), ys[i] - share * (dx[h] + dx[i]), i);
      continue;
    }
    const turn = Math.atan2(cross, dot);
    const step = 2 * Math.acos(1 - Math.min(1, chordTolerance / Math.abs(d)));
    const pieces = Math.max(1, Math.ceil(Math.abs(turn) / step));
    for (let k = 0; k <= pieces; k++) {
      const angle = (turn * k) / pieces;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      // The normal to the right of the edge before, turned on towards that of the edge after.
      const [nx, ny] = [dy[h], -dx[h]];
      put(xs[i] + d * (nx * cos - ny * sin), ys[i] + d * (nx * sin + ny * cos), i);
    }
  }
  const total = raw.xs.length;
  for (let p = 0; p < total; p++) {
    const q = p + 1 < total ? p + 1 : 0;
    const owner = raw.owners[p];
    // The last piece at a point of the ring is the edge that leads on from it.
    if (raw.owners[q] === owner) continue;
    raw.inverted[p] = (raw.xs[q] - raw.xs[p]) * dx[owner] + (raw.ys[q] - raw.ys[p]) * dy[owner] < 0;
  }
  return raw;
}

/** Cuts each fold off where the curve before it meets the curve after it. */
function withoutFolds(raw: Raw, ring: Ring, distance: number): OffsetCurve | null {
  const { xs, ys, owners, inverted } = raw;
  const total = xs.length;
  const isRound = (p: number) => owners[p] === owners[p + 1 < total ? p + 1 : 0];
  if (!inverted.includes(true)) return { xs, ys, ownerOf: (p) => owners[p], isRound };
  // Begun where the curve is plain, so that no fold lies across the beginning.
  const start = plainStart(raw);
  if (start < 0) return null;
  const indexAt = (p: number) => (start + p) % total;
  const [outX, outY]: [number[], number[]] = [[], []];
  /** Of each point put out, which piece of the raw curve it is on. */
  const from: number[] = [];
  for (let p = 0; p < total; p++) {
    if (!inverted[indexAt(p)]) {
      outX.push(xs[indexAt(p)]);
      outY.push(ys[indexAt(p)]);
      from.push(p);
      continue;
    }
    let last = p;
    while (last + 1 < total && inverted[indexAt(last + 1)]) last++;
    const met = meeting(raw, ring, indexAt, outX, outY, from, p, last, distance);
    if (!met) return null;
    outX.length = outY.length = from.length = met.keep;
    outX.push(met.x);
    outY.push(met.y);
    from.push(met.piece);
    p = met.piece;
  }
  if (outX.length < 3) return null;
  return { xs: outX, ys: outY, ownerOf: (k) => owners[indexAt(from[k])], isRound: (k) => isRound(indexAt(from[k])) };
}

/** A piece of the curve from which on nothing is inverted for a while. */
function plainStart({ xs, inverted }: Raw): number {
  const total = xs.length;
  let plain = 0;
  for (let p = 0; p < 2 * total; p++) {
    plain = inverted[p % total] ? 0 : plain + 1;
    if (plain > 16 || plain >= total) return (p - (plain >> 1) + total) % total;
  }
  return -1;
}

/**
 * Where the curve before a fold meets the curve after it: the nearest such place to the fold, and how many of the points
 * put out stay before it.
 */
function meeting(
  { xs, ys, owners, inverted }: Raw,
  ring: Ring,
  indexAt: (p: number) => number,
  outX: readonly number[],
  outY: readonly number[],
  from: readonly number[],
  first: number,
  last: number,
  distance: number,
): { x: number; y: number; keep: number; piece: number } | null {
  const total = xs.length;
  const reach = 2 * distance * foldReach;
  const arc = (a: number, b: number) => {
    const apart = Math.abs(ring.along[owners[indexAt(a)]] - ring.along[owners[indexAt(b)]]);
    return Math.min(apart, ring.length - apart);
  };
  const end = (k: number, side: 'x' | 'y') =>
    k + 1 < outX.length ? (side === 'x' ? outX : outY)[k + 1] : (side === 'x' ? xs : ys)[indexAt(first)];
  for (let size = 0; size < 200; size++) {
    let any = false;
    for (let back = 0; back <= size; back++) {
      const k = outX.length - 1 - back;
      const q = last + 1 + (size - back);
      if (k < 0 || q >= total || inverted[indexAt(q)]) continue;
      if (arc(from[k], first) > reach || arc(last, q) > reach) continue;
      any = true;
      const r = indexAt(q + 1);
      const met = meetingOf(outX[k], outY[k], end(k, 'x'), end(k, 'y'), xs[indexAt(q)], ys[indexAt(q)], xs[r], ys[r]);
      if (!met) continue;
      return isClear(ring, owners[indexAt(first)], met.x, met.y, distance) ? { ...met, keep: k + 1, piece: q } : null;
    }
    if (!any && size > 8) return null;
  }
  return null;
}

/** Whether a point keeps its distance from the edges around a point of the ring. */
function isClear(ring: Ring, near: number, x: number, y: number, distance: number): boolean {
  const { count, along, length } = ring;
  const reach = 2 * distance * foldReach;
  for (const step of [1, -1]) {
    for (let k = 0; k < count; k++) {
      const i = (near + step * k + count * 2) % count;
      const apart = Math.abs(along[i] - along[near]);
      if (Math.min(apart, length - apart) > 2 * reach && k > 1) break;
      if (edgeDistance(ring, i, x, y) < distance - slack) return false;
    }
  }
  return true;
}

/**
 * Whether an offset curve keeps its distance from its ring, at the ends and in the middle of each piece. Edges that are
 * not local to the one that a piece belongs to are far enough from it: the local ones are looked at.
 */
function keepsClear({ xs, ys, ownerOf }: OffsetCurve, ring: Ring, distance: number): boolean {
  const { count, along, length, sizes } = ring;
  const least = distance - slack;
  const reach = 2 * distance * localReach;
  for (let k = 0; k < xs.length; k++) {
    const next = k + 1 < xs.length ? k + 1 : 0;
    const [mx, my] = [(xs[k] + xs[next]) / 2, (ys[k] + ys[next]) / 2];
    const middle = ownerOf(k);
    const half = Math.abs(mx - xs[k]) + Math.abs(my - ys[k]);
    const isNear = (i: number) =>
      Math.abs(ring.xs[i] - mx) + Math.abs(ring.ys[i] - my) < half + 1.5 * (least + sizes[i]) &&
      (edgeDistance(ring, i, mx, my) < least || edgeDistance(ring, i, xs[k], ys[k]) < least);
    for (const step of [1, -1]) {
      for (let n = 0, i = middle; n < count; n++, i = (i + step + count) % count) {
        const apart = Math.abs(along[i] - along[middle]);
        if (n > 1 && Math.min(apart, length - apart) - sizes[i] > reach) break;
        if (isNear(i)) return false;
      }
    }
  }
  return true;
}

function interleaved(xs: readonly number[], ys: readonly number[]): Float64Array {
  const points = new Float64Array(2 * xs.length);
  for (let i = 0; i < xs.length; i++) {
    points[2 * i] = xs[i];
    points[2 * i + 1] = ys[i];
  }
  return points;
}
