import { expect, test } from '@jest/globals';
import { jobFromJson, jobToJson } from '../document/json.ts';
import type { Tone } from '../document/tone.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { setTone } from './tone.ts';

const picture = item(box(0, 0, 1), null, { shape: { kind: 'picture', pictureId: 'p', width: 4, height: 3 } });
const square = item(box(10, 10, 5), 'cut');
const job = jobWith([picture, square]);
const ids = new Set([picture.id, square.id]);
const toneOf = (entry: typeof job): Tone | undefined => {
  const [{ shape }] = entry.drawing.items;
  return shape.kind === 'picture' ? shape.tone : undefined;
};

test('the tone of a picture is kept beside it, one decision at a time, and in the file', () => {
  const brighter = setTone(job, ids, { brightness: 20 });
  const both = setTone(brighter, ids, { lighter: true });
  expect(toneOf(both)).toEqual({ brightness: 20, lighter: true });
  expect(toneOf(jobFromJson(JSON.parse(JSON.stringify(jobToJson(both)))))).toEqual({ brightness: 20, lighter: true });
  expect(both.drawing.items[1]).toBe(square);
});

test('what is taken back was never decided', () => {
  const brighter = setTone(job, ids, { brightness: 20, sharpen: 35 });
  expect(toneOf(setTone(brighter, ids, { brightness: undefined }))).toEqual({ sharpen: 35 });
  const untouched = setTone(setTone(job, ids, { lighter: true }), ids, { lighter: undefined });
  expect(untouched.drawing.items[0]).toEqual(picture);
});
