/** Turns on the outer side up to this, in radians, are gone round in one point. */
const slightTurn = 0.2;
/** How far chords round an outer corner may be inside its circle, in mm. */
const chordTolerance = 0.002;
/** Parts of a ring nearer to each other along it than this many times the whole width are one bend. */
const bend = 2.4;
/** How far along the ring a fold may reach, in the same measure. */
const foldReach = 6;
/** Edges shorter than this, in mm, are looked at for steps aside, which are passed over below so many mm. */
const shortEdge = 0.03;
const leastStep = 0.003;
/** How much nearer to the ring than asked a point may come, in mm. */
const slack = 0.003;

/**
 * The ring at a small distance from a closed one of straight lines, round outer corners. It takes the plain way: every
 * edge moved, folds in tight bends cut off where their sides meet. Where that may not be the whole answer, because far
 * parts of the ring come near each other or a fold is no simple one, there is none: `offsetOutlines` has one then.
 *
 * @param points x and y one after the other, the first not repeated
 * @param by in mm; the ring grows, below 0 it shrinks
 */
export function besideRing(points: Float64Array, by: number): Float64Array | null {
  const ring = measured(points);
  if (!ring || comesNearItself(ring, 2 * Math.abs(by))) return null;
  const raw = movedEdges(ring, by * Math.sign(ring.area));
  return raw && withoutFolds(raw, ring, Math.abs(by));
}

interface Ring {
  readonly count: number;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** Directions of the edges, each from its point to the next, and how far along the ring it starts. */
  readonly dx: Float64Array;
  readonly dy: Float64Array;
  readonly along: Float64Array;
  readonly length: number;
  readonly area: number;
}

function measured(points: Float64Array): Ring | null {
  const xs: number[] = [];
  const ys: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i], points[i + 1]];
    const last = xs.length - 1;
    if (last >= 0 && Math.abs(x - xs[last]) + Math.abs(y - ys[last]) < (last === 0 ? leastStep : 1e-9)) continue;
    // A step aside that is smaller than matters would fold the way for nothing: its first point goes.
    if (last >= 1 && Math.abs(x - xs[last]) + Math.abs(y - ys[last]) < shortEdge) {
      const [ux, uy] = [x - xs[last - 1], y - ys[last - 1]];
      const aside = Math.abs((xs[last] - xs[last - 1]) * uy - (ys[last] - ys[last - 1]) * ux) / Math.hypot(ux, uy);
      if (aside < leastStep) xs.length = ys.length = last;
    }
    xs.push(x);
    ys.push(y);
  }
  for (let last = xs.length - 1; last > 2; last--) {
    if (Math.abs(xs[0] - xs[last]) + Math.abs(ys[0] - ys[last]) >= leastStep) break;
    xs.length = ys.length = last;
  }
  const count = xs.length;
  if (count < 3) return null;
  const dx = new Float64Array(count);
  const dy = new Float64Array(count);
  const along = new Float64Array(count);
  let [length, twice] = [0, 0];
  for (let i = 0; i < count; i++) {
    const j = i + 1 < count ? i + 1 : 0;
    const [ex, ey] = [xs[j] - xs[i], ys[j] - ys[i]];
    const size = Math.hypot(ex, ey);
    if (size === 0) return null;
    dx[i] = ex / size;
    dy[i] = ey / size;
    along[i] = length;
    length += size;
    twice += xs[i] * ys[j] - xs[j] * ys[i];
  }
  if (Math.abs(twice) < 1e-9) return null;
  return { count, xs: Float64Array.from(xs), ys: Float64Array.from(ys), dx, dy, along, length, area: twice / 2 };
}

/** Most cells of the grid in which near edges are looked for. */
const mostCells = 400_000;

/**
 * Whether edges that are no one bend come nearer to each other than a width. Edges, long ones in pieces, are put into
 * a grid by their middles, and each is compared with those before it in the cells around.
 */
