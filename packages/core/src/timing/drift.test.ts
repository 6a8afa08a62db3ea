import { describe, expect, test } from '@jest/globals';
import { machine } from '../fixtures/shop.ts';
import { corrected, driftOf, withMotion } from './drift.ts';

const day = (n: number) => `2026-11-${String(n).padStart(2, '0')}T10:00:00.000Z`;
const runs = (...shares: number[]) =>
  shares.map((share, i) => ({ startedAt: day(i + 1), plannedS: 100, machineS: 100 * share }));

describe('the drift of a machine', () => {
  test('is the median of its runs, told where enough of them say the same', () => {
    expect(driftOf(runs(1.05, 1.06, 1.3))).toEqual({ count: 3, share: 1.06, isTold: true });
    expect(driftOf(runs(1.04, 1.06, 1.08, 1.1))?.share).toBeCloseTo(1.07, 9);
    expect(driftOf(runs(0.9, 0.92, 0.91))).toMatchObject({ share: 0.91, isTold: true });
  });

  test.each([
    ['two runs', runs(1.1, 1.1)],
    ['runs that hold', runs(1.01, 1.02, 1.015)],
    ['runs of which some were longer and some shorter', runs(0.9, 0.95, 1.03, 1.04, 1.05)],
  ])('is not told of %s', (_, some) => {
    expect(driftOf(some)?.isTold).toBe(false);
  });

  test('goes by the last runs, that were long enough, and began since its figures stand', () => {
    const many = runs(...Array.from({ length: 25 }, (_, i) => (i < 5 ? 3 : 1.1)));
    expect(driftOf(many)).toMatchObject({ count: 20, share: 1.1 });
    expect(driftOf(runs(1.5, 1.5, 1, 1, 1), day(3))).toEqual({ count: 3, share: 1, isTold: false });
    expect(driftOf([{ startedAt: day(1), plannedS: 4.9, machineS: 9 }])).toBeNull();
    expect(driftOf([])).toBeNull();
  });

  test('is taken back by one correction, and what was measured takes its place', () => {
    const drift = { count: 5, share: 1.06, isTold: true };
    const once = corrected(machine, drift, day(9));
    expect([once.timeShare, once.timesSince]).toEqual([106, day(9)]);
    expect(corrected(once, { ...drift, share: 0.5 }, day(10)).timeShare).toBe(53);
    const measured = withMotion(once, { acceleration: 2481.23456, jerk: undefined }, day(11));
    expect(measured).toMatchObject({ acceleration: 2481, timesSince: day(11), bedWidth: machine.bedWidth });
    expect([measured.timeShare, measured.jerk]).toEqual([undefined, undefined]);
    // Characters that take no time are said of a serial line, which would take its baud for it.
    const serial = { kind: 'serial', path: '/dev/ttyS0', baud: 115_200, buffer: 127 } as const;
    expect(withMotion(once, { characterMs: 0 }, day(11)).characterMs).toBeUndefined();
    expect(withMotion({ ...once, connection: serial }, { characterMs: 0 }, day(11)).characterMs).toBe(0);
    // Less than a machine can be said to take is none.
    expect(withMotion(once, { moveMs: 0.00004, jerk: 1e12 }, day(11))).toMatchObject({
      moveMs: undefined,
      jerk: undefined,
    });
  });
});
