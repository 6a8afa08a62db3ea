import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, rule, shop } from '../fixtures/shop.ts';
import { rotation } from '../geometry/paths/matrix.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { blocks, checkJob } from './check.ts';

function check(items: Item[], more = {}) {
  const prepared = prepareJob(jobWith(items, more), shop);
  return checkJob(prepared, planJob(prepared));
}
const codes = (items: Item[], more = {}) => check(items, more).map(({ code }) => code);
const sound = item(box(50, 50, 30), 'cut');

test('a sound job has no findings', () => {
  expect(check([sound, item(line(55, 60, 75, 60), 'score'), item(box(60, 65, 5), 'engrave')])).toEqual([]);
});

test('what blocks comes first, then what warns, then what is to be noted', () => {
  const open = item(line(60, 60, 70, 60, 70, 70), 'cut');
  const off = switchLayer(
    jobWith([open, item(line(55, 60, 75, 60), 'score'), item(box(900, 50, 20), 'cut')]),
    'score',
    false,
  );
  const prepared = prepareJob(off, shop);
  expect(checkJob(prepared, planJob(prepared)).map(({ level }) => level)).toEqual([
    'blocks',
    'warns',
    'warns',
    'notes',
  ]);
});

describe('place', () => {
  test('off the bed blocks, and names the items; what touches the edge is on it', () => {
    const off = item(box(590, 50, 20), 'cut');
    expect(check([sound, off])[0]).toMatchObject({ code: 'off-bed', level: 'blocks', itemIds: [off.id] });
    expect(check([sound, off])[0].message).toBe(
      '1 item lies off the 600 × 400 mm bed of Test machine. Move it onto the bed, scale down, or choose a larger machine.',
    );
    expect(codes([item(box(0, 0, 30), 'cut')], { sheets: [{ ...sheet, x: -10, y: -10 }] })).toEqual([
      'into-margin',
      'sheet-off-bed',
    ]);
  });

  test('off the sheet, over its edge, and into its margin are told apart', () => {
    expect(check([item(box(520, 50, 30), 'cut')])[0]).toMatchObject({
      code: 'off-sheet',
      message: expect.stringContaining('off the sheet'),
    });
    expect(check([item(box(490, 50, 30), 'cut')])[0].message).toContain('over the edge of the sheet');
    expect(codes([item(box(468, 50, 30), 'cut')])).toEqual(['into-margin']);
    expect(codes([item(box(467, 50, 30), 'cut')])).toEqual([]);
  });

  test('guides and notes may lie anywhere', () => {
    expect(codes([sound, item(box(900, 900, 20), 'guide'), item(line(0, 0, 1, 1), 'note')])).toEqual([]);
  });
});

const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 500, height: 300, margin: 3 };

describe('meaning', () => {
  test('a colour without meaning blocks, once a paint', () => {
    const [one, two] = [item(line(60, 60, 70, 60), null), item(line(60, 70, 70, 70), null)];
    const [found] = check([sound, one, two]);
    expect(found).toMatchObject({ code: 'colour-without-meaning', level: 'blocks', itemIds: [one.id, two.id] });
    expect(found.message).toContain('2 items have #123456 at 0.1 mm, which means nothing in “House key”');
    expect(codes([sound, { ...one, pinned: 'note' }])).toEqual([]);
  });

  test('nothing to burn blocks; a layer that is off is noted', () => {
    expect(check([])).toMatchObject([{ code: 'nothing-to-burn', level: 'blocks' }]);
    const off = switchLayer(jobWith([sound, item(line(55, 60, 75, 60), 'score')]), 'score', false);
    const prepared = prepareJob(off, shop);
    expect(checkJob(prepared, planJob(prepared))).toMatchObject([
      { code: 'layer-off', level: 'notes', layerId: 'score' },
    ]);
  });
});

