import { type Edges, edgeNumbers, type Shape } from './edges.ts';

/** Edges that come as near to each other as this over the whole of their common stretch, in mm, are taken as parallel. */
const parallelWithin = 1e-9;

/**
 * How much of one area lies over another, as a function of how far the one is moved along an axis. It is a sum over pairs
 * of edges, each of which begins to count where the one edge passes an end of the other: so it is made of parabolas, and is
 * kept as the places where one goes over into the next (Egeblad, Nielsen and Odgaard, “Fast neighborhood search for two-
 * and three-dimensional nesting problems”, European Journal of Operational Research 183, 2007, sections 3 and 4).
 */
export class OverlapAlong {
  /** Where something changes: its place, what the slope of the slope changes by, halved, and the slope itself. */
  private places = new Float64Array(1024);
  private bends = new Float64Array(1024);
  private slopes = new Float64Array(1024);
  private count = 0;
  private starts = new Int32Array(1024);
  private ends = new Int32Array(1024);
  private ordered = new Int32Array(2048);
  private from = 0;
  private to = 0;
  /** What the function is at the beginning, and its slope there, by all that changes before it. */
  private value = 0;
  private slope = 0;

  /** Forgets all. @param from where what is asked for begins, in mm @param to and where it ends */
  clear(from: number, to: number): void {
    this.count = 0;
    this.from = from;
    this.to = to;
    this.value = 0;
    this.slope = 0;
  }

  /** Adds what lies over whatever else, wherever it is moved to. */
  addAlways(area: number): void {
    this.value += area;
  }

  /**
   * Adds what lies over an area that stays where it is.
   *
   * @param moved the edges of what is moved, over the axis that it stays on
   * @param across where it lies on that axis
   * @param weight how much each mm² of it counts; below 0 where it is wanted
   */
  add(moved: Edges, across: number, still: Edges, stillAlong: number, stillAcross: number, weight: number): void {
    const shift = across - stillAcross;
    for (let i = 0; i < moved.length; i += edgeNumbers) {
      const [from, to] = [moved[i] + shift, moved[i + 1] + shift];
      const begin = moved[i + 2] - stillAlong;
      const slope = moved[i + 3];
      const sign = -weight * moved[i + 4];
      for (let k = 0; k < still.length; k += edgeNumbers) {
        if (still[k] >= to) break;
        const low = Math.max(from, still[k]);
        const high = Math.min(to, still[k + 1]);
        if (low >= high) continue;
        const slopeThere = still[k + 3];
        const first = begin + slope * (low - from) - still[k + 2] - slopeThere * (low - still[k]);
        const last = begin + slope * (high - from) - still[k + 2] - slopeThere * (high - still[k]);
        this.addPair(first, last, high - low, sign * still[k + 4]);
      }
    }
  }

  /** Two edges over a stretch, on which the moved one leads by from `first` to `last` mm before it is moved. */
  private addPair(first: number, last: number, stretch: number, sign: number): void {
    const most = Math.max(first, last);
    const least = Math.min(first, last);
    if (-most >= this.to) return;
    if (-least <= this.from) {
      this.value += sign * stretch * (this.from + (most + least) / 2);
      this.slope += sign * stretch;
      return;
    }
    if (this.count + 2 > this.places.length) this.grow();
    const { count } = this;
    if (most - least < parallelWithin) {
      this.places[count] = -(most + least) / 2;
      this.bends[count] = 0;
      this.slopes[count] = sign * stretch;
      this.count++;
      return;
    }
    const bend = (sign * stretch) / (2 * (most - least));
    this.places[count] = -most;
    this.bends[count] = bend;
    this.slopes[count] = 0;
    this.places[count + 1] = -least;
    this.bends[count + 1] = -bend;
    this.slopes[count + 1] = 0;
    this.count += 2;
  }

  private grow(): void {
    const larger = (numbers: Float64Array) => {
      const all = new Float64Array(numbers.length * 2);
      all.set(numbers);
      return all;
    };
    this.places = larger(this.places);
    this.bends = larger(this.bends);
    this.slopes = larger(this.slopes);
  }

