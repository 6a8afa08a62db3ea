import type { Box } from '../geometry/paths/box.ts';
import type { Axis, Box3, Place, Solid, Vec3 } from './assembly/space.ts';

/** A flat part: the room it takes, fingers and all, and which of its two faces looks out. */
export interface Plate {
  readonly id: string;
  readonly name: string;
  readonly box: Box3;
  readonly out: '-x' | '+x' | '-y' | '+y' | '-z' | '+z';
}

/** Which way a plate's x and y go where one looks at its outer face. */
const facing: Readonly<Record<Plate['out'], { readonly u: Vec3; readonly v: Vec3 }>> = {
  '-x': { u: [0, -1, 0], v: [0, 0, -1] },
  '+x': { u: [0, 1, 0], v: [0, 0, -1] },
  '-y': { u: [1, 0, 0], v: [0, 0, -1] },
  '+y': { u: [-1, 0, 0], v: [0, 0, -1] },
  '-z': { u: [1, 0, 0], v: [0, 1, 0] },
  '+z': { u: [1, 0, 0], v: [0, -1, 0] },
};

/** @returns the axis that a plate is thick along. */
export function normalOf({ out }: Plate): Axis {
  return 'xyz'.indexOf(out[1]) as Axis;
}

/** @returns where a plate lies in space: its (0, 0) is the middle of its outer face. */
export function placeOf({ box, out }: Plate): Place {
  const { u, v } = facing[out];
  const axis = 'xyz'.indexOf(out[1]);
  const face = out[0] === '-' ? box.min : box.max;
  const origin = box.min.map((low, i) => (i === axis ? face[i] : (low + box.max[i]) / 2)) as unknown as Vec3;
  return { origin, u, v };
}

/** A place in space in the frame of what lies there, its depth left out. */
export function onPlace({ origin, u, v }: Place, point: Vec3): { readonly x: number; readonly y: number } {
  const along = (direction: Vec3) => direction.reduce((sum, part, i) => sum + part * (point[i] - origin[i]), 0);
  return { x: along(u), y: along(v) };
}

/** A box in space as it looks on a plate. */
export function boxOn(place: Place, { min, max }: Box3): Box {
  const [a, b] = [onPlace(place, min), onPlace(place, max)];
  const [minX, maxX] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [minY, maxY] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  return { minX, minY, maxX, maxY };
}

/** A plate as it fills space, with the rings of its outline and holes, in its frame. @param isInner as of a solid */
export function plateSolid(plate: Plate, rings: readonly (readonly number[])[], isInner = false): Solid {
  return {
    partId: plate.id,
    outlines: rings.map((points) => ({ points: new Float64Array(points), closed: true })),
    place: placeOf(plate),
    depth: thicknessOf(plate),
    isInner,
  };
}

/** @returns how thick a plate is, in mm. */
export function thicknessOf(plate: Plate): number {
  const axis = normalOf(plate);
  return plate.box.max[axis] - plate.box.min[axis];
}
