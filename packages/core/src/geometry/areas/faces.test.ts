import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Polyline } from '../paths/flatten.ts';
import { facesOf } from './faces.ts';

const ring = (...points: number[]): Polyline => ({ points: Float64Array.from(points), closed: true });
const rectangle = (x: number, y: number, width: number, height: number) =>
  ring(x, y, x + width, y, x + width, y + height, x, y + height);

test('circles of which each crosses all others have n² − n + 1 faces, one in all of them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 6 }), fc.double({ min: 0, max: 1, noNaN: true }), (count, turn) => {
      const circles = Array.from({ length: count }, (_, i) => {
        const angle = (2 * Math.PI * (i + turn)) / count;
        const [cx, cy] = [100 + 10 * Math.cos(angle), 100 + 10 * Math.sin(angle)];
        const points = Array.from({ length: 90 }, (__, k) => [
          cx + 30 * Math.cos((k * Math.PI) / 45),
          cy + 30 * Math.sin((k * Math.PI) / 45),
        ]);
        return ring(...points.flat());
      });
      const faces = facesOf(circles);
      expect(faces).toHaveLength(count * count - count + 1);
      expect(faces.filter(({ depth }) => depth === count)).toHaveLength(1);
    }),
    { numRuns: 20 },
  );
});

test('a grid of bars has a face for each crossing and each stretch between, with true bounds', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 }), (across, down) => {
      const upright = Array.from({ length: across }, (_, i) => rectangle(10 + 20 * i, 0, 5, 100));
      const level = Array.from({ length: down }, (_, i) => rectangle(0, 10 + 20 * i, 100, 5));
      const faces = facesOf([...upright, ...level]);
      const crossings = faces.filter(({ depth }) => depth === 2);
      expect(crossings).toHaveLength(across * down);
      for (const { bounds } of crossings) {
        expect(bounds.maxX - bounds.minX).toBeCloseTo(5, 6);
        expect(bounds.maxY - bounds.minY).toBeCloseTo(5, 6);
      }
      expect(faces).toHaveLength(across * down + across * (down + 1) + down * (across + 1));
    }),
  );
});

test('what lies in another is a face in it; lines that only touch stay apart; none is lost', () => {
  const [outer, inner, beside] = [rectangle(0, 0, 30, 30), rectangle(10, 10, 5, 5), rectangle(30, 0, 10, 30)];
  expect(facesOf([outer, inner, beside]).map(({ depth }) => depth)).toEqual(expect.arrayContaining([1, 2, 1]));
  expect(facesOf([outer, inner, beside])).toHaveLength(3);
  expect(facesOf([])).toEqual([]);
});
