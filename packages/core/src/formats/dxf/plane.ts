import { determinant, identity, type Matrix } from '../../geometry/paths/matrix.ts';
import { type Fields, finite, type Raw } from './groups.ts';

/** Entities whose points are in a plane of their own. */
export const planar: ReadonlySet<string> = new Set([
  'CIRCLE',
  'ARC',
  'LWPOLYLINE',
  'POLYLINE',
  'SOLID',
  'TRACE',
  'HATCH',
]);

/**
 * The map from an entity's plane to the drawing seen from above, by DXF's arbitrary axis algorithm;
 * null when the plane stands upright. Most lie flat: these all get the same map.
 */
export function planeOf(fields: Fields): Matrix | null {
  if (fields.text(210) === null) return identity;
  const { x, y, z } = fields.point(210);
  const length = Math.hypot(x, y, z);
  if (length === 0) return identity;
  const [nx, ny, nz] = [x / length, y / length, z / length];
  const near = Math.abs(nx) < 1 / 64 && Math.abs(ny) < 1 / 64;
  // The x axis is (0, 1, 0) or (0, 0, 1) times the normal; the y axis the normal times the x axis.
  const [ax, ay, az] = near ? [nz, 0, -nx] : [-ny, nx, 0];
  const size = Math.hypot(ax, ay, az);
  const [ux, uy, uz] = [ax / size, ay / size, az / size];
  const [vx, vy] = [ny * uz - nz * uy, nz * ux - nx * uz];
  const matrix: Matrix = [ux, uy, vx, vy, 0, 0];
  return Math.abs(determinant(matrix)) < 1e-6 ? null : matrix;
}

/** Whether an entity's points are not all at one height. */
export function isTilted(fields: Fields, { type }: Raw): boolean {
  const heights = type === 'LINE' || type === '3DFACE' ? [30, 31, 32, 33] : type === 'SPLINE' ? [30] : [];
  const levels = heights.flatMap((code) => fields.all(code).map(finite));
  return levels.length > 1 && Math.max(...levels) - Math.min(...levels) > 1e-6;
}
