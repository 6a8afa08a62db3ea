import type { Box } from '../geometry/paths/box.ts';
import type { Shape } from './edges.ts';
import { leastOverlap, type Place, type Room } from './layout.ts';
import { OverlapAlong, overlapOf } from './overlap.ts';

/** Where a move along an axis may end, and what lies over others there, weighted. */
export interface Stop {
  readonly turn: number;
  readonly x: number;
  readonly y: number;
  readonly value: number;
}

/** Values this near to each other, in weighted mm², are as good. */
const alike = 1e-6;
/** By so much a piece may be larger than its room, in mm: that is rounding. */
const slack = 1e-9;

/**
 * Pieces in one room, which may lie over each other: what overlaps what, and where each would overlap least. Each pair has
 * a weight, and each piece one for what of it lies outside.
 */
export class Crowd {
  readonly xs: number[] = [];
  readonly ys: number[] = [];
  readonly turns: number[] = [];
  readonly pieces: number[] = [];
  private overlaps: Float64Array[] = [];
  private weights: Float64Array[] = [];
  private readonly along = new OverlapAlong();

  constructor(
    readonly room: Room,
    /** By piece and turn. */
    private readonly shapes: readonly (readonly Shape[])[],
    private readonly random: () => number,
  ) {}

  get size(): number {
    return this.pieces.length;
  }

  shapeAt(i: number, turn = this.turns[i]): Shape {
    return this.shapes[this.pieces[i]][turn];
  }

  turnsOf(i: number): number {
    return this.shapes[this.pieces[i]].length;
  }

  placeAt(i: number): Place {
    return { piece: this.pieces[i], turn: this.turns[i], x: this.xs[i], y: this.ys[i] };
  }

  places(): Place[] {
    return this.pieces.map((_, i) => this.placeAt(i));
  }

  /** Puts a piece in. @returns its number here, which is the last */
  add({ piece, turn, x, y }: Place): number {
    const i = this.pieces.length;
    this.pieces.push(piece);
    this.turns.push(turn);
    this.xs.push(x);
    this.ys.push(y);
    if (this.overlaps.length <= i) this.makeRoomFor(i + 1);
    this.weights[i].fill(1);
    for (let k = 0; k <= i; k++) this.weights[k][i] = 1;
    this.measure(i);
    return i;
  }

  /** Takes the last piece out. */
  pop(): void {
    this.pieces.pop();
    this.turns.pop();
    this.xs.pop();
    this.ys.pop();
  }

  /** All as it was before. */
  reset(places: readonly Place[]): void {
    while (this.size > 0) this.pop();
    for (const place of places) this.add(place);
  }

  put(i: number, turn: number, x: number, y: number): void {
    this.turns[i] = turn;
    this.xs[i] = x;
    this.ys[i] = y;
    this.measure(i);
  }

  /** What of a piece lies over others or outside, in mm², weighted. */
  weighted(i: number): number {
    let sum = 0;
    for (let k = 0; k < this.size; k++) sum += this.overlaps[i][k] * this.weights[i][k];
    return sum;
  }

  /** What of a piece lies over others or outside, in mm². */
  overlap(i: number): number {
    let sum = 0;
    for (let k = 0; k < this.size; k++) sum += this.overlaps[i][k];
    return sum;
  }

  /** All that lies over something else or outside, in mm². */
  total(): number {
    let sum = 0;
    for (let i = 0; i < this.size; i++) for (let k = i; k < this.size; k++) sum += this.overlaps[i][k];
    return sum;
  }

  /**
   * Makes what overlaps now count for more, the more the larger it is, and all else a little less: guided local search. By
   * factors, as in Umetani et al., “Solving the irregular strip packing problem via guided local search for overlap
   * minimization”, 2009.
   */
  weighUp(): void {
    let largest = 0;
    for (let i = 0; i < this.size; i++)
      for (let k = i; k < this.size; k++) largest = Math.max(largest, this.overlaps[i][k]);
    for (let i = 0; i < this.size; i++) {
      for (let k = i; k < this.size; k++) {
        const overlap = this.overlaps[i][k];
        const weight = this.weights[i][k];
        const next = overlap > 0 ? weight * (1.2 + (0.8 * overlap) / largest) : Math.max(1, weight * 0.95);
        this.weights[i][k] = next;
        this.weights[k][i] = next;
      }
    }
  }

  forgetWeights(): void {
    for (const weights of this.weights) weights.fill(1);
  }

