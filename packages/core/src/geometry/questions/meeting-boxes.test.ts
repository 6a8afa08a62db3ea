import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { forEachMeeting } from './meeting-boxes.ts';

const pairsOf = (boxes: readonly (readonly number[])[], within: number) => {
  const found: string[] = [];
  forEachMeeting(Float64Array.from(boxes.flat()), within, (a, b) => found.push(`${a} ${b}`));
  return found.sort();
};

test('finds every pair of boxes that come within a distance, each once', () => {
  const place = fc.integer({ min: 0, max: 60 });
  const size = fc.oneof(fc.integer({ min: 0, max: 6 }), fc.constantFrom(0, 0.5, 40, 900));
  const nowhere = fc.constant([Infinity, Infinity, -Infinity, -Infinity]);
  const somewhere = fc.tuple(place, place, size, size).map(([x, y, w, h]) => [x, y, x + w, y + h]);
  const box = fc.oneof({ weight: 9, arbitrary: somewhere }, { weight: 1, arbitrary: nowhere });
  fc.assert(
    fc.property(fc.array(box, { maxLength: 40 }), fc.constantFrom(0, 0.02, 3), (boxes, within) => {
      const expected = boxes.flatMap((a, i) =>
        boxes.flatMap((b, j) =>
          j > i && a[0] <= b[2] + within && b[0] <= a[2] + within && a[1] <= b[3] + within && b[1] <= a[3] + within
            ? [`${i} ${j}`]
            : [],
        ),
      );
      expect(pairsOf(boxes, within)).toEqual(expected.sort());
    }),
    { numRuns: 400 },
  );
});

test('takes one huge box among many small ones', () => {
  const small = Array.from({ length: 300 }, (_, i) => [i * 3, 0, i * 3 + 1, 1]);
  expect(pairsOf([[0, 0, 900, 900], ...small], 0)).toHaveLength(300);
  expect(pairsOf([...small, [0, 0, 900, 900]], 0)).toHaveLength(300);
  expect(pairsOf([], 0)).toEqual([]);
});
