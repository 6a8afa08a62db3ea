import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { deletedDays, versionsToThin } from './thinning-rule.ts';

const hour = 3_600_000;
const now = new Date('2026-06-20T12:00:00Z');
/** Versions so many hours old, the oldest first. */
const aged = (...hours: number[]) =>
  hours.map((age, i) => ({ number: i + 1, savedAt: new Date(now.getTime() - age * hour) }));
const gone = (...hours: number[]) =>
  versionsToThin(aged(...hours), now)
    .map(({ number }) => number)
    .toSorted((a, b) => a - b);

describe('versions are thinned', () => {
  test('not at all within the last day', () => {
    expect(gone(23.9, 23.8, 5, 4.99, 0.1, 0)).toEqual([]);
  });

  test('to the last one of each hour in the week before', () => {
    // 48 h is noon: 47.9, 47.5 and 47.1 lie in one hour, 46.9 in the next.
    expect(gone(47.9, 47.5, 47.1, 46.9, 0)).toEqual([1, 2]);
  });

  test('to the last one of each day before that', () => {
    // 15 days ago at 13:00 and 23:00, 14 days ago at 01:00.
    expect(gone(359, 349, 347, 0)).toEqual([1]);
  });

  test('from hours to days when they are eight days old, and not before', () => {
    // 190 h ago it was 14:00, 191.9 h ago 12:06, 192.1 h ago 11:54: all within one day, in three hours.
    expect(gone(191.9, 190, 0)).toEqual([]);
    expect(gone(192.1, 190, 0)).toEqual([]);
    expect(gone(193.9, 192.1, 0)).toEqual([1]);
  });

  test('but the last one of all stays, however old, and what a clock dates ahead stays too', () => {
    expect(gone(400, 400)).toEqual([1]);
    expect(gone(-5, -4.9, -4.8)).toEqual([]);
  });

  test('once: what is left is left again', () => {
    const ages = fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { maxLength: 60 });
    fc.assert(
      fc.property(ages, (hours) => {
        const all = aged(...hours.toSorted((a, b) => b - a));
        const first = new Set(versionsToThin(all, now));
        const left = all.filter((version) => !first.has(version));
        expect(versionsToThin(left, now)).toEqual([]);
        if (all.length > 0) expect(left.at(-1)).toBe(all.at(-1));
        // Of every day that had a version, one is left.
        const days = (versions: typeof all) =>
          new Set(versions.map(({ savedAt }) => savedAt.toISOString().slice(0, 10)));
        expect(days(left)).toEqual(days(all));
      }),
    );
  });
});

test('what was deleted can be taken back for 30 days, as is said on screen', () => {
  expect(deletedDays).toBe(30);
});
