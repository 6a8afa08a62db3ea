import { expect, test } from '@jest/globals';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { usualText } from '../text/set.ts';
import { jobFromJson, jobToJson } from './json.ts';
import { nameOfRow } from './row-list.ts';

const list = {
  id: 'l',
  name: 'Names',
  columns: ['name', 'what'],
  rows: [
    { id: '1', cells: ['Ines', ''] },
    { id: '2', cells: [' ', 'welcome'] },
  ],
  designId: 'g',
};
const framed = { ...usualText, words: '{name}', width: 40, fit: 'smaller' as const, leastHeight: 2, depth: 12 };
const job = {
  ...jobWith([
    item(box(0, 0, 1), 'engrave', {
      groupId: 'g',
      shape: { kind: 'text', text: framed, path: box(0, 0, 5), madeHeight: 3, over: 1.5 },
    }),
    item(box(0, 0, 1), 'engrave', {
      shape: {
        kind: 'code',
        code: { symbology: 'code-128', words: '{name}', width: 40, height: 8, isLight: true },
        path: box(0, 0, 5),
        moduleMm: 0.4,
      },
    }),
  ]),
  lists: [list],
};
const withGroup = {
  ...job,
  drawing: { ...job.drawing, groups: [{ id: 'g', name: null, parentId: null, row: { listId: 'l', rowId: '2' } }] },
};

test('lists, codes, framed texts and groups made for a row come back as they were', () => {
  expect(jobFromJson(jobToJson(withGroup))).toEqual(withGroup);
});

test('a list with two rows of one id, or a code that is none, is refused with its place', () => {
  const broken = { ...job, lists: [{ ...list, rows: [list.rows[0], list.rows[0]] }] };
  expect(() => jobFromJson(jobToJson(broken))).toThrow(/list 0.*must have an id each, and two have the same/);
  const [text, code] = job.drawing.items;
  const wrong = { ...code, shape: { ...code.shape, code: { symbology: 'runes', words: '', width: 1, height: 1 } } };
  const foreign = { ...job, drawing: { ...job.drawing, items: [text, wrong] } };
  expect(() => jobFromJson(jobToJson(foreign as never))).toThrow(/item 1.*symbology/);
});

test('a row is called by its first cell that says anything, else by its number', () => {
  expect(list.rows.map((row, i) => nameOfRow(row, i + 1))).toEqual(['Ines', 'welcome']);
  expect(nameOfRow({ id: '3', cells: ['', ' '] }, 3)).toBe('Row 3');
});
