import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, sizeOfArea } from './area.ts';
import { combineOutlines } from './combine.ts';
import { rotation } from './matrix.ts';
import { pathBounds, transformPath } from './path.ts';
import { outlineOf, rectangleOf } from './shapes.ts';

const side = 12;

/** A rectangle on a raster of whole mm: edges often lie in one line, and over each other. */
const rectangle = fc
  .tuple(fc.nat(side - 2), fc.nat(side - 2), fc.integer({ min: 1, max: side }), fc.integer({ min: 1, max: side }))
  .map(([x, y, w, h]) => ({ minX: x, minY: y, maxX: Math.min(side, x + w), maxY: Math.min(side, y + h) }));

const ways = {
  unite: (covers: readonly boolean[]) => covers.some(Boolean),
  subtract: ([first, ...others]: readonly boolean[]) => first && !others.some(Boolean),
  intersect: (covers: readonly boolean[]) => covers.every(Boolean),
  exclude: (covers: readonly boolean[]) => covers.filter(Boolean).length % 2 === 1,
};

test.each(Object.keys(ways) as (keyof typeof ways)[])(
  '%s: rectangles with edges over each other come to the very cells that they cover, however they are turned',
  (way) => {
    fc.assert(
      fc.property(
        fc.array(rectangle, { minLength: 2, maxLength: 6 }),
        fc.constantFrom(0, 30, 45, 77.3),
        (boxes, degrees) => {
          const outlines = boxes.map((box) => ({
            path: transformPath(outlineOf(rectangleOf(box)), rotation(degrees)),
            rule: 'nonzero' as const,
          }));
          const made = combineOutlines(outlines, way);
          const cells: [number, number][] = [];
          for (let x = 0; x < side; x++) {
            for (let y = 0; y < side; y++) {
              const covers = boxes.map(({ minX, minY, maxX, maxY }) => x >= minX && x < maxX && y >= minY && y < maxY);
              if (ways[way](covers)) cells.push([x, y]);
            }
          }
          expect(sizeOfArea(areaOf(made, 'evenodd'))).toBeCloseTo(cells.length, 1);
          // Turned, edges lie over each other but for rounding: what is taken away there may leave a hair of it.
          if (cells.length === 0 || (degrees !== 0 && way !== 'unite' && way !== 'intersect')) return;
          // Nor is any corner off: turned back, the bounds are those of the cells.
          const { minX, minY, maxX, maxY } = pathBounds(transformPath(made, rotation(-degrees)));
          const [xs, ys] = [cells.map(([x]) => x), cells.map(([, y]) => y)];
          expect([minX, minY, maxX, maxY].map((mm) => Math.round(mm * 100) / 100 + 0)).toEqual([
            Math.min(...xs),
            Math.min(...ys),
            Math.max(...xs) + 1,
            Math.max(...ys) + 1,
          ]);
        },
      ),
      { numRuns: 120 },
    );
  },
);
