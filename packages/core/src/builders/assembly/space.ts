import type { Polyline } from '../../geometry/paths/flatten.ts';

/** A place in space, in mm: to the right, to the back, up. */
export type Vec3 = readonly [x: number, y: number, z: number];

export type Axis = 0 | 1 | 2;
export const axes: readonly Axis[] = [0, 1, 2];

/** A box in space along the axes, in mm. */
export interface Box3 {
  readonly min: Vec3;
  readonly max: Vec3;
}

/**
 * Where a flat thing lies in space: its (0, 0), and where its x and its y go, each along an axis. It is as thick as it is
 * along `u × v`. Of a part cut from stock, `u × v` goes in: one looks at its outer face.
 */
export interface Place {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
}

/** What fills a flat outline over some depth. Outlines by the even-odd rule, in the frame of its place, in mm. */
export interface Solid {
  readonly partId: string;
  readonly outlines: readonly Polyline[];
  readonly place: Place;
  readonly depth: number;
  /** Whether it stands in what is left free, as a divider does. */
  readonly isInner?: boolean;
  /** Set where its outlines are not in the frame of its part: it is bent, and they are seen along the bend, or it lies turned. */
  readonly hasOwnFrame?: boolean;
}

/** @returns which two axes are not this one, in their order. */
export function otherAxes(axis: Axis): readonly [Axis, Axis] {
  return axis === 0 ? [1, 2] : axis === 1 ? [0, 2] : [0, 1];
}

/** @returns the axis that is neither of two different ones. */
export function thirdAxis(a: Axis, b: Axis): Axis {
  return (3 - a - b) as Axis;
}

/** @returns how long a box is along each axis. */
export function sidesOf({ min, max }: Box3): Vec3 {
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** @returns the volume of a box, in mm³. */
export function volumeOf(box: Box3): number {
  const [x, y, z] = sidesOf(box);
  return x * y * z;
}

/** A box that reaches further to every side, in mm. */
export function grownBox({ min, max }: Box3, mm: number): Box3 {
  return {
    min: [min[0] - mm, min[1] - mm, min[2] - mm],
    max: [max[0] + mm, max[1] + mm, max[2] + mm],
  };
}

/** @returns what two boxes share; null where that is no more than a face. */
export function sharedBox(a: Box3, b: Box3): Box3 | null {
  const each = (pick: (p: number, q: number) => number, p: Vec3, q: Vec3): Vec3 => [
    pick(p[0], q[0]),
    pick(p[1], q[1]),
    pick(p[2], q[2]),
  ];
  const shared = { min: each(Math.max, a.min, b.min), max: each(Math.min, a.max, b.max) };
  return sidesOf(shared).every((side) => side > 1e-9) ? shared : null;
}

/** @returns `u × v`. */
export function cross(u: Vec3, v: Vec3): Vec3 {
  return [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
}

/**
 * The axis that a direction goes along.
 * @throws RangeError where it goes along none.
 */
export function axisOf(direction: Vec3): Axis {
  const axis = axes.find((entry) => Math.abs(Math.abs(direction[entry]) - 1) < 1e-12);
  if (axis === undefined) throw new RangeError(`axisOf: ${direction.join(', ')} goes along no axis`);
  return axis;
}
