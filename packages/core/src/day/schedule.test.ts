import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { earliestFit, type QueuedJob, scheduleQueue, type WorkingTimes } from './schedule.ts';

const minute = 60_000;
const hour = 60 * minute;
/** Two days, each open from 9 to 17. */
const times: WorkingTimes = {
  openings: [0, 24].map((day) => ({ from: (day + 9) * hour, until: (day + 17) * hour })),
  setUpMs: 10 * minute,
};
const job = (hours: number, notBefore: number | null = null): QueuedJob => ({
  takesMs: Math.round(hours * hour),
  notBefore: notBefore === null ? null : notBefore * hour,
});
const inHours = (spans: readonly { from: number; until: number }[]) =>
  spans.map(({ from, until }) => [from / hour, until / hour].map((at) => Math.round(at * 60) / 60));

describe('jobs of a queue', () => {
  test('burn one after the other, each after it was set up', () => {
    expect(inHours(scheduleQueue([job(1), job(2)], 10 * hour, times))).toEqual([
      [10 + 1 / 6, 11 + 1 / 6],
      [11 + 2 / 6, 13 + 2 / 6],
    ]);
  });

  test('wait for the shop to open, and for the next day where they would end after it closes', () => {
    expect(inHours(scheduleQueue([job(4), job(4)], 6 * hour, times))).toEqual([
      [9 + 1 / 6, 13 + 1 / 6],
      [33 + 1 / 6, 37 + 1 / 6],
    ]);
  });

  test('may end at the very minute at which it closes', () => {
    const [span] = scheduleQueue([job(7 + 5 / 6)], 0, times);
    expect(span.until).toBe(17 * hour);
  });

  test('do not begin before they may, and are set up until then', () => {
    expect(inHours(scheduleQueue([job(1, 12), job(1)], 10 * hour, times))).toEqual([
      [12, 13],
      [13 + 1 / 6, 14 + 1 / 6],
    ]);
    expect(inHours(scheduleQueue([job(1, 10)], 12 * hour, times))).toEqual([[12 + 1 / 6, 13 + 1 / 6]]);
  });

  test('that are longer than a day begin as soon as it is open, and go on', () => {
    expect(inHours(scheduleQueue([job(10)], 0, times))).toEqual([[9 + 1 / 6, 19 + 1 / 6]]);
    expect(inHours(scheduleQueue([job(10)], 16 * hour, times))).toEqual([[16 + 1 / 6, 26 + 1 / 6]]);
  });

  test('burn at any time after the last that is known of the shop, or where nothing is', () => {
    expect(inHours(scheduleQueue([job(5), job(5), job(5)], 9 * hour, times)).at(-1)).toEqual([41 + 1 / 6, 46 + 1 / 6]);
    expect(inHours(scheduleQueue([job(5)], 3 * hour, { ...times, openings: [] }))).toEqual([[3 + 1 / 6, 8 + 1 / 6]]);
  });
});

describe('where a job fits in', () => {
  const queue = scheduleQueue([job(1, 12), job(1, 15)], 9 * hour, times);

  test('is the first gap that is long enough, set-up of the next included', () => {
    expect(earliestFit(job(1), queue, 9 * hour, times)).toMatchObject({
      place: 0,
      span: { from: 9 * hour + 10 * minute },
    });
    const gap = earliestFit(job(2 + 4 / 6), queue, 9 * hour, times);
    expect(gap).toMatchObject({ place: 0, span: { until: 11 * hour + 50 * minute } });
    expect(earliestFit(job(2 + 4.1 / 6), queue, 9 * hour, times).place).toBe(2);
    expect(earliestFit(job(1.5), queue, 10.5 * hour, times)).toMatchObject({
      place: 1,
      span: { from: 13 * hour + 10 * minute },
    });
  });

  test('is after the last one else', () => {
    expect(earliestFit(job(0.5), queue, 9 * hour, { ...times, setUpMs: 4 * hour }).place).toBe(2);
    expect(earliestFit(job(1), [], 10 * hour, times)).toEqual({
      place: 0,
      span: { from: 10 * hour + 10 * minute, until: 11 * hour + 10 * minute },
    });
  });
});

const anyJob = fc.record({
  takesMs: fc.integer({ min: 1, max: 12 * hour }),
  notBefore: fc.option(fc.integer({ min: 0, max: 60 * hour })),
});
const anyTimes = fc.record({
  setUpMs: fc.integer({ min: 0, max: hour }),
  openings: fc
    .uniqueArray(fc.integer({ min: 0, max: 100 * hour }), { maxLength: 8 })
    .map((edges) => edges.sort((a, b) => a - b))
    .map((edges) => edges.flatMap((from, i) => (i % 2 === 0 && edges[i + 1] ? [{ from, until: edges[i + 1] }] : []))),
});
const anyTime = fc.integer({ min: 0, max: 50 * hour });

describe('whatever waits', () => {
  test('burns its whole time, in its order, set up after the one before and never before it may', () => {
    fc.assert(
      fc.property(fc.array(anyJob, { maxLength: 12 }), anyTimes, anyTime, (queue, working, free) => {
        const spans = scheduleQueue(queue, free, working);
        for (const [i, { from, until }] of spans.entries()) {
          expect(until - from).toBe(queue[i].takesMs);
          expect(from).toBeGreaterThanOrEqual((spans[i - 1]?.until ?? free) + working.setUpMs);
          expect(from).toBeGreaterThanOrEqual(queue[i].notBefore ?? 0);
        }
      }),
    );
  });

  test('is set up while the shop is open, as far as that is known', () => {
    fc.assert(
      fc.property(fc.array(anyJob, { maxLength: 12 }), anyTimes, anyTime, (queue, working, free) => {
        const { openings, setUpMs } = working;
        const last = openings.at(-1)?.until ?? 0;
        for (const { from } of scheduleQueue(queue, free, working)) {
          const begin = from - setUpMs;
          expect(begin >= last || openings.some((open) => open.from <= begin && begin < open.until)).toBe(true);
        }
      }),
    );
  });

  test('fits in where it makes nobody wait longer, and no later than behind them all', () => {
    fc.assert(
      fc.property(fc.array(anyJob, { maxLength: 8 }), anyJob, anyTimes, anyTime, (queue, job, working, free) => {
        const spans = scheduleQueue(queue, free, working);
        const { span, place } = earliestFit(job, spans, free, working);
        const together = scheduleQueue([...queue.slice(0, place), job, ...queue.slice(place)], free, working);
        expect(together[place]).toEqual(span);
        expect(together.toSpliced(place, 1)).toEqual(spans);
        expect(span.until).toBeLessThanOrEqual(scheduleQueue([...queue, job], free, working)[queue.length].until);
      }),
    );
  });
});
