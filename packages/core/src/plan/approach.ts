import type { Point } from '../geometry/paths/matrix.ts';
import { restingFocus, restingPlace } from '../machine/frame.ts';
import { timeMoves } from './motion.ts';
import type { BurnPlan } from './plan.ts';

/** A head brakes within so many moves: those after them go as they would from anywhere. */
const firstMoves = 500;

/**
 * How much longer a plan takes from where the head stands than from its resting place, in seconds; below 0 where it is
 * nearer. Only its first move is another.
 *
 * @param head in bed mm
 */
export function approachS({ machine, steps }: Pick<BurnPlan, 'machine' | 'steps'>, head: Point): number {
  if (steps.length === 0) return 0;
  const [{ moves, settings }] = steps;
  const count = Math.min(firstMoves, moves.kinds.length);
  const first = {
    ...moves,
    kinds: moves.kinds.subarray(0, count),
    xs: moves.xs.subarray(0, count),
    ys: moves.ys.subarray(0, count),
    values: moves.values?.subarray(0, count) ?? null,
  };
  const secondsFrom = (place: Point) =>
    timeMoves([{ moves: first, speedMmPerS: settings.speedMmPerS }], machine, {
      ...place,
      z: restingFocus(machine),
    })[0].reduce((sum, s) => sum + s, 0);
  return secondsFrom(head) - secondsFrom(restingPlace(machine));
}
