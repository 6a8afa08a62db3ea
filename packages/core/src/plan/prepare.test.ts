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
