import { type Item, polylinesOf } from '../document/item.ts';
import { EdgeRuns, type OwnedLine } from '../geometry/questions/edge-runs.ts';
import { nearItems } from './near-items.ts';

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

type Overlap = ReturnType<typeof overlappingOwners>;

const none: Overlap = { owners: [], lengthMm: 0 };
const ownOverlaps = new WeakMap<Item, Overlap>();

/** How items that lie apart lie on themselves. Those not known yet are looked at together: most do not. */
function onThemselves(items: readonly Item[]): Overlap[] {
  const fresh = items.filter((item) => !ownOverlaps.has(item));
  const { owners } = overlappingOwners(ownedLines(fresh));
  for (const item of fresh) ownOverlaps.set(item, none);
  for (const owner of owners) ownOverlaps.set(fresh[owner], overlappingOwners(ownedLines([fresh[owner]])));
  return items.map((item) => ownOverlaps.get(item) ?? none);
}

function ownedLines(items: readonly Item[]): OwnedLine[] {
  return items.flatMap((item, owner) => polylinesOf(item).map((line) => ({ owner, line })));
}

/** The same of items, by their places; those that lie apart are only held against themselves. */
export function overlappingItems(items: readonly Item[]): { owners: number[]; lengthMm: number } {
  const { near, alone } = nearItems(items);
  const together = overlappingOwners(near.flatMap((item, owner) => polylinesOf(item).map((line) => ({ owner, line }))));
  const concerned = new Set(together.owners.map((owner) => near[owner]));
  let { lengthMm } = together;
  onThemselves(alone).forEach((own, i) => {
    if (own.owners.length > 0) concerned.add(alone[i]);
    lengthMm += own.lengthMm;
  });
  return { owners: items.flatMap((item, i) => (concerned.has(item) ? [i] : [])), lengthMm };
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

/** The edges of runs that come near others. */
function edgesOf(runs: EdgeRuns): Edges {
  const isNear = new Uint8Array(runs.firsts.length - 1);
  runs.forEachPair(near, (run, other) => {
    isNear[run] = isNear[other] = 1;
  });
  let most = 0;
  isNear.forEach((found, run) => {
    if (found) most += runs.firsts[run + 1] - runs.firsts[run];
  });
  const column = () => new Float64Array(most);
  const [owners, names, from, to, across] = [new Int32Array(most), column(), column(), column(), column()];
  let count = 0;
  isNear.forEach((found, run) => {
    if (!found) return;
    for (let edge = runs.firsts[run]; edge < runs.firsts[run + 1]; edge++) {
      const e = 4 * edge;
      const [x0, y0, x1, y1] = [runs.ends[e], runs.ends[e + 1], runs.ends[e + 2], runs.ends[e + 3]];
      let angle = Math.atan2(y1 - y0, x1 - x0);
      if (angle < 0) angle += Math.PI;
      const sector = Math.round((angle / Math.PI) * sectors) % sectors;
      // Measured along and across the sector's own direction, so that all its edges share one frame.
      const [cos, sin] = [cosines[sector], sines[sector]];
      const start = x0 * cos + y0 * sin;
      const end = x1 * cos + y1 * sin;
      owners[count] = runs.owners[edge];
      from[count] = Math.min(start, end);
      to[count] = Math.max(start, end);
      across[count] = (-(x0 + x1) * sin + (y0 + y1) * cos) / 2;
      names[count] = Math.round(across[count] / 0.1) * sectors + sector;
      count++;
    }
  });
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
