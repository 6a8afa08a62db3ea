import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type CardWish, cellsThatFit, layCard, valuesAlong } from './test-card.ts';

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
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 3, max: 20 }),
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