function comesNearItself(ring: Ring, width: number): boolean {
  const { count, xs, ys, dx, dy, along, length } = ring;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < count; i++) {
    if (xs[i] < minX) minX = xs[i];
    if (xs[i] > maxX) maxX = xs[i];
    if (ys[i] < minY) minY = ys[i];
    if (ys[i] > maxY) maxY = ys[i];
  }
  const piece = Math.max(width, (2 * length) / count);
  // Pieces that come near have their middles within a width and a piece: in the cells around.
  const cell = Math.max(width + piece, Math.sqrt(((maxX - minX) * (maxY - minY)) / mostCells));
  const across = Math.floor((maxX - minX) / cell) + 3;
  const down = Math.floor((maxY - minY) / cell) + 3;
  if (across * down > 4 * mostCells) return true;
  const heads = new Int32Array(across * down).fill(-1);
  const pieces = Math.ceil(length / piece) + count;
  const edges = new Int32Array(pieces);
  const nexts = new Int32Array(pieces);
  const sizes = new Float64Array(count);
  let used = 0;
  for (let i = 0; i < count; i++) {
    const end = i + 1 < count ? along[i + 1] : length;
    const size = end - along[i];
    sizes[i] = size;
    const [middleX, middleY] = [xs[i] + (size / 2) * dx[i], ys[i] + (size / 2) * dy[i]];
    const parts = Math.ceil(size / piece);
    for (let part = 0; part < parts; part++) {
      const t = (size * (part + 0.5)) / parts;
      const at =
        Math.floor((ys[i] + t * dy[i] - minY) / cell + 1) * across + Math.floor((xs[i] + t * dx[i] - minX) / cell) + 1;
      for (let row = at - across; row <= at + across; row += across) {
        for (let c = row - 1; c <= row + 1; c++) {
          for (let k = heads[c]; k >= 0; k = nexts[k]) {
            const other = edges[k];
            if (along[i] - along[other + 1] < bend * width || along[other] + length - end < bend * width) continue;
            const reach = width + (size + sizes[other]) / 2;
            if (Math.abs(middleX - (xs[other] + (sizes[other] / 2) * dx[other])) > reach) continue;
            if (Math.abs(middleY - (ys[other] + (sizes[other] / 2) * dy[other])) > reach) continue;
            if (edgeDistance(ring, i, other) < width) return true;
          }
        }
      }
      edges[used] = i;
      nexts[used] = heads[at];
      heads[at] = used++;
    }
  }
  return false;
}

function pointDistance({ count, xs, ys, dx, dy }: Ring, i: number, x: number, y: number): number {
  const j = i + 1 < count ? i + 1 : 0;
  const size = (xs[j] - xs[i]) * dx[i] + (ys[j] - ys[i]) * dy[i];
  const [px, py] = [x - xs[i], y - ys[i]];
  const t = Math.max(0, Math.min(size, px * dx[i] + py * dy[i]));
  return Math.hypot(px - t * dx[i], py - t * dy[i]);
}

/** How near two edges come to each other; 0 is not told from less where they cross. */
function edgeDistance(ring: Ring, a: number, b: number): number {
  const { count, xs, ys } = ring;
  const [a1, b1] = [a + 1 < count ? a + 1 : 0, b + 1 < count ? b + 1 : 0];
  if (crossing(xs[a], ys[a], xs[a1], ys[a1], xs[b], ys[b], xs[b1], ys[b1])) return 0;
  return Math.min(
    pointDistance(ring, a, xs[b], ys[b]),
    pointDistance(ring, a, xs[b1], ys[b1]),
    pointDistance(ring, b, xs[a], ys[a]),
    pointDistance(ring, b, xs[a1], ys[a1]),
  );
}

/** Every edge moved to its right, joined; of each piece of the way, which point of the ring it is at. */
interface Raw {
  readonly xs: number[];
  readonly ys: number[];
  readonly of: number[];
  /** Whether the piece from a point on goes against the edge that it is of. */
  readonly inverted: boolean[];
}

