import { describe, expect, test } from '@jest/globals';
import { box, item, jobWith } from '../fixtures/shop.ts';
import type { Item } from './item.ts';
import { documentVersion, jobFromJson, jobToJson } from './json.ts';
import { NotADrawing } from './not-a-drawing.ts';
import { firstRun } from './run.ts';

const job = jobWith([item(box(10, 10, 20), 'cut', { id: 'a' })]);
// biome-ignore lint/suspicious/noExplicitAny: JSON that is changed anywhere
const json = (): any => JSON.parse(JSON.stringify(jobToJson(job)));

describe('the version of a document', () => {
  test('is written, and is no part of the job', () => {
    expect(json().version).toBe(documentVersion);
    expect(jobFromJson(json())).toEqual(job);
    expect(jobFromJson(json())).not.toHaveProperty('version');
  });

  test('of a later build is refused, as it is', () => {
    const later = { ...json(), version: documentVersion + 1 };
    expect(() => jobFromJson(later)).toThrow(NotADrawing);
    expect(() => jobFromJson(later)).toThrow('was written by a later Lambent; this one knows versions up to');
    expect(() => jobFromJson({ ...json(), version: '1' })).toThrow('job: version 1 was written');
  });

  test('0 said which layers are left out beside its one run', () => {
    const { version: _, runs: __, ...old } = json();
    expect(jobFromJson({ ...old, off: ['score'] }).runs).toEqual([{ ...firstRun, off: ['score'] }]);
    expect(jobFromJson(old).runs).toEqual([firstRun]);
    expect(jobFromJson({ ...old, off: ['score'] })).not.toHaveProperty('off');
    const run = { ...firstRun, name: 'Own' };
    expect(jobFromJson({ ...old, runs: [run], off: ['score'] }).runs).toEqual([run]);
    expect(() => jobFromJson({ ...old, off: [3] })).toThrow('run 1: off must be text');
  });
});

test('what a newer build has put anywhere is kept, whatever is edited here', () => {
  const newer = json();
  newer.mood = { colour: 'blue' };
  newer.drawing.items[0].grain = 45;
  newer.drawing.items[0].shape.weave = 'plain';
  newer.drawing.items[0].paint.sheen = 2;
  newer.sheets[0].lot = 'B7';
  newer.runs[0].nightly = true;
  newer.settings = { cut: { powerPercent: 50, pulses: 9 } };
  newer.layers = [{ id: 'x', name: 'X', operation: 'cut', burning: { wobble: 1 }, icon: 'star' }];
  const read = jobFromJson(newer);
  const edited = { ...read, unit: 'in' as const, sheets: read.sheets.map((sheet) => ({ ...sheet, x: 3 })) };
  const back = JSON.parse(JSON.stringify(jobToJson(edited)));
  expect(back).toEqual({ ...newer, unit: 'in', sheets: [{ ...newer.sheets[0], x: 3 }] });
});

describe('a drawing', () => {
  const alike = { stroke: '#00806A', strokeWidthMm: 0.1, fill: null };
  const read = (items: readonly unknown[]) => jobFromJson({ ...json(), drawing: { items, groups: [] } }).drawing.items;
  const [plain] = json().drawing.items;

  test('has items with ids of their own', () => {
    expect(() => read([plain, { ...plain }])).toThrow('item 1: the id a is there twice');
    expect(() => read([plain, { ...plain, id: 'b', matrix: [1] }])).toThrow('item 1: matrix must be 6 numbers');
  });

  test('shares the paints of items that are painted alike, and only those', () => {
    const items: Item[] = [alike, { ...alike }, { ...alike, strokeWidthMm: 0.2 }].map((paint, i) => ({
      ...plain,
      id: `i${i}`,
      paint,
    }));
    const [a, b, c] = read(items);
    expect(b.paint).toBe(a.paint);
    expect(c.paint).toEqual({ ...alike, strokeWidthMm: 0.2 });
    expect(c.paint).not.toBe(a.paint);
  });

  test('needs items and groups', () => {
    expect(() => jobFromJson({ ...json(), drawing: { items: [] } })).toThrow('items and groups must be lists');
    expect(() => jobFromJson({ ...json(), drawing: null })).toThrow('job: drawing is missing');
  });
});
