import { expect, test } from '@jest/globals';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { groupItems } from './arrange.ts';
import { renameThing } from './rename.ts';

const a = item(box(10, 10, 20), 'cut');
const b = item(box(50, 40, 10, 30), 'cut');
const job = groupItems(jobWith([a, b]), new Set([a.id]), 'g', 'Pair');
const names = ({ drawing: { items, groups } }: typeof job) => [...items, ...groups].map(({ name }) => name);

test('a group or an item is named, and called after its kind again where nothing is typed', () => {
  const before = names(job);
  expect(names(renameThing(job, 'g', '  Heron  '))).toEqual([before[0], before[1], 'Heron']);
  const named = renameThing(job, b.id, 'Reed');
  expect(names(named)).toEqual([before[0], 'Reed', before[2]]);
  expect(names(renameThing(named, b.id, ' '))[1]).toBeNull();
  expect(names(renameThing(job, b.id, 'x'.repeat(300)))[1]).toHaveLength(120);
});

test('what is called so already, or is not there, changes nothing', () => {
  expect(renameThing(job, 'g', 'Pair')).toBe(job);
  expect(renameThing(job, 'nowhere', 'Reed')).toBe(job);
});
