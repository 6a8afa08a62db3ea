import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { widestAcross } from './widest-across.ts';

const ring = (...points: number[]) => ({ points: Float64Array.from(points), closed: true });

test('a rectangle is as far across as its diagonal is long, however it is turned', () => {
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
      const turned = ring(...corners.flatMap(([x, y]) => [x * cos - y * sin, x * sin + y * cos]));
      expect(widestAcross(turned)).toBeCloseTo(Math.hypot(width, height), 6);
    }),
  );
});

test('what lies in one line is across what it is long, and a point nothing', () => {
  expect(widestAcross(ring(0, 0, 3, 4, 6, 8))).toBe(10);
  expect(widestAcross(ring(2, 2))).toBe(0);
});
