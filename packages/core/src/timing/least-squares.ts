import { solveSystem, zeroMatrix } from '../lists/linear-system.ts';

/** Parameters that were fitted. */
export interface Fitted {
  readonly parameters: readonly number[];
  /** One sigma of each. */
  readonly doubts: readonly number[];
  /** The sum of the squares of what remains. */
  readonly rest: number;
}

const mostSteps = 30;
/** So far a parameter is moved to see what it changes. */
const probe = 1e-3;
/** Steps that are shorter than this end the search. */
const stillness = 1e-6;
/** A step is no longer than this. */
const longestStep = 1;

/**
 * Least squares by damped Gauss–Newton steps (K. Levenberg, 1944; D. Marquardt, 1963), the slopes by differences.
 *
 * @param restOf what remains for given parameters, each counted in its own doubt
 * @param start where the parameters begin, each of a size of about one
 */
export function leastSquares(
  restOf: (parameters: readonly number[]) => readonly number[],
  start: readonly number[],
): Fitted {
  let parameters = [...start];
  let rests = restOf(parameters);
  let rest = squares(rests);
  let damping = 1e-3;
  let { normal, slope } = normalOf(restOf, parameters, rests);
  for (let step = 0; step < mostSteps; step++) {
    const damped = normal.map((row, i) => row.map((value, k) => (i === k ? value * (1 + damping) + tiny : value)));
    const moves = solveSystem(damped, slope).map((move) => Math.max(-longestStep, Math.min(longestStep, -move)));
    const next = parameters.map((value, i) => value + moves[i]);
    const nextRests = restOf(next);
    const nextRest = squares(nextRests);
    const isBetter = nextRest < rest;
    const gain = rest - nextRest;
    if (isBetter) {
      [parameters, rests, rest] = [next, nextRests, nextRest];
      damping = Math.max(1e-9, damping / 10);
    } else damping *= 10;
    if (damping > 1e9 || moves.every((move) => Math.abs(move) < stillness)) break;
    if (!isBetter) continue;
    ({ normal, slope } = normalOf(restOf, parameters, rests));
    if (gain < 1e-6 * rest + 1e-12) break;
  }
  const spread = Math.max(1, rest / Math.max(1, rests.length - parameters.length));
  const doubts = parameters.map((_, i) => {
    const unit = parameters.map((__, k) => (i === k ? 1 : 0));
    const steadied = normal.map((row, j) => row.map((value, k) => (j === k ? value + tiny : value)));
    return Math.sqrt(Math.max(0, solveSystem(steadied, unit)[i]) * spread);
  });
  return { parameters, doubts, rest };
}

/** Keeps apart what says nothing of a parameter from what cannot be solved. */
const tiny = 1e-9;

function normalOf(
  restOf: (parameters: readonly number[]) => readonly number[],
  parameters: readonly number[],
  rests: readonly number[],
): { normal: number[][]; slope: number[] } {
  const slopes = parameters.map((_, i) => {
    const moved = restOf(parameters.map((value, k) => (i === k ? value + probe : value)));
    return moved.map((value, j) => (value - rests[j]) / probe);
  });
  const normal = zeroMatrix(parameters.length);
  for (const [i, a] of slopes.entries()) for (const [k, b] of slopes.entries()) normal[i][k] = dot(a, b);
  return { normal, slope: slopes.map((column) => dot(column, rests)) };
}

function dot(a: readonly number[], b: readonly number[]): number {
  return a.reduce((sum, value, i) => sum + value * b[i], 0);
}

function squares(values: readonly number[]): number {
  return dot(values, values);
}
