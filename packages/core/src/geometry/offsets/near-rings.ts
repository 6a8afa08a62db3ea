import { boxesMeet, growBox, uniteBoxes } from '../paths/box.ts';
import { edgeDistance, meetingOf, type Ring, ringOf } from '../paths/ring.ts';
import { Components } from '../questions/components.ts';
import { boundsOf, hardlyTurns, type Piece, piecesOf, turnAt } from './ring-pieces.ts';

/** Parts of a ring nearer to each other along it than this many times the whole width are local to each other: that they are near says nothing. */
export const localReach = 2.4;
/** Most cells of the grid in which near edges are looked for. */
const mostCells = 400_000;
/** Rings are compared in pieces: of so many edges, or long ones cut; of few edges, into so many in all. */
const edgesInPiece = 8;
const piecesOfFew = 40;
/** Every ring is cut into as many pieces at least. */
const leastPieces = 8;
/** So many pairs of edges are compared at most, for each edge and in all. */
const mostPairs = { each: 300, all: 2_000_000 };

/**
 * Whether closed lines come nearer to each other than a width, in mm, or cross; parts of one line count that are not
 * local to each other.
 *
 * @param outlines x and y of each one's points one after the other
 */
export function comeNear(outlines: readonly Float64Array[], width: number): boolean {
  const rings = outlines.flatMap((points) => ringOf(points) ?? []);
  return ringsComeNear(rings, width);
}

/** The same of rings. */
export function ringsComeNear(rings: readonly Ring[], width: number): boolean {
  return !eachNear(rings, { width, bendsToo: true, found: () => false });
}

/** Which rings come near each other. */
export interface Nearness {
  /** Those that do, however many between them, by their places in the list; most are alone. */
  readonly components: readonly (readonly number[])[];
  /** Whether parts of a ring that are not local to each other come near each other. */
  readonly nearItself: readonly boolean[];
}

/** Which rings, none of which crosses itself, come nearer to each other than a width, in mm; where that is too much to find out, all are said to. */
export function nearnessOf(rings: readonly Ring[], width: number): Nearness {
  const components = new Components(rings.length);
  const nearItself = rings.map(() => false);
  const isWhole = eachNear(rings, {
    width,
    bendsToo: false,
    found: (a, b) => {
      if (a === b) nearItself[a] = true;
      else components.join(a, b);
      return true;
    },
  });
  if (!isWhole) return { components: [rings.map((_, i) => i)], nearItself: rings.map(() => true) };
  return { components: components.list(), nearItself };
}

/** What is looked for. */
interface Wanted {
  /** Nearer to each other than this, in mm. */
  readonly width: number;
  /** Also where edges local to each other cross. */
  readonly bendsToo: boolean;
  /** Told of which rings the edges are; more of them are found as long as it says so. */
  readonly found: (a: number, b: number) => boolean;
}

/**
 * Finds edges of rings nearer to each other than a width; those local to each other, if at all, where they cross. The rings are
 * cut into pieces, and each piece is compared with those before it in the cells around its middle in a grid; of two
 * between which the ring hardly turns nothing crosses, and nothing that is not local is near.
 *
 * @returns whether all were found; not where there are too many to compare
 */
function eachNear(rings: readonly Ring[], wanted: Wanted): boolean {
  const { width } = wanted;
  const count = rings.reduce((sum, ring) => sum + ring.count, 0);
  if (count === 0) return true;
  const length = rings.reduce((sum, ring) => sum + ring.length, 0);
  const most = Math.max(width, Math.min((edgesInPiece * length) / count, length / piecesOfFew));
  const bounds = rings.map((ring) => boundsOf(ring, 0, ring.count - 1)).reduce(uniteBoxes);
  const [wide, high] = [bounds.maxX - bounds.minX, bounds.maxY - bounds.minY];
  // Pieces that come near have their middles within a width and a piece: in the cells around.
  const cell = Math.max(width + most, Math.sqrt((wide * high) / mostCells));
  const across = Math.floor(wide / cell) + 3;
  const down = Math.floor(high / cell) + 3;
  if (across * down > 4 * mostCells) return false;
  const heads = new Int32Array(across * down).fill(-1);
  const pieces: Piece[] = [];
  const nexts: number[] = [];
  const seen = { pairsLeft: mostPairs.each * count + mostPairs.all };
  for (let owner = 0; owner < rings.length; owner++) {
    // A piece that is a good part of its ring would be local to all the rest of it.
    const ofRing = piecesOf(rings[owner], owner, Math.min(most, rings[owner].length / leastPieces));
    const turns = ofRing[ofRing.length - 1].turnedTo + turnAt(rings[owner], 0);
    for (const piece of ofRing) {
      const { minX, minY, maxX, maxY } = piece.box;
      const grown = growBox(piece.box, width);
      const row = Math.floor(((minY + maxY) / 2 - bounds.minY) / cell + 1);
      const index = row * across + Math.floor(((minX + maxX) / 2 - bounds.minX) / cell) + 1;
      for (let around = index - across; around <= index + across; around += across) {
        for (let c = around - 1; c <= around + 1; c++) {
          for (let k = heads[c]; k >= 0; k = nexts[k]) {
            const other = pieces[k];
            if (--seen.pairsLeft < 0) return false;
            if (other.owner === owner && hardlyTurns(turns, other, piece)) continue;
            if (!boxesMeet(grown, other.box)) continue;
            if (!compare(rings, piece, other, wanted, seen)) return false;
          }
        }
      }
      nexts.push(heads[index]);
      heads[index] = pieces.length;
      pieces.push(piece);
    }
  }
  return true;
}

