import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { distanceFromLines } from '../../fixtures/line-distance.ts';
import { flatten, polylineContains, signedArea } from '../paths/flatten.ts';
import { rotation } from '../paths/matrix.ts';
import { type Path, PathBuilder, pathBounds, transformPath } from '../paths/path.ts';
import { areaOf, sizeOfArea } from './area.ts';
import { type Combining, combineOutlines } from './combine.ts';

const side = 12;

/** A rectangle on a raster of whole mm: edges often lie in one line, and over each other. */
const rectangle = fc
  .tuple(fc.nat(side - 2), fc.nat(side - 2), fc.integer({ min: 1, max: side }), fc.integer({ min: 1, max: side }))
  .map(([x, y, w, h]) => ({ minX: x, minY: y, maxX: Math.min(side, x + w), maxY: Math.min(side, y + h) }));

/** Where edges nearly over each other left a hair, and a corner 0.1 mm off. */
const hard: [{ minX: number; minY: number; maxX: number; maxY: number }[], number][] = [
  [
    [
      [8, 0, 12, 8],
      [4, 4, 12, 6],
      [0, 0, 1, 1],
      [6, 2, 12, 9],
    ],
    77.3,
  ],
  [
    [
      [1, 7, 12, 12],
      [8, 3, 12, 11],
      [6, 5, 12, 8],
      [0, 0, 1, 1],
      [4, 1, 12, 9],
    ],
    77.3,
  ],
].map(([boxes, degrees]) => [
  (boxes as number[][]).map(([minX, minY, maxX, maxY]) => ({ minX, minY, maxX, maxY })),
  degrees as number,
]);

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
          if (cells.length === 0) return;
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
      { numRuns: 250, examples: hard },
    );
  },
);

type Place = readonly [number, number];

/** Lines and curves between places of a coarse raster, which they run along, touch and cross themselves on. */
const outline = fc
  .tuple(
    fc.tuple(fc.nat(9), fc.nat(9)),
    fc.array(fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { minLength: 1, maxLength: 3 }), { minLength: 2, maxLength: 6 }),
  )
  .map(([start, legs]: [Place, Place[][]]) => {
    const builder = new PathBuilder().moveTo(...start);
    for (const leg of legs) {
      const [a, b, c] = leg;
      if (leg.length === 3) builder.cubicTo(...a, ...b, ...c);
      else builder.lineTo(...a);
    }
    return builder.close().build();
  });

function covers(path: Path, rule: 'nonzero' | 'evenodd', x: number, y: number): boolean {
  let [count, winding] = [0, 0];
  for (const { points } of flatten(path, 1e-3)) {
    const { crossed, turns } = crossingsRight(points, x, y);
    count += crossed;
    winding += turns;
  }
  return rule === 'evenodd' ? count % 2 === 1 : winding !== 0;
}

/** How often the edges of a closed line cross the way to the right of a point, and how often upward more than downward. */
function crossingsRight(points: Float64Array, x: number, y: number): { crossed: number; turns: number } {
  let [crossed, turns] = [0, 0];
  for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [points[j], points[j + 1], points[i], points[i + 1]];
    if (ay > y === by > y || x >= ax + ((y - ay) / (by - ay)) * (bx - ax)) continue;
    crossed++;
    turns += by > ay ? 1 : -1;
  }
  return { crossed, turns };
}

test.each(Object.keys(ways) as Combining[])(
  '%s: whatever outlines do to themselves and each other, it covers what it should',
  (way) => {
    const rule = fc.constantFrom('nonzero' as const, 'evenodd' as const);
    fc.assert(
      fc.property(fc.array(fc.record({ path: outline, rule }), { minLength: 2, maxLength: 3 }), (outlines) => {
        const made = combineOutlines(outlines, way);
        const away = distanceFromLines(outlines.flatMap(({ path }) => flatten(path, 1e-3)));
        const rings = flatten(made, 1e-3);
        for (let x = 0.13; x < 9; x += 0.71)
          for (let y = 0.17; y < 9; y += 0.73) {
            if (away(x, y) < 0.01) continue;
            const wanted = ways[way](outlines.map((one) => covers(one.path, one.rule, x, y)));
            // By either rule: holes turn the other way.
            const inside = rings.filter((ring) => polylineContains(ring, x, y));
            const winding = inside.reduce((sum, ring) => sum + Math.sign(signedArea(ring)), 0);
            expect([x, y, inside.length % 2 === 1, winding !== 0]).toEqual([x, y, wanted, wanted]);
          }
      }),
      { numRuns: 50 },
    );
  },
);

test('a curve that ends where it starts is not run through backwards', () => {
  // Its loop lies over another, and its ends on an edge of that.
  const one = new PathBuilder().moveTo(0, 0).cubicTo(5, 2.5, 2.5, 5, 5, 5).lineTo(0, 0).lineTo(0, 5);
  one.cubicTo(2.5, 0, 2.5, 2.5, 2.5, 2.5).cubicTo(0, 5, 2.5, 0, 2.5, 2.5).close();
  one.moveTo(2.5, 2.5).lineTo(5, 2.5).cubicTo(5, 0, 5, 5, 2.5, 2.5).lineTo(0, 0);
  one.cubicTo(2.5, 2.5, 5, 2.5, 0, 2.5).lineTo(2.5, 2.5).lineTo(2.5, 0).close();
  const other = new PathBuilder().moveTo(2.5, 0).lineTo(2.5, 2.5).lineTo(5, 5).close();
  other.moveTo(2.5, 2.5).lineTo(5, 0).lineTo(2.5, 2.5).cubicTo(0, 5, 0, 0, 2.5, 2.5).close();
  const outlines = [one, other].map((builder) => ({ path: builder.build(), rule: 'evenodd' as const }));
  const size = (way: Combining) => sizeOfArea(areaOf(combineOutlines(outlines, way), 'evenodd'));
  const [a, b] = outlines.map(({ path }) => sizeOfArea(areaOf(path, 'evenodd')));
  expect(Math.abs(size('exclude') - (a + b - 2 * size('intersect')))).toBeLessThan(0.02);
  expect(Math.abs(size('unite') - (a + b - size('intersect')))).toBeLessThan(0.02);
});
