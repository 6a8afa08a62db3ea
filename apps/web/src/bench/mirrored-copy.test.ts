import { expect, test } from '@jest/globals';
import { boundsOf, pathOf } from '@lambent/core/document';
import { benchWith } from './fixtures/bench.ts';
import { mirroredCopy } from './mirrored-copy.ts';
import { jobOf } from './state/document.ts';

const hook = '<path d="M20 20H60V50" fill="none" stroke="#D0481E" stroke-width="0.1"/>';

test.each([
  ['beside', [65, 20, 105, 50], [105, 20]],
  ['below', [20, 55, 60, 85], [20, 85]],
] as const)('a mirrored copy lies %s, 5 mm apart, is selected, and the other way round', (where, bounds, start) => {
  const { actions } = benchWith(hook);
  const { items } = jobOf(actions.get()).drawing;
  actions.select([items[0].id]);
  mirroredCopy(actions, where);
  const [original, copy] = jobOf(actions.get()).drawing.items;
  expect(original).toBe(items[0]);
  const { minX, minY, maxX, maxY } = boundsOf(copy);
  const rounded = (numbers: readonly number[]) => numbers.map((mm) => Math.round(mm * 1e6) / 1e6);
  expect(rounded([minX, minY, maxX, maxY])).toEqual(bounds);
  expect(rounded(Array.from(pathOf(copy).coords.slice(0, 2)))).toEqual(start);
  expect([...actions.get().selection]).toEqual([copy.id]);
});

test('of nothing there is no copy', () => {
  const { actions } = benchWith(hook);
  mirroredCopy(actions, 'beside');
  expect(jobOf(actions.get()).drawing.items).toHaveLength(1);
});
