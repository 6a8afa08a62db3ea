import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CardWish } from '../../document/card.ts';
import { cellsThatFit, closerCard, layCard, marginsAround, markBy, valuesAlong } from './test-card.ts';

const wish: CardWish = {
  operation: 'cut',
  across: { setting: 'speedMmPerS', from: 5, to: 25, steps: 5 },
  down: { setting: 'powerPercent', from: 40, to: 90, steps: 3 },
  rest: { kerfMm: 0 },
  words: { powerPercent: 8, speedMmPerS: 150 },
  cellMm: 8,
  gapMm: 2,
};

describe('a test card', () => {
  test('has a cell for each pair of values, from the mildest to the fiercest, and words for each value', () => {
    const card = layCard(wish);
    expect([card.columns, card.rows]).toEqual([
      [5, 10, 15, 20, 25],
      [40, 65, 90],
    ]);
    expect(card.cells).toHaveLength(15);
    const energies = card.cells.map(({ settings }) => settings.powerPercent / settings.speedMmPerS);
    expect(energies).toEqual(energies.toSorted((a, b) => a - b));
    expect(card.cells[0].settings).toMatchObject({ powerPercent: 40, speedMmPerS: 25, passes: 1, kerfMm: 0 });
    expect(card.cells.at(-1)).toMatchObject({ column: 0, row: 2, x: 14, y: 20 });
    expect(card.labels.map(({ words }) => words)).toEqual([
      ...['5', '10', '15', '20', '25', '40', '65', '90'],
      'Cut: % down, mm/s across',
    ]);
    expect([card.width, card.height]).toEqual([14 + 48, 28 + 9]);
  });

  test('no two cells touch, and none lies beyond the card; what fits is said as it is laid', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 6, max: 20 }),
        fc.integer({ min: 1, max: 5 }),
        (columns, rows, cellMm, gapMm) => {
          const across = { ...wish.across, steps: columns };
          const down = { ...(wish.down as NonNullable<CardWish['down']>), steps: rows };
          const card = layCard({ ...wish, across, down, cellMm, gapMm });
          const [wide, high] = [card.columns.length, card.rows.length];
          expect(new Set(card.cells.map(({ x, y }) => `${x} ${y}`)).size).toBe(wide * high);
          for (const { x, y } of card.cells) {
            expect(x + cellMm).toBeLessThanOrEqual(card.width + 1e-9);
            expect(y + cellMm).toBeLessThanOrEqual(card.height + 1e-9);
          }
          expect(cellsThatFit({ cellMm, gapMm }, card.width, card.height)).toEqual({ columns: wide, rows: high });
          const less = cellsThatFit({ cellMm, gapMm }, card.width - 0.01, card.height - 0.01);
          expect(less).toEqual({ columns: wide - 1, rows: high - 1 });
        },
      ),
    );
    expect(cellsThatFit(wish, 10, 10)).toEqual({ columns: 0, rows: 0 });
  });

  test('one row for lines, passes or focus; passes are whole and never twice', () => {
    expect(valuesAlong({ setting: 'passes', from: 1, to: 4, steps: 9 })).toEqual([1, 2, 3, 4]);
    expect(valuesAlong({ setting: 'focusMm', from: -2, to: 2, steps: 5 })).toEqual([-2, -1, 0, 1, 2]);
    expect(valuesAlong({ setting: 'lineSpacingMm', from: 0.05, to: 0.3, steps: 1 })).toEqual([0.05]);
    const across = { setting: 'lineSpacingMm' as const, from: 0.05, to: 0.3, steps: 6 };
    const row = { ...wish, operation: 'engrave' as const, across, down: null };
    const card = layCard({ ...row, rest: { powerPercent: 20, speedMmPerS: 300 } });
    expect(card.cells.map(({ settings }) => settings.lineSpacingMm)).toEqual([0.3, 0.25, 0.2, 0.15, 0.1, 0.05]);
    expect(() => layCard(row)).toThrow(RangeError);
  });
});

