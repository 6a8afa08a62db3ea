import { Components } from '../../geometry/questions/components.ts';
import type { Mesh } from './parse.ts';

/** Corners that are this near, in mm, are one. */
const weld = 1e-5;

/** A mesh's parts that share no corner, in the order of their first triangles. */
export function shellsOf(mesh: Mesh): Mesh[] {
  const count = mesh.length / 9;
  const sets = new Components(count);
  const firstWith = new Map<string, number>();
  for (let triangle = 0; triangle < count; triangle++) {
    for (let k = 9 * triangle; k < 9 * triangle + 9; k += 3) {
      const key = `${Math.round(mesh[k] / weld)} ${Math.round(mesh[k + 1] / weld)} ${Math.round(mesh[k + 2] / weld)}`;
      const known = firstWith.get(key);
      if (known === undefined) firstWith.set(key, triangle);
      else sets.join(known, triangle);
    }
  }
  const members = sets.list();
  if (members.length === 1) return [mesh];
  return members.map((triangles) => {
    const out = new Float64Array(triangles.length * 9);
    triangles.forEach((triangle, i) => {
      out.set(mesh.subarray(9 * triangle, 9 * triangle + 9), 9 * i);
    });
    return out;
  });
}

/** Six times what a closed mesh holds, in mm³; below 0 where its faces look inwards, as those of a cavity do. */
export function signedVolume(mesh: Mesh): number {
  let sum = 0;
  for (let i = 0; i < mesh.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = mesh.subarray(i, i + 9);
    sum += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
  }
  return sum;
}

/** A direction in space. */
type Direction = readonly [x: number, y: number, z: number];

/** Faces look along the same axis where their directions are this near. */
const sameAxis = 0.01;
/** A face that is less of a solid than this is not what it would lie on. */
const leastShare = 0.25;
/** How high a flat part is, lying on its face, against the least that it measures along x, y or z. */
const mostHeight = 0.9;

/**
 * The axis that the largest flat faces of a mesh look along, those of both sides together; null where it is one of the
 * three axes of space, or no face is a large part of the whole.
 */
export function tiltedAxis(mesh: Mesh): Direction | null {
  const axes = new Map<string, { sum: [number, number, number]; area: number }>();
  let whole = 0;
  for (let i = 0; i < mesh.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = mesh.subarray(i, i + 9);
    const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
    let normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(...normal);
    if (length === 0) continue;
    // Both sides of a plate look along one axis: the one that points up, or else along y, or x.
    const [x, y, z] = normal.map((value) => (Math.abs(value) < sameAxis * length ? 0 : value));
    if ((z || y || x) < 0) normal = normal.map((value) => -value);
    const key = normal.map((value) => Math.round(value / length / sameAxis)).join(' ');
    const axis = axes.get(key) ?? { sum: [0, 0, 0], area: 0 };
    axes.set(key, axis);
    for (let k = 0; k < 3; k++) axis.sum[k] += normal[k];
    axis.area += length;
    whole += length;
  }
  const largest = [...axes.values()].reduce((best, axis) => (axis.area > best.area ? axis : best), {
    sum: [0, 0, 1] as [number, number, number],
    area: 0,
  });
  if (largest.area < leastShare * whole) return null;
  const length = Math.hypot(...largest.sum);
  const [x, y, z] = largest.sum.map((value) => value / length);
  if (Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) > 1 - 1e-6) return null;
  const least = Math.min(heightAlong(mesh, [1, 0, 0]), heightAlong(mesh, [0, 1, 0]), heightAlong(mesh, [0, 0, 1]));
  return heightAlong(mesh, [x, y, z]) < mostHeight * least ? [x, y, z] : null;
}

/** How far a mesh reaches along a direction. */
function heightAlong(mesh: Mesh, [x, y, z]: Direction): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < mesh.length; i += 3) {
    const height = x * mesh[i] + y * mesh[i + 1] + z * mesh[i + 2];
    low = Math.min(low, height);
    high = Math.max(high, height);
  }
  return high - low;
}

/** A mesh turned the shortest way so that an axis points up (Rodrigues). */
export function laidOn(mesh: Mesh, [x, y, z]: Direction): Mesh {
  // The turn about (y, −x, 0), by the angle between the axis and z.
  const k = 1 / (1 + z);
  const rows = [
    [1 - k * x * x, -k * x * y, -x],
    [-k * x * y, 1 - k * y * y, -y],
    [x, y, z],
  ];
  const out = new Float64Array(mesh.length);
  for (let i = 0; i < mesh.length; i += 3) {
    rows.forEach((row, r) => {
      out[i + r] = row[0] * mesh[i] + row[1] * mesh[i + 1] + row[2] * mesh[i + 2];
    });
  }
  return out;
}
