import { type Item, polylinesOf } from '../document/item.ts';
import { EdgeRuns, edgesInRun, type OwnedLine } from '../geometry/questions/edge-runs.ts';
import { perEach } from '../lists/per-each.ts';
import { nearItems } from '../plan/near-items.ts';

/** Straight edges, each as a segment [from, to] along the line that it lies on. */
interface Edges {
  readonly count: number;
  readonly owners: Int32Array;
  /** The line that an edge lies on: its sector, and its place across that. */
  readonly names: Float64Array;
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** Where the line's foot lies, across its direction. */
  readonly across: Float64Array;
}

/** Directions are sorted into this many sectors of a half turn. */
const sectors = 720;
/** Lines nearer than this, in mm, are one for the beam. */
const near = 0.02;
/** Shorter doubled segments than this, in mm, are no finding. */
const shortest = 0.2;

/** How much of an item lies on itself, in mm. */
const ownOverlaps = new WeakMap<Item, number>();

/** The same for items that lie apart. Those not known yet are looked at together: most do not lie on themselves. */
const ownOverlapOfEach = perEach((items: readonly Item[]): number[] => {
  const fresh = items.filter((item) => !ownOverlaps.has(item));
  const { owners } = overlappingOwners(ownedLines(fresh));
  for (const item of fresh) ownOverlaps.set(item, 0);
  for (const owner of owners) ownOverlaps.set(fresh[owner], overlappingOwners(ownedLines([fresh[owner]])).lengthMm);
  return items.map((item) => ownOverlaps.get(item) ?? 0);
});

function ownedLines(items: readonly Item[]): OwnedLine[] {
  return items.flatMap((item, owner) => polylinesOf(item).map((line) => ({ owner, line })));
}

/** Items that lie on each other or on themselves, and how many mm do; what lies apart is only held against itself. */
export function overlappingItems(items: readonly Item[]): { items: Item[]; lengthMm: number } {
  const { near, alone } = nearItems(items);
  const together = overlappingOwners(ownedLines(near));
  const concerned = new Set(together.owners.map((owner) => near[owner]));
  let { lengthMm } = together;
  for (const [i, ownMm] of ownOverlapOfEach(alone).entries()) {
    if (ownMm === 0) continue;
    concerned.add(alone[i]);
    lengthMm += ownMm;
  }
  return { items: concerned.size === 0 ? [] : items.filter((item) => concerned.has(item)), lengthMm };
}

/**
 * Finds edges that lie on each other, in one line or in several.
 *
 * Edges near others are sorted by the sector of their direction and by the line that they lie on. On each line a
 * sweep finds the segments that two of them share. Edges at the border of two sectors may be missed by a hair.
 *
 * @returns the owners concerned, in order, and the length in mm that is drawn more than once
 */
export function overlappingOwners(lines: readonly OwnedLine[]): {
  owners: number[];
  lengthMm: number;
} {
  const edges = edgesOf(new EdgeRuns(lines));
  const { from, to, across } = edges;
  const owners = new Map<number, number>();
  let total = 0;
  for (const bucket of bucketsOf(edges)) {
    bucket.sort((a, b) => from[a] - from[b] || a - b);
    let reach = bucket[0];
    for (let i = 1; i < bucket.length; i++) {
      const edge = bucket[i];
      const shared = Math.min(to[reach], to[edge]) - from[edge];
      if (shared > 1e-3 && Math.abs(across[edge] - across[reach]) < near) {
        total += shared;
        for (const owner of [edges.owners[edge], edges.owners[reach]])
          owners.set(owner, (owners.get(owner) ?? 0) + shared);
      }
      if (to[edge] > to[reach]) reach = edge;
    }
  }
  const concerned = [...owners].filter(([, length]) => length >= shortest).map(([owner]) => owner);
  return { owners: concerned.sort((a, b) => a - b), lengthMm: total };
}

const cosines = Float64Array.from({ length: sectors }, (_, sector) => Math.cos((sector * Math.PI) / sectors));
const sines = Float64Array.from({ length: sectors }, (_, sector) => Math.sin((sector * Math.PI) / sectors));

/** The edges that others run along. */
function edgesOf(runs: EdgeRuns): Edges {
  const isAlong = new Uint8Array(runs.owners.length * edgesInRun);
  runs.forEachPair(near, (run, other) =>
    runs.forEachInLine(run, other, (edge, otherEdge) => {
      isAlong[run * edgesInRun + edge] = isAlong[other * edgesInRun + otherEdge] = 1;
    }),
  );
  const most = isAlong.reduce((sum, is) => sum + is, 0);
  const column = () => new Float64Array(most);
  const [owners, names, from, to, across] = [new Int32Array(most), column(), column(), column(), column()];
  const found = EdgeRuns.scratch();
  let count = 0;
  for (let run = 0; count < most; run++) {
    const edges = runs.edgesOf(run, found);
    for (let k = 0; k < edges; k++) {
      if (isAlong[run * edgesInRun + k] === 0) continue;
      const [x0, y0, x1, y1] = [found[4 * k], found[4 * k + 1], found[4 * k + 2], found[4 * k + 3]];
      let angle = Math.atan2(y1 - y0, x1 - x0);
      if (angle < 0) angle += Math.PI;
      const sector = Math.round((angle / Math.PI) * sectors) % sectors;
      // Measured along and across the sector's own direction, so that all its edges share one frame.
      const [cos, sin] = [cosines[sector], sines[sector]];
      const start = x0 * cos + y0 * sin;
      const end = x1 * cos + y1 * sin;
      owners[count] = runs.owners[run];
      from[count] = Math.min(start, end);
      to[count] = Math.max(start, end);
      across[count] = (-(x0 + x1) * sin + (y0 + y1) * cos) / 2;
      names[count] = Math.round(across[count] / 0.1) * sectors + sector;
      count++;
    }
  }
  return { count, owners, names, from, to, across };
}

/** The edges that have a name in common, by number, in their order. */
function bucketsOf({ count, names }: Edges): Int32Array[] {
  const numbers = new Map<number, number>();
  const bucketOf = new Int32Array(count);
  for (let edge = 0; edge < count; edge++) {
    let bucket = numbers.get(names[edge]);
    if (bucket === undefined) {
      bucket = numbers.size;
      numbers.set(names[edge], bucket);
    }
    bucketOf[edge] = bucket;
  }
  const ends = new Int32Array(numbers.size + 1);
  for (let edge = 0; edge < count; edge++) ends[bucketOf[edge] + 1]++;
  for (let bucket = 1; bucket < ends.length; bucket++) ends[bucket] += ends[bucket - 1];
  const starts = ends.slice();
  const members = new Int32Array(count);
  for (let edge = 0; edge < count; edge++) members[starts[bucketOf[edge]]++] = edge;
  const buckets: Int32Array[] = [];
  for (let bucket = 0; bucket < numbers.size; bucket++)
    if (ends[bucket + 1] - ends[bucket] > 1) buckets.push(members.subarray(ends[bucket], ends[bucket + 1]));
  return buckets;
}