describe('greys', () => {
  const greys: CardWish = {
    ...wish,
    operation: 'engrave',
    across: { setting: 'greyPercent', from: 0, to: 100, steps: 5 },
    down: { setting: 'speedMmPerS', from: 200, to: 400, steps: 2 },
    rest: { powerPercent: 40, lineSpacingMm: 0.1 },
    lightest: 0.1,
  };

  test('burn with the share of the power that is theirs, white with the least', () => {
    const card = layCard(greys);
    const row = card.cells.filter(({ row }) => row === 0).toSorted((a, b) => a.column - b.column);
    expect(row.map(({ settings }) => settings.powerPercent)).toEqual([4, 13, 22, 31, 40]);
    expect(row.every(({ settings }) => settings.speedMmPerS === 200)).toBe(true);
    expect(card.cells[0]).toMatchObject({ column: 0, row: 1 });
    expect(card.cells.at(-1)).toMatchObject({ column: 4, row: 0 });
  });

  test('of photos are drawn, and burn with one power', () => {
    const card = layCard({ ...greys, operation: 'photo' });
    const row = card.cells.filter(({ row }) => row === 0).toSorted((a, b) => a.column - b.column);
    expect(row.map(({ fill }) => fill)).toEqual(['#FFFFFF', '#BFBFBF', '#808080', '#404040', '#000000']);
    expect(row.every(({ settings }) => settings.powerPercent === 40)).toBe(true);
    expect(card.cells.at(-1)).toMatchObject({ column: 4, row: 0 });
    expect(
      layCard({ ...greys, operation: 'photo', across: { ...greys.across, setting: 'powerPercent' } }).cells[0].fill,
    ).toBe('#000000');
    expect(layCard(greys).cells[0].fill).toBeNull();
  });
});

describe('reading', () => {
  const card = layCard(wish);
  const at = (column: number, row: number) =>
    card.cells.find((cell) => cell.column === column && cell.row === row) as (typeof card.cells)[number];

  test.each([
    ['cut', { through: 1, scorched: 0, dark: 1 }, 'good'],
    ['cut', { through: 0.97, scorched: 0, dark: 1 }, 'under'],
    ['cut', { through: 1, scorched: 0.8, dark: 1 }, 'over'],
    ['score', { through: 0, scorched: 0, dark: 0.2 }, 'under'],
    ['score', { through: 0, scorched: 0, dark: 0.6 }, 'good'],
    ['score', { through: 0.2, scorched: 0, dark: 0.9 }, 'over'],
    ['engrave', { through: 0, scorched: 0, dark: 0.97 }, 'over'],
    ['engrave', { through: 0, scorched: 0, dark: 0.7 }, 'good'],
  ] as const)('%s with %p is marked %s', (operation, look, mark) => {
    expect(markBy(look, operation)).toBe(mark);
  });

  test('the margin goes to the last good cell, and says what comes after it', () => {
    // The middle row, by speed: scorched at 5, through at 10 and 15, not through at 20; 25 is not marked.
    const marks = {
      '2-1': 'over',
      '2-2': 'good',
      '2-3': 'good',
      '2-4': 'under',
      '1-2': 'good',
      '3-2': 'good',
    } as const;
    const [speed, power] = marginsAround({ wish, marks }, card, at(1, 1));
    expect(speed).toEqual({
      setting: 'speedMmPerS',
      from: 10,
      to: 15,
      below: { value: 5, mark: 'over' },
      above: { value: 20, mark: 'under' },
    });
    expect(power).toEqual({ setting: 'powerPercent', from: 40, to: 90, below: null, above: null });
  });

  test('a side that falls is read the right way round', () => {
    const falling = { ...wish, across: { ...wish.across, from: 25, to: 5 } };
    const turned = layCard(falling);
    const cell = turned.cells.find(({ column, row }) => column === 3 && row === 1) as (typeof card.cells)[number];
    const marks = { '2-4': 'good', '2-5': 'over', '2-3': 'under' } as const;
    expect(marginsAround({ wish: falling, marks }, turned, cell)[0]).toMatchObject({
      from: 10,
      to: 10,
      below: { value: 5, mark: 'over' },
      above: { value: 15, mark: 'under' },
    });
  });

  test('a closer card goes from neighbour to neighbour, at the edge from the cell itself', () => {
    const closer = closerCard(wish, card, at(0, 1));
    expect([closer.across, closer.down]).toEqual([
      { setting: 'speedMmPerS', from: 5, to: 10, steps: 5 },
      { setting: 'powerPercent', from: 40, to: 90, steps: 5 },
    ]);
  });
});
