import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { Covered } from './covered.ts';

test('a point that is said to be covered lies in what covers it, and well within it is said', () => {
  const corner = fc.double({ min: 5, max: 45, noNaN: true });
  const place = fc.double({ min: -10, max: 110, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(corner, { minLength: 3, maxLength: 8 }),
      place,
      place,
      fc.array(fc.tuple(place, place)),
      (lengths, x, y, points) => {
        const ring = Float64Array.from(
          lengths.flatMap((length, i) => {
            const angle = (2 * Math.PI * i) / lengths.length;
            return [length * Math.cos(angle), length * Math.sin(angle)];
          }),
        );
        const covered = new Covered({ minX: 0, minY: 0, maxX: 100, maxY: 80 });
        covered.cover([ring], x, y);
        for (const [px, py] of points) {
          if (covered.has(px, py)) expect(polylineContains({ points: ring, closed: true }, px - x, py - y)).toBe(true);
        }
      },
    ),
  );
  const covered = new Covered({ minX: 0, minY: 0, maxX: 100, maxY: 80 });
  covered.cover([Float64Array.of(0, 0, 40, 0, 40, 40, 0, 40), Float64Array.of(10, 10, 10, 30, 30, 30, 30, 10)], 20, 20);
  expect([covered.has(25, 25), covered.has(40, 40), covered.has(55, 40), covered.has(70, 40)]).toEqual([
    true,
    false,
    true,
    false,
  ]);
});
