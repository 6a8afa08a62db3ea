import { areaOf, pathOfArea, sizeOfArea, subtractAreas, uniteAreas } from '../../geometry/areas/area.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { simplifyPolyline } from '../../geometry/paths/simplify.ts';
import { gather } from '../../lists/gather.ts';
import type { Mesh } from './parse.ts';
import { shellsOf, signedVolume } from './shells.ts';

/** Points of a slice that are this near, in mm, are one. */
const weld = 1e-4;

export interface Slice {
  /** Closed outlines, then lines that stay open; y up. */
  readonly closed: Path;
  readonly open: Path | null;
}

/** Solids that cover each other by less than this, in mm², touch. */
const leastOverlap = 1e-3;

/**
 * Where a plane at height `z` cuts the solids of a mesh: those that overlap as one outline, less what their cavities
 * leave open.
 */
export function sliceShells(mesh: Mesh, z: number): Slice & { readonly united: boolean } {
  const whole = sliceMesh(mesh, z);
  const shells = shellsOf(mesh);
  if (shells.length === 1) return { ...whole, united: false };
  const slices = shells.map((shell) => ({
    area: areaOf(sliceMesh(shell, z).closed, 'evenodd'),
    solid: signedVolume(shell) > 0,
  }));
  const areas = (solid: boolean) => slices.filter((slice) => slice.solid === solid).map(({ area }) => area);
  const solid = uniteAreas(areas(true));
  const covered = areas(true).reduce((sum, area) => sum + sizeOfArea(area), 0);
  // Where none covers another, the outlines are as they were sliced.
  if (covered - sizeOfArea(solid) < leastOverlap) return { ...whole, united: false };
  const cavities = areas(false);
  const area = cavities.length === 0 ? solid : subtractAreas(solid, uniteAreas(cavities));
  return { closed: pathOfArea(area), open: whole.open, united: true };
}

/** Where a plane at height `z` cuts a mesh, chained to outlines. */
export function sliceMesh(mesh: Mesh, z: number): Slice {
  const segments: [number, number, number, number][] = [];
  for (let i = 0; i < mesh.length; i += 9) {
    const crossing: number[] = [];
    for (let k = 0; k < 3; k++) {
      const a = i + 3 * k;
      const b = i + 3 * ((k + 1) % 3);
      const [za, zb] = [mesh[a + 2], mesh[b + 2]];
      // A corner in the plane counts as above it, so that every crossing is met exactly twice.
      if (za >= z === zb >= z) continue;
      // From the lower to the upper corner, whichever way round, so that neighbours get the same point.
      const [low, high] = za < zb ? [a, b] : [b, a];
      const share = (z - mesh[low + 2]) / (mesh[high + 2] - mesh[low + 2]);
      crossing.push(
        mesh[low] + (mesh[high] - mesh[low]) * share,
        mesh[low + 1] + (mesh[high + 1] - mesh[low + 1]) * share,
      );
    }
    if (crossing.length === 4) segments.push(crossing as [number, number, number, number]);
  }
  return chain(segments);
}

function chain(segments: readonly (readonly [number, number, number, number])[]): Slice {
  const key = (x: number, y: number) => `${Math.round(x / weld)} ${Math.round(y / weld)}`;
  const segmentsAt = new Map<string, number[]>();
  segments.forEach(([ax, ay, bx, by], i) => {
    for (const name of [key(ax, ay), key(bx, by)]) {
      gather(segmentsAt, name, i);
    }
  });
  const used = new Uint8Array(segments.length);
  const closed = new PathBuilder();
  const open = new PathBuilder();
  let anyOpen = false;
  const walk = (first: number, x: number, y: number): number[] => {
    const points = [x, y];
    let here = key(x, y);
    for (let next: number | undefined = first; next !== undefined; ) {
      used[next] = 1;
      const [ax, ay, bx, by] = segments[next];
      const [tx, ty] = key(ax, ay) === here ? [bx, by] : [ax, ay];
      points.push(tx, ty);
      here = key(tx, ty);
      next = segmentsAt.get(here)?.find((other) => !used[other]);
    }
    return points;
  };
  segments.forEach(([ax, ay], i) => {
    if (used[i]) return;
    const forwards = walk(i, ax, ay);
    const ends = key(ax, ay) === key(forwards[forwards.length - 2], forwards[forwards.length - 1]);
    if (ends && forwards.length >= 8) {
      addLine(closed, fromCorner(forwards.slice(0, -2)), true);
      return;
    }
    const before = segmentsAt.get(key(ax, ay))?.find((other) => !used[other]);
    const backwards = before === undefined ? [] : walk(before, ax, ay).slice(2);
    const points: number[] = [];
    for (let k = backwards.length - 2; k >= 0; k -= 2) points.push(backwards[k], backwards[k + 1]);
    points.push(...forwards);
    if (points.length < 4 || (points.length === 4 && key(points[0], points[1]) === key(points[2], points[3]))) return;
    anyOpen = true;
    addLine(open, points, false);
  });
  return { closed: closed.build(), open: anyOpen ? open.build() : null };
}

/** A ring that starts at its leftmost point (of several the topmost), which is a corner of it. */
function fromCorner(points: readonly number[]): number[] {
  let best = 0;
  for (let i = 2; i < points.length; i += 2) {
    const further = points[i] - points[best] || points[i + 1] - points[best + 1];
    if (further < 0) best = i;
  }
  return [...points.slice(best), ...points.slice(0, best)];
}

/** A chain without the points that lie on straight lines between others. */
function addLine(builder: PathBuilder, points: readonly number[], close: boolean): void {
  const kept = simplifyPolyline(new Float64Array(close ? [...points, points[0], points[1]] : points), 1e-4);
  const last = close ? kept.length - 2 : kept.length;
  for (let i = 0; i < last; i += 2) {
    if (i === 0) builder.moveTo(kept[0], kept[1]);
    else builder.lineTo(kept[i], kept[i + 1]);
  }
  if (close) builder.close();
}

/** All that a mesh covers, seen from above. */
export function silhouette(mesh: Mesh): Path {
  const builder = new PathBuilder();
  for (let i = 0; i < mesh.length; i += 9) {
    const twice =
      (mesh[i + 3] - mesh[i]) * (mesh[i + 7] - mesh[i + 1]) - (mesh[i + 6] - mesh[i]) * (mesh[i + 4] - mesh[i + 1]);
    if (Math.abs(twice) < 1e-9) continue;
    // All the same way round, so that those on top of each other unite.
    const order = twice > 0 ? [0, 3, 6] : [0, 6, 3];
    order.forEach((k, n) => {
      if (n === 0) builder.moveTo(mesh[i + k], mesh[i + k + 1]);
      else builder.lineTo(mesh[i + k], mesh[i + k + 1]);
    });
    builder.close();
  }
  return pathOfArea(areaOf(builder.build(), 'nonzero'));
}
