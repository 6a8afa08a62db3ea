import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blockLetters } from '../fixtures/block-letters.ts';
import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { setText, textShape, usualText } from './set.ts';

const text = { ...usualText, family: 'Block', height: 7 };
/** A letter is 6 mm wide, and 7 mm from the next; capitals are 7 mm high, and lines 12.25 mm apart. */
const made = (words: string, more: Partial<typeof text>) => {
  const set = setText({ ...text, words, ...more }, blockLetters);
  const box = pathBounds(set.path);
  return { ...set, wide: boxWidth(box), high: boxHeight(box), box };
};

test('letters that are too wide are made smaller until they fit, and not lower than they may be', () => {
  // Four letters are 28 mm wide, with what follows the last.
  const half = made('Ines', { width: 14, fit: 'smaller' });
  expect([half.wide, half.high, half.madeHeight, half.over]).toEqual([13.5, 3.5, 3.5, 0]);
  const held = made('Ines', { width: 14, fit: 'smaller', leastHeight: 5.25 });
  expect([held.high, held.madeHeight, held.over]).toEqual([5.25, 5.25, 7]);
  // A text is never made larger, whatever the least height is.
  expect(made('Ines', { width: 30, fit: 'smaller', leastHeight: 9 })).toMatchObject({
    high: 7,
    madeHeight: null,
    over: 0,
  });
});

test('or narrower, as high as they were, to three fifths of their width', () => {
  const narrow = made('Ines', { width: 21, fit: 'narrower' });
  expect([narrow.wide, narrow.high, narrow.madeHeight, narrow.over]).toEqual([20.25, 7, null, 0]);
  expect(made('Ines', { width: 14, fit: 'narrower' }).over).toBeCloseTo(28 * 0.6 - 14, 9);
});

test('or broken between words: a word that is too wide, and lines that go too deep, are said', () => {
  expect(made('Ab Cd', { width: 20, depth: 20 })).toMatchObject({ over: 0, high: 7 + 12.25 });
  expect(made('Ab Cd', { width: 20, depth: 19 }).over).toBeCloseTo(0.25, 9);
  expect(made('Abcd Ef', { width: 20, depth: 20 }).over).toBeCloseTo(8, 9);
  expect(made('Ab\nCd', { width: 40, depth: 9.625, fit: 'smaller' })).toMatchObject({ madeHeight: 3.5, over: 0 });
});

test('what fits is left as it is; without a width, whatever is said', () => {
  expect(made('Ines', { width: 28, fit: 'smaller' })).toMatchObject({ wide: 27, madeHeight: null, over: 0 });
  expect(made('Ines', { width: null, fit: 'smaller', depth: 1 })).toMatchObject({ wide: 27, over: 0 });
});

test('a text stays where it is aligned: from the left, around the middle, to the right', () => {
  for (const [align, middle] of [
    ['left', 7],
    ['centre', 0],
    ['right', -7],
  ] as const) {
    const { box } = made('Ines', { width: 14, fit: 'smaller', align });
    // What follows the last letter, half a millimetre now, is no part of what is drawn.
    expect((box.minX + box.maxX) / 2).toBeCloseTo(middle - 0.25, 9);
    expect(box.maxY).toBeCloseTo(0, 9);
  }
});

test('whatever is written, it is within its frame, or said to be over by how much it is not', () => {
  const words = fc.array(fc.constantFrom('Ines', 'Noor', 'W', ' ', '\n', 'Wilhelmina'), { minLength: 1, maxLength: 6 });
  const fit = fc.constantFrom('smaller', 'narrower', undefined);
  fc.assert(
    fc.property(
      words,
      fit,
      fc.integer({ min: 3, max: 90 }),
      fc.integer({ min: 0, max: 7 }),
      (parts, how, width, leastHeight) => {
        const { wide, over } = made(parts.join(''), { width, leastHeight, depth: 500, ...(how ? { fit: how } : {}) });
        expect(wide - width).toBeLessThanOrEqual(over + 0.006);
      },
    ),
  );
});

test('the shape of a text keeps what came of it only where there is something to keep', () => {
  expect(Object.keys(textShape(text, made('Ines', { width: 40 })))).toEqual(['kind', 'text', 'path']);
  expect(textShape(text, made('Ines', { width: 14, fit: 'smaller', leastHeight: 5.25 }))).toMatchObject({
    madeHeight: 5.25,
    over: 7,
  });
});
