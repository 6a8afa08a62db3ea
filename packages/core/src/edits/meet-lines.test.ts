import { describe, expect, test } from '@jest/globals';
import { type Item, pathOf } from '../document/item.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { lengthOf, subpathsOf } from '../geometry/paths/segments.ts';
import { meetLines } from './meet-lines.ts';
import { nearestPlace } from './reshape.ts';

let made = 0;
const newId = () => `n${++made}`;
const on = (one: Item, x: number, y: number) => {
  const place = nearestPlace(one, x, y);
  if (!place) throw new Error('nothing there');
  return { id: one.id, place };
};
const round = (size: number) => ({ kind: 'round' as const, size });
const lengthIn = (one: Item) =>
  [...subpathsOf(pathOf(one))].flatMap(({ segments }) => segments).reduce((sum, s) => sum + lengthOf(s), 0);

describe('two lines led to each other', () => {
  const level = item(line(0, 0, 80, 0), 'cut');
  const upright = item(line(100, 20, 100, 120), 'cut');

  test('meet in a corner of the radius, which keeps its number', () => {
    const job = meetLines(jobWith([level, upright]), on(level, 10, 0), on(upright, 100, 90), round(10), newId);
    if (typeof job === 'string') throw new Error(job);
    expect(job.drawing.items).toHaveLength(1);
    const [one] = job.drawing.items;
    // 90 + a quarter of a circle of 10 + 110.
    expect(lengthIn(one)).toBeCloseTo(90 + (Math.PI / 2) * 10 + 110, 4);
    expect(one.shape).toMatchObject({ corners: [{ x: 100, y: 0, kind: 'round', size: 10 }] });
  });

  test('where they cross, the part that was clicked stays', () => {
    const across = item(line(-50, 30, 150, 30), 'cut');
    const job = meetLines(jobWith([across, upright]), on(across, 0, 30), on(upright, 100, 100), round(0), newId);
    if (typeof job === 'string') throw new Error(job);
    expect(lengthIn(job.drawing.items[0])).toBeCloseTo(150 + 90, 6);
  });

  test('two ends of one line close it', () => {
    const open = item(line(10, 0, 60, 0, 60, 50, 0, 50, 0, 10), 'cut');
    const job = meetLines(jobWith([open]), on(open, 30, 0), on(open, 0, 30), { kind: 'cut', size: 5 }, newId);
    if (typeof job === 'string') throw new Error(job);
    const [{ closed }] = [...subpathsOf(pathOf(job.drawing.items[0]))];
    expect(closed).toBe(true);
    expect(lengthIn(job.drawing.items[0])).toBeCloseTo(60 + 50 + 60 + 50 - 10 + 5 * Math.SQRT2, 6);
  });

  test.each<[string, Item, [number, number], number, string]>([
    ['parallel ones', item(line(0, 9, 80, 9), 'cut'), [10, 9], 1, 'parallel'],
    ['closed ones', item(box(200, 0, 10), 'cut'), [200, 5], 1, 'must be open'],
    ['a radius larger than the lines', upright, [100, 100], 500, 'at most'],
  ])('%s are refused with a sentence', (_, other, [x, y], size, sentence) => {
    const job = jobWith([level, other]);
    expect(meetLines(job, on(level, 10, 0), on(other, x, y), round(size), newId)).toContain(sentence);
  });
});
