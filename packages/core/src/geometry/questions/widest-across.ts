import type { Polyline } from '../paths/flatten.ts';
import { convexHull } from './convex-hull.ts';

/** How far an outline is across where it is widest, in mm: what lies furthest apart are two corners of its convex hull. */
export function widestAcross({ points }: Polyline): number {
  const hull = convexHull(points);
  let most = 0;
  for (const [x, y] of hull) for (const [px, py] of hull) most = Math.max(most, (px - x) ** 2 + (py - y) ** 2);
  return Math.sqrt(most);
}