  /**
   * Where a piece overlaps least when it is moved along an axis, turned as asked; null where it is too large.
   *
   * @param isX whether it is moved along X, or else along Y
   * @param across where it stays on the other axis
   */
  stopAlong(i: number, turn: number, isX: boolean, across: number): Stop | null {
    const shape = this.shapeAt(i, turn);
    const { free } = this.room;
    const [box, room] = [spans(shape.box, isX), spans(this.room.box, isX)];
    const [from, to] = [room.from - box.from, Math.max(room.from - box.from, room.to - box.to)];
    const [low, high] = [across + box.acrossFrom, across + box.acrossTo];
    if (room.to - room.from < box.to - box.from - slack) return null;
    if (low < room.acrossFrom - slack || high > room.acrossTo + slack) return null;
    const { along } = this;
    along.clear(from, to);
    const edges = isX ? shape.overY : shape.overX;
    const [alongs, acrosses] = isX ? [this.xs, this.ys] : [this.ys, this.xs];
    const weights = this.weights[i];
    for (let k = 0; k < this.size; k++) {
      const other = this.shapeAt(k);
      const { acrossFrom, acrossTo } = spans(other.box, isX);
      if (k === i || acrosses[k] + acrossFrom >= high || acrosses[k] + acrossTo <= low) continue;
      along.add(edges, across, isX ? other.overY : other.overX, alongs[k], acrosses[k], weights[k]);
    }
    if (free) {
      along.addAlways(weights[i] * shape.area);
      along.add(edges, across, isX ? free.overY : free.overX, 0, 0, -weights[i]);
    }
    const { place, value } = this.least(to);
    return isX ? { turn, x: place, y: across, value } : { turn, x: across, y: place, value };
  }

  /** Where the function is least; of places that are as good, any. */
  private least(to: number): { place: number; value: number } {
    let [place, value, count] = [to, Infinity, 0];
    const offer = (spot: number, is: number) => {
      if (is > value + alike) return;
      if (is < value - alike) count = 0;
      count++;
      if (count > 1 && this.random() * count >= 1) {
        value = Math.min(value, is);
        return;
      }
      place = spot;
      value = Math.min(value, is);
    };
    this.along.walk((spot, length, is, slope, bend) => {
      offer(spot, is);
      if (bend > 0 && slope < 0) {
        const step = -slope / (2 * bend);
        if (step < length) offer(spot + step, is + (slope * step) / 2);
      }
      if (spot + length >= to) offer(to, is + slope * length + bend * length * length);
      return undefined;
    });
    return { place, value: Math.max(0, value) };
  }

  /** Works out anew what a piece overlaps. */
  private measure(i: number): void {
    const shape = this.shapeAt(i);
    const [x, y] = [this.xs[i], this.ys[i]];
    const { minX, minY, maxX, maxY } = shape.box;
    for (let k = 0; k < this.size; k++) {
      if (k === i) continue;
      const other = this.shapeAt(k);
      const [dx, dy] = [this.xs[k] - x, this.ys[k] - y];
      const isApart =
        dx + other.box.minX >= maxX ||
        dx + other.box.maxX <= minX ||
        dy + other.box.minY >= maxY ||
        dy + other.box.maxY <= minY;
      const overlap = isApart ? 0 : overlapOf(shape, x, y, other, this.xs[k], this.ys[k]);
      const counts = overlap > leastOverlap ? overlap : 0;
      this.overlaps[i][k] = counts;
      this.overlaps[k][i] = counts;
    }
    const { free } = this.room;
    const outside = free ? shape.area - overlapOf(shape, x, y, free, 0, 0) : 0;
    this.overlaps[i][i] = outside > leastOverlap ? outside : 0;
  }

  private makeRoomFor(count: number): void {
    const width = Math.max(16, 2 ** Math.ceil(Math.log2(count + 1)));
    const wider = (rows: Float64Array[], fill: number) =>
      Array.from({ length: width }, (_, i) => {
        const row = new Float64Array(width).fill(fill);
        if (rows[i]) row.set(rows[i]);
        return row;
      });
    this.overlaps = wider(this.overlaps, 0);
    this.weights = wider(this.weights, 1);
  }
}

/** From where to where a box reaches along an axis, and across it. */
function spans({ minX, minY, maxX, maxY }: Box, isX: boolean) {
  return isX
    ? { from: minX, to: maxX, acrossFrom: minY, acrossTo: maxY }
    : { from: minY, to: maxY, acrossFrom: minX, acrossTo: maxX };
}
