import { type Axis, type Box3, sharedBox, thirdAxis } from '../assembly/space.ts';
import { normalOf, type Plate } from '../plate.ts';

/** A stretch of an edge that one of its plates has. From and to are places along the edge's axis. */
export interface Piece {
  readonly from: number;
  readonly to: number;
  readonly ownerId: string;
}

/** Where two plates would be in the same place: what of it is whose. */
export interface Edge {
  readonly axis: Axis;
  readonly region: Box3;
  readonly plateIds: readonly [string, string];
  /** From its one end to its other, corners and all. */
  readonly pieces: readonly Piece[];
}

/** An edge before anything is shared out. */
interface OpenEdge extends Omit<Edge, 'pieces'> {
  /** How many pieces lie between its corners. */
  readonly count: number;
  /** The corners at its ends, by their place in the list; null where there is none. */
  readonly cornerAt: readonly [number | null, number | null];
  readonly lo: number;
  readonly hi: number;
}

interface Corner {
  readonly box: Box3;
  readonly plateIds: readonly [string, string, string];
}

/**
 * Shares out what plates have in common: edges in equal pieces in turn, corners to a plate that has the pieces on both
 * sides of it. Of an edge of an odd number the plate that comes first in the list has both ends; of an even number each has
 * one, so chosen that no corner hangs on by one side only.
 *
 * @param countFor how many pieces an edge is to have, by the length between its corners in mm
 */
export function shareOut(plates: readonly Plate[], countFor: (lengthMm: number) => number): Edge[] {
  const corners = cornersOf(plates);
  const edges = openEdges(plates, corners, countFor);
  const firsts = firstsOf(edges, corners);
  const endOwner = (edge: number, end: 0 | 1) =>
    ownerOf(edges[edge], firsts[edge], end === 0 ? 0 : edges[edge].count - 1);
  const cornerOwners = corners.map((_, corner) => {
    const ends = edges.flatMap(({ cornerAt }, i) =>
      ([0, 1] as const).flatMap((end) => (cornerAt[end] === corner ? [endOwner(i, end)] : [])),
    );
    return ends.find((owner, i) => ends.indexOf(owner) < i) ?? ends[0];
  });
  return edges.map(({ axis, region, plateIds, count, cornerAt, lo, hi }, i) => {
    const pieces: Piece[] = Array.from({ length: count }, (_, k) => ({
      from: lo + ((hi - lo) * k) / count,
      to: lo + ((hi - lo) * (k + 1)) / count,
      ownerId: ownerOf(edges[i], firsts[i], k),
    }));
    const [first, last] = cornerAt;
    if (first !== null) pieces.unshift({ from: region.min[axis], to: lo, ownerId: cornerOwners[first] });
    if (last !== null) pieces.push({ from: hi, to: region.max[axis], ownerId: cornerOwners[last] });
    return { axis, region, plateIds, pieces };
  });
}

const ownerOf = ({ plateIds }: OpenEdge, first: 0 | 1, piece: number) => plateIds[(first + piece) % 2];

function cornersOf(plates: readonly Plate[]): Corner[] {
  return plates.flatMap((a, i) =>
    plates.slice(i + 1).flatMap((b, j) => {
      const shared = sharedBox(a.box, b.box);
      if (!shared) return [];
      return plates.slice(i + j + 2).flatMap((c): Corner[] => {
        const box = sharedBox(shared, c.box);
        return box ? [{ box, plateIds: [a.id, b.id, c.id] }] : [];
      });
    }),
  );
}

function openEdges(
  plates: readonly Plate[],
  corners: readonly Corner[],
  countFor: (lengthMm: number) => number,
): OpenEdge[] {
  return plates.flatMap((a, i) =>
    plates.slice(i + 1).flatMap((b): OpenEdge[] => {
      const region = sharedBox(a.box, b.box);
      if (!region) return [];
      const axis = thirdAxis(normalOf(a), normalOf(b));
      const cornerAtEnd = (isAt: (box: Box3) => boolean) => {
        const found = corners.findIndex(
          ({ box, plateIds }) => plateIds.includes(a.id) && plateIds.includes(b.id) && isAt(box),
        );
        return found < 0 ? null : found;
      };
      const first = cornerAtEnd((box) => box.min[axis] === region.min[axis]);
      const last = cornerAtEnd((box) => box.max[axis] === region.max[axis]);
      const lo = first === null ? region.min[axis] : corners[first].box.max[axis];
      const hi = last === null ? region.max[axis] : corners[last].box.min[axis];
      return [{ axis, region, plateIds: [a.id, b.id], count: countFor(hi - lo), cornerAt: [first, last], lo, hi }];
    }),
  );
}

/** Which plate of each edge has its first piece: as listed, or so that corners are held from two sides. */
function firstsOf(edges: readonly OpenEdge[], corners: readonly Corner[]): (0 | 1)[] {
  const even = edges.flatMap(({ count }, i) => (count % 2 === 0 ? [i] : []));
  const ends = corners.map((_, corner) =>
    edges.flatMap(({ cornerAt, count }, edge) =>
      cornerAt.flatMap((found, end) => (found === corner ? [{ edge, turned: end === 1 ? (count - 1) % 2 : 0 }] : [])),
    ),
  );
  const firsts = edges.map((): 0 | 1 => 0);
  let best = { weak: Number.POSITIVE_INFINITY, firsts };
  for (let mask = 0; mask < 2 ** even.length && best.weak > 0; mask++) {
    const tried = [...firsts];
    for (const [bit, edge] of even.entries()) tried[edge] = ((mask >> bit) & 1) as 0 | 1;
    const weak = ends.filter((meeting) => {
      const owners = meeting.map(({ edge, turned }) => edges[edge].plateIds[(tried[edge] + turned) % 2]);
      return new Set(owners).size === owners.length;
    }).length;
    if (weak < best.weak) best = { weak, firsts: tried };
  }
  return best.firsts;
}
