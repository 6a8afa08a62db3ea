import { expect, test } from '@jest/globals';
import { moveItems, orderItems, removeItems } from '@lambent/core';
import { benchWith, square } from '../bench/fixtures/bench.ts';
import { jobOf } from '../bench/store.ts';
import { applyDiff, diffJob, jobsAhead } from './job-diff.ts';

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

test('a job is told in pieces of so many new items, and comes to the same', () => {
  const { actions } = benchWith(Array.from({ length: 10 }, (_, i) => square(10 * i, 0, 5)).join(''));
  const job = jobOf(actions.get());
  const half = new Set(job.drawing.items.filter((_, i) => i % 2 === 0).map(({ id }) => id));
  const later = orderItems(moveItems(job, half, 3, 4), half, 'front');
  let told: ReturnType<typeof jobOf> | null = null;
  const sent: number[] = [];
  let here: ReturnType<typeof jobOf> | null = null;
  for (const goal of [job, later]) {
    for (const next of [...jobsAhead(told, goal, 3), goal]) {
      const diff = diffJob(told, next);
      sent.push(diff.fresh.length);
      here = applyDiff(here, diff);
      told = next;
    }
    expect(here).toEqual(goal);
  }
  expect(sent).toEqual([3, 3, 3, 1, 3, 2]);
});
