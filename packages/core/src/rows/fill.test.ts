import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { Shape, TextSetting } from '../document/shape.ts';
import { blockLetters } from '../fixtures/block-letters.ts';
import { box, item } from '../fixtures/shop.ts';
import { usualText } from '../text/set.ts';
import { fillRows, fillWords } from './fill.ts';

const design = (words: string, more: Partial<TextSetting> = {}): Item =>
  item(box(0, 0, 5), 'engrave', {
    shape: { kind: 'text', text: { ...usualText, family: 'Block', height: 7, words, ...more }, path: box(0, 0, 5) },
  });
const listOf = (columns: string[], ...cells: string[][]) => ({
  columns,
  rows: cells.map((row, i) => ({ id: `r${i}`, cells: row })),
});
const means = { book: blockLetters, date: '1 May 2026', leastOf: () => 0 };
const wordsIn = (shape: Shape | null | undefined) =>
  shape?.kind === 'text' ? shape.text.words : shape?.kind === 'code' ? shape.code.words : shape;

test('fields are filled by their column, the row’s number and the day; other braces stay', () => {
  const row = { columns: ['name', 'Seed Library', '2nd'], cells: ['Ines', 'beans'], number: 7, date: '1 May' };
  expect(fillWords('{Name}: { seed library }, {row} of {date}, {2nd}{who} {} {a{name}}', row)).toBe(
    'Ines: beans, 7 of 1 May, {who} {} {aInes}',
  );
  // A column comes before the row’s number of the same name; what a cell holds is not filled again.
  expect(fillWords('{row}{name}', { ...row, columns: ['row', 'name'], cells: ['A', '{row} $& $1'] })).toBe(
    'A{row} $& $1',
  );
});

test('each row has the shapes that differ from the design, and is called by its first cell', () => {
  const [name, plain, code] = [
    design('{name}'),
    design('Garden'),
    item(box(0, 0, 5), 'engrave', {
      shape: {
        kind: 'code',
        code: { symbology: 'qr', words: '{row}', width: 20, height: 20 },
        path: box(0, 0, 5),
        moduleMm: 1,
      },
    }),
  ];
  const { rows, faults } = fillRows([name, plain, code], listOf(['name'], ['Ines'], [' '], ['Noor']), means);
  expect(rows.map(({ rowId, name }) => [rowId, name])).toEqual([
    ['r0', 'Ines'],
    ['r1', 'Row 2'],
    ['r2', 'Noor'],
  ]);
  expect(rows.map(({ shapes }) => [name, plain, code].map(({ id }) => wordsIn(shapes.get(id))))).toEqual([
    ['Ines', undefined, '1'],
    [null, undefined, '2'],
    ['Noor', undefined, '3'],
  ]);
  expect(faults).toEqual([]);
  expect(
    fillRows([name], listOf(['name'], ['Ines'], ['Noor']), means, new Set(['r1'])).rows.map(({ name }) => name),
  ).toEqual(['Noor']);
});

test('names that do not fit, letters that the face lacks, and codes that cannot be made are said with their row', () => {
  const code = item(box(0, 0, 5), 'engrave', {
    shape: {
      kind: 'code',
      code: { symbology: 'code-128', words: '{name}', width: 20, height: 8 },
      path: box(0, 0, 5),
      moduleMm: 1,
    },
  });
  const text = design('{name}', { width: 28, fit: 'smaller', leastHeight: 1 });
  const list = listOf(['name'], ['Ines'], ['Wilhelmina Strand'], ['Zoë']);
  // The material holds letters of 3.5 mm: eight letters of 7 mm fit.
  const { faults, rows } = fillRows([text, code], list, { ...means, leastOf: ({ id }) => (id === text.id ? 3.5 : 0) });
  expect(faults).toEqual([
    {
      rowId: 'r1',
      kind: 'long',
      message: 'Row 2, “Wilhelmina Strand”: “Wilhelmina Strand” is 31.5 mm too large for its place.',
    },
    { rowId: 'r2', kind: 'letters', message: 'Row 3, “Zoë”: Block does not have ë.' },
    {
      rowId: 'r2',
      kind: 'code',
      message: 'Row 3, “Zoë”: Code 128 has no sign for “ë”. Write it without, or take a QR code.',
    },
  ]);
  expect(rows[1].shapes.get(text.id)).toMatchObject({ over: 31.5, madeHeight: 3.5 });
  expect(rows[2].shapes.get(code.id)).toBeNull();
});

test('a code whose parts become finer than the beam is said with its row', () => {
  // A QR code of 29 modules with its quiet zone, and of 33 where it says more.
  const code = item(box(0, 0, 5), 'engrave', {
    shape: {
      kind: 'code',
      code: { symbology: 'qr', words: '{name}', width: 3, height: 3 },
      path: box(0, 0, 5),
      moduleMm: 1,
    },
  });
  const list = listOf(['name'], ['Ines'], ['Wilhelmina Strand']);
  const faultsAt = (beamMm: number, scale = 1) =>
    fillRows([{ ...code, matrix: [scale, 0, 0, scale, 0, 0] }], list, { ...means, leastOf: () => beamMm }).faults;
  expect(faultsAt(0.1)).toEqual([
    {
      rowId: 'r1',
      kind: 'code',
      message:
        'Row 2, “Wilhelmina Strand”: so much makes the parts of the code 0.09 mm wide, and the beam burns 0.10 mm. Make the code larger, or let it say less.',
    },
  ]);
  expect(faultsAt(0.1, 2)).toEqual([]);
  expect(faultsAt(0.11)).toHaveLength(2);
});
