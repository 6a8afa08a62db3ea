import { edgeDistance, meetingOf, type Ring, ringOf } from './ring.ts';

/** Parts of a ring nearer to each other along it than this many times the whole width are one bend. */
export const bend = 2.4;
/** Most cells of the grid in which near edges are looked for. */
const mostCells = 400_000;
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
  const piece = Math.max(width, (2 * length) / count);
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
  const ends = new Float64Array(pieces);
  let pairsLeft = mostPairs.each * pieces + mostPairs.all;
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
              const other = edges[k];
              const there = rings[owners[k]];
              if (--pairsLeft < 0) return false;
              const isBend = owners[k] === nth && (ends[k] > bentFrom || starts[k] < bentTo);
              if (isBend && !bendsToo) continue;
              const half = there.sizes[other] / 2;
              const reach = (isBend ? 0 : width) + size / 2 + half;
              if (Math.abs(middleX - there.xs[other] - half * there.dx[other]) > reach) continue;
              if (Math.abs(middleY - there.ys[other] - half * there.dy[other]) > reach) continue;
              if (isBend) {
                const apart = i - other;
                if (apart < 2 || apart === ring.count - 1) continue;
                if (edgesMeet(ring, i, ring, other) && !found(nth, nth)) return false;
                continue;
              }
              if (distanceBetween(ring, i, there, other) < width && !found(nth, owners[k])) return false;
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
  return true;
}

function edgesMeet(one: Ring, a: number, two: Ring, b: number): boolean {
  const [a1, b1] = [a + 1 < one.count ? a + 1 : 0, b + 1 < two.count ? b + 1 : 0];
  const { xs, ys } = one;
  return meetingOf(xs[a], ys[a], xs[a1], ys[a1], two.xs[b], two.ys[b], two.xs[b1], two.ys[b1]) !== null;
}

/** How near an edge of one ring comes to one of another; 0 where they cross. */
function distanceBetween(one: Ring, a: number, two: Ring, b: number): number {
  const [a1, b1] = [a + 1 < one.count ? a + 1 : 0, b + 1 < two.count ? b + 1 : 0];
  if (edgesMeet(one, a, two, b)) return 0;
  return Math.min(
    edgeDistance(one, a, two.xs[b], two.ys[b]),
    edgeDistance(one, a, two.xs[b1], two.ys[b1]),
    edgeDistance(two, b, one.xs[a], one.ys[a]),
    edgeDistance(two, b, one.xs[a1], one.ys[a1]),
  );
}
