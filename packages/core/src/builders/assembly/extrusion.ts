import { type Axis, axisOf, type Box3, cross, otherAxes, type Solid, thirdAxis, type Vec3 } from './space.ts';
import {
  addBends,
  addMeetings,
  crossingSweep,
  crossings,
  type Interval,
  inOrder,
  integral,
  lengthWithin,
  linearIntegral,
} from './sweep.ts';

/** A solid in the axes of space: rings in the plane of the two others, filled from `lo` to `hi` along its axis. */
export interface Extrusion {
  readonly partId: string;
  readonly axis: Axis;
  readonly lo: number;
  readonly hi: number;
  /** By the even-odd rule; each is x, y, x, y, … along the two other axes in their order. */
  readonly rings: readonly Float64Array[];
  readonly box: Box3;
  /** Set where it is all of its box. */
  readonly isBox?: true;
}

/** A solid in the axes of space. @throws RangeError where its place does not go along them. */
export function extrusionOf({ partId, outlines, place, depth }: Solid): Extrusion {
  const { origin, u, v } = place;
  const normal = cross(u, v);
  const axis = axisOf(normal);
  const [first, second] = otherAxes(axis);
  axisOf(u);
  axisOf(v);
  const ends = [origin[axis], origin[axis] + depth * normal[axis]];
  const [lo, hi] = [Math.min(...ends), Math.max(...ends)];
  const min = [0, 0, 0];
  const max = [0, 0, 0];
  [min[axis], max[axis]] = [lo, hi];
  for (const entry of [first, second]) [min[entry], max[entry]] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const rings = outlines.map(({ points }) => {
    const ring = new Float64Array(points.length);
    for (let i = 0; i < points.length; i += 2) {
      const [a, b] = [points[i], points[i + 1]];
      const inSpace = (entry: Axis) => origin[entry] + a * u[entry] + b * v[entry];
      [ring[i], ring[i + 1]] = [inSpace(first), inSpace(second)];
      min[first] = Math.min(min[first], ring[i]);
      max[first] = Math.max(max[first], ring[i]);
      min[second] = Math.min(min[second], ring[i + 1]);
      max[second] = Math.max(max[second], ring[i + 1]);
    }
    return ring;
  });
  return { partId, axis, lo, hi, rings, box: { min: min as unknown as Vec3, max: max as unknown as Vec3 } };
}

/** A box as a solid that fills it. */
export function boxExtrusion(box: Box3): Extrusion {
  const [x1, y1] = box.min;
  const [x2, y2] = box.max;
  const rings = [new Float64Array([x1, y1, x2, y1, x2, y2, x1, y2])];
  return { partId: '', axis: 2, lo: box.min[2], hi: box.max[2], rings, box, isBox: true };
}

/**
 * Where a line along an axis goes through a solid.
 * @param through a place that the line goes through; what it says along the axis does not count.
 */
export function sectionOf(solid: Extrusion, axis: Axis, through: Vec3): Interval[] {
  const [first, second] = otherAxes(solid.axis);
  if (axis === solid.axis) {
    const row = crossings(solid.rings, 0, through[second]);
    const isIn = row.some(([from, to]) => from < through[first] && through[first] < to);
    return isIn ? [[solid.lo, solid.hi]] : [];
  }
  if (through[solid.axis] <= solid.lo || through[solid.axis] >= solid.hi) return [];
  return axis === first ? crossings(solid.rings, 0, through[second]) : crossings(solid.rings, 1, through[first]);
}

/** @returns how much of a box a solid fills, in mm³. */
export function volumeWithin(solid: Extrusion, box: Box3): number {
  const depth = Math.min(solid.hi, box.max[solid.axis]) - Math.max(solid.lo, box.min[solid.axis]);
  if (depth <= 0) return 0;
  const [first, second] = otherAxes(solid.axis);
  const [lo, hi] = [box.min[first], box.max[first]];
  const between: Interval = [
    Math.max(box.min[second], solid.box.min[second]),
    Math.min(box.max[second], solid.box.max[second]),
  ];
  if (between[1] <= between[0]) return 0;
  const bends: number[] = [];
  addBends(bends, solid.rings, 0, [lo, hi], between);
  const places = inOrder(bends, ...between);
  const across = crossingSweep(solid.rings, 0, between);
  return depth * linearIntegral(places, (place) => lengthWithin(across(place), lo, hi));
}

/**
 * How much two solids share, in mm³: exact but for rounding. Of two that lie across each other, their widths are
 * multiplied, and summed up along the axis that both of their planes have.
 */
export function overlapOf(a: Extrusion, b: Extrusion): number {
  if (a.axis === b.axis) return overlapAlong(a, b);
  const common = thirdAxis(a.axis, b.axis);
  const from = Math.max(a.box.min[common], b.box.min[common]);
  const to = Math.min(a.box.max[common], b.box.max[common]);
  if (to <= from) return 0;
  const places: number[] = [];
  const widths = (
    [
      [a, b],
      [b, a],
    ] as const
  ).map(([solid, other]) => {
    // Along the other one's axis, between its two faces.
    const along = otherAxes(solid.axis)[0] === common ? 1 : 0;
    const { rings } = solid;
    const { lo, hi } = other;
    addBends(places, rings, along, [lo, hi], [from, to]);
    const across = crossingSweep(rings, along, [from, to]);
    return (place: number) => lengthWithin(across(place), lo, hi);
  });
  return integral(inOrder(places, from, to), (place) => widths[0](place) * widths[1](place));
}

/** Of two that lie alike: their depths' overlap times what their outlines share. */
function overlapAlong(a: Extrusion, b: Extrusion): number {
  const depth = Math.min(a.hi, b.hi) - Math.max(a.lo, b.lo);
  const [first, second] = otherAxes(a.axis);
  const from = Math.max(a.box.min[second], b.box.min[second]);
  const to = Math.min(a.box.max[second], b.box.max[second]);
  if (depth <= 0 || to <= from || a.box.max[first] <= b.box.min[first] || b.box.max[first] <= a.box.min[first])
    return 0;
  const places: number[] = [];
  for (const { rings } of [a, b]) {
    for (const ring of rings) {
      for (let i = 1; i < ring.length; i += 2) if (ring[i] > from && ring[i] < to) places.push(ring[i]);
    }
  }
  addMeetings(places, a.rings, b.rings, from, to);
  const [inA, inB] = [a, b].map(({ rings }) => crossingSweep(rings, 0, [from, to]));
  const shared = (place: number) => {
    const [own, others] = [inA(place), inB(place)];
    let sum = 0;
    for (let i = 0; i + 1 < own.length; i += 2) sum += lengthWithin(others, own[i], own[i + 1]);
    return sum;
  };
  return depth * linearIntegral(inOrder(places, from, to), shared);
}
