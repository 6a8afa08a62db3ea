import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { operationColourKey } from '../colours/key.ts';
import { type Arrival, arrivalItemId } from '../document/arrival.ts';
import { anchorPoint, boundsOf, boundsOfAll } from '../document/item.ts';
import { newJob } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { hideItems, moveItems, pinItems, removeItems } from '../edits/items.ts';
import { testFonts } from '../fixtures/files.ts';
import { boxOf } from '../geometry/paths/box.ts';
import { type ArrivalPlace, acceptArrival, arrivalMap, arrivedItems, rereadArrival } from './arrive.ts';
import { readSvg } from './svg/read.ts';

const body =
  '<rect id="frame" x="10" y="10" width="40" height="20" fill="none" stroke="#D0481E" stroke-width="0.2"/>' +
  '<path id="dashed" d="M10 50h30" fill="none" stroke="#00806A" stroke-dasharray="4 2"/>' +
  '<g display="none"><circle id="spare" r="4" cx="90" cy="20"/></g>';
const read = (choices = {}) =>
  readSvg(
    `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">${body}</svg>`,
    (place) => arrivalItemId('a1', place),
    testFonts,
    choices,
  );
const arrival = (more: Partial<Arrival> = {}): Omit<Arrival, 'notes'> => ({
  id: 'a1',
  file: 'sign.svg',
  originalId: 3,
  choices: {},
  place: [1, 0, 0, 1, 0, 0],
  ...more,
});
const key = operationColourKey('house', 'House');
const idOf = (name: string) => read().drawing.items.find((item) => item.name === name)?.id ?? '';

describe('placing what arrives', () => {
  const reading = read();
  const shown = reading.drawing.items.filter((item) => !item.hidden);
  test('as in the file, in the middle, or by its corner; hidden parts do not count', () => {
    const placed = (...words: Parameters<typeof arrivalMap>) => boundsOfAll(arrivedItems(shown, arrivalMap(...words)));
    expect(placed(reading, 2, { kind: 'as-in-file' })).toEqual({ minX: 20, minY: 20, maxX: 100, maxY: 100 });
    expect(placed(reading, 1, { kind: 'within', box: boxOf(100, 100, 200, 100), anchor: { u: 0.5, v: 0.5 } })).toEqual({
      minX: 180,
      minY: 130,
      maxX: 220,
      maxY: 170,
    });
    expect(placed(reading, 0.5, { kind: 'point', at: { x: 7, y: 9 }, anchor: { u: 0, v: 0 } })).toEqual({
      minX: 7,
      minY: 9,
      maxX: 27,
      maxY: 29,
    });
  });
  test('each of the nine points of its frame comes to the same of a box, or to a point', () => {
    const box = boxOf(100, 60, 300, 200);
    for (const u of [0, 0.5, 1]) {
      for (const v of [0, 0.5, 1]) {
        const anchor = { u, v };
        const bounds = (place: ArrivalPlace) => boundsOfAll(arrivedItems(shown, arrivalMap(reading, 2, place)));
        const within = anchorPoint(bounds({ kind: 'within', box, anchor }), anchor);
        expect(within).toEqual({ x: expect.closeTo(100 + 300 * u, 9), y: expect.closeTo(60 + 200 * v, 9) });
        const there = anchorPoint(bounds({ kind: 'point', at: { x: 7, y: 9 }, anchor }), anchor);
        expect(there).toEqual({ x: expect.closeTo(7, 9), y: expect.closeTo(9, 9) });
      }
    }
  });
  test('strokes grow with the drawing', () => {
    expect(arrivedItems(shown, arrivalMap(reading, 3, { kind: 'as-in-file' }))[0].paint.strokeWidthMm).toBe(0.6);
  });
  test('items that shared a paint go on sharing it, and no others do', () => {
    const [item] = shown;
    const other = { ...item, paint: { ...item.paint, stroke: '#00FF00' } };
    const paints = arrivedItems(
      [item, other, { ...item, id: 'b' }],
      arrivalMap(reading, 2, { kind: 'as-in-file' }),
    ).map(({ paint }) => paint);
    expect(paints[2]).toBe(paints[0]);
    expect(paints[1]).toEqual({ ...paints[0], stroke: '#00FF00' });
  });
  test.each([0, -1, Number.NaN, Infinity])('a factor of %p is refused', (factor) => {
    expect(() => arrivalMap(reading, factor, { kind: 'as-in-file' })).toThrow(RangeError);
  });
});

