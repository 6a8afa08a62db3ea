import type { Path64, Paths64 } from 'clipper2-ts';
import { indexBoxes } from '../paths/box-index.ts';

type GridPoint = Path64[number];

/** What is no further apart than this, in steps of the raster, is in one place but for rounding. */
const near = 1.5;
const cell = 2;

/**
 * Rings whose points are the same where they are in one place but for rounding. Their edges go through the points that
 * lie on them so: edges that lie over each other do so exactly. (Snap rounding, after Hobby, "Practical Segment
 * Intersection with Finite Precision Output", 1999.) The library is far off where edges almost do.
 */
export function snapped(areas: readonly Paths64[]): Paths64[] {
  const points = new Map<number, GridPoint[]>();
  const known = (point: GridPoint): GridPoint => {
    const [cx, cy] = [Math.floor(point.x / cell), Math.floor(point.y / cell)];
    for (let x = cx - 1; x <= cx + 1; x++)
      for (let y = cy - 1; y <= cy + 1; y++)
        for (const other of points.get(keyOf(x, y)) ?? []) if (isNear(point, other)) return other;
    const here = points.get(keyOf(cx, cy));
    if (here) here.push(point);
    else points.set(keyOf(cx, cy), [point]);
    return point;
  };
  const moved = areas.map((rings) => rings.map((ring) => ring.map(known)));
  const edges = moved.flatMap((rings) =>
    rings.flatMap((ring) => ring.map((from, i) => ({ from, to: ring[(i + 1) % ring.length], on: [] as GridPoint[] }))),
  );
  const index = indexBoxes(
    edges.map(({ from, to }) => ({
      minX: Math.min(from.x, to.x),
      minY: Math.min(from.y, to.y),
      maxX: Math.max(from.x, to.x),
      maxY: Math.max(from.y, to.y),
    })),
  );
  if (!index) return moved;
  for (const here of points.values())
    for (const point of here)
      for (const i of index.search(point.x - near, point.y - near, point.x + near, point.y + near))
        if (liesOn(point, edges[i].from, edges[i].to)) edges[i].on.push(point);
  let next = 0;
  return moved.map((rings) =>
    rings.map((ring) =>
      ring.flatMap(() => {
        const { from, on } = edges[next++];
        if (on.length > 1) on.sort((a, b) => square(from, a) - square(from, b));
        return [from, ...on];
      }),
    ),
  );
}

function square(a: GridPoint, b: GridPoint): number {
  return (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
}

function isNear(a: GridPoint, b: GridPoint): boolean {
  return square(a, b) <= near * near;
}

/** Whether a point that is neither of an edge's ends lies on it but for rounding. */
function liesOn(point: GridPoint, from: GridPoint, to: GridPoint): boolean {
  const [dx, dy, px, py] = [to.x - from.x, to.y - from.y, point.x - from.x, point.y - from.y];
  const length = Math.hypot(dx, dy);
  const along = (px * dx + py * dy) / length;
  return along > 0 && along < length && Math.abs(px * dy - py * dx) <= near * length && point !== from && point !== to;
}

/** Different cells may share it: what is found by it is looked at. */
function keyOf(x: number, y: number): number {
  return x * 67_108_859 + y;
}
