import { counting, type Progress } from '../geometry/paths/progress.ts';
import { type NeighbourLists, neighbourLists } from './neighbours.ts';
import { numbersFrom } from './random.ts';
import { shortestTour } from './shortest-tour.ts';
import type { Stops, Tour } from './stops.ts';

/** Segments of up to this many stops are moved as one. */
const longestMoved = 3;
const least = 1e-9;
/** Of so few stops the shortest way is found outright. */
const fewStops = 8;

/**
 * Makes an order of stops shorter, from a start that stays the first, and to an end, if there is one, that stays the
 * last. First 2-opt and Or-opt over neighbour lists, with a list of stops worth looking at. Then kicks, which are double
 * bridges over short segments; each is kept when what comes of it is no longer.
 * (Johnson and McGeoch, "The Traveling Salesman Problem: A Case Study in Local Optimization", 1997; Martin, Otto and
 * Felten, "Large-Step Markov Chains for the Traveling Salesman Problem", 1991.)
 *
 * Every result is a route through all stops; the same stops, start and number of kicks give the same one.
 *
 * @param first an order to begin with: every stop once
 * @param kicks how many kicks are tried
 * @param progress is told how many of them were, as a share
 */
export function improveTour(
  stops: Stops,
  first: Tour,
  start: { x: number; y: number },
  end: { x: number; y: number } | null,
  kicks: number,
  progress?: Progress,
): Tour {
  const count = stops.entryX.length;
  if (count === 0) return first;
  if (count <= fewStops) return shortestTour(stops, start, end);
  const tour = new Search(stops, first, start, end);
  tour.settle(Array.from(first.order));
  tour.kick(kicks, counting(progress, kicks));
  return tour.result();
}

class Search {
  /** Stops by place; place 0 is the start, the last one the end where there is one. */
  private order: Int32Array;
  private readonly place: Int32Array;
  private readonly flipped: Uint8Array;
  private readonly count: number;
  private readonly last: number;
  private readonly near: NeighbourLists;
  private readonly waiting: number[] = [];
  private readonly queued: Uint8Array;
  private readonly ax: Float64Array;
  private readonly ay: Float64Array;
  private readonly bx: Float64Array;
  private readonly by: Float64Array;
  /** Places whose order was changed since the last kick, to put it back. */
  private low = 0;
  private high = 0;

  constructor(stops: Stops, first: Tour, start: { x: number; y: number }, end: { x: number; y: number } | null) {
    const n = stops.entryX.length;
    const total = n + 1 + (end ? 1 : 0);
    const ends = end ? [start, end] : [start];
    const grown = (values: Float64Array, coordinate: (p: { x: number; y: number }) => number) => {
      const all = new Float64Array(total);
      all.set(values);
      ends.forEach((p, i) => {
        all[n + i] = coordinate(p);
      });
      return all;
    };
    this.ax = grown(stops.entryX, ({ x }) => x);
    this.ay = grown(stops.entryY, ({ y }) => y);
    this.bx = grown(stops.exitX, ({ x }) => x);
    this.by = grown(stops.exitY, ({ y }) => y);
    this.count = n;
    this.last = n;
    this.order = new Int32Array(total);
    this.order[0] = n;
    this.order.set(first.order, 1);
    if (end) this.order[total - 1] = n + 1;
    this.place = new Int32Array(total);
    this.order.forEach((stop, index) => {
      this.place[stop] = index;
    });
    this.flipped = new Uint8Array(total);
    this.flipped.set(first.flipped);
    this.queued = new Uint8Array(total);
    this.near = neighbourLists(stops);
  }

  result(): Tour {
    return { order: this.order.slice(1, this.count + 1), flipped: this.flipped.slice(0, this.count) };
  }

  /** Looks at stops until none of them leads to a shorter tour. */
  settle(stops: readonly number[]): number {
    let gained = 0;
    for (const stop of stops) this.look(stop);
    for (let stop = this.waiting.pop(); stop !== undefined; stop = this.waiting.pop()) {
      this.queued[stop] = 0;
      for (let gain = this.improve(stop); gain > 0; gain = this.improve(stop)) gained += gain;
    }
    return gained;
  }

