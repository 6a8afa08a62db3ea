import type { Polyline } from '../geometry/paths/flatten.ts';

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

/**
 * Finds edges that lie on each other, in one line or in several.
 *
 * Edges are sorted by the sector of their direction and by the line that they lie on; on each line a
 * sweep finds the segments that two of them share. An edge is entered with its neighbouring sector
 * where it lies close to the boundary, so that a pair is never parted by rounding.
 *
 * @returns the owners concerned, in order, and the length in mm that is drawn more than once
 */
export function overlappingOwners(lines: readonly { readonly owner: number; readonly line: Polyline }[]): {
  owners: number[];
  lengthMm: number;
} {
  const edges = edgesOf(lines);
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

function edgesOf(lines: readonly { readonly owner: number; readonly line: Polyline }[]): Edges {
  const most = lines.reduce((sum, { line }) => sum + line.points.length / 2, 0);
  const column = () => new Float64Array(most);
  const [owners, names, from, to, across] = [new Int32Array(most), column(), column(), column(), column()];
  let count = 0;
  for (const { owner, line } of lines) {
    const { points, closed } = line;
    const last = points.length - 2;
    for (let i = closed && last > 2 ? 0 : 2; i < points.length; i += 2) {
      const before = i === 0 ? last : i - 2;
      const [x0, y0, x1, y1] = [points[before], points[before + 1], points[i], points[i + 1]];
      let angle = Math.atan2(y1 - y0, x1 - x0);
      if (angle < 0) angle += Math.PI;
      const sector = Math.round((angle / Math.PI) * sectors) % sectors;
      // Measured along and across the sector's own direction, so that all its edges share one frame.
      const [cos, sin] = [cosines[sector], sines[sector]];
      const start = x0 * cos + y0 * sin;
      const end = x1 * cos + y1 * sin;
      owners[count] = owner;
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
