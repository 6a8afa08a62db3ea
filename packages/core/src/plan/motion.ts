import type { Machine } from '../machine/machine.ts';
import { Move, type Moves } from './moves.ts';

/** So many moves wait together to be timed; more where they are so short that braking takes more of them. */
const firstRoom = 4096;

/** Moves that share one burning speed, in mm/s. */
export interface TimedPart {
  readonly moves: Moves;
  readonly speedMmPerS: number;
}

/**
 * How long each move takes, in seconds, the head starting and ending at rest.
 *
 * Each move keeps to its speed, to the machine's acceleration, and to a speed through each corner. At that speed an arc
 * that touches both moves would stay within the machine's corner deviation. Two
 * passes over the corner speeds, from the end and from the start, leave none that cannot be braked
 * from or reached; each move is then a trapezoid of speed over time. Where the head stands it comes to rest; its focus
 * moves at one speed.
 * (The usual look-ahead of motion controllers. It reaches as far as braking does: the result is that of the whole
 * program at once.)
 *
 * @param start where the head stands, in mm
 * @returns one array a part, in the order of its moves
 */
export function timeMoves(
  parts: readonly TimedPart[],
  machine: Pick<Machine, 'travelSpeed' | 'acceleration' | 'cornerDeviation' | 'focus'>,
  start: { x: number; y: number },
): Float32Array[] {
  const { acceleration, cornerDeviation, travelSpeed } = machine;
  const count = parts.reduce((sum, part) => sum + part.moves.kinds.length, 0);
  const durations = new Float32Array(count);
  const ahead = new LookAhead(durations, acceleration);
  let { x, y } = start;
  let z = 0;
  let ux = 0;
  let uy = 0;
  let before = 0;
  for (const { moves, speedMmPerS } of parts) {
    const { kinds, xs, ys, values } = moves;
    for (let i = 0; i < kinds.length; i++) {
      const kind = kinds[i];
      if (kind > Move.lit) {
        const value = values?.[i] ?? 0;
        ahead.stand(kind === Move.wait ? value : Math.abs(value - z) / (machine.focus?.speed ?? Infinity));
        if (kind === Move.focus) z = value;
        before = 0;
        continue;
      }
      const dx = xs[i] - x;
      const dy = ys[i] - y;
      // Scan lines are level as a rule: they need no root.
      const distance = dy === 0 ? Math.abs(dx) : Math.sqrt(dx * dx + dy * dy);
      const vx = dy === 0 ? Math.sign(dx) : dx / distance;
      const vy = dy === 0 ? 0 : dy / distance;
      const top = kind === Move.travel ? travelSpeed : speedMmPerS;
      const slower = Math.min(top, before);
      const most = slower * slower;
      const cosTurn = ux * vx + uy * vy;
      const entry = cosTurn === 1 ? most : Math.min(most, cornerSpeedSquared(cosTurn, acceleration, cornerDeviation));
      ahead.move(distance, top, entry);
      x = xs[i];
      y = ys[i];
      ux = vx;
      uy = vy;
      before = top;
    }
  }
  ahead.rest();
  let end = 0;
  return parts.map(({ moves }) => {
    end += moves.kinds.length;
    return durations.slice(end - moves.kinds.length, end);
  });
}

/** Times moves in their order, as soon as what is still to come cannot change them. */
class LookAhead {
  private timed = 0;
  /** How many moves wait to be timed: their lengths, their nominal speeds, and at most what speed² they may start with. */
  private count = 0;
  private lengths = new Float64Array(firstRoom);
  private tops = new Float64Array(firstRoom);
  private entries = new Float64Array(firstRoom);
  /** Speed² at the start of the first of them. */
  private square = 0;

  constructor(
    private readonly durations: Float32Array,
    private readonly acceleration: number,
  ) {}

  /** A move of so many mm, at most at a speed in mm/s. @param entry the square of the speed that its corner allows. */
  move(length: number, top: number, entry: number): void {
    if (this.count === this.lengths.length) this.timeSettled();
    const { count } = this;
    this.lengths[count] = length;
    this.tops[count] = top;
    this.entries[count] = entry;
    this.count = count + 1;
  }

  /** The head comes to rest, and stands for so many seconds. */
  stand(seconds: number): void {
    this.rest();
    this.durations[this.timed++] = seconds;
  }

  /** The head comes to rest. */
  rest(): void {
    this.time(this.count, 0);
    this.count = 0;
  }

  /** Times those from which the head can brake to where its speed is what a corner allows, whatever comes after. */
  private timeSettled(): void {
    const { count, lengths, tops, entries } = this;
    let first = count;
    let most = 0;
    do {
      first--;
      most += 2 * this.acceleration * lengths[first];
    } while (first > 0 && most < entries[first]);
    this.time(first, entries[first]);
    this.count = count - first;
    const isCrowded = 2 * this.count > count;
    const rest = (array: Float64Array<ArrayBuffer>) => {
      const room = isCrowded ? new Float64Array(2 * array.length) : array;
      room.set(array.subarray(first));
      return room;
    };
    this.lengths = rest(lengths);
    this.tops = rest(tops);
    this.entries = rest(entries);
  }

  /** Times the first so many moves. @param end the square of the speed that they may end with. */
  private time(count: number, end: number): void {
    const { lengths, tops, entries, durations, timed, acceleration } = this;
    const gain = 2 * acceleration;
    for (let i = count - 1, most = end; i >= 0; i--) {
      most += gain * lengths[i];
      if (most < entries[i]) entries[i] = most;
      else most = entries[i];
    }
    let { square } = this;
    let v0 = Math.sqrt(square);
    for (let i = 0; i < count; i++) {
      const most = i + 1 < count ? entries[i + 1] : end;
      const next = Math.min(most, square + gain * lengths[i]);
      const v1 = next === square ? v0 : Math.sqrt(next);
      durations[timed + i] = trapezoidTime(lengths[i], v0, v1, tops[i], acceleration);
      square = next;
      v0 = v1;
    }
    this.square = square;
    this.timed = timed + count;
  }
}

/**
 * The square of the speed through a corner, from the cosine of the turn (1 = straight on).
 * An arc of radius r = d·s / (1 − s) bulges by d, the deviation; s is the sine of half the angle between the moves.
 * Centripetal acceleration gives v² = a·r.
 */
function cornerSpeedSquared(cosTurn: number, acceleration: number, deviation: number): number {
  const sinHalf = Math.sqrt(Math.max(0, (1 + cosTurn) / 2));
  if (sinHalf > 1 - 1e-9) return Infinity;
  return (acceleration * deviation * sinHalf) / (1 - sinHalf);
}

/** The time in seconds over `length`, from speed `v0` to `v1`, never above `top`, at one acceleration. */
export function trapezoidTime(length: number, v0: number, v1: number, top: number, acceleration: number): number {
  if (v0 === top && v1 === top) return length / top;
  const up = (top * top - v0 * v0) / (2 * acceleration);
  const down = (top * top - v1 * v1) / (2 * acceleration);
  if (up + down <= length) {
    return (top - v0) / acceleration + (top - v1) / acceleration + (length - up - down) / top;
  }
  const peak = Math.sqrt(acceleration * length + (v0 * v0 + v1 * v1) / 2);
  return Math.max(0, (2 * peak - v0 - v1) / acceleration);
}
