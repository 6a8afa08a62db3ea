import { describe, expect, test } from '@jest/globals';
import { dayOf, openingsFrom, spanOfDay } from './opening-hours.ts';

const hours = { opensAt: '09:00', closesAt: '18:00', openDays: [1, 2, 3, 4, 5], timeZone: 'Europe/Lisbon' };
const everyDay = { ...hours, openDays: [1, 2, 3, 4, 5, 6, 7] };
const at = (iso: string) => Date.parse(iso);
const inIso = (spans: readonly { from: number; until: number }[]) =>
  spans.map(({ from, until }) => [from, until].map((ms) => new Date(ms).toISOString().slice(0, 16)).join(' – '));

describe('a day by the shop’s clock', () => {
  test('begins at its own midnight, wherever the server is', () => {
    expect(dayOf(at('2026-12-02T23:30:00Z'), { ...hours, timeZone: 'Asia/Tokyo' })).toBe('2026-12-03');
    expect(dayOf(at('2026-12-02T03:30:00Z'), { ...hours, timeZone: 'America/New_York' })).toBe('2026-12-01');
    expect(inIso([spanOfDay('2026-12-02', { ...hours, timeZone: 'Asia/Tokyo' })])).toEqual([
      '2026-12-01T15:00 – 2026-12-02T15:00',
    ]);
  });

  test('has 25 hours when winter time begins, and 23 when summer time does', () => {
    const hoursOf = (day: string) => {
      const { from, until } = spanOfDay(day, hours);
      return (until - from) / 3_600_000;
    };
    expect(['2026-10-24', '2026-10-25', '2026-03-29'].map(hoursOf)).toEqual([24, 25, 23]);
  });
});

describe('the shop is open', () => {
  test('on its days, from yesterday on, weekends left out', () => {
    // A Friday; in Lisbon, winter time is UTC.
    expect(inIso(openingsFrom(at('2026-12-04T10:00:00Z'), 4, hours))).toEqual([
      '2026-12-03T09:00 – 2026-12-03T18:00',
      '2026-12-04T09:00 – 2026-12-04T18:00',
      '2026-12-07T09:00 – 2026-12-07T18:00',
    ]);
  });

  test('from nine by its own clock, before and after winter time begins', () => {
    expect(inIso(openingsFrom(at('2026-10-25T10:00:00Z'), 2, everyDay))).toEqual([
      '2026-10-24T08:00 – 2026-10-24T17:00',
      '2026-10-25T09:00 – 2026-10-25T18:00',
      '2026-10-26T09:00 – 2026-10-26T18:00',
    ]);
  });

  test('past midnight where it closes before it opens; an hour longer in the night when winter time begins', () => {
    const late = { ...everyDay, opensAt: '18:00', closesAt: '02:00' };
    const [, night] = openingsFrom(at('2026-10-24T20:00:00Z'), 1, late);
    expect(inIso([night])).toEqual(['2026-10-24T17:00 – 2026-10-25T02:00']);
    expect((night.until - night.from) / 3_600_000).toBe(9);
  });

  test('without a break where it never closes, and never where it has no days', () => {
    const always = { ...everyDay, opensAt: '00:00', closesAt: '00:00' };
    expect(inIso(openingsFrom(at('2026-12-04T10:00:00Z'), 2, always))).toEqual(['2026-12-03T00:00 – 2026-12-06T00:00']);
    expect(openingsFrom(at('2026-12-04T10:00:00Z'), 7, { ...hours, openDays: [] })).toEqual([]);
  });

  test('by this computer’s clock where no zone is settled', () => {
    expect(openingsFrom(at('2026-12-04T10:00:00Z'), 1, { ...hours, timeZone: '' })[0].from).toBe(
      new Date(2026, 11, 3, 9).getTime(),
    );
  });
});
