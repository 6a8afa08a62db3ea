import type { Solid } from '@lambent/core/builders';
import type { Point } from '@lambent/core/geometry';
import { BufferGeometry, ExtrudeGeometry, Float32BufferAttribute, Matrix4, Path, Shape, Vector2, Vector3 } from 'three';

type Ring = readonly Vector2[];

/** A solid as triangles, in mm of the space it lies in. Rings within an odd number of others are holes. */
export function geometryOf({ outlines, place, depth }: Solid): BufferGeometry {
  const rings = outlines.map(({ points }) => pointsOf(points));
  const holders = rings.map((ring) => rings.filter((other) => other !== ring && isWithin(other, ring[0])));
  const shapes = rings.flatMap((ring, i) => {
    if (holders[i].length % 2 === 1) return [];
    const shape = new Shape([...ring]);
    rings.forEach((hole, k) => {
      const isHere = holders[k].includes(ring) && holders[k].length === holders[i].length + 1;
      if (isHere) shape.holes.push(new Path([...hole]));
    });
    return [shape];
  });
  const geometry = new ExtrudeGeometry(shapes, { depth, bevelEnabled: false });
  return geometry.applyMatrix4(matrixOf(place));
}

/** Lines on a solid's outer face, so far as they lie on it, as pairs of points. */
export function linesOn({ outlines, place }: Solid, lines: readonly Float64Array[]): BufferGeometry {
  const rings = outlines.map(({ points }) => pointsOf(points));
  const places: number[] = [];
  for (const line of lines) {
    for (let i = 2; i < line.length; i += 2) {
      const [ax, ay, bx, by] = line.slice(i - 2, i + 2);
      const middle = new Vector2((ax + bx) / 2, (ay + by) / 2);
      const isOn = rings.filter((ring) => isWithin(ring, middle)).length % 2 === 1;
      if (isOn) places.push(ax, ay, -aboveMm, bx, by, -aboveMm);
    }
  }
  const geometry = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(places, 3));
  return geometry.applyMatrix4(matrixOf(place));
}

/** A picture on a solid's outer face, by its corners in the frame of the part: two triangles, and where they are in it. */
export function pictureOn({ place }: Solid, corners: readonly Point[]): BufferGeometry {
  const places = corners.flatMap(({ x, y }) => [x, y, -aboveMm / 2]);
  return new BufferGeometry()
    .setAttribute('position', new Float32BufferAttribute(places, 3))
    .setAttribute('uv', new Float32BufferAttribute([0, 0, 1, 0, 1, 1, 0, 1], 2))
    .setIndex([0, 1, 2, 0, 2, 3])
    .applyMatrix4(matrixOf(place));
}

/** So far above its face lines are drawn, in mm, that they are not in it. */
const aboveMm = 0.05;

function matrixOf({ origin, u, v }: Solid['place']): Matrix4 {
  const [x, y] = [new Vector3(...u), new Vector3(...v)];
  return new Matrix4().makeBasis(x, y, x.clone().cross(y)).setPosition(...origin);
}

function pointsOf(points: Float64Array): Vector2[] {
  return Array.from({ length: points.length / 2 }, (_, i) => new Vector2(points[2 * i], points[2 * i + 1]));
}

function isWithin(ring: Ring, { x, y }: Vector2): boolean {
  let inside = false;
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length];
    if (p.y > y !== q.y > y && x < p.x + ((q.x - p.x) * (y - p.y)) / (q.y - p.y)) inside = !inside;
  });
  return inside;
}
