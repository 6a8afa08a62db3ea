import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { PricePart } from '../plan/price.ts';
import { sharesOf } from './shares.ts';

const parts: PricePart[] = [
  { kind: 'machine', what: 'Wren', amount: 10 },
  { kind: 'stock', what: 'Ply', amount: 6 },
  { kind: 'fee', what: 'Setting up', amount: 3 },
];

describe('shares of a price', () => {
  test('the machine by time, stock by area, fees alike', () => {
    const jobs = [
      { seconds: 60, areaMm2: 100 },
      { seconds: 40, areaMm2: 500 },
    ];
    expect(sharesOf(parts, jobs)).toEqual([6 + 1 + 1.5, 4 + 5 + 1.5]);
  });

  test('a hundredth that is left over goes where most of one is missing', () => {
    const fee: PricePart[] = [{ kind: 'fee', what: 'Each run', amount: 1 }];
    expect(sharesOf(fee, Array(3).fill({ seconds: 1, areaMm2: 1 }))).toEqual([0.34, 0.33, 0.33]);
    const time: PricePart[] = [{ kind: 'machine', what: 'Wren', amount: 0.1 }];
    const seconds = [1, 2, 4].map((s) => ({ seconds: s, areaMm2: 1 }));
    // Of 1.43, 2.86 and 5.71 hundredths the second lacks least.
    expect(sharesOf(time, seconds)).toEqual([0.01, 0.03, 0.06]);
  });

  test('where nobody takes time, each pays alike', () => {
    expect(sharesOf(parts.slice(0, 1), Array(2).fill({ seconds: 0, areaMm2: 0 }))).toEqual([5, 5]);
  });

  test('they add up to the price, and none is below its own by a hundredth', () => {
    const cents = fc.integer({ min: 0, max: 100_000 }).map((n) => n / 100);
    const priced = fc.record({
      kind: fc.constantFrom('machine', 'stock', 'fee'),
      what: fc.constant('x'),
      amount: cents,
    });
    const job = fc.record({
      seconds: fc.double({ min: 0, max: 1e5, noNaN: true }),
      areaMm2: fc.double({ min: 1, max: 1e6, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(priced as fc.Arbitrary<PricePart>),
        fc.array(job, { minLength: 1, maxLength: 12 }),
        (list, jobs) => {
          const shares = sharesOf(list, jobs).map((amount) => Math.round(amount * 100));
          const total = list.reduce((sum, { amount }) => sum + Math.round(amount * 100), 0);
          expect(shares.reduce((sum, share) => sum + share, 0)).toBe(total);
          const fees = list.reduce((sum, { kind, amount }) => sum + (kind === 'fee' ? amount * 100 : 0), 0);
          for (const share of shares) expect(share).toBeGreaterThanOrEqual(Math.floor(fees / jobs.length - 1e-6));
        },
      ),
    );
  });
});
