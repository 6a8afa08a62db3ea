import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { widthsOf } from './widths.ts';

const ring = (...points: number[]) => ({ points: Float64Array.from(points), closed: true });

test('a rectangle is as wide as its shorter side and its diagonal, however it is turned', () => {
  const drawn = fc.tuple(
    fc.double({ min: 1, max: 50, noNaN: true }),
    fc.double({ min: 1, max: 50, noNaN: true }),
    fc.double({ min: 0, max: 7, noNaN: true }),
  );
  fc.assert(
    fc.property(drawn, ([width, height, turn]) => {
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      const corners = [
        [0, 0],
        [width, 0],
        [width, height],
        [width / 2, height / 2],
        [0, height],
      ];
      const { least, most } = widthsOf(ring(...corners.flatMap(([x, y]) => [x * cos - y * sin, x * sin + y * cos])));
      expect(least).toBeCloseTo(Math.min(width, height), 6);
      expect(most).toBeCloseTo(Math.hypot(width, height), 6);
    }),
  );
});

test('what lies in one line has no width', () => {
  expect(widthsOf(ring(0, 0, 3, 4, 6, 8))).toEqual({ least: 0, most: 10 });
  expect(widthsOf(ring(2, 2))).toEqual({ least: 0, most: 0 });
});
