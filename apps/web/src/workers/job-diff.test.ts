import { expect, test } from '@jest/globals';
import { hideItems, moveItems, orderItems, removeItems, rotateItems } from '@lambent/core/edits';
import fc from 'fast-check';
import { benchWith, square } from '../bench/fixtures/bench.ts';
import { jobOf } from '../bench/state/document.ts';
import { applyDiff, diffJob } from './job-diff.ts';

const jobOfSquares = (count: number) =>
  jobOf(benchWith(Array.from({ length: count }, (_, i) => square(10 * i, 0, 5)).join('')).actions.get());

test('a job put together from what changed is the job, and only what changed is sent', () => {
  const job = jobOfSquares(3);
  const [a, b] = job.drawing.items.map(({ id }) => id);
  const whole = diffJob(null, job);
  expect(whole.fresh).toHaveLength(3);
  let here = applyDiff(null, whole);
  expect(here).toEqual(job);
  let last = job;
  for (const [next, sent, moved, keepsOrder] of [
    [moveItems(job, new Set([b]), 3, 4), 0, 1, true],
    [orderItems(job, new Set([a]), 'front'), 1, 0, false],
    [hideItems(orderItems(job, new Set([a]), 'front'), new Set([a]), true), 1, 0, false],
    [removeItems(job, new Set([a])), 0, 0, false],
    [job, 1, 0, false],
    [{ ...job, member: 'wren' }, 0, 0, true],
  ] as const) {
    const diff = diffJob(last, next);
    expect(diff.fresh).toHaveLength(sent);
    expect(diff.places).toHaveLength(moved);
    expect(diff.order === null).toBe(keepsOrder);
    here = applyDiff(here, diff);
    expect(here).toEqual(next);
    last = next;
  }
});

test('an item that is only moved keeps its shape, so that what is known of it stays known', () => {
  const job = jobOfSquares(2);
  const all = new Set(job.drawing.items.map(({ id }) => id));
  const there = applyDiff(null, structuredClone(diffJob(null, job)));
  const moved = applyDiff(there, structuredClone(diffJob(job, rotateItems(job, all, 30, { x: 0, y: 0 }))));
  moved.drawing.items.forEach(({ shape }, i) => {
    expect(shape).toBe(there.drawing.items[i].shape);
  });
});

test('whatever was sent ahead, and whatever was told last: the job comes out as it is', () => {
  const first = jobOfSquares(8);
  const ids = first.drawing.items.map(({ id }) => id);
  const some = fc.subarray(ids).map((list) => new Set(list));
  const edit = fc.oneof(
    fc.record({ by: some, x: fc.integer({ min: 1, max: 9 }) }).map(({ by, x }) => ({ by, how: 'move' as const, x })),
    fc.record({ by: some }).map(({ by }) => ({ by, how: 'front' as const, x: 0 })),
    fc.record({ by: some }).map(({ by }) => ({ by, how: 'hide' as const, x: 0 })),
    fc.record({ by: some }).map(({ by }) => ({ by, how: 'remove' as const, x: 0 })),
  );
  const sending = fc.record({ edits: fc.array(edit, { maxLength: 4 }), ahead: fc.nat({ max: 8 }) });
  fc.assert(
    fc.property(fc.array(sending, { minLength: 1, maxLength: 5 }), (sendings) => {
      let told: typeof first | null = null;
      let here: typeof first | null = null;
      let job = first;
      for (const { edits, ahead } of sendings) {
        for (const { by, how, x } of edits) {
          if (how === 'move') job = moveItems(job, by, x, -x);
          else if (how === 'front') job = orderItems(job, by, 'front');
          else if (how === 'hide') job = hideItems(job, by, !job.drawing.items.some(({ hidden }) => hidden));
          else job = removeItems(job, by);
        }
        const early = diffJob(told, job).fresh.slice(0, ahead);
        const diff = diffJob(told, job, new Map(early.map((item, i) => [item, i])));
        expect(diff.fresh.every((item) => !early.includes(item))).toBe(true);
        here = applyDiff(here, structuredClone(diff), structuredClone(early));
        told = job;
        expect(here).toEqual(job);
      }
    }),
  );
});
