import { describe, expect, test } from '@jest/globals';
import { planJob } from '@lambent/core/plan';
import { benchWith, square } from '../fixtures/bench.ts';
import { headAt, timelineOf } from './draw-burn.ts';

const { actions } = benchWith(square(20, 20, 30) + square(60, 20, 10, '#00806A'));
const plan = planJob(actions.get().prepared);

describe('the preview’s time', () => {
  test('runs over every move of every step, and ends where the steps end', () => {
    const { ends, firsts, kinds } = timelineOf(plan);
    expect(ends.at(-1)).toBeCloseTo(plan.timeS - plan.backS, 4);
    expect(firsts).toEqual([0, plan.steps[0].moves.kinds.length]);
    expect(kinds).toHaveLength(plan.steps.reduce((sum, { moves }) => sum + moves.kinds.length, 0));
    for (let i = 1; i < ends.length; i++) expect(ends[i]).toBeGreaterThan(ends[i - 1]);
  });

  test('the head is at the end of a move when the move ends, and between its ends before', () => {
    const { ends, xs, ys } = timelineOf(plan);
    for (let i = 1; i < ends.length; i++) {
      const middle = headAt(plan, (ends[i - 1] + ends[i]) / 2);
      expect(middle?.x).toBeCloseTo((xs[i - 1] + xs[i]) / 2, 6);
      expect(middle?.y).toBeCloseTo((ys[i - 1] + ys[i]) / 2, 6);
    }
    const after = headAt(plan, 1e9);
    expect([after?.x, after?.y]).toEqual([xs.at(-1), ys.at(-1)]);
  });

  test('a plan without moves has no head to show', () => {
    expect(headAt(planJob(benchWith('').actions.get().prepared), 3)).toBeNull();
  });
});
