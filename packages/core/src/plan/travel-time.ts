import { Move } from './moves.ts';
import type { BurnPlan } from './plan.ts';

/** How long the head of a plan moves unlit, in seconds: between what it burns, and back to where it rests. */
export function travelTime({ steps, backS }: Pick<BurnPlan, 'steps' | 'backS'>): number {
  let sum = backS;
  for (const { moves, durations } of steps) {
    for (let i = 0; i < durations.length; i++) {
      if (moves.kinds[i] === Move.travel || moves.kinds[i] === Move.dark) sum += durations[i];
    }
  }
  return sum;
}
