import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addOffcut, offcutLeft, putSheetBack, type StockedSheet, stockOf, takeSheet } from './stock.ts';

const large: StockedSheet = { id: 'large', width: 600, height: 400, count: 3, price: 6.4 };
const rest: StockedSheet = { id: 'rest', width: 200, height: 150, count: 1, price: null, offcut: true };

describe('sheets in stock', () => {
  test('are found by what a sheet says, else by its size, whichever way it lies', () => {
    expect(stockOf([large, rest], { width: 100, height: 100, stockId: 'rest' })).toBe(rest);
    expect(stockOf([large, rest], { width: 400.3, height: 600 })).toBe(large);
    expect(stockOf([large, rest], { width: 402, height: 600 })).toBeNull();
    expect(stockOf(undefined, { width: 600, height: 400 })).toBeNull();
  });

  test('taken and put back, they are as they were; an offcut that is used up goes and comes again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.boolean(), (count, offcut) => {
        const one: StockedSheet = { ...large, count, ...(offcut ? { offcut } : {}) };
        expect(putSheetBack(takeSheet([rest, one], one.id), one).toSorted(byId)).toEqual([one, rest].toSorted(byId));
      }),
    );
    expect(takeSheet([large, rest], 'rest')).toEqual([large]);
    expect(takeSheet([{ ...large, count: 0 }], 'large')).toEqual([{ ...large, count: 0 }]);
  });

  test('offcuts of one size are counted together, and not with whole sheets of that size', () => {
    const once = addOffcut([large], { id: 'a', width: 600, height: 400 });
    expect(once).toHaveLength(2);
    expect(addOffcut(once, { id: 'b', width: 600.2, height: 400 })[1]).toMatchObject({ id: 'a', count: 2 });
  });
});

const byId = (a: StockedSheet, b: StockedSheet) => (a.id < b.id ? -1 : 1);

describe('what is left of a sheet', () => {
  const sheet = { x: 10, y: 20, width: 300, height: 200 };
  test.each([
    ['at its right', { minX: 10, minY: 20, maxX: 110, maxY: 220 }, { width: 200, height: 200 }],
    ['at its foot', { minX: 12, minY: 25, maxX: 300, maxY: 70 }, { width: 300, height: 150 }],
    ['at its left', { minX: 200, minY: 20, maxX: 310, maxY: 220 }, { width: 190, height: 200 }],
    ['nothing', { minX: 10, minY: 20, maxX: 300, maxY: 210 }, null],
  ])('%s', (_, burnt, left) => {
    expect(offcutLeft(sheet, burnt)).toEqual(left);
  });

  test('never reaches into what burnt', () => {
    const along = (length: number) => fc.double({ min: 0, max: length, noNaN: true });
    fc.assert(
      fc.property(along(300), along(200), along(300), along(200), (a, b, c, d) => {
        const burnt = {
          minX: 10 + Math.min(a, c),
          maxX: 10 + Math.max(a, c),
          minY: 20 + Math.min(b, d),
          maxY: 20 + Math.max(b, d),
        };
        const left = offcutLeft(sheet, burnt);
        if (!left) return;
        const beside = Math.max(burnt.minX - 10, 310 - burnt.maxX);
        const below = Math.max(burnt.minY - 20, 220 - burnt.maxY);
        expect(left.width <= beside || left.height <= below).toBe(true);
      }),
    );
  });
});
