import { expect, test } from '@jest/globals';
import type { JobDocument } from '../document/job.ts';
import { changeSetting } from '../edits/items.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { mended } from '../mends/mend.ts';
import { mendPreview } from '../mends/preview.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { checkJob } from './check.ts';

const grid: Shop = { ...shop, machines: shop.machines.map((machine) => ({ ...machine, bedGapMm: 10 })) };

function looseIn(job: JobDocument, within = grid) {
  const prepared = prepareJob(job, within);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'drops' || code === 'tips');
}

// Across their corners 9.9, 10.0 and 19.8, 20.1 mm.
const [drops, edge, tips, lies] = [7, 7.1, 14, 14.2].map((width, i) => item(box(20 + 40 * i, 20, width), 'cut'));

test('what fits into a gap of the bed drops, what is less than twice as large may tip', () => {
  const [first, second, ...others] = looseIn(jobWith([drops, edge, tips, lies]));
  expect(others).toEqual([]);
  expect(first).toMatchObject({ code: 'drops', level: 'notes', itemIds: [drops.id] });
  expect(first.message).toBe('1 piece is smaller than the 10 mm gaps of Test machine’s bed, and would drop through.');
  expect(second).toMatchObject({ code: 'tips', itemIds: [edge.id, tips.id] });
  expect(second.places).toHaveLength(2);
  expect(looseIn(jobWith([drops, edge, tips, lies]), shop)).toEqual([]);
});

test('what falls out of a piece may; a piece within that hole may not', () => {
  const [plate, hole, core] = [
    item(box(100, 100, 90), 'cut'),
    item(box(110, 110, 8), 'cut'),
    item(box(111, 111, 5), 'cut'),
  ];
  expect(looseIn(jobWith([plate, hole]))).toEqual([]);
  expect(looseIn(jobWith([plate, hole, core]))).toMatchObject([{ code: 'drops', itemIds: [core.id] }]);
});

test('tabs hold them: placed on a press, or asked for by the layer', () => {
  const job = jobWith([drops, lies, tips]);
  for (const { mends = [] } of looseIn(job)) {
    expect(mends).toMatchObject([{ words: 'Hold it by 2 tabs', isSafe: false }]);
    expect(mended(job, mends[0]).tabs).toHaveLength(1);
    expect(mendPreview(job, mends[0])).toMatchObject({ outline: null, gone: null, dots: [{}, {}] });
  }
  const all = looseIn(job).reduce((now, { mends = [] }) => mended(now, mends[0]), job);
  expect(all.tabs.map(({ itemId, at }) => [itemId, at.length])).toEqual([
    [drops.id, 2],
    [tips.id, 2],
  ]);
  expect(looseIn(all)).toEqual([]);
  expect(looseIn(changeSetting(job, 'cut', 'tabs', 1))).toEqual([]);
  // What is too small for tabs is told, and cannot be held.
  expect(looseIn(jobWith([item(box(20, 20, 0.5), 'cut')]))[0].mends).toBeUndefined();
});
