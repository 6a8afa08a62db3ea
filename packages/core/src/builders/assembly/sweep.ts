/*
 * Lines across rings, one after the other, and what they add up to. Rings are x, y, x, y, … and filled by the even-odd rule.
 */

/** From one place along a line to another. */
export type Interval = readonly [from: number, to: number];

/** @returns where a line through rings, along x (`along` 0) or y (1), lies within them. */
export function crossings(rings: readonly Float64Array[], along: 0 | 1, other: number): Interval[] {
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
 *
 * @param between the first line and the last
 */
export function crossingSweep(
  rings: readonly Float64Array[],
  along: 0 | 1,
  between: Interval,
): (place: number) => readonly number[] {
  const [from, to] = between;
  const edges: SweptEdge[] = [];
  for (const ring of rings) {
    for (let i = 0, before = ring.length - 2; i < ring.length; before = i, i += 2) {
      const p = ring[before + 1 - along];
      const q = ring[i + 1 - along];
      if (p === q || (p < from && q < from) || (p > to && q > to)) continue;
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
    found.length = active.length;
    // Edges stay in the order in which the line met them, which is nearly the order in which it meets them next.
    for (let i = 0; i < active.length; i++) {
      const edge = active[i];
      const met = edge.lowAlong + edge.slope * (place - edge.low);
      let index = i;
      for (; index > 0 && found[index - 1] > met; index--) {
        found[index] = found[index - 1];
        active[index] = active[index - 1];
      }
      found[index] = met;
      active[index] = edge;
    }
    return found;
  };
}

/** How much of what lies between each place and the next lies within two ends. */
export function lengthWithin(places: readonly number[], lo: number, hi: number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i += 2) {
    sum += Math.max(0, Math.min(places[i + 1], hi) - Math.max(places[i], lo));
  }
  return sum;
}

/**
 * Adds where the width of rings between two lines stops being linear.
 *
 * @param along as of `crossings`
 * @param between where it is asked for
 */
export function addBends(
  bends: number[],
  rings: readonly Float64Array[],
  along: 0 | 1,
  [lo, hi]: Interval,
  [from, to]: Interval,
): void {
  for (const ring of rings) {
    for (let i = 0, before = ring.length - 2; i < ring.length; before = i, i += 2) {
      const p = ring[before + 1 - along];
      const q = ring[i + 1 - along];
      if ((p < from && q < from) || (p > to && q > to)) continue;
      bends.push(q);
      const a = ring[before + along];
      const b = ring[i + along];
      if (a > lo !== b > lo) bends.push(p + ((q - p) * (lo - a)) / (b - a));
      if (a > hi !== b > hi) bends.push(p + ((q - p) * (hi - a)) / (b - a));
    }
  }
}

/** @returns what bends say within two ends, in order and without the same twice, ends and all. */
export function inOrder(bends: readonly number[], lo: number, hi: number): number[] {
  const within = bends.filter((place) => place > lo && place < hi).sort((a, b) => a - b);
  return [lo, ...within, hi].filter((place, i, all) => i === 0 || place - all[i - 1] > 1e-12);
}

/** Gauss's two places on -1 to 1, at which a cubic's integral is exact. */
const gauss = 1 / Math.sqrt(3);

/** The integral over stretches between places of what is at most a cubic on each. */
export function integral(places: readonly number[], valueAt: (place: number) => number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i++) {
    const [middle, half] = [(places[i] + places[i + 1]) / 2, (places[i + 1] - places[i]) / 2];
    sum += half * (valueAt(middle - half * gauss) + valueAt(middle + half * gauss));
  }
  return sum;
}

/** The same of what is linear between two places: its middle tells. */
export function linearIntegral(places: readonly number[], valueAt: (place: number) => number): number {
  let sum = 0;
  for (let i = 0; i + 1 < places.length; i++) {
    sum += (places[i + 1] - places[i]) * valueAt((places[i] + places[i + 1]) / 2);
  }
  return sum;
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
export function addMeetings(
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
