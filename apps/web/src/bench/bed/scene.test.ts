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

test('where a run burns on a sheet of its own, what is on other sheets is not shown there', () => {
  const { actions } = benchWith(square(10, 10, 5) + square(700, 10, 5));
  const job = jobOf(actions.get());
  const [onBed, beside] = job.drawing.items;
  const sheet = { materialId: '', y: 0, width: 100, height: 80, margin: 0 };
  const sheets = [
    { ...sheet, id: 'bed', x: 0 },
    { ...sheet, id: 'own', x: 690 },
  ];
  const [first] = job.runs;
  const own = { ...first, id: 'own', landing: { kind: 'sheet', sheetId: 'own', x: 0, y: 0 } as const };
  actions.edit('two sheets', (now) => ({ ...now, sheets, runs: [first, own] }));
  const shown = (asBurnt: boolean) =>
    sceneOf(actions.get().prepared, asBurnt).items.map(({ item, bounds }) => [item.id, Math.round(bounds.minX)]);
  expect(shown(true)).toEqual([[onBed.id, 10]]);
  actions.chooseRun('own');
  expect(shown(true)).toEqual([[beside.id, 10]]);
  expect(shown(false)).toHaveLength(2);
});
