import type { Machine } from '../machine/machine.ts';
import { Move, type Moves } from './moves.ts';

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
 * (The usual look-ahead of motion controllers, over the whole program at once.)
 *
 * @param start where the head stands, in mm
 * @returns one array a part, in the order of its moves
 */
export function timeMoves(
  parts: readonly TimedPart[],
  machine: Pick<Machine, 'travelSpeed' | 'acceleration' | 'cornerDeviation' | 'focus'>,
  start: { x: number; y: number },
): Float32Array[] {
  const count = parts.reduce((sum, part) => sum + part.moves.kinds.length, 0);
  const length = new Float64Array(count);
  const nominal = new Float64Array(count);
  /** Speed² at the start of each move; one more for the end of the last. */
  const entry = new Float64Array(count + 1);
  const { acceleration, cornerDeviation, travelSpeed } = machine;

  let index = 0;
  let { x, y } = start;
  let ux = 0;
  let uy = 0;
  let stood = true;
  for (const { moves, speedMmPerS } of parts) {
    const { kinds, xs, ys } = moves;
    for (let i = 0; i < kinds.length; i++, index++) {
      if (kinds[i] > Move.lit) {
        stood = true;
        continue;
      }
      const dx = xs[i] - x;
      const dy = ys[i] - y;
      const distance = Math.hypot(dx, dy);
      const vx = dx / distance;
      const vy = dy / distance;
      length[index] = distance;
      nominal[index] = kinds[i] === Move.travel ? travelSpeed : speedMmPerS;
      if (!stood) {
        const corner = cornerSpeedSquared(ux * vx + uy * vy, acceleration, cornerDeviation);
        entry[index] = Math.min(corner, nominal[index] ** 2, nominal[index - 1] ** 2);
      }
      x = xs[i];
      y = ys[i];
      ux = vx;
      uy = vy;
      stood = false;
    }
  }
  for (let i = count - 1; i >= 0; i--) {
    entry[i] = Math.min(entry[i], entry[i + 1] + 2 * acceleration * length[i]);
  }
  for (let i = 0; i < count; i++) {
    entry[i + 1] = Math.min(entry[i + 1], entry[i] + 2 * acceleration * length[i]);
  }
  index = 0;
  let z = 0;
  return parts.map(({ moves }) => {
    const durations = new Float32Array(moves.kinds.length);
    for (let i = 0; i < durations.length; i++, index++) {
      if (moves.kinds[i] > Move.lit) {
        const value = moves.values?.[i] ?? 0;
        durations[i] = moves.kinds[i] === Move.wait ? value : Math.abs(value - z) / (machine.focus?.speed ?? Infinity);
        if (moves.kinds[i] === Move.focus) z = value;
        continue;
      }
      durations[i] = trapezoidTime(
        length[index],
        Math.sqrt(entry[index]),
        Math.sqrt(entry[index + 1]),
        nominal[index],
        acceleration,
      );
    }
    return durations;
  });
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
  const up = (top * top - v0 * v0) / (2 * acceleration);
  const down = (top * top - v1 * v1) / (2 * acceleration);
  if (up + down <= length) {
    return (top - v0) / acceleration + (top - v1) / acceleration + (length - up - down) / top;
  }
  const peak = Math.sqrt(acceleration * length + (v0 * v0 + v1 * v1) / 2);
  return Math.max(0, (2 * peak - v0 - v1) / acceleration);
}