  /** Has a stop looked at; the start and the end stay where they are. */
  private look(stop: number): void {
    if (stop >= this.count || this.queued[stop]) return;
    this.queued[stop] = 1;
    this.waiting.push(stop);
  }

  kick(kicks: number, countOff: (more: number) => void): void {
    const { count } = this;
    if (count < 8) return;
    const random = numbersFrom(count);
    const reach = Math.min(30, Math.floor(count / 3));
    const keptOrder = this.order.slice();
    const keptFlips = this.flipped.slice();
    for (let i = 0; i < kicks; i++) {
      countOff(1);
      const a = 1 + Math.floor(random() * (count - 3));
      const b = Math.min(count - 1, a + 1 + Math.floor(random() * reach));
      const c = Math.min(count, b + 1 + Math.floor(random() * reach));
      if (c <= b || b <= a) continue;
      this.low = a;
      this.high = c;
      const before = this.gap(a - 1) + this.gap(b - 1) + this.gap(c - 1);
      this.swapSegments(a, b, c);
      const after = this.gap(a - 1) + this.gap(a + c - b - 1) + this.gap(c - 1);
      const gain = before - after + this.settle(this.endsOf(a, a + c - b, c));
      if (gain < -least) this.restore(keptOrder, keptFlips);
      else this.keep(keptOrder, keptFlips);
    }
  }

  /** The stops on both sides of the gaps before places. */
  private endsOf(...places: number[]): number[] {
    const stops = places.flatMap((index) => [
      this.order[index - 1],
      this.order[Math.min(index, this.order.length - 1)],
    ]);
    return [...new Set(stops)].filter((stop) => stop < this.count);
  }

  private restore(order: Int32Array, flips: Uint8Array): void {
    for (let index = this.low; index <= this.high; index++) {
      const stop = order[index];
      this.order[index] = stop;
      this.place[stop] = index;
      this.flipped[stop] = flips[stop];
    }
  }

  private keep(order: Int32Array, flips: Uint8Array): void {
    for (let index = this.low; index <= this.high; index++) {
      const stop = this.order[index];
      order[index] = stop;
      flips[stop] = this.flipped[stop];
    }
  }

  /** Puts places b to c − 1 before places a to b − 1. */
  private swapSegments(a: number, b: number, c: number): void {
    const first = this.order.slice(a, b);
    this.order.copyWithin(a, b, c);
    this.order.set(first, a + c - b);
    for (let index = a; index < c; index++) this.place[this.order[index]] = index;
  }

  /**
   * One step that makes the tour shorter, at a stop: a step that gains has an end at which the new neighbour is
   * nearer than the old one, and it is found from there. @returns by how much; 0 where there is none
   */
  private improve(stop: number): number {
    const p = this.place[stop];
    const [before, after] = [this.gap(p - 1), this.gap(p)];
    const reach = Math.max(before, after);
    const { most, stops, distances } = this.near;
    for (let i = stop * most; i < (stop + 1) * most && stops[i] >= 0 && distances[i] < reach; i++) {
      const q = this.place[stops[i]];
      const low = Math.min(p, q);
      const high = Math.max(p, q);
      let gain = 0;
      if (distances[i] < after) gain = this.tryReverse(low + 1, high) || this.tryBeside(p, q, -1);
      if (gain === 0 && distances[i] < before) gain = this.tryReverse(low, high - 1) || this.tryBeside(p, q, 1);
      if (gain > 0) return gain;
    }
    return 0;
  }

  /** Goes through places `from` to `to` backwards, if that is shorter. */
  private tryReverse(from: number, to: number): number {
    if (from < 1 || to > this.last || from > to) return 0;
    const { order } = this;
    const [before, first, end, after] = [order[from - 1], order[from], order[to], order[to + 1]];
    let gain = this.distance(before, first) - this.distanceTo(before, end, true);
    if (after !== undefined) gain += this.distance(end, after) - this.distanceFrom(first, true, after);
    if (gain <= least) return 0;
    this.reverse(from, to);
    this.look(before);
    this.look(first);
    this.look(end);
    if (after !== undefined) this.look(after);
    return gain;
  }