describe('reading again with other choices', () => {
  const dashed = read({ dashes: 'dashed' });
  const start = acceptArrival(newJob('m', 'house'), arrival(), read(), key);

  test('keeps where parts were moved, what they were pinned to, and what was taken away or brought in', () => {
    let job = moveItems(start, new Set([idOf('dashed')]), 100, 20);
    job = pinItems(job, new Set([idOf('dashed')]), 'cut');
    job = removeItems(job, new Set([idOf('frame')]));
    job = hideItems(job, new Set([idOf('spare')]), false);
    const again = rereadArrival(
      job,
      arrival({ choices: { dashes: 'dashed' } }),
      { before: read(), after: dashed },
      key,
    );
    expect(again.drawing.items.map(({ name }) => name)).toEqual(['dashed', 'spare']);
    const [line, spare] = again.drawing.items;
    expect(line).toMatchObject({ pinned: 'cut' });
    expect(line.shape.kind === 'path' && line.shape.path.verbs.length).toBe(10);
    expect(boundsOf(line)).toMatchObject({ minX: 110, minY: 70 });
    expect(spare.hidden).toBe(false);
    expect(again.arrivals[0].choices).toEqual({ dashes: 'dashed' });
  });

  test('with nothing changed since, and the same choices, it changes nothing; moves are kept wherever they went', () => {
    expect(rereadArrival(start, arrival(), { before: read(), after: read() }, key).drawing.items).toEqual(
      start.drawing.items,
    );
    const by = fc.integer({ min: -500, max: 500 });
    fc.assert(
      fc.property(by, by, (dx, dy) => {
        const moved = moveItems(start, new Set(start.drawing.items.map(({ id }) => id)), dx, dy);
        const again = rereadArrival(moved, arrival(), { before: read(), after: dashed }, key);
        const [was, is] = [boundsOfAll(moved.drawing.items), boundsOfAll(again.drawing.items)];
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(is[side]).toBeCloseTo(was[side], 6);
      }),
    );
  });

  test('what else is in the job stays, in front and behind', () => {
    const other = arrivedItems(read().drawing.items.slice(0, 1), [1, 0, 0, 1, 0, 0])[0];
    const [behind, front] = ['behind', 'front'].map((id) => ({ ...other, id }));
    const job = { ...start, drawing: { ...start.drawing, items: [behind, ...start.drawing.items, front] } };
    const ids = rereadArrival(job, arrival(), { before: read(), after: dashed }, key).drawing.items.map(({ id }) => id);
    expect([ids[0], ids.at(-1), ids.length]).toEqual(['behind', 'front', 5]);
  });

  test('an arrival that the job does not know is an error', () => {
    expect(() => rereadArrival(start, arrival({ id: 'a2' }), { before: read(), after: read() }, key)).toThrow(
      RangeError,
    );
  });
});

test('a job keeps what it was brought in from; one of an earlier version has nothing of it', () => {
  const job = acceptArrival(
    newJob('m', 'house'),
    arrival({ choices: { page: 2, dashes: 'dashed', up: '-z', cutAt: 'outline', layers: 'by-colour' } }),
    read(),
    key,
  );
  expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))))).toEqual(job);
  const { arrivals: _, ...old } = jobToJson(newJob('m', 'house'));
  expect(jobFromJson(old).arrivals).toEqual([]);
});
