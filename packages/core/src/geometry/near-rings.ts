import { edgeDistance, meetingOf, type Ring, ringOf } from './ring.ts';

/** Parts of a ring nearer to each other along it than this many times the whole width are one bend. */
export const bend = 2.4;
/** Most cells of the grid in which near edges are looked for. */
const mostCells = 400_000;
/** Long edges are cut into pieces; of few edges, into so many in all. */
const piecesOfFew = 200;
/** So many pairs of edges are compared at most, for each edge and in all. */
const mostPairs = { each: 300, all: 2_000_000 };

/**
 * Whether closed lines, or parts of one that are no one bend, come nearer to each other than a width, in mm, or cross.
 * @param outlines x and y of each one's points one after the other
 */
export function comeNear(outlines: readonly Float64Array[], width: number): boolean {
  const rings = outlines.flatMap((points) => ringOf(points) ?? []);
  return ringsComeNear(rings, width);
}

/** The same of rings. */
export function ringsComeNear(rings: readonly Ring[], width: number): boolean {
  return !eachNear(rings, width, true, () => false);
}

/** Which rings come near each other. */
export interface Nearness {
  /** Those that do, however many between them, by their places in the list; most are alone. */
  readonly families: readonly (readonly number[])[];
  /** Whether parts of a ring that are no one bend come near each other. */
  readonly nearItself: readonly boolean[];
}

/** Which rings, none of which crosses itself, come nearer to each other than a width, in mm; where that is too much to find out, all are said to. */
export function nearnessOf(rings: readonly Ring[], width: number): Nearness {
  const heads = rings.map((_, i) => i);
  const headOf = (i: number): number => {
    let at = i;
    while (heads[at] !== at) {
      heads[at] = heads[heads[at]];
      at = heads[at];
    }
    return at;
  };
  const nearItself = rings.map(() => false);
  const isWhole = eachNear(rings, width, false, (a, b) => {
    if (a === b) nearItself[a] = true;
    else heads[headOf(a)] = headOf(b);
    return true;
  });
  if (!isWhole) return { families: [rings.map((_, i) => i)], nearItself: rings.map(() => true) };
  const families = new Map<number, number[]>();
  rings.forEach((_, i) => {
    const family = families.get(headOf(i));
    if (family) family.push(i);
    else families.set(headOf(i), [i]);
  });
  return { families: [...families.values()], nearItself };
}

/**
 * Finds edges of rings nearer to each other than a width; those of one bend, if at all, where they cross. Edges, long ones in
 * pieces, are put into a grid by their middles, and each is compared with those before it in the cells around.
 *
 * @param found of which rings they are; more of them are found as long as it says so
 * @returns whether all were found; not where there are too many to compare
 */
function eachNear(
  rings: readonly Ring[],
  width: number,
  bendsToo: boolean,
  found: (a: number, b: number) => boolean,
): boolean {
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
  if (count === 0) return true;
  const piece = Math.max(width, Math.min((2 * length) / count, length / piecesOfFew));
  // Pieces that come near have their middles within a width and a piece: in the cells around.
  const cell = Math.max(width + piece, Math.sqrt(((maxX - minX) * (maxY - minY)) / mostCells));
  const across = Math.floor((maxX - minX) / cell) + 3;
  const down = Math.floor((maxY - minY) / cell) + 3;
  if (across * down > 4 * mostCells) return false;
  const heads = new Int32Array(across * down).fill(-1);
  const pieces = Math.ceil(length / piece) + count;
  const edges = new Int32Array(pieces);
  const owners = new Int32Array(pieces);
  const nexts = new Int32Array(pieces);
  const starts = new Float64Array(pieces);
  const sizesOf = new Float64Array(pieces);
  let pairsLeft = mostPairs.each * pieces + mostPairs.all;
  let used = 0;
  for (let nth = 0; nth < rings.length; nth++) {
    const ring = rings[nth];
    const { xs, ys, dx, dy, along, sizes } = ring;
    for (let i = 0; i < ring.count; i++) {
      const parts = Math.ceil(sizes[i] / piece);
      const size = sizes[i] / parts;
      for (let part = 0; part < parts; part++) {
        const start = along[i] + part * size;
        const middleX = xs[i] + (part + 0.5) * size * dx[i];
        const middleY = ys[i] + (part + 0.5) * size * dy[i];
        // Pieces that end after the one, or start before the other beyond the ring's beginning, are one bend with it.
        const bentFrom = start - bend * width;
        const bentTo = start + size - ring.length + bend * width;
        const row = Math.floor((middleY - minY) / cell + 1);
        const at = row * across + Math.floor((middleX - minX) / cell) + 1;
        for (let around = at - across; around <= at + across; around += across) {
          for (let c = around - 1; c <= around + 1; c++) {
            for (let k = heads[c]; k >= 0; k = nexts[k]) {
              const other = edges[k];
              const there = rings[owners[k]];
              if (--pairsLeft < 0) return false;
              const isBend = owners[k] === nth && (starts[k] + sizesOf[k] > bentFrom || starts[k] < bentTo);
              if (isBend && !bendsToo) continue;
              const reach = (isBend ? 0 : width) + (size + sizesOf[k]) / 2;
              const middle = starts[k] - there.along[other] + sizesOf[k] / 2;
              if (Math.abs(middleX - there.xs[other] - middle * there.dx[other]) > reach) continue;
              if (Math.abs(middleY - there.ys[other] - middle * there.dy[other]) > reach) continue;
              if (isBend) {
                const apart = i - other;
                if (apart < 2 || apart === ring.count - 1) continue;
                if (edgesMeet(ring, i, ring, other) && !found(nth, nth)) return false;
                continue;
              }
              const gap = distanceBetween(ring, i, part * size, size, there, other, starts[k], sizesOf[k]);
              if (gap < width && !found(nth, owners[k])) return false;
            }
          }
        }
        edges[used] = i;
        starts[used] = start;
        sizesOf[used] = size;
        owners[used] = nth;
        nexts[used] = heads[at];
        heads[at] = used++;
      }
    }
  }
  return true;
}

function edgesMeet(one: Ring, a: number, two: Ring, b: number): boolean {
  const [a1, b1] = [a + 1 < one.count ? a + 1 : 0, b + 1 < two.count ? b + 1 : 0];
  const { xs, ys } = one;
  return meetingOf(xs[a], ys[a], xs[a1], ys[a1], two.xs[b], two.ys[b], two.xs[b1], two.ys[b1]) !== null;
}

/**
 * How near a piece of an edge of one ring comes to a piece of one of another; 0 where the edges cross.
 * @param from how far along its edge the first piece begins
 * @param start how far along its ring the other does
 */
function distanceBetween(
  one: Ring,
  a: number,
  from: number,
  size: number,
  two: Ring,
  b: number,
  start: number,
  otherSize: number,
): number {
  if (edgesMeet(one, a, two, b)) return 0;
  const there = start - two.along[b];
  const [ax, ay, adx, ady] = [one.xs[a], one.ys[a], one.dx[a], one.dy[a]];
  const [bx, by, bdx, bdy] = [two.xs[b], two.ys[b], two.dx[b], two.dy[b]];
  const [to, end] = [from + size, there + otherSize];
  return Math.min(
    edgeDistance(two, b, ax + from * adx, ay + from * ady, there, end),
    edgeDistance(two, b, ax + to * adx, ay + to * ady, there, end),
    edgeDistance(one, a, bx + there * bdx, by + there * bdy, from, to),
    edgeDistance(one, a, bx + end * bdx, by + end * bdy, from, to),
  );
}
