import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PointGrid } from './point-grid.ts';

const coordinate = fc.oneof(fc.integer({ min: -20, max: 20 }), fc.double({ min: -1e4, max: 1e4, noNaN: true }));
const places = fc.array(fc.tuple(coordinate, coordinate), { maxLength: 200 });
const gridOf = (points: readonly (readonly [number, number])[]) =>
  new PointGrid(
    Float64Array.from(points, ([x]) => x),
    Float64Array.from(points, ([, y]) => y),
  );
const squared = ([ax, ay]: readonly [number, number], x: number, y: number) => (ax - x) ** 2 + (ay - y) ** 2;

test('the nearest point is the one that looking at all of them finds, whichever were taken out', () => {
  fc.assert(
    fc.property(places, places, fc.infiniteStream(fc.nat()), (points, asked, choose) => {
      const grid = gridOf(points);
      const left = points.map((_, i) => i);
      for (const [x, y] of asked) {
        let best = -1;
        for (const i of left) if (best < 0 || squared(points[i], x, y) <= squared(points[best], x, y)) best = i;
        expect(grid.nearest(x, y)).toBe(best);
        expect(grid.count).toBe(left.length);
        if (left.length > 0) {
          const [gone] = left.splice(choose.next().value % left.length, 1);
          grid.remove(gone);
        }
      }
    }),
  );
});

test('a search calls for all points within what it is told to reach', () => {
  fc.assert(
    fc.property(places, coordinate, coordinate, fc.double({ min: 0, max: 50, noNaN: true }), (points, x, y, reach) => {
      const called = new Set<number>();
      gridOf(points).search(x, y, (point, distance) => {
        expect(called.has(point)).toBe(false);
        expect(distance).toBe(squared(points[point], x, y));
        called.add(point);
        return reach * reach;
      });
      points.forEach((point, i) => {
        if (squared(point, x, y) < reach * reach) expect(called.has(i)).toBe(true);
      });
    }),
  );
});

test('points of one place, on one line, and none at all', () => {
  expect(gridOf([]).nearest(0, 0)).toBe(-1);
  const heap = gridOf(Array.from({ length: 300 }, () => [5, 5] as const));
  const order: number[] = [];
  for (let i = 0; i < 300; i++) {
    order.push(heap.nearest(0, 0));
    heap.remove(order[i]);
  }
  expect(order).toEqual(Array.from({ length: 300 }, (_, i) => 299 - i));
  const line = gridOf(Array.from({ length: 1000 }, (_, i) => [i, 7] as const));
  expect([line.nearest(-50, 0), line.nearest(400.6, 9), line.nearest(2000, 7)]).toEqual([0, 401, 999]);
});
