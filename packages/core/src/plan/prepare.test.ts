import { describe, expect, test } from '@jest/globals';
import { changeRun } from '../edits/index.ts';
import { box, item as itemOf, jobWith, shop } from '../fixtures/shop.ts';
import { prepareJob } from './prepare.ts';

describe('where a run burns an item', () => {
  const drawn = jobWith([itemOf(box(1, 1, 3), 'cut')]);
  const landing = { kind: 'head', u: 0, v: 0 } as const;
  const job = changeRun(drawn, drawn.runs[0].id, { landing });
  const [item] = job.drawing.items;
  const landed = (x: number) => prepareJob(job, shop, { head: { x, y: 50 } }).burntAt(item);

  test('is the very same copy of it as long as the run lands there', () => {
    expect(landed(30)).toBe(landed(30));
    expect(landed(30).matrix).toEqual([1, 0, 0, 1, 29, 49]);
    expect(landed(31).matrix).toEqual([1, 0, 0, 1, 30, 49]);
  });

  test('is kept for the places that it landed at last, and not for all that it ever did', () => {
    const first = landed(100);
    for (let x = 1; x <= 7; x++) landed(100 + x);
    expect(landed(100)).toBe(first);
    for (let x = 1; x <= 8; x++) landed(200 + x);
    expect(landed(100)).not.toBe(first);
    expect(landed(100)).toEqual(first);
  });
});

describe('several materials on the bed', () => {
  const sheet = (id: string, materialId: string, x: number) => ({
    id,
    materialId,
    x,
    y: 0,
    width: 100,
    height: 100,
    margin: 3,
  });
  const [a, b, c, d] = [10, 30, 210, 230].map((x) => itemOf(box(x, 10, 10), 'cut'));
  const astray = itemOf(box(400, 10, 10), 'cut');
  const job = jobWith([a, c, b, d, astray], { sheets: [sheet('s1', 'ply', 0), sheet('s2', 'bare', 200)] });

  test('each piece goes by the sheet that it lies on, all of them; what lies on none, by the first', () => {
    const cuts = prepareJob(job, shop).layers.filter(({ layer }) => layer.operation === 'cut');
    expect(cuts.map(({ id, material, placed }) => [id, material?.id, placed.map(({ item }) => item.id)])).toEqual([
      ['cut', 'ply', [a.id, b.id, astray.id]],
      ['cut@bare', 'bare', [c.id, d.id]],
    ]);
    // There is no recipe for the second one.
    expect(cuts.map(({ burns }) => burns)).toEqual([true, false]);
  });

  test('a layer without items stands there once', () => {
    const scores = prepareJob(job, shop).layers.filter(({ layer }) => layer.operation === 'score');
    expect(scores.map(({ id, placed, burns }) => [id, placed, burns])).toEqual([['score', [], false]]);
  });
});

test('a shop without a machine, or without a key, prepares nothing', () => {
  expect(() => prepareJob(jobWith([]), { ...shop, machines: [] })).toThrow(RangeError);
  expect(() => prepareJob(jobWith([]), { ...shop, keys: [] })).toThrow(RangeError);
});
