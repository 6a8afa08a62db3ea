import { describe, expect, test } from '@jest/globals';
import { switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { operationOf } from '../operations/operations.ts';
import { prepareJob } from '../plan/prepare.ts';
import { fileNameFor, gatherOutgoing, programNameFor } from './outgoing.ts';

const page = { minX: 0, minY: 0, maxX: 500, maxY: 300 };
const items = [
  item(box(10, 10, 20), 'cut'),
  item(line(0, 0, 5, 5), 'guide'),
  item(box(40, 10, 20), 'engrave'),
  item(box(70, 10, 20), null),
  item(box(100, 10, 20), 'cut', { hidden: true }),
];
const gather = (more = {}, job = jobWith(items)) =>
  gatherOutgoing(prepareJob(job, shop), page, {
    paints: 'as-came',
    guides: true,
    only: null,
    onlyBurnt: false,
    ...more,
  }).layers.map(({ name, items }) => [name, items.length]);

describe('what goes out', () => {
  test('a layer a layer in the order they burn; what has no meaning last; what is hidden not', () => {
    expect(gather()).toEqual([
      ['Engrave', 1],
      ['Cut', 1],
      ['Guide', 1],
      ['Without meaning', 1],
    ]);
  });
  test('an outline that burns on a second layer goes out there too, in that operation’s paint where it has none', () => {
    const job = jobWith([item(box(40, 10, 20), 'engrave', { also: 'cut' })]);
    const choices = { paints: 'as-came' as const, guides: true, only: null, onlyBurnt: false };
    const { layers } = gatherOutgoing(prepareJob(job, shop), page, choices);
    expect(layers.map(({ name, items: [{ paint }] }) => [name, paint.stroke, paint.fill])).toEqual([
      ['Engrave', null, operationOf('engrave').colour],
      ['Cut', operationOf('cut').colour, null],
    ]);
  });

  test('without guides, only a selection, only what burns in this run', () => {
    expect(gather({ guides: false })).toEqual([
      ['Engrave', 1],
      ['Cut', 1],
      ['Without meaning', 1],
    ]);
    expect(gather({ only: new Set([items[0].id, items[1].id]) })).toEqual([
      ['Cut', 1],
      ['Guide', 1],
    ]);
    expect(gather({ onlyBurnt: true }, switchLayer(jobWith(items), 'engrave', false))).toEqual([['Cut', 1]]);
  });
  test('in the paints of the operations', () => {
    const out = gatherOutgoing(prepareJob(jobWith(items), shop), page, {
      paints: 'by-operation',
      guides: false,
      only: null,
      onlyBurnt: true,
    });
    expect(out.layers.map((layer) => [layer.items[0].paint.stroke, layer.items[0].paint.fill])).toEqual([
      [null, '#5B3FA0'],
      ['#D0481E', null],
    ]);
  });
});

test.each([
  ['{job} {material} {thickness}', 'Row markers Birch 3 mm'],
  ['{job}{member}', 'Row markers'],
  ['{date}/{job}: {run}', '2026-11-23-Row markers- 2'],
  ['{member}', 'job'],
  ['..{job}..', 'Row markers'],
  ['{what} {job}', '{what} Row markers'],
])('%s names a file %s', (pattern, name) => {
  const fields = { job: 'Row markers', member: '', material: 'Birch', thickness: '3 mm', date: '2026-11-23', run: '2' };
  expect(fileNameFor(pattern, fields)).toBe(name);
});

describe('the name of a program', () => {
  const fields = { job: 'Tags', member: '', material: 'Birch', thickness: '3 mm', date: '2026-11-23', run: 'Cut' };

  test('tells job, material, thickness and run apart, whatever the pattern says', () => {
    expect(programNameFor('{job} {material} {thickness}', fields)).toBe('Tags Birch 3 mm run Cut');
    expect(programNameFor('{run} of {job}', fields)).toBe('Cut of Tags Birch 3 mm');
    expect(programNameFor('out', fields)).toBe('out Tags Birch 3 mm run Cut');
    expect(programNameFor('{job}', { ...fields, material: '', thickness: '' })).toBe('Tags run Cut');
  });

  test('keeps its end where the title is long', () => {
    const long = programNameFor('{job}', { ...fields, job: 'x'.repeat(300) });
    expect(long).toHaveLength(120);
    expect(long).toMatch(/^x+… Birch 3 mm run Cut$/);
  });
});