/**
 * Compares the edges of two pieces.
 * @param other lies before the first, where they are of one ring
 * @param seen counts the pairs that may still be compared
 * @returns false where there are too many, or no more are wanted
 */
function compare(
  rings: readonly Ring[],
  piece: Piece,
  other: Piece,
  { width, bendsToo, found }: Wanted,
  seen: { pairsLeft: number },
): boolean {
  const [here, there] = [rings[piece.owner], rings[other.owner]];
  for (let a = piece.first; a <= piece.last; a++) {
    const from = Math.max(piece.from, here.along[a]);
    const to = Math.min(piece.to, here.along[a] + here.sizes[a]);
    const middleX = here.xs[a] + ((from + to) / 2 - here.along[a]) * here.dx[a];
    const middleY = here.ys[a] + ((from + to) / 2 - here.along[a]) * here.dy[a];
    // What ends after the one, or starts before the other beyond the ring's beginning, is local to it.
    const localFrom = from - localReach * width;
    const localTo = to - here.length + localReach * width;
    for (let b = other.first; b <= other.last; b++) {
      if (--seen.pairsLeft < 0) return false;
      const start = Math.max(other.from, there.along[b]);
      const end = Math.min(other.to, there.along[b] + there.sizes[b]);
      const isBend = here === there && (end > localFrom || start < localTo);
      if (isBend && !bendsToo) continue;
      const reach = (isBend ? 0 : width) + (to - from + end - start) / 2;
      const middle = (start + end) / 2 - there.along[b];
      if (Math.abs(middleX - there.xs[b] - middle * there.dx[b]) > reach) continue;
      if (Math.abs(middleY - there.ys[b] - middle * there.dy[b]) > reach) continue;
      if (isBend) {
        const apart = a - b;
        if (apart < 2 || apart === here.count - 1) continue;
        if (edgesMeet(here, a, there, b) && !found(piece.owner, piece.owner)) return false;
        continue;
      }
      const gap = distanceBetween(here, a, from, to, there, b, start, end);
      if (gap < width && !found(piece.owner, other.owner)) return false;
    }
  }
  return true;
}

function edgesMeet(ring: Ring, a: number, two: Ring, b: number): boolean {
  const [a1, b1] = [a + 1 < ring.count ? a + 1 : 0, b + 1 < two.count ? b + 1 : 0];
  const { xs, ys } = ring;
  return meetingOf(xs[a], ys[a], xs[a1], ys[a1], two.xs[b], two.ys[b], two.xs[b1], two.ys[b1]) !== null;
}

/**
 * How near a part of an edge of one ring comes to a part of one of another; 0 where the edges cross.
 * @param from how far along its ring the first part begins, and ends
 * @param start the same of the second
 */
function distanceBetween(
  ring: Ring,
  a: number,
  from: number,
  to: number,
  two: Ring,
  b: number,
  start: number,
  end: number,
): number {
  if (edgesMeet(ring, a, two, b)) return 0;
  const [ax, ay, adx, ady] = [ring.xs[a], ring.ys[a], ring.dx[a], ring.dy[a]];
  const [bx, by, bdx, bdy] = [two.xs[b], two.ys[b], two.dx[b], two.dy[b]];
  const [a0, a1] = [from - ring.along[a], to - ring.along[a]];
  const [b0, b1] = [start - two.along[b], end - two.along[b]];
  return Math.min(
    edgeDistance(two, b, ax + a0 * adx, ay + a0 * ady, b0, b1),
    edgeDistance(two, b, ax + a1 * adx, ay + a1 * ady, b0, b1),
    edgeDistance(ring, a, bx + b0 * bdx, by + b0 * bdy, a0, a1),
    edgeDistance(ring, a, bx + b1 * bdx, by + b1 * bdy, a0, a1),
  );
}
