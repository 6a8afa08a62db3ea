import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { scanOffsetAt, scanOffsetMeasuredTo } from './scan-offset.ts';

const scanOffsets = [
  { axis: 'x' as const, speed: 400, mm: 0.4 },
  { axis: 'x' as const, speed: 200, mm: 0.1 },
  { axis: 'y' as const, speed: 100, mm: -0.05 },
];

describe('a scan offset', () => {
  test('is read off between what was measured, from rest on, and in proportion beyond', () => {
    const at = (speed: number) => Number(scanOffsetAt({ scanOffsets }, speed, 1, 0).toFixed(9));
    expect([0, 100, 200, 300, 400, 800].map(at)).toEqual([0, 0.05, 0.1, 0.25, 0.4, 0.8]);
  });

  test('is that of the axis that is scanned along; askew, each has its share', () => {
    expect(scanOffsetAt({ scanOffsets }, 100, 0, -1)).toBeCloseTo(-0.05, 9);
    expect(scanOffsetAt({ scanOffsets }, 100, Math.SQRT1_2, Math.SQRT1_2)).toBeCloseTo(0, 9);
    expect(scanOffsetAt({}, 400, 1, 0)).toBe(0);
    expect(scanOffsetAt({ scanOffsets: scanOffsets.slice(0, 1) }, 400, 0, 1)).toBe(0);
    expect([scanOffsetMeasuredTo({ scanOffsets }, 'x'), scanOffsetMeasuredTo({}, 'y')]).toEqual([400, 0]);
  });

  test('of a lag is the same lag at every speed, whatever was measured', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 1000 }), { minLength: 1, maxLength: 6 }),
        fc.double({ min: -0.002, max: 0.002, noNaN: true }),
        fc.integer({ min: 0, max: 2000 }),
        (speeds, lagS, speed) => {
          const measured = speeds.map((entry) => ({ axis: 'x' as const, speed: entry, mm: 2 * entry * lagS }));
          expect(scanOffsetAt({ scanOffsets: measured }, speed, 1, 0)).toBeCloseTo(2 * speed * lagS, 9);
        },
      ),
    );
  });
});