  /** The places of all changes, in order, put into buckets first: so many are sorted in a time that grows as their number. */
  private order(): Int32Array {
    const { count, places, from, to } = this;
    const buckets = Math.max(1, count >> 1);
    const scale = buckets / Math.max(1e-12, to - from);
    const bucketOf = (place: number) =>
      place <= from ? 0 : place >= to ? buckets + 1 : 1 + Math.min(buckets - 1, Math.floor((place - from) * scale));
    if (this.ordered.length < count || this.starts.length < buckets + 3) {
      this.ordered = new Int32Array(2 * count);
      this.starts = new Int32Array(2 * buckets + 6);
      this.ends = new Int32Array(2 * buckets + 6);
    }
    const starts = this.starts.subarray(0, buckets + 3).fill(0);
    for (let i = 0; i < count; i++) starts[bucketOf(places[i]) + 1]++;
    for (let i = 1; i < starts.length; i++) starts[i] += starts[i - 1];
    const ends = this.ends.subarray(0, buckets + 3);
    ends.set(starts);
    const order = this.ordered;
    for (let i = 0; i < count; i++) order[ends[bucketOf(places[i])]++] = i;
    // What lies before the stretch is worked through in any order but that of places; what lies behind it, not at all.
    for (let bucket = 1; bucket <= buckets; bucket++) {
      for (let i = starts[bucket] + 1; i < ends[bucket]; i++) {
        const entry = order[i];
        let k = i - 1;
        for (; k >= starts[bucket] && places[order[k]] > places[entry]; k--) order[k + 1] = order[k];
        order[k + 1] = entry;
      }
    }
    return order.subarray(0, starts[buckets + 1]);
  }

  /**
   * Goes along the function, and tells of each stretch over which it is one parabola.
   *
   * @param visit told where a stretch begins, how long it is, and the parabola there: value, slope, and half the second
   *   derivative. Returns true to end there.
   */
  walk(visit: Visit): void {
    const { places, bends, slopes, from, to } = this;
    let [place, value, slope, bend] = [from, this.value, this.slope, 0];
    for (const i of this.order()) {
      const next = places[i];
      if (next <= from) {
        const ahead = from - next;
        value += slopes[i] * ahead + bends[i] * ahead * ahead;
        slope += slopes[i] + 2 * bends[i] * ahead;
        bend += bends[i];
        continue;
      }
      const length = next - place;
      if (length > 0) {
        if (visit(place, length, value, slope, bend)) return;
        value += slope * length + bend * length * length;
        slope += 2 * bend * length;
        place = next;
      }
      slope += slopes[i];
      bend += bends[i];
    }
    visit(place, to - place, value, slope, bend);
  }
}

type Visit = (from: number, length: number, value: number, slope: number, bend: number) => boolean | undefined;

/**
 * How much of two areas lies over each other where they are, in mm². Worked out pair by pair of edges, and so exact but for
 * rounding of what is that near. It goes along the axis on which their bounds have less in common: fewer edges meet there.
 */
export function overlapOf(mine: Shape, x: number, y: number, other: Shape, otherX: number, otherY: number): number {
  const [a, b] = [mine.box, other.box];
  const wide = Math.min(x + a.maxX, otherX + b.maxX) - Math.max(x + a.minX, otherX + b.minX);
  const high = Math.min(y + a.maxY, otherY + b.maxY) - Math.max(y + a.minY, otherY + b.minY);
  if (wide <= 0 || high <= 0) return 0;
  const [along, across] = [x - otherX, y - otherY];
  // Of the one that begins first, what lies before all of the other counts for nothing.
  if (high <= wide) {
    return along + a.minX <= b.minX
      ? pairsOver(mine.overY, along, across, other.overY, b.minX, b.minY, b.maxY)
      : pairsOver(other.overY, -along, -across, mine.overY, a.minX, a.minY, a.maxY);
  }
  return across + a.minY <= b.minY
    ? pairsOver(mine.overX, across, along, other.overX, b.minY, b.minX, b.maxX)
    : pairsOver(other.overX, -across, -along, mine.overX, a.minY, a.minX, a.maxX);
}

/**
 * The same by the edges of two areas over one axis.
 *
 * @param along where the first lies on the other axis, as seen from the second
 * @param shift where it lies on that axis
 * @param least where the second begins on the other axis
 * @param from where the second begins on that axis
 * @param to where it ends there
 */
function pairsOver(a: Edges, along: number, shift: number, b: Edges, least: number, from: number, to: number): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += edgeNumbers) {
    const begins = a[i] + shift;
    if (begins >= to) break;
    const ends = a[i + 1] + shift;
    if (ends <= from) continue;
    const slope = a[i + 3];
    const begin = a[i + 2] + along;
    // It lies before all of the other, and so has none of it before it.
    if (begin <= least && begin + slope * (ends - begins) <= least) continue;
    for (let k = 0; k < b.length; k += edgeNumbers) {
      if (b[k] >= ends) break;
      const low = Math.max(begins, b[k]);
      const high = Math.min(ends, b[k + 1]);
      if (low >= high) continue;
      const slopeThere = b[k + 3];
      const first = begin + slope * (low - begins) - b[k + 2] - slopeThere * (low - b[k]);
      const last = begin + slope * (high - begins) - b[k + 2] - slopeThere * (high - b[k]);
      const most = Math.max(first, last);
      if (most <= 0) continue;
      const fewest = Math.min(first, last);
      const ahead = fewest >= 0 ? (fewest + most) / 2 : (most * most) / (2 * (most - fewest));
      sum -= a[i + 4] * b[k + 4] * (high - low) * ahead;
    }
  }
  return sum;
}
