import { expect, test } from '@jest/globals';
import type { RunAnswer } from '@lambent/contracts';
import { runNews, runUnderWay, shareOf } from './run-news.ts';

const run = (more: Partial<RunAnswer> = {}) =>
  ({
    id: 'r1',
    jobTitle: 'Tags',
    machineId: 'wren',
    status: 'running',
    reason: null,
    plannedS: 200,
    startedAt: '2026-12-01T10:00:00Z',
    endedAt: null,
    ...more,
  }) as RunAnswer;
const heard = (runS: number, more: Partial<RunAnswer> = {}, runId: string | null = 'r1') => ({
  runs: { r1: run(more) },
  machines: { wren: { runId, runS } },
});

test('a run is as far as its machine says', () => {
  expect(shareOf(run(), heard(50))).toBe(0.25);
  expect(shareOf(run(), heard(900))).toBe(1);
  expect(shareOf(run(), heard(50, {}, 'another'))).toBeNull();
  expect(shareOf(run({ plannedS: 0 }), heard(50))).toBeNull();
  expect(shareOf(run(), { machines: {} })).toBeNull();
});

test('what begins, is held, goes on, and passes a quarter is said once', () => {
  expect(runNews({ runs: {}, machines: {} }, heard(0))).toEqual(['“Tags” has begun.']);
  expect(runNews(heard(10), heard(49))).toEqual([]);
  expect(runNews(heard(49), heard(50))).toEqual(['“Tags” is 25 % burnt.']);
  expect(runNews(heard(50), heard(51))).toEqual([]);
  expect(runNews(heard(10), heard(160))).toEqual(['“Tags” is 75 % burnt.']);
  const held = heard(60, { status: 'held', reason: 'the lid is open' });
  expect(runNews(heard(60), held)).toEqual(['“Tags” is held: the lid is open.']);
  expect(runNews(heard(60), heard(60, { status: 'held' }))).toEqual(['“Tags” is held.']);
  expect(runNews(held, heard(60))).toEqual(['“Tags” goes on.']);
  expect(runNews(heard(60), heard(200, { status: 'done', endedAt: '2026-12-01T10:03:00Z' }))).toEqual([]);
});

test('of several runs under way the one begun first is told of; none that is over', () => {
  const later = run({ id: 'r2', startedAt: '2026-12-01T10:05:00Z' });
  expect(runUnderWay({ runs: { r2: later, r1: run() } })?.id).toBe('r1');
  expect(runUnderWay({ runs: { r2: later, r1: run({ endedAt: 'x' }) } })?.id).toBe('r2');
  expect(runUnderWay({ runs: {} })).toBeNull();
});