describe('lines', () => {
  test('an open outline on a cut layer warns, a closed one and a score do not', () => {
    const open = item(line(60, 60, 70, 60, 70, 70), 'cut');
    expect(check([sound, open])).toMatchObject([{ code: 'open-cut', level: 'warns', itemIds: [open.id] }]);
    expect(codes([item(line(60, 60, 70, 60, 70, 70, 60, 60), 'cut')])).toEqual([]);
    expect(codes([item(line(60, 60, 70, 60), 'engrave')])).toContain('open-engrave');
  });

  test.each([
    ['the same outline twice', box(50, 50, 30), 120],
    ['drawn the other way round', line(50, 50, 50, 80, 80, 80, 80, 50, 50, 50), 120],
    ['a neighbour that shares an edge', box(80, 50, 30), 30],
    ['a neighbour that shares part of an edge', box(80, 70, 30), 10],
    ['a line inside an edge', line(55, 50, 65, 50), 10],
  ])('%s is drawn twice', (_, path, lengthMm) => {
    const other = item(path, 'cut');
    const twice = check([sound, other]).find(({ code }) => code === 'line-drawn-twice');
    expect(twice).toMatchObject({ level: 'warns', itemIds: [sound.id, other.id] });
    expect(twice?.message).toMatch(new RegExp(`^${lengthMm}\\.0 mm`));
  });

  test('also at an odd angle; lines that cross, touch or run 0.1 mm apart are not drawn twice', () => {
    const tilted = { ...sound, id: 'tilted', matrix: rotation(33.3, { x: 65, y: 65 }) };
    expect(codes([tilted, { ...tilted, id: 'again' }])).toContain('line-drawn-twice');
    for (const path of [line(40, 60, 90, 61), line(80, 50, 95, 50), box(80.1, 50, 30)]) {
      expect(codes([sound, item(path, 'cut', { pinned: 'score' })])).not.toContain('line-drawn-twice');
    }
  });
});

describe('settings', () => {
  test('no recipe, no sheet, forbidden stock and settings beyond the machine', () => {
    const on = (materialId: string) => ({ sheets: [{ ...sheet, materialId }] });
    expect(check([sound], on('bare'))).toMatchObject([{ code: 'no-recipe', level: 'blocks', layerId: 'cut' }]);
    expect(codes([sound], { sheets: [] })).toEqual(['no-recipe', 'no-sheet']);
    expect(check([sound], on('poison'))).toMatchObject([{ code: 'forbidden-stock', level: 'blocks' }]);
    expect(codes([sound], { ...on('bare'), settings: { cut: { powerPercent: 50, speedMmPerS: 10 } } })).toEqual([]);
  });

  test.each([
    ['powerPercent', 101, 'Power is 101 %'],
    ['powerPercent', 0, 'Power is 0 %'],
    ['speedMmPerS', 500.1, 'up to 500 mm/s'],
    ['passes', 1.5, 'whole number'],
    ['passes', 0, 'whole number'],
  ])('%s of %d is beyond the machine', (setting, value, sentence) => {
    const found = check([sound], { settings: { cut: { [setting]: value } } });
    expect(found).toMatchObject([
      { code: 'beyond-machine', level: 'blocks', message: expect.stringContaining(sentence) },
    ]);
  });

  test('the limits themselves are allowed', () => {
    expect(codes([sound], { settings: { cut: { powerPercent: 100, speedMmPerS: 500, passes: 50 } } })).toEqual([]);
    expect(codes([item(box(60, 60, 9), 'engrave')], { settings: { engrave: { lineSpacingMm: 0.05 } } })).toEqual([]);
    expect(codes([item(box(60, 60, 9), 'engrave')], { settings: { engrave: { lineSpacingMm: 0.04 } } })).toEqual([
      'beyond-machine',
    ]);
  });

  test('an engraving near the edge of the bed is noted', () => {
    const near = item(box(6, 60, 9), 'engrave');
    expect(check([near])).toMatchObject([{ code: 'run-up-short', level: 'notes' }]);
    expect(blocks(check([near]))).toBe(false);
  });
});

test('an item that is filled on one layer and drawn on another is told once', () => {
  const both = item(box(-50, 20, 20), 'cut', { paint: { stroke: '#FF0000', strokeWidthMm: 0.1, fill: '#0000FF' } });
  const key = {
    ...shop.keys[0],
    rules: [rule({ colour: '#FF0000', layerId: 'cut' }), rule({ part: 'fill', colour: '#0000FF', layerId: 'engrave' })],
  };
  const prepared = prepareJob(jobWith([{ ...both, pinned: null }]), { ...shop, keys: [key] });
  expect([...prepared.meaning.placed.values()].filter((placed) => placed.length > 0)).toHaveLength(2);
  const found = checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'off-bed');
  expect(found.map(({ itemIds }) => itemIds)).toEqual([[both.id]]);
});
