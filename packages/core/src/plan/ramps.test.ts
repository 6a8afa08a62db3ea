import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rampsOf, trapezoidTime } from './ramps.ts';

const a = 1000;
const even = rampsOf(undefined);
const smooth = rampsOf(10_000);

describe('ramps with a limit of jerk', () => {
  test('from rest to rest, where full acceleration is never reached, take four stretches of one length', () => {
    // Half the length is v · √(v / j): the whole takes 4 · ∛(L / 2j).
    for (const length of [0.001, 0.1, 2])
      expect(smooth.time(length, 0, 0, 500, a)).toBeCloseTo(4 * Math.cbrt(length / 20_000), 9);
  });

  test('to a speed that needs full acceleration take a / j longer than without one', () => {
    // To 200 mm/s: 0.2 s and 0.1 s, over 30 mm; as much again to rest, and 40 mm at 200 mm/s between.
    expect(smooth.time(100, 0, 0, 200, a)).toBeCloseTo(0.3 + 0.2 + 0.3, 9);
    expect(smooth.runUp(200, a)).toBeCloseTo(30, 9);
    expect(even.runUp(200, a)).toBeCloseTo(20, 9);
  });

  test('reach over a length what they take that length for', () => {
    expect(Math.sqrt(smooth.reach(0, 30, a))).toBeCloseTo(200, 9);
    // 100 mm/s more is where full acceleration is just reached: in 0.2 s, from 50 to 150 mm/s over 20 mm.
    expect(Math.sqrt(smooth.reach(50 ** 2, 20, a))).toBeCloseTo(150, 9);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0.001, max: 500, noNaN: true }),
        fc.double({ min: 100, max: 1e6, noNaN: true }),
        (v0, length, jerk) => {
          const ramps = rampsOf(jerk);
          const v1 = Math.sqrt(ramps.reach(v0 * v0, length, a));
          // At the mean of both speeds.
          expect(ramps.time(length, v0, v1, v1, a) / ((2 * length) / (v0 + v1))).toBeCloseTo(1, 6);
          expect(ramps.time(length, v1, v0, v1, a)).toBeCloseTo(ramps.time(length, v0, v1, v1, a), 9);
        },
      ),
    );
  });

  test('are never quicker than without one, and as quick where it is beyond all measure', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
        fc.double({ min: 1, max: 300, noNaN: true }),
        fc.double({ min: 0.01, max: 200, noNaN: true }),
        ([first, second], top, length) => {
          const v0 = first * top;
          const v1 = Math.min(second * top, Math.sqrt(smooth.reach(v0 * v0, length, a)));
          if (v0 > Math.sqrt(smooth.reach(v1 * v1, length, a))) return;
          const least = trapezoidTime(length, v0, v1, top, a);
          expect(smooth.time(length, v0, v1, top, a)).toBeGreaterThanOrEqual(least - 1e-9);
          expect(rampsOf(1e13).time(length, v0, v1, top, a)).toBeCloseTo(least, 4);
        },
      ),
    );
  });
});
