import { toldPlace } from '../machine/axes.ts';
import { countsDown } from '../machine/frame.ts';
import { accelerationAlong, lineTo, type Machine } from '../machine/machine.ts';
import { ControllerQueue } from './controller-queue.ts';
import type { MoveTimer } from './move-timer.ts';
import { Move, type Moves } from './moves.ts';
import { type Ramps, rampsOf } from './ramps.ts';

/** So many moves wait together to be timed; more where they are so short that braking takes more of them. */
const firstRoom = 4096;

/** Moves that share one burning speed, in mm/s. */
export interface TimedPart {
  readonly moves: Moves;
  readonly speedMmPerS: number;
  /** How many characters each line has that switches something before them. */
  readonly switches?: readonly number[];
  /** How many characters the lines of each move have; missing where a character takes no time. */
  readonly characters?: Uint16Array;
}

/**
 * How long each move takes, in seconds, the head starting and ending at rest.
 *
 * Each move keeps to its speed, to the machine's acceleration, and to a speed through each corner. At that speed an arc
 * that touches both moves would stay within the machine's corner deviation. Two
 * passes over the corner speeds, from the end and from the start, leave none that cannot be braked
 * from or reached; each move is then a trapezoid of speed over time. Where the head stands it comes to rest, and where something is
 * switched; its focus moves at one speed.
 * (The usual look-ahead of motion controllers. It reaches as far as braking does: the result is that of the whole
 * program at once.) Small controllers are in `controller-queue.ts`, limits of jerk in `ramps.ts`.
 *
 * @param start where the head stands, in mm, and how far above the stock its focus is
 * @returns one array a part, in the order of its moves
 */
export function timeMoves(
  parts: readonly TimedPart[],
  machine: MotionFigures,
  start: { x: number; y: number; z?: number },
): Float32Array[] {
  const { accelerationY, cornerDeviation, travelSpeed, axes } = machine;
  const down = countsDown(machine);
  let { acceleration } = machine;
  const count = parts.reduce((sum, part) => sum + part.moves.kinds.length, 0);
  const durations = new Float32Array(count);
  const { lookAhead, moveMs, jerk } = machine;
  const line = { ahead: lookAhead, lineS: (moveMs ?? 0) / 1000, ...lineTo(machine) };
  const knowsAll = lookAhead === undefined && line.lineS === 0 && line.characterS === 0;
  const ramps = rampsOf(jerk);
  const ahead = knowsAll ? new LookAhead(durations, ramps) : new ControllerQueue(durations, line, ramps);
  let { x, y } = start;
  let z = start.z ?? 0;
  let ux = 0;
  let uy = 0;
  let before = 0;
  for (const { moves, speedMmPerS, switches = [], characters } of parts) {
    const { kinds, xs, ys, values } = moves;
    const joined = chordsAfterTheFirst(moves);
    for (const length of switches) ahead.switch(length);
    if (switches.length > 0) before = 0;
    for (let i = 0; i < kinds.length; i++) {
      const kind = kinds[i];
      if (kind > Move.lit) {
        const value = values?.[i] ?? 0;
        const length = characters?.[i] ?? 0;
        if (kind === Move.wait) ahead.stand(value, linesOfWait, length);
        else ahead.stand(Math.abs(value - z) / (machine.focus?.speed ?? Infinity), 1, length);
        if (kind === Move.focus) z = value;
        before = 0;
        continue;
      }
      let dx = xs[i] - x;
      let dy = ys[i] - y;
      // The machine's speeds and accelerations are those of what it is told.
      if (axes) ({ x: dx, y: dy } = toldPlace(machine, { x: dx, y: down * dy }));
      // Scan lines are level as a rule: they need no root.
      const distance = dy === 0 ? Math.abs(dx) : Math.sqrt(dx * dx + dy * dy);
      const vx = dy === 0 ? Math.sign(dx) : dx / distance;
      const vy = dy === 0 ? 0 : dy / distance;
      const top = kind === Move.travel ? travelSpeed : speedMmPerS;
      const slower = Math.min(top, before);
      const most = slower * slower;
      const cosTurn = ux * vx + uy * vy;
      let gain = acceleration;
      if (accelerationY !== undefined) {
        acceleration = accelerationAlong(machine, vx, vy);
        gain = accelerationAtCorner(machine, vx - ux, vy - uy);
      }
      const entry = cosTurn === 1 ? most : Math.min(most, cornerSpeedSquared(cosTurn, gain, cornerDeviation));
      ahead.move(distance, top, entry, acceleration, characters?.[i] ?? 0, joined?.[i] === 1);
      x = xs[i];
      y = ys[i];
      ux = vx;
      uy = vy;
      before = top;
    }
  }
  ahead.rest();
  const { timeShare } = machine;
  if (timeShare !== undefined) for (let i = 0; i < count; i++) durations[i] *= timeShare / 100;
  let end = 0;
  return parts.map(({ moves }) => {
    end += moves.kinds.length;
    return durations.slice(end - moves.kinds.length, end);
  });
}

