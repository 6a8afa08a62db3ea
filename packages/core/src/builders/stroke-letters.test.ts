import { expect, test } from '@jest/globals';
import { flatten } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { labelStrokes, labelWidth, letterName } from './stroke-letters.ts';

test('every letter is as high as asked for, about its middle, in strokes of its own', () => {
  const seen = new Set<string>();
  for (let i = 0; i < 26; i++) {
    const words = letterName(i);
    const label = { words, x: 10, y: 20, heightMm: 6 };
    const path = labelStrokes([label]);
    const { minX, minY, maxX, maxY } = pathBounds(path);
    expect([words, minY, maxY]).toEqual([words, 17, 23]);
    expect(minX).toBeGreaterThanOrEqual(8);
    expect(maxX).toBeLessThanOrEqual(12);
    seen.add(
      flatten(path)
        .map(({ points }) => points.join())
        .join('|'),
    );
  }
  expect(seen.size).toBe(26);
});

test('letters stand beside each other, the word in the middle', () => {
  const label = { words: 'HH', x: 0, y: 0, heightMm: 6 };
  const { minX, maxX } = pathBounds(labelStrokes([label]));
  expect([minX, maxX]).toEqual([-4.75, 4.75]);
  expect(labelWidth(label)).toBe(9.5);
  expect(flatten(labelStrokes([label, label]))).toHaveLength(12);
});

test('after Z comes AA', () => {
  expect([0, 25, 26, 27, 51, 52, 701, 702].map(letterName)).toEqual(['A', 'Z', 'AA', 'AB', 'AZ', 'BA', 'ZZ', 'AAA']);
});