function movedEdges({ count, xs, ys, dx, dy }: Ring, d: number): Raw | null {
  const raw: Raw = { xs: [], ys: [], of: [], inverted: [] };
  const put = (x: number, y: number, of: number) => {
    raw.xs.push(x);
    raw.ys.push(y);
    raw.of.push(of);
    raw.inverted.push(false);
  };
  for (let i = 0; i < count; i++) {
    const h = i > 0 ? i - 1 : count - 1;
    const cross = dx[h] * dy[i] - dy[h] * dx[i];
    const dot = dx[h] * dx[i] + dy[h] * dy[i];
    const outer = cross * d > 0;
    if (dot < -0.99) return null;
    if (!outer || Math.abs(cross) < slightTurn * Math.max(0, dot)) {
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
    const of = raw.of[p];
    // The last piece at a point of the ring is the edge that leads on from it.
    if (raw.of[q] === of) continue;
    raw.inverted[p] = (raw.xs[q] - raw.xs[p]) * dx[of] + (raw.ys[q] - raw.ys[p]) * dy[of] < 0;
  }
  return raw;
}

/** Cuts each fold off where the ways before and after it meet. */
function withoutFolds(raw: Raw, ring: Ring, by: number): Float64Array | null {
  const { xs, ys, inverted } = raw;
  const total = xs.length;
  if (!inverted.includes(true)) return interleaved(xs, ys);
  // Begun where the way is plain, so that no fold lies across the beginning.
  const start = plainStart(raw);
  if (start < 0) return null;
  const at = (p: number) => (start + p) % total;
  const [outX, outY]: [number[], number[]] = [[], []];
  /** Of each point put out, which piece of the way it is on. */
  const from: number[] = [];
  for (let p = 0; p < total; p++) {
    if (!inverted[at(p)]) {
      outX.push(xs[at(p)]);
      outY.push(ys[at(p)]);
      from.push(p);
      continue;
    }
    let last = p;
    while (last + 1 < total && inverted[at(last + 1)]) last++;
    const met = meeting(raw, ring, at, outX, outY, from, p, last, by);
    if (!met) return null;
    outX.length = outY.length = from.length = met.keep;
    outX.push(met.x);
    outY.push(met.y);
    from.push(met.piece);
    p = met.piece;
  }
  return outX.length < 3 ? null : interleaved(outX, outY);
}

/** A piece of the way from which on nothing is inverted for a while. */
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
 * Where the way before a fold meets the way after it: the nearest such place to the fold, and how many of the points
 * put out stay before it.
 */
function meeting(
  { xs, ys, of, inverted }: Raw,
  ring: Ring,
  at: (p: number) => number,
  outX: readonly number[],
  outY: readonly number[],
  from: readonly number[],
  first: number,
  last: number,
  by: number,
): { x: number; y: number; keep: number; piece: number } | null {
  const total = xs.length;
  const reach = 2 * by * foldReach;
  const arc = (a: number, b: number) => {
    const way = Math.abs(ring.along[of[at(a)]] - ring.along[of[at(b)]]);
    return Math.min(way, ring.length - way);
  };
  const end = (k: number, side: 'x' | 'y') =>
    k + 1 < outX.length ? (side === 'x' ? outX : outY)[k + 1] : (side === 'x' ? xs : ys)[at(first)];
  for (let size = 0; size < 200; size++) {
    let any = false;
    for (let back = 0; back <= size; back++) {
      const k = outX.length - 1 - back;
      const q = last + 1 + (size - back);
      if (k < 0 || q >= total || inverted[at(q)]) continue;
      if (arc(from[k], first) > reach || arc(last, q) > reach) continue;
      any = true;
      const r = at(q + 1);
      const met = crossing(outX[k], outY[k], end(k, 'x'), end(k, 'y'), xs[at(q)], ys[at(q)], xs[r], ys[r]);
      if (!met) continue;
      return isClear(ring, of[at(first)], met.x, met.y, by) ? { ...met, keep: k + 1, piece: q } : null;
    }
    if (!any && size > 8) return null;
  }
  return null;
}

/** Whether a point keeps its distance from the edges around a point of the ring. */
function isClear(ring: Ring, near: number, x: number, y: number, by: number): boolean {
  const { count, along, length } = ring;
  const reach = 2 * by * foldReach;
  for (const step of [1, -1]) {
    for (let k = 0; k < count; k++) {
      const i = (near + step * k + count * 2) % count;
      const way = Math.abs(along[i] - along[near]);
      if (Math.min(way, length - way) > 2 * reach && k > 1) break;
      if (pointDistance(ring, i, x, y) < by - slack) return false;
    }
  }
  return true;
}

function crossing(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): { x: number; y: number } | null {
  const [ux, uy, vx, vy] = [bx - ax, by - ay, dx - cx, dy - cy];
  const cross = ux * vy - uy * vx;
  if (Math.abs(cross) < 1e-15) return null;
  const s = ((cx - ax) * vy - (cy - ay) * vx) / cross;
  const t = ((cx - ax) * uy - (cy - ay) * ux) / cross;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? { x: ax + s * ux, y: ay + s * uy } : null;
}

function interleaved(xs: readonly number[], ys: readonly number[]): Float64Array {
  const points = new Float64Array(2 * xs.length);
  for (let i = 0; i < xs.length; i++) {
    points[2 * i] = xs[i];
    points[2 * i + 1] = ys[i];
  }
  return points;
}
