import { describe, expect, test } from '@jest/globals';
import { type Item, unpainted } from '../document/item.ts';
import { newJob } from '../document/job.ts';
import { PathBuilder } from '../geometry/paths/path.ts';
import { orderItems } from './arrange.ts';
import { lastSteps, record, redo, startHistory, undo, weightOfEdit } from './history.ts';
import { addItems, moveItems } from './items.ts';

const steps = (count: number, weight?: number) => {
  let history = startHistory(0);
  for (let i = 1; i <= count; i++) history = record(history, `edit ${i}`, i, weight);
  return history;
};

describe('the way back', () => {
  test('goes 500 steps, and the oldest are forgotten', () => {
    expect(steps(500).past[0].state).toBe(0);
    const { past } = steps(501);
    expect([past.length, past[0].state, past.at(-1)?.name]).toEqual([500, 1, 'edit 501']);
  });

  test('is shorter where steps weigh much, but a few stay whatever they weigh', () => {
    expect(steps(20, 100_000).past.map(({ state }) => state)).toEqual([10, 11, 12, 13, 14, 15, 16, 17, 18, 19]);
    expect(steps(20, 100_001).past).toHaveLength(9);
    expect(steps(20, 9_000_000).past.map(({ state }) => state)).toEqual([15, 16, 17, 18, 19]);
    expect(steps(3, 9_000_000).past).toHaveLength(3);
  });

  test('is kept as far as it weighs no more than so much: what was undone first, then the last steps', () => {
    const history = undo(undo(steps(10, 3)));
    const kept = (heaviest: number, most?: number) => {
      const { past, present, future } = lastSteps(history, heaviest, most);
      return [past.map(({ state }) => state), present, future.map(({ state }) => state)];
    };
    expect(kept(1000)).toEqual([[0, 1, 2, 3, 4, 5, 6, 7], 8, [9, 10]]);
    expect(kept(14)).toEqual([[6, 7], 8, [9, 10]]);
    expect(kept(5)).toEqual([[], 8, [9]]);
    expect(kept(2)).toEqual([[], 8, []]);
    expect(kept(1000, 3)).toEqual([[7], 8, [9, 10]]);
    expect(kept(1000, 1)).toEqual([[], 8, [9]]);
  });

  test('an edit that changes nothing is no step, and a new one forgets what was undone', () => {
    const history = undo(undo(steps(3)));
    expect(record(history, 'nothing', history.present)).toBe(history);
    expect([history.present, redo(redo(history)).present, redo(redo(history)).past.at(-1)?.name]).toEqual([
      1,
      3,
      'edit 3',
    ]);
    expect(redo(record(history, 'another', 9)).present).toBe(9);
  });
});

test('an edit weighs as the items that it changed, and the outlines that it drew anew', () => {
  const builder = new PathBuilder().moveTo(0, 0);
  for (let i = 1; i < 100; i++) builder.lineTo(i, i % 2);
  const item = (id: string): Item => ({
    id,
    name: null,
    shape: { kind: 'path', path: builder.build() },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: unpainted,
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  });
  const empty = newJob('wren', 'house');
  const job = addItems(empty, [item('a'), item('b'), item('c')]);
  const moved = moveItems(job, new Set(['a', 'b']), 1, 1);
  expect(weightOfEdit(empty.drawing, job.drawing)).toBe(1 + 3 * (1 + 100 / 10));
  expect(weightOfEdit(job.drawing, moved.drawing)).toBe(3);
  const front = orderItems(moved, new Set(['a']), 'front');
  expect(weightOfEdit(moved.drawing, front.drawing)).toBe(1);
  expect(weightOfEdit(job.drawing, front.drawing)).toBe(3);
  expect(weightOfEdit(job.drawing, job.drawing)).toBe(1);
});
