import { describe, expect, test } from '@jest/globals';
import { leastSquares } from './least-squares.ts';

describe('least squares', () => {
  test('of a straight line give its height and slope, with the doubts that the textbook gives', () => {
    const xs = [0, 1, 2, 3, 4];
    const ys = [1.1, 2.9, 5.2, 6.8, 9.1];
    const { parameters, doubts, rest } = leastSquares(([a, b]) => xs.map((x, i) => (a + b * x - ys[i]) / 0.2), [0, 0]);
    // Normal equations by hand: slope 19.9 / 10, height 5.02 − 2 · 1.99.
    expect(parameters[1]).toBeCloseTo(1.99, 6);
    expect(parameters[0]).toBeCloseTo(1.04, 6);
    // One sigma of the slope is σ / √Σ(x − x̄)².
    expect(doubts[1]).toBeCloseTo(0.2 / Math.sqrt(10), 4);
    expect(rest).toBeCloseTo(
      xs.reduce((sum, x, i) => sum + ((1.04 + 1.99 * x - ys[i]) / 0.2) ** 2, 0),
      6,
    );
  });

  test('find their way through a bent valley', () => {
    const { parameters } = leastSquares(([x, y]) => [10 * (y - x * x), 1 - x], [-1.2, 1]);
    expect(parameters[0]).toBeCloseTo(1, 4);
    expect(parameters[1]).toBeCloseTo(1, 4);
  });

  test('own that they know nothing of what changes nothing', () => {
    const { parameters, doubts } = leastSquares(([x]) => [x - 3, x - 3.1], [0, 5]);
    expect(parameters[0]).toBeCloseTo(3.05, 6);
    expect(parameters[1]).toBe(5);
    expect(doubts[1]).toBeGreaterThan(1000);
  });
});
