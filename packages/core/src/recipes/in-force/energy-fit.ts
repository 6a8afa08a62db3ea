/*
 * What energy an operation takes, learnt from what was burnt: Bayesian linear regression on logarithms, with weak
 * expectations that let one sample say something and many say nearly all. (Normal–inverse-gamma conjugate prior; the
 * prediction is a Student t. See Gelman et al., "Bayesian Data Analysis", 3rd ed., chapters 3 and 14.)
 */

import { solveSystem, zeroMatrix } from '../../lists/linear-system.ts';

/** Something that is thought to matter, with the exponent that is expected of it and how sure that is (one sigma). */
export interface Expectation {
  readonly exponent: number;
  readonly sigma: number;
}

/** One burn: logarithms of what matters, in the order of the expectations, and of the energy it took. */
export interface EnergySample {
  readonly logs: readonly number[];
  readonly logEnergy: number;
  /** How many times as uncertain as the rest it is, as a variance. */
  readonly variance: number;
}

/** How far burns that worked lie about the law, as one sigma of the logarithm, before any is known; and how sure that is. */
const usualSpread = 0.2;
const spreadWeight = 3;

/**
 * The energy to expect, and between which two it is with 95 in 100, all as logarithms; null without samples.
 * @param where logarithms of what matters where it is asked for
 */
export function expectEnergy(
  samples: readonly EnergySample[],
  expectations: readonly Expectation[],
  where: readonly number[],
): { mean: number; least: number; most: number } | null {
  if (samples.length === 0) return null;
  const size = expectations.length + 1;
  // Counted from the weighted middle of the samples, the constant is known by them alone.
  const middle = expectations.map((_, k) => weightedMean(samples, ({ logs }) => logs[k]));
  const row = (logs: readonly number[]) => [1, ...logs.map((value, k) => value - middle[k])];
  const expected = [0, ...expectations.map(({ exponent }) => exponent)];
  const precision = zeroMatrix(size);
  expectations.forEach(({ sigma }, k) => {
    precision[k + 1][k + 1] = (usualSpread / sigma) ** 2;
  });
  const right = precision.map((line, k) => line[k] * expected[k]);
  let squares = expected.reduce((sum, value, k) => sum + value * value * precision[k][k], 0);
  for (const { logs, logEnergy, variance } of samples) {
    const x = row(logs);
    x.forEach((a, i) => {
      right[i] += (a * logEnergy) / variance;
      x.forEach((b, j) => {
        precision[i][j] += (a * b) / variance;
      });
    });
    squares += (logEnergy * logEnergy) / variance;
  }
  const found = solveSystem(precision, right);
  const rest = squares - found.reduce((sum, value, k) => sum + value * right[k], 0);
  // What the samples had to settle, the constant and of each exponent the share that was not expected, tells no spread.
  const settled = expectations.reduce((sum, { sigma }, k) => {
    const unit = found.map((_, i) => (i === k + 1 ? 1 : 0));
    return sum + 1 - (usualSpread / sigma) ** 2 * solveSystem(precision, unit)[k + 1];
  }, 1);
  const freedom = spreadWeight + samples.length - settled;
  const spread = (spreadWeight * usualSpread ** 2 + Math.max(0, rest)) / freedom;
  const x = row(where);
  const doubt = solveSystem(precision, x).reduce((sum, value, k) => sum + value * x[k], 0);
  const mean = found.reduce((sum, value, k) => sum + value * x[k], 0);
  const reach = studentQuantile975(freedom) * Math.sqrt(spread * (1 + doubt));
  return { mean, least: mean - reach, most: mean + reach };
}

function weightedMean(samples: readonly EnergySample[], amountOf: (sample: EnergySample) => number): number {
  const weight = samples.reduce((sum, { variance }) => sum + 1 / variance, 0);
  return samples.reduce((sum, sample) => sum + amountOf(sample) / sample.variance, 0) / weight;
}

/** The 97.5 % quantile of Student's t, within 0.3 % from 3 degrees of freedom on (Abramowitz and Stegun, 26.7.5). */
export function studentQuantile975(freedom: number): number {
  const z = 1.959963984540054;
  const terms = [
    (z ** 3 + z) / 4,
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96,
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384,
    (79 * z ** 9 + 776 * z ** 7 + 1482 * z ** 5 - 1920 * z ** 3 - 945 * z) / 92160,
  ];
  return terms.reduce((sum, term, i) => sum + term / freedom ** (i + 1), z);
}
