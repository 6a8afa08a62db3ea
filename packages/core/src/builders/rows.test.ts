import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box } from '../fixtures/shop.ts';
import { boxContains, boxesMeet, growBox } from '../geometry/paths/box.ts';
import { pathBounds, transformPath } from '../geometry/paths/path.ts';
import { inRows } from './rows.ts';

const parts = fc.array(
  fc.tuple(fc.double({ min: 1, max: 90, noNaN: true }), fc.double({ min: 1, max: 90, noNaN: true })),
  { maxLength: 20 },
);

test('parts in rows keep their gap, stay within the width where they can, and are all within the bounds', () => {
  fc.assert(
    fc.property(
      parts,
      fc.double({ min: 40, max: 300, noNaN: true }),
      fc.double({ min: 0, max: 9, noNaN: true }),
      (sizes, width, gap) => {
        const cuts = sizes.map(([w, h]) => ({ cut: box(-w / 2, -h / 2, w, h) }));
        const { places, bounds } = inRows(cuts, width, gap);
        const boxes = places.map((place, i) => pathBounds(transformPath(cuts[i].cut, place)));
        boxes.forEach((a, i) => {
          expect(boxContains(bounds, a, 1e-9)).toBe(true);
          expect(a.maxX <= width + 1e-9 || a.minX === 0).toBe(true);
          for (const b of boxes.slice(i + 1))
            expect(boxesMeet(growBox(a, gap / 2 - 1e-9), growBox(b, gap / 2 - 1e-9))).toBe(false);
        });
      },
    ),
  );
});

test('the highest parts lie in the first rows', () => {
  const { places, bounds } = inRows(
    [10, 30, 20].map((h) => ({ cut: box(-10, -h / 2, 20, h) })),
    45,
    5,
  );
  expect(places.map(([, , , , x, y]) => [x, y])).toEqual([
    [10, 40],
    [10, 15],
    [35, 10],
  ]);
  expect(bounds.maxY).toBe(45);
});

test('a row is used as far as it goes', () => {
  const { places, bounds } = inRows(
    [30, 20, 40, 10].map((w) => ({ cut: box(-w / 2, -5, w, 10) })),
    60,
    5,
  );
  expect(places.map(([, , , , x, y]) => [x, y])).toEqual([
    [15, 5],
    [45, 5],
    [20, 20],
    [50, 20],
  ]);
  expect(bounds).toEqual({ minX: 0, minY: 0, maxX: 55, maxY: 25 });
});
