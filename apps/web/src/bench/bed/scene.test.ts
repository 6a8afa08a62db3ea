import { expect, test } from '@jest/globals';
import { hideItems, moveItems, pinItems } from '@lambent/core/edits';
import { benchWith, square } from '../fixtures/bench.ts';
import { jobOf } from '../state/document.ts';
import { sceneOf } from './scene.ts';

// There is no canvas here: what a path is drawn with is not looked at.
globalThis.Path2D = class {
  moveTo() {}
  lineTo() {}
  bezierCurveTo() {}
  closePath() {}
} as unknown as typeof Path2D;

test('after an edit the scene has what changed anew, all else as it was, and every item by what it means now', () => {
  const { actions } = benchWith([0, 10, 20].map((x) => square(x, 0, 5)).join(''));
  const scene = () => sceneOf(actions.get().prepared, false).items;
  const [a, b, c] = jobOf(actions.get()).drawing.items.map(({ id }) => id);
  const first = scene();
  expect(first.map(({ operation }) => operation)).toEqual(['cut', 'cut', 'cut']);

  actions.edit('move', (job) => moveItems(job, new Set([b]), 0, 7));
  const moved = scene();
  expect(moved.map((one, i) => one === first[i])).toEqual([true, false, true]);
  expect(moved[1]).toMatchObject({ operation: 'cut', filledBy: null, bounds: { minY: 7, maxY: 12 } });

  actions.edit('burn as', (job) => pinItems(job, new Set([c]), 'score'));
  expect(scene().map(({ operation }) => operation)).toEqual(['cut', 'cut', 'score']);
  actions.edit('move', (job) => moveItems(job, new Set([a, c]), 1, 0));
  expect(scene().map(({ operation }) => operation)).toEqual(['cut', 'cut', 'score']);
  actions.edit('hide', (job) => hideItems(job, new Set([a]), true));
  expect(scene().map(({ operation }) => operation)).toEqual([null, 'cut', 'score']);

  for (let i = 0; i < 4; i++) actions.undo();
  expect(scene().map(({ item, operation }) => [item, operation])).toEqual(first.map(({ item }) => [item, 'cut']));
});
