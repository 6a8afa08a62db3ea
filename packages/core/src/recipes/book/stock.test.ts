import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addOffcut, outlineFault, putSheetBack, type StockedSheet, stockOf, takeSheet } from './stock.ts';

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

  test('offcuts of other outlines are each counted alone, and found by no size', () => {
    const outline = [[0, 0, 600, 0, 0, 400]];
    const twice = addOffcut(addOffcut([], { id: 'a', width: 600, height: 400, outline }), {
      id: 'b',
      width: 600,
      height: 400,
    });
    expect(twice).toMatchObject([
      { id: 'a', count: 1, outline },
      { id: 'b', count: 1 },
    ]);
    expect(addOffcut(twice, { id: 'c', width: 600, height: 400, outline })).toHaveLength(3);
    expect(stockOf(twice.slice(0, 1), { width: 600, height: 400 })).toBeNull();
    expect(stockOf(twice, { width: 600, height: 400 })?.id).toBe('b');
  });
});

const byId = (a: StockedSheet, b: StockedSheet) => (a.id < b.id ? -1 : 1);

describe('the outline of an offcut', () => {
  test.each([
    ['of a triangle', [[0, 0, 60, 0, 0, 40]], null],
    [
      'with a hole',
      [
        [0, 0, 60, 0, 60, 40, 0, 40],
        [10, 10, 20, 10, 20, 20],
      ],
      null,
    ],
    ['of none', [], 'has one closed line at least'],
    ['of two points', [[0, 0, 60, 0]], 'must have three points or more, x and y of each'],
    ['of half a point', [[0, 0, 60, 0, 60, 40, 0]], 'must have three points or more, x and y of each'],
    ['beyond its width', [[0, 0, 61, 0, 0, 40]], 'lies within its width and height, from its own top left'],
    ['beyond its top', [[0, -1, 60, 0, 0, 40]], 'lies within its width and height, from its own top left'],
    ['of words', [['a', 'b']], 'outline 1 must be a list of numbers'],
    ['that is none', 'M 0 0', 'must be a list'],
  ])('%s', (_, outline, fault) => {
    expect(outlineFault(outline, 60, 40)).toBe(fault);
  });
});
