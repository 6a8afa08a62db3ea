import { type Axis, axisOf, type Box3, cross, otherAxes, type Solid, thirdAxis, type Vec3 } from './space.ts';

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

/** From one place along a line to another. */
export type Interval = readonly [from: number, to: number];

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

/** @returns where a line through rings, along x (`along` 0) or y (1), lies within them. */
function crossings(rings: readonly Float64Array[], along: 0 | 1, other: number): Interval[] {
  const places: number[] = [];
  for (const ring of rings) {
    for (let i = 0, before = ring.length - 2; i < ring.length; before = i, i += 2) {
      const [p, q] = [ring[before + 1 - along], ring[i + 1 - along]];
      if (p > other === q > other) continue;
      const [a, b] = [ring[before + along], ring[i + along]];
      places.push(a + ((b - a) * (other - p)) / (q - p));
    }
  }
  places.sort((a, b) => a - b);
  const found: Interval[] = [];
  for (let i = 0; i + 1 < places.length; i += 2) found.push([places[i], places[i + 1]]);
  return found;
}

/** An edge of a ring: from the lower to the higher end across the lines that are asked for, and where it is along them. */
interface SweptEdge {
  readonly low: number;
  readonly high: number;
  readonly lowAlong: number;
  readonly slope: number;
}

/**
 * The same as `crossings` for one line after the other, each further on than the one before: only edges that the line
 * meets are looked at (the sweep line of Shamos and Hoey). It says where it goes in, and out, and in, … in one list, which
 * is another for the next line.
 */
function crossingSweep(rings: readonly Float64Array[], along: 0 | 1): (place: number) => readonly number[] {
  const edges: SweptEdge[] = [];
  for (const ring of rings) {
    for (let i = 0, before = ring.length - 2; i < ring.length; before = i, i += 2) {
      const [p, q] = [ring[before + 1 - along], ring[i + 1 - along]];
      if (p === q) continue;
      const [a, b] = [ring[before + along], ring[i + along]];
      const slope = (b - a) / (q - p);
      edges.push({ low: Math.min(p, q), high: Math.max(p, q), lowAlong: p < q ? a : b, slope });
    }
  }
  edges.sort((a, b) => a.low - b.low);
  let active: SweptEdge[] = [];
  let next = 0;
  const found: number[] = [];
  return (place) => {
    if (active.some(({ high }) => high <= place)) active = active.filter(({ high }) => high > place);
    for (; next < edges.length && edges[next].low <= place; next++) {
      if (edges[next].high > place) active.push(edges[next]);
    }
    found.length = 0;
    for (const { low, lowAlong, slope } of active) {
      const met = lowAlong + slope * (place - low);
      let index = found.length;
      for (; index > 0 && found[index - 1] > met; index--) found[index] = found[index - 1];
      found[index] = met;
    }
    return found;
  };
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

/** How much of what lies between each place and the next lies within two ends. */
function lengthWithin(places: readonly number[], lo: number, hi: number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i += 2) {
    sum += Math.max(0, Math.min(places[i + 1], hi) - Math.max(places[i], lo));
  }
  return sum;
}

/** Adds where the width of rings between two lines stops being linear. @param along as of `crossings`. */
function addBends(bends: number[], rings: readonly Float64Array[], along: 0 | 1, lo: number, hi: number): void {
  for (const ring of rings) {
    for (let i = 0, before = ring.length - 2; i < ring.length; before = i, i += 2) {
      const [a, b] = [ring[before + along], ring[i + along]];
      const [p, q] = [ring[before + 1 - along], ring[i + 1 - along]];
      bends.push(q);
      for (const line of [lo, hi])
        if (a > line !== b > line && a !== b) bends.push(p + ((q - p) * (line - a)) / (b - a));
    }
  }
}

/** @returns what bends say within two ends, in order and without the same twice, ends and all. */
function inOrder(bends: readonly number[], lo: number, hi: number): number[] {
  const within = bends.filter((place) => place > lo && place < hi).sort((a, b) => a - b);
  return [lo, ...within, hi].filter((place, i, all) => i === 0 || place - all[i - 1] > 1e-12);
}

/** Gauss's two places on -1 to 1, at which a cubic's integral is exact. */
const gauss = 1 / Math.sqrt(3);

function integral(places: readonly number[], valueAt: (place: number) => number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i++) {
    const [middle, half] = [(places[i] + places[i + 1]) / 2, (places[i + 1] - places[i]) / 2];
    sum += half * (valueAt(middle - half * gauss) + valueAt(middle + half * gauss));
  }
  return sum;
}

