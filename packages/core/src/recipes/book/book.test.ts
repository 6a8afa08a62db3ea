import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine, material as ply } from '../../fixtures/shop.ts';
import { burntOperations } from '../../operations/operations.ts';
import { changesInWords } from './book-changes.ts';
import { bookToCsv, readBookCsv } from './book-csv.ts';
import { bookFromText, bookToText, NotABook } from './book-json.ts';
import type { Material } from './material.ts';
import { evidences, type Recipe, recipeKey } from './recipe.ts';

const words = fc.stringMatching(/^[a-zA-Z0-9äß“;,"' =+\n-]{0,20}$/).map((text) => text.trim());
const figure = (least: number, most: number) =>
  fc.integer({ min: Math.ceil(least * 1000), max: most * 1000 }).map((thousandths) => thousandths / 1000);

const recipe: fc.Arbitrary<Recipe> = fc.record(
  {
    machineId: fc.constantFrom('m', 'strong'),
    operation: fc.constantFrom(...burntOperations),
    powerPercent: figure(0.1, 100),
    speedMmPerS: figure(0.1, 500),
    passes: fc.integer({ min: 1, max: 9 }),
    lineSpacingMm: figure(0.02, 2),
    evidence: fc.constantFrom(...evidences),
    note: words,
    variant: words.filter((text) => text !== ''),
    lensId: fc.constantFrom('short', 'long'),
    cornerPowerPercent: figure(0, 20),
    focusMm: figure(-9, 9),
    focusStepMm: figure(0, 2),
    scanAngle: figure(-90, 90),
    bothWays: fc.boolean(),
    runUpMm: figure(0, 20),
    air: fc.oneof(fc.constantFrom('off' as const, 'low' as const, 'high' as const), figure(0.1, 2)),
    pierceS: figure(0, 1),
    cornerWaitS: figure(0, 1),
    kerfMm: figure(0, 1),
    proof: fc.record({ by: words.filter((text) => text !== ''), on: fc.constant('2026-11-26'), what: words }),
  },
  {
    requiredKeys: [
      'machineId',
      'operation',
      'powerPercent',
      'speedMmPerS',
      'passes',
      'lineSpacingMm',
      'evidence',
      'note',
    ],
  },
);

const material: fc.Arbitrary<Material> = fc
  .record({
    id: fc.stringMatching(/^[a-z0-9][a-z0-9-]{0,12}$/),
    name: words.filter((text) => text !== ''),
    family: words,
    thicknessMm: figure(0.1, 30),
    recipes: fc.uniqueArray(recipe, { selector: recipeKey, maxLength: 5 }),
  })
  .map((one) => ({ ...one, tone: '#EAD9B4', sheetWidth: 300, sheetHeight: 200, forbidden: null }));
const book = fc.uniqueArray(material, { selector: ({ id }) => id, maxLength: 4 });
const machines = [machine, { ...machine, id: 'strong' }];

/** What only JSON holds: sheets in stock, pictures, and the job that a recipe was burnt in. */
const stocked = fc.record(
  {
    id: fc.uuid(),
    width: figure(1, 2000),
    height: figure(1, 2000),
    count: fc.integer({ min: 0, max: 500 }),
    price: fc.option(figure(0, 900)),
    offcut: fc.constant(true),
  },
  { requiredKeys: ['id', 'width', 'height', 'count', 'price'] },
);
const complete = fc
  .tuple(material, fc.uniqueArray(stocked, { selector: ({ id }) => id, maxLength: 4 }), fc.uuid())
  .map(([one, stock, jobId]) => ({
    ...one,
    stock,
    recipes: one.recipes.map((of) => ({
      ...of,
      pictureId: 'a'.repeat(64),
      ...(of.proof ? { proof: { ...of.proof, jobId } } : {}),
    })),
  }));

const sheet = { id: 's', width: 600, height: 400, count: 3, price: 4.5 };

describe('a book', () => {
  test('comes back from JSON as it was', () => {
    fc.assert(fc.property(book, (materials) => expect(bookFromText(bookToText(materials))).toEqual(materials)));
  });

  test('comes back with its stock, its pictures, and the jobs that were burnt for it', () => {
    fc.assert(fc.property(complete, (one) => expect(bookFromText(bookToText([one]))).toEqual([one])));
  });

  test('comes back from its table with every recipe as it was, line by line, whatever stands in the cells', () => {
    fc.assert(
      fc.property(book, (materials) => {
        const csv = bookToCsv(materials);
        const { rows, faults } = readBookCsv(csv, [], machines);
        expect(faults).toEqual([]);
        const back = rows.map((row) => [row.material.id, row.material.name, row.material.thicknessMm, row.recipe]);
        expect(back).toEqual(
          materials.flatMap(({ id, name, thicknessMm, recipes }) => recipes.map((one) => [id, name, thicknessMm, one])),
        );
        for (const {
          line,
          material: { id },
        } of rows)
          expect(csv.split('\n')[line - 1]).toContain(id);
      }),
    );
  });

  test('what a spreadsheet would run as a formula is marked as text', () => {
    const [first] = ply.recipes;
    const csv = bookToCsv([{ ...ply, recipes: [{ ...first, note: '=1+1' }] }]);
    expect(csv).toContain("'=1+1");
    expect(readBookCsv(csv, [ply], [machine]).rows[0].recipe.note).toBe('=1+1');
  });

  test('a table with mistakes says which lines cannot be taken, and why; the others can', () => {
    const csv = [
      'Machine;Operation;Power %;Speed mm/s;Material ID;Passes;Air;Both ways;Remark',
      'm;cut;60;14,5;ply;2;low;yes;ours',
      'm;cut;60;14;ply;;;;',
      'wren;cut;60;14;ply;;;;',
      'm;weld;60;14;ply;;;;',
      'm;score;lots;14;ply;;;;',
      'm;score;101;14;ply;;;;',
      '',
      'm;score;10;90;moon-rock;;;;',
      'm;score;10;90;ply;1.5;;;',
      'm;score;10;90;ply;1;strong;;',
      'm;engrave;10;90;ply;1;0.8 bar;no;;;',
    ].join('\r\n');
    const { rows, faults } = readBookCsv(csv, [ply], [machine]);
    expect(rows).toEqual([
      {
        line: 2,
        material: { id: 'ply' },
        recipe: {
          machineId: 'm',
          operation: 'cut',
          powerPercent: 60,
          speedMmPerS: 14.5,
          passes: 2,
          lineSpacingMm: 0.1,
          air: 'low',
          bothWays: true,
          evidence: 'copied',
          note: '',
        },
      },
    ]);
    expect(faults).toEqual([
      { line: 3, sentence: 'It is for the same as line 2.' },
      { line: 4, sentence: 'There is no machine “wren”; there is m.' },
      { line: 5, sentence: 'The recipe: operation must be cut, score, engrave, photo.' },
      { line: 6, sentence: '“lots” under “power %” is not a number.' },
      { line: 7, sentence: 'The recipe: powerPercent must be more than 0 and up to 100.' },
      { line: 9, sentence: 'There is no material “moon-rock”; for a new one say its name and thickness.' },
      { line: 10, sentence: 'The recipe: passes must be a whole number.' },
      { line: 11, sentence: 'Air is off, low, high or a pressure such as 0.8 bar, and not “strong”.' },
      { line: 12, sentence: 'It has 11 cells; the first line has 9.' },
    ]);
    expect(() => readBookCsv('a,b\n1,2', [], [])).toThrow('names no column “material id”');
  });

  test.each<[string, (json: Record<string, unknown>) => unknown, string]>([
    ['no JSON', () => undefined, 'It is not JSON'],
    ['another file', (json) => ({ ...json, format: 'x' }), 'Format must be “lambent-book”'],
    ['one of a later Lambent', (json) => ({ ...json, version: 2 }), 'written by a later Lambent'],
    ['no materials', (json) => ({ ...json, materials: 3 }), 'Materials must be a list'],
    [
      'two of one id',
      (json) => ({ ...json, materials: [ply, ply] }),
      'two materials have the id “ply”'.replace('t', 'T'),
    ],
    ['an id with spaces', (json) => ({ ...json, materials: [{ ...ply, id: 'a b' }] }), 'and not “a b”'],
    [
      'no thickness',
      (json) => ({ ...json, materials: [{ ...ply, thicknessMm: 0 }] }),
      '“ply”: thicknessMm must be more than 0',
    ],
    [
      'a recipe without speed',
      (json) => ({ ...json, materials: [{ ...ply, recipes: [{ ...ply.recipes[0], speedMmPerS: undefined }] }] }),
      '“ply”: recipe 1: speedMmPerS must be a number',
    ],
    [
      'a proof without date',
      (json) => ({
        ...json,
        materials: [{ ...ply, recipes: [{ ...ply.recipes[0], proof: { by: 'x', on: 'now', what: '' } }] }],
      }),
      'on must be a date',
    ],
    [
      'half a sheet',
      (json) => ({ ...json, materials: [{ ...ply, stock: [{ ...sheet, count: 1.5 }] }] }),
      'whole number',
    ],
    [
      'a sheet of no size',
      (json) => ({ ...json, materials: [{ ...ply, stock: [{ ...sheet, width: 0 }] }] }),
      'width must',
    ],
    [
      'a price below 0',
      (json) => ({ ...json, materials: [{ ...ply, stock: [{ ...sheet, price: -1 }] }] }),
      'price must',
    ],
    ['two sheets of one id', (json) => ({ ...json, materials: [{ ...ply, stock: [sheet, sheet] }] }), 'have one id'],
  ])('%s is refused by name', (_, change, sentence) => {
    const changed = change(JSON.parse(bookToText([ply])));
    const read = () => bookFromText(changed === undefined ? '{' : JSON.stringify(changed));
    expect(read).toThrow(NotABook);
    expect(read).toThrow(sentence);
  });

  test('changes are said with what it was before', () => {
    const [cut] = ply.recipes;
    expect(changesInWords(cut, cut)).toBe('');
    expect(changesInWords(cut, { ...cut, speedMmPerS: 12, air: 'low', kerfMm: 0.2 })).toBe(
      'speed 15 mm/s → 12 mm/s, air none → low, kerf none → 0.2 mm',
    );
    expect(changesInWords(cut, { ...cut, archived: true })).toBe('put away');
    expect(changesInWords(ply, { ...ply, thicknessMm: 3.2, forbidden: 'soot' })).toBe(
      'thickness 3 mm → 3.2 mm, why it is forbidden none → soot',
    );
    expect(changesInWords(cut, { ...cut, pictureId: 'b' })).toBe('another picture');
    const offcut = { ...sheet, id: 'o', count: 1, price: null, offcut: true };
    expect(changesInWords({ ...ply, stock: [sheet] }, { ...ply, stock: [{ ...sheet, count: 2 }, offcut] })).toBe(
      'stock 3 of 600 × 400 mm at 4.5 → 2 of 600 × 400 mm at 4.5; 1 of 600 × 400 mm (offcut)',
    );
    expect(changesInWords(ply, { ...ply, stock: [] })).toBe('stock none → none');
  });
});
