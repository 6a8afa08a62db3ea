import { expect, test } from '@jest/globals';
import { moveItems, orderItems, removeItems } from '@lambent/core';
import { benchWith, square } from '../bench/fixtures/bench.ts';
import { jobOf } from '../bench/store.ts';
import { applyDiff, diffJob } from './job-diff.ts';

test('a job put together from what changed is the job, and only what changed is sent', () => {
  const { actions } = benchWith(square(0, 0, 5) + square(10, 0, 5) + square(20, 0, 5));
  const job = jobOf(actions.get());
  const [a, b] = job.drawing.items.map(({ id }) => id);
  const whole = diffJob(null, job);
  expect(whole.fresh).toHaveLength(3);
  let here = applyDiff(null, whole);
  expect(here).toEqual(job);
  let last = job;
  for (const [next, sent] of [
    [moveItems(job, new Set([b]), 3, 4), 1],
    [orderItems(job, new Set([a]), 'front'), 1],
    [removeItems(job, new Set([a])), 0],
    [job, 1],
  ] as const) {
    const diff = diffJob(last, next);
    expect(diff.fresh).toHaveLength(sent);
    here = applyDiff(here, diff);
    expect(here).toEqual(next);
    last = next;
  }
});