/** The same of what is linear between two places: its middle tells. */
function linearIntegral(places: readonly number[], valueAt: (place: number) => number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i++) {
    sum += (places[i + 1] - places[i]) * valueAt((places[i] + places[i + 1]) / 2);
  }
  return sum;
}

/** @returns how much of a box a solid fills, in mm³. */
export function volumeWithin(solid: Extrusion, box: Box3): number {
  const depth = Math.min(solid.hi, box.max[solid.axis]) - Math.max(solid.lo, box.min[solid.axis]);
  if (depth <= 0) return 0;
  const [first, second] = otherAxes(solid.axis);
  const [lo, hi] = [box.min[first], box.max[first]];
  const bends: number[] = [];
  addBends(bends, solid.rings, 0, lo, hi);
  const places = inOrder(bends, box.min[second], box.max[second]);
  const across = crossingSweep(solid.rings, 0);
  return depth * linearIntegral(places, (place) => lengthWithin(across(place), lo, hi));
}

/**
 * How much two solids share, in mm³: exact but for rounding. Of two that lie across each other, their widths are
 * multiplied, and summed up along the axis that both of their planes have.
 */
export function overlapOf(a: Extrusion, b: Extrusion): number {
  if (a.axis === b.axis) return overlapAlong(a, b);
  const common = thirdAxis(a.axis, b.axis);
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
    addBends(places, rings, along, lo, hi);
    const across = crossingSweep(rings, along);
    return (place: number) => lengthWithin(across(place), lo, hi);
  });
  const from = Math.max(a.box.min[common], b.box.min[common]);
  const to = Math.min(a.box.max[common], b.box.max[common]);
  if (to <= from) return 0;
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
  const [inA, inB] = [a, b].map(({ rings }) => crossingSweep(rings, 0));
  const shared = (place: number) => {
    const [own, others] = [inA(place), inB(place)];
    let sum = 0;
    for (let i = 0; i + 1 < own.length; i += 2) sum += lengthWithin(others, own[i], own[i + 1]);
    return sum;
  };
  return depth * linearIntegral(inOrder(places, from, to), shared);
}

/** An edge as it stands: x and y of its two ends. */
type Edge = readonly [x1: number, y1: number, x2: number, y2: number];

const lowOf = ([, y1, , y2]: Edge) => Math.min(y1, y2);
const highOf = ([, y1, , y2]: Edge) => Math.max(y1, y2);

/** The edges of rings, the lowest first: asked for once for each solid beside it. */
function edgesOf(rings: readonly Float64Array[]): readonly Edge[] {
  const known = sortedEdges.get(rings);
  if (known) return known;
  const edges = rings.flatMap((ring) =>
    Array.from({ length: ring.length / 2 }, (_, i): Edge => {
      const [j, k] = [2 * i, (2 * i + 2) % ring.length];
      return [ring[j], ring[j + 1], ring[k], ring[k + 1]];
    }),
  );
  edges.sort((a, b) => lowOf(a) - lowOf(b));
  sortedEdges.set(rings, edges);
  return edges;
}

const sortedEdges = new WeakMap<readonly Float64Array[], readonly Edge[]>();

/** Adds at which y, between two, the edges of two lots of rings cross. */
function addMeetings(
  places: number[],
  a: readonly Float64Array[],
  b: readonly Float64Array[],
  from: number,
  to: number,
): void {
  const others = edgesOf(b);
  let first = 0;
  // As edges come by their lower ends, others that end far below all that are still to come are done with.
  const highest = others.map(highOf);
  for (const edge of edgesOf(a)) {
    const [x1, y1, x2, y2] = edge;
    const [low, high] = [lowOf(edge), highOf(edge)];
    if (high < from) continue;
    if (low > to) break;
    while (first < others.length && highest[first] < low) first++;
    for (let i = first; i < others.length; i++) {
      const [x3, y3, x4, y4] = others[i];
      if (Math.min(y3, y4) > high) break;
      if (highest[i] < low) continue;
      const det = (x2 - x1) * (y4 - y3) - (y2 - y1) * (x4 - x3);
      if (Math.abs(det) < 1e-12) continue;
      const t = ((x3 - x1) * (y4 - y3) - (y3 - y1) * (x4 - x3)) / det;
      const s = ((x3 - x1) * (y2 - y1) - (y3 - y1) * (x2 - x1)) / det;
      if (t >= 0 && t <= 1 && s >= 0 && s <= 1) places.push(y1 + t * (y2 - y1));
    }
  }
}