/** 1 for each move that stands in the line of the one before it, as a chord of one arc; null where none does. */
function chordsAfterTheFirst({ kinds, arcs }: Moves): Uint8Array | null {
  if (arcs.length === 0) return null;
  const joined = new Uint8Array(kinds.length);
  for (const { first, count } of arcs) joined.fill(1, first + 1, first + count);
  return joined;
}

/** The figures of a machine that its times hang on. */
export type MotionFigures = Pick<
  Machine,
  | 'travelSpeed'
  | 'acceleration'
  | 'accelerationY'
  | 'jerk'
  | 'cornerDeviation'
  | 'focus'
  | 'lookAhead'
  | 'moveMs'
  | 'characterMs'
  | 'timeShare'
  | 'connection'
  | 'axes'
  | 'origin'
>;

/** A wait with the beam on is three lines of a program: on, the wait, and off again. */
const linesOfWait = 3;

/** Times moves as soon as what is still to come cannot change them. */
class LookAhead implements MoveTimer {
  private timed = 0;
  /** How many moves wait to be timed: their lengths, their nominal speeds, and at most what speed² they may start with. */
  private count = 0;
  private lengths = new Float64Array(firstRoom);
  private tops = new Float64Array(firstRoom);
  private entries = new Float64Array(firstRoom);
  private accelerations = new Float64Array(firstRoom);
  /** Speed² at the start of the first of them. */
  private square = 0;

  constructor(
    private readonly durations: Float32Array,
    private readonly ramps: Ramps,
  ) {}

  move(length: number, top: number, entry: number, acceleration: number): void {
    if (this.count === this.lengths.length) this.timeSettled();
    const { count } = this;
    this.lengths[count] = length;
    this.tops[count] = top;
    this.entries[count] = entry;
    this.accelerations[count] = acceleration;
    this.count = count + 1;
  }

  stand(seconds: number): void {
    this.rest();
    this.durations[this.timed++] = seconds;
  }

  switch(): void {
    this.rest();
  }

  rest(): void {
    this.time(this.count, 0);
    this.count = 0;
  }

  /** Times those from which the head can brake to where its speed is what a corner allows, whatever comes after. */
  private timeSettled(): void {
    const { count, lengths, tops, entries, accelerations } = this;
    let first = count;
    let most = 0;
    do {
      first--;
      most = this.ramps.reach(most, lengths[first], accelerations[first]);
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
    this.accelerations = rest(accelerations);
  }

  /** Times the first so many moves. @param end the square of the speed that they may end with. */
  private time(count: number, end: number): void {
    const { lengths, tops, entries, accelerations, durations, timed, ramps } = this;
    for (let i = count - 1, most = end; i >= 0; i--) {
      most = ramps.reach(most, lengths[i], accelerations[i]);
      if (most < entries[i]) entries[i] = most;
      else most = entries[i];
    }
    let { square } = this;
    let v0 = Math.sqrt(square);
    for (let i = 0; i < count; i++) {
      const most = i + 1 < count ? entries[i + 1] : end;
      const next = Math.min(most, ramps.reach(square, lengths[i], accelerations[i]));
      const v1 = next === square ? v0 : Math.sqrt(next);
      durations[timed + i] = ramps.time(lengths[i], v0, v1, tops[i], accelerations[i]);
      square = next;
      v0 = v1;
    }
    this.square = square;
    this.timed = timed + count;
  }
}

/** What a machine can do towards the inside of a corner, in mm/s². */
function accelerationAtCorner(machine: MotionFigures, dx: number, dy: number): number {
  const length = Math.hypot(dx, dy);
  return accelerationAlong(machine, dx / length, dy / length);
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
