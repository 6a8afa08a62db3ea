import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, intersectAreas, sizeOfArea } from '../geometry/areas/area.ts';
import { translation } from '../geometry/paths/matrix.ts';
import { transformPath } from '../geometry/paths/path.ts';
import { type Shape, shapeOf } from './edges.ts';
import { polygon } from './fixtures.ts';
import { OverlapAlong, overlapOf } from './overlap.ts';

/** A star about (0, 0), with as many corners as lengths: nowhere convex for sure. */
const stars = fc.array(fc.double({ min: 4, max: 40, noNaN: true }), { minLength: 3, maxLength: 9 }).map((lengths) =>
  lengths.map((length, i): [number, number] => {
    const angle = (2 * Math.PI * i) / lengths.length + 0.1;
    return [length * Math.cos(angle), length * Math.sin(angle)];
  }),
);
const shapeFrom = (points: readonly (readonly [number, number])[]): Shape =>
  shapeOf([Float64Array.from(points.flat())]);
const offset = fc.double({ min: -60, max: 60, noNaN: true });

describe('what lies over what', () => {
  test('two squares: exactly the rectangle they share, and nothing where they touch', () => {
    const square = shapeFrom([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]);
    expect(overlapOf(square, 0, 0, square, 4, 7)).toBeCloseTo(18, 9);
    expect(overlapOf(square, 0, 0, square, 10, 0)).toBeCloseTo(0, 9);
    expect(overlapOf(square, 0, 0, square, 3, 25)).toBeCloseTo(0, 9);
  });

  test('a hole takes nothing: a square that lies in it lies over nothing', () => {
    const ring = shapeOf([
      Float64Array.of(0, 0, 30, 0, 30, 30, 0, 30),
      Float64Array.of(10, 10, 10, 20, 20, 20, 20, 10),
    ]);
    expect(ring.area).toBe(800);
    const small = shapeFrom([
      [0, 0],
      [8, 0],
      [8, 8],
      [0, 8],
    ]);
    expect(overlapOf(small, 11, 11, ring, 0, 0)).toBeCloseTo(0, 9);
    expect(overlapOf(small, 6, 11, ring, 0, 0)).toBeCloseTo(4 * 8, 9);
  });

  test('whatever the outlines: as much as clipping finds, and the same both ways round', () => {
    fc.assert(
      fc.property(stars, stars, offset, offset, (one, other, x, y) => {
        const [a, b] = [shapeFrom(one), shapeFrom(other)];
        const mine = overlapOf(a, x, y, b, 0, 0);
        const moved = transformPath(polygon(...one), translation(x, y));
        const clipped = sizeOfArea(intersectAreas(areaOf(moved, 'evenodd'), areaOf(polygon(...other), 'evenodd')));
        expect(Math.abs(mine - clipped)).toBeLessThan(0.05);
        expect(mine).toBeCloseTo(overlapOf(b, 0, 0, a, x, y), 6);
      }),
    );
  });
});

describe('along an axis', () => {
  test('it is the same function, place by place, along X and along Y', () => {
    fc.assert(
      fc.property(
        stars,
        stars,
        stars,
        offset,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (one, other, third, across, share) => {
          const [a, b, c] = [shapeFrom(one), shapeFrom(other), shapeFrom(third)];
          for (const [isX, from, to] of [
            [true, -90, 90],
            [false, -90, 90],
            [true, -7, 12],
          ] as const) {
            const along = new OverlapAlong();
            along.clear(from, to);
            along.addAlways(2);
            along.add(isX ? a.overY : a.overX, across, isX ? b.overY : b.overX, 0, 0, 1);
            along.add(isX ? a.overY : a.overX, across, isX ? c.overY : c.overX, 15, -8, 3);
            const seen: [number, number][] = [];
            along.walk((at, length, value, slope, bend) => {
              const step = share * length;
              seen.push([at + step, value + slope * step + bend * step * step]);
              return undefined;
            });
            for (const [at, value] of seen) {
              const [x, y] = isX ? [at, across] : [across, at];
              const [thirdX, thirdY] = isX ? [15, -8] : [-8, 15];
              expect(value).toBeCloseTo(2 + overlapOf(a, x, y, b, 0, 0) + 3 * overlapOf(a, x, y, c, thirdX, thirdY), 3);
            }
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('the stretches follow each other from end to end', () => {
    const square = shapeFrom([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]);
    const along = new OverlapAlong();
    along.clear(0, 60);
    along.add(square.overY, 5, square.overY, 30, 0, 1);
    const stretches: number[][] = [];
    along.walk((at, length, value) => {
      stretches.push([at, length, value]);
      return undefined;
    });
    // It comes to lie over the other from 20 on, lies over half of it at 30, and is past it at 40.
    expect(stretches.map(([at]) => at)).toEqual([0, 20, 30, 40]);
    expect(stretches.map(([, length]) => length)).toEqual([20, 10, 10, 20]);
    stretches.forEach(([, , value], i) => expect(value).toBeCloseTo([0, 0, 50, 0][i], 9));
  });
});
