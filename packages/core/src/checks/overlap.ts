import type { Polyline } from '../geometry/paths/flatten.ts';

/** A straight edge as a segment [from, to] along the line that it lies on. */
interface Edge {
  readonly owner: number;
  readonly from: number;
  readonly to: number;
  /** Where the line's foot lies, across its direction. */
  readonly across: number;
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
  const buckets = new Map<number, Edge[]>();
  for (const { owner, line } of lines) eachEdge(line, (x0, y0, x1, y1) => enter(buckets, owner, x0, y0, x1, y1));
  const owners = new Map<number, number>();
  let total = 0;
  for (const edges of buckets.values()) {
    if (edges.length < 2) continue;
    edges.sort((a, b) => a.from - b.from);
    let reach = edges[0];
    for (let i = 1; i < edges.length; i++) {
      const edge = edges[i];
      const shared = Math.min(reach.to, edge.to) - edge.from;
      if (shared > 1e-3 && Math.abs(edge.across - reach.across) < near) {
        total += shared;
        owners.set(edge.owner, (owners.get(edge.owner) ?? 0) + shared);
        owners.set(reach.owner, (owners.get(reach.owner) ?? 0) + shared);
      }
      if (edge.to > reach.to) reach = edge;
    }
  }
  const concerned = [...owners].filter(([, length]) => length >= shortest).map(([owner]) => owner);
  return { owners: concerned.sort((a, b) => a - b), lengthMm: total };
}

function eachEdge({ points, closed }: Polyline, take: (x0: number, y0: number, x1: number, y1: number) => void): void {
  for (let i = 2; i < points.length; i += 2) take(points[i - 2], points[i - 1], points[i], points[i + 1]);
  const last = points.length - 2;
  if (closed && last > 2) take(points[last], points[last + 1], points[0], points[1]);
}

function enter(buckets: Map<number, Edge[]>, owner: number, x0: number, y0: number, x1: number, y1: number): void {
  let angle = Math.atan2(y1 - y0, x1 - x0);
  if (angle < 0) angle += Math.PI;
  const sector = Math.round((angle / Math.PI) * sectors) % sectors;
  // Measured along and across the sector's own direction, so that all its edges share one frame.
  const direction = (sector * Math.PI) / sectors;
  const cos = Math.cos(direction);
  const sin = Math.sin(direction);
  const start = x0 * cos + y0 * sin;
  const end = x1 * cos + y1 * sin;
  const across = (-(x0 + x1) * sin + (y0 + y1) * cos) / 2;
  const edge: Edge = { owner, from: Math.min(start, end), to: Math.max(start, end), across };
  const cell = Math.round(across / 0.1);
  const name = cell * sectors + sector;
  const bucket = buckets.get(name);
  if (bucket) bucket.push(edge);
  else buckets.set(name, [edge]);
}