  private reverse(from: number, to: number): void {
    this.touch(from, to);
    const { order, place, flipped } = this;
    for (let i = from, j = to; i <= j; i++, j--) {
      const [a, b] = [order[i], order[j]];
      order[i] = b;
      order[j] = a;
      place[b] = i;
      place[a] = j;
      flipped[a] ^= 1;
      if (a !== b) flipped[b] ^= 1;
    }
  }

  /** Moves a short segment that begins (`way` 1) or ends (-1) at a place to one side of another, if that is shorter. */
  private tryBeside(place: number, beside: number, way: 1 | -1): number {
    for (let length = 1; length <= longestMoved; length++) {
      const from = way === 1 ? place : place - length + 1;
      const to = from + length - 1;
      if (from < 1 || to > this.last || (beside >= from && beside <= to)) break;
      const gain = this.tryMove(from, to, beside) || this.tryMove(from, to, beside - 1);
      if (gain > 0) return gain;
    }
    return 0;
  }

  /** Moves places `from` to `to` behind place `behind`, if that is shorter. */
  private tryMove(from: number, to: number, behind: number): number {
    if (behind < 0 || behind > this.last || (behind >= from - 1 && behind <= to)) return 0;
    const { order } = this;
    const [before, first, end, after] = [order[from - 1], order[from], order[to], order[to + 1]];
    const [left, right] = [order[behind], order[behind + 1]];
    let out = this.distance(before, first);
    if (after !== undefined) out += this.distance(end, after) - this.distance(before, after);
    const gap = right === undefined ? 0 : this.distance(left, right);
    const straight =
      this.distanceTo(left, first, false) + (right === undefined ? 0 : this.distanceFrom(end, false, right));
    const backwards =
      this.distanceTo(left, end, true) + (right === undefined ? 0 : this.distanceFrom(first, true, right));
    const turned = backwards < straight;
    const best = out + gap - Math.min(straight, backwards);
    if (best <= least) return 0;
    const length = to - from + 1;
    if (turned) this.reverse(from, to);
    if (behind > to) {
      this.touch(from, behind);
      this.swapSegments(from, to + 1, behind + 1);
    } else {
      this.touch(behind + 1, to);
      this.swapSegments(behind + 1, from, from + length);
    }
    this.look(before);
    this.look(first);
    this.look(end);
    this.look(left);
    if (after !== undefined) this.look(after);
    if (right !== undefined) this.look(right);
    return best;
  }

  private touch(from: number, to: number): void {
    if (from < this.low) this.low = from;
    if (to > this.high) this.high = to;
  }

  /** How far the head goes between a place and the next; 0 behind the last. */
  private gap(index: number): number {
    const next = this.order[index + 1];
    return next === undefined ? 0 : this.distance(this.order[index], next);
  }

  private distance(from: number, to: number): number {
    return this.between(from, this.flipped[from] === 1, to, this.flipped[to] === 1);
  }

  /** To a stop that would be turned the other way than it is. */
  private distanceTo(from: number, to: number, turned: boolean): number {
    return this.between(from, this.flipped[from] === 1, to, (this.flipped[to] === 1) !== turned);
  }

  private distanceFrom(from: number, turned: boolean, to: number): number {
    return this.between(from, (this.flipped[from] === 1) !== turned, to, this.flipped[to] === 1);
  }

  private between(from: number, fromFlipped: boolean, to: number, toFlipped: boolean): number {
    const x = (fromFlipped ? this.ax : this.bx)[from] - (toFlipped ? this.bx : this.ax)[to];
    const y = (fromFlipped ? this.ay : this.by)[from] - (toFlipped ? this.by : this.ay)[to];
    return Math.sqrt(x * x + y * y);
  }
}
