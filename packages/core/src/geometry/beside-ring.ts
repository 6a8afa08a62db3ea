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
  if (!ring || ringsComeNear([ring], 2 * Math.abs(by))) return null;
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
  /** How long the edges are. */
  readonly sizes: Float64Array;
  readonly length: number;
  readonly area: number;
}

function measured(points: Float64Array): Ring | null {
  const xs = new Float64Array(points.length / 2);
  const ys = new Float64Array(points.length / 2);
  let count = 0;
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i];
    const y = points[i + 1];
    if (count > 0) {
      const near = Math.abs(x - xs[count - 1]) + Math.abs(y - ys[count - 1]);
      if (near < (count === 1 ? leastStep : 1e-9)) continue;
      // A step aside that is smaller than matters would fold the way for nothing: its first point goes.
      if (count > 1 && near < shortEdge && stepAside(xs, ys, count, x, y) < leastStep) count--;
    }
    xs[count] = x;
    ys[count] = y;
    count++;
  }
  while (count > 3 && Math.abs(xs[0] - xs[count - 1]) + Math.abs(ys[0] - ys[count - 1]) < leastStep) count--;
  if (count < 3) return null;
  const dx = new Float64Array(count);
  const dy = new Float64Array(count);
  const along = new Float64Array(count);
  const sizes = new Float64Array(count);
  let length = 0;
  let twice = 0;
  for (let i = 0; i < count; i++) {
    const j = i + 1 < count ? i + 1 : 0;
    const ex = xs[j] - xs[i];
    const ey = ys[j] - ys[i];
    const size = Math.sqrt(ex * ex + ey * ey);
    if (size === 0) return null;
    dx[i] = ex / size;
    dy[i] = ey / size;
    along[i] = length;
    sizes[i] = size;
    length += size;
    twice += xs[i] * ys[j] - xs[j] * ys[i];
  }
  if (Math.abs(twice) < 1e-9) return null;
  return { count, xs, ys, dx, dy, along, sizes, length, area: twice / 2 };
}

/** How far the last of some points is from the line between the one before it and a point. */
function stepAside(xs: Float64Array, ys: Float64Array, count: number, x: number, y: number): number {
  const fromX = xs[count - 2];
  const fromY = ys[count - 2];
  const ux = x - fromX;
  const uy = y - fromY;
  return Math.abs((xs[count - 1] - fromX) * uy - (ys[count - 1] - fromY) * ux) / Math.sqrt(ux * ux + uy * uy);
}

/**
 * Whether closed lines, or parts of one that are no one bend, come nearer to each other than a width, in mm.
 * @param outlines x and y of each one's points one after the other
 */
export function comeNear(outlines: readonly Float64Array[], width: number): boolean {
  return ringsComeNear(
    outlines.flatMap((points) => measured(points) ?? []),
    width,
  );
}

/** Most cells of the grid in which near edges are looked for. */
const mostCells = 400_000;

/**
 * The same of rings. Edges, long ones in pieces, are put into a grid by their middles, and each is compared with those
 * before it in the cells around.
 */
function ringsComeNear(rings: readonly Ring[], width: number): boolean {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  let [count, length] = [0, 0];
  for (const ring of rings) {
    count += ring.count;
    length += ring.length;
    for (let i = 0; i < ring.count; i++) {
      if (ring.xs[i] < minX) minX = ring.xs[i];
      if (ring.xs[i] > maxX) maxX = ring.xs[i];
      if (ring.ys[i] < minY) minY = ring.ys[i];
      if (ring.ys[i] > maxY) maxY = ring.ys[i];
    }
  }
  if (count === 0) return false;
  const piece = Math.max(width, (2 * length) / count);
  // Pieces that come near have their middles within a width and a piece: in the cells around.
  const cell = Math.max(width + piece, Math.sqrt(((maxX - minX) * (maxY - minY)) / mostCells));
  const across = Math.floor((maxX - minX) / cell) + 3;
  const down = Math.floor((maxY - minY) / cell) + 3;
  if (across * down > 4 * mostCells) return true;
  const heads = new Int32Array(across * down).fill(-1);
  const pieces = Math.ceil(length / piece) + count;
  const edges = new Int32Array(pieces);
  const owners = new Int32Array(pieces);
  const nexts = new Int32Array(pieces);
  const starts = new Float64Array(pieces);
  const ends = new Float64Array(pieces);
  let used = 0;
  for (let nth = 0; nth < rings.length; nth++) {
    const ring = rings[nth];
    const { xs, ys, dx, dy, along, sizes } = ring;
    for (let i = 0; i < ring.count; i++) {
      const size = sizes[i];
      const middleX = xs[i] + (size / 2) * dx[i];
      const middleY = ys[i] + (size / 2) * dy[i];
      // Edges that end after the one, or start before the other beyond the ring's beginning, are one bend with it.
      const bentFrom = along[i] - bend * width;
      const bentTo = along[i] + size - ring.length + bend * width;
      const parts = Math.ceil(size / piece);
      for (let part = 0; part < parts; part++) {
        const t = (size * (part + 0.5)) / parts;
        const row = Math.floor((ys[i] + t * dy[i] - minY) / cell + 1);
        const at = row * across + Math.floor((xs[i] + t * dx[i] - minX) / cell) + 1;
        for (let around = at - across; around <= at + across; around += across) {
          for (let c = around - 1; c <= around + 1; c++) {
            for (let k = heads[c]; k >= 0; k = nexts[k]) {
              if (owners[k] === nth && (ends[k] > bentFrom || starts[k] < bentTo)) continue;
              const other = edges[k];
              const there = rings[owners[k]];
              const half = there.sizes[other] / 2;
              const reach = width + size / 2 + half;
              if (Math.abs(middleX - there.xs[other] - half * there.dx[other]) > reach) continue;
              if (Math.abs(middleY - there.ys[other] - half * there.dy[other]) > reach) continue;
              if (edgeDistance(ring, i, there, other) < width) return true;
            }
          }
        }
        edges[used] = i;
        starts[used] = along[i];
        ends[used] = along[i] + size;
        owners[used] = nth;
        nexts[used] = heads[at];
        heads[at] = used++;
      }
    }
  }
  return false;
}

function pointDistance({ xs, ys, dx, dy, sizes }: Ring, i: number, x: number, y: number): number {
  const px = x - xs[i];
  const py = y - ys[i];
  const t = Math.max(0, Math.min(sizes[i], px * dx[i] + py * dy[i]));
  const qx = px - t * dx[i];
  const qy = py - t * dy[i];
  return Math.sqrt(qx * qx + qy * qy);
}

/** How near an edge of one ring comes to one of another; 0 where they cross. */
function edgeDistance(one: Ring, a: number, two: Ring, b: number): number {
  const [a1, b1] = [a + 1 < one.count ? a + 1 : 0, b + 1 < two.count ? b + 1 : 0];
  const [ax, ay, aX, aY] = [one.xs[a], one.ys[a], one.xs[a1], one.ys[a1]];
  const [bx, by, bX, bY] = [two.xs[b], two.ys[b], two.xs[b1], two.ys[b1]];
  if (crossing(ax, ay, aX, aY, bx, by, bX, bY)) return 0;
  return Math.min(
    pointDistance(one, a, bx, by),
    pointDistance(one, a, bX, bY),
    pointDistance(two, b, ax, ay),
    pointDistance(two, b, aX, aY),
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
