import { type Path, PathBuilder } from '../paths/path.ts';
import { simplifyPolyline } from '../paths/simplify.ts';
import { type Area, linesOfArea } from './area.ts';

/** Rings as one path: each a closed line of points, x and y one after another. */
export function pathOfRings(rings: readonly ArrayLike<number>[]): Path {
  const builder = new PathBuilder();
  for (const ring of rings) {
    builder.moveTo(ring[0], ring[1]);
    for (let i = 2; i < ring.length; i += 2) builder.lineTo(ring[i], ring[i + 1]);
    builder.close();
  }
  return builder.build();
}

/** The rings of an area, with no more points than it takes to stray no further than `tolerance` mm. */
export function ringsOfArea(area: Area, tolerance: number): Float64Array[] {
  return linesOfArea(area).map(({ points }) => simplifyRing(points, tolerance));
}

/** A ring with no more points than it takes to stray no further than `tolerance` mm; it keeps three at least. */
export function simplifyRing(points: Float64Array, tolerance: number): Float64Array {
  const closed = new Float64Array(points.length + 2);
  closed.set(points);
  closed.set(points.subarray(0, 2), points.length);
  const simple = simplifyPolyline(closed, tolerance);
  return simple.length > 6 ? simple.slice(0, -2) : points;
}
