import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf } from '../document/shapes.ts';
import { box, line } from '../fixtures/shop.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { multiply, rotation, translation } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { overlappingOwners } from './overlap.ts';

const lines = (...paths: Path[]) => paths.flatMap((path, owner) => flatten(path).map((one) => ({ owner, line: one })));
const turn = fc.double({ min: 0, max: 360, noNaN: true });
const shift = fc.double({ min: -200, max: 200, noNaN: true });

test('an outline drawn twice is found wherever it lies and however it is turned', () => {
  fc.assert(
    fc.property(turn, shift, shift, (degrees, dx, dy) => {
      const placed = transformPath(box(0, 0, 40, 25), multiply(translation(dx, dy), rotation(degrees)));
      const { owners, lengthMm } = overlappingOwners(lines(placed, placed));
      expect(owners).toEqual([0, 1]);
      expect(lengthMm).toBeCloseTo(130, 3);
    }),
    { numRuns: 300 },
  );
});

test('a circle drawn twice is found, one of another size is not', () => {
  const circle = (r: number) => outlineOf({ kind: 'ellipse', cx: 50, cy: 50, rx: r, ry: r });
  const { owners, lengthMm } = overlappingOwners(lines(circle(20), circle(20)));
  expect(owners).toEqual([0, 1]);
  expect(lengthMm).toBeCloseTo(2 * Math.PI * 20, 0);
  expect(overlappingOwners(lines(circle(20), circle(20.5))).owners).toEqual([]);
});

test('lines that only cross or meet share nothing, whatever their angle', () => {
  fc.assert(
    fc.property(fc.double({ min: 5, max: 175, noNaN: true }), (degrees) => {
      const straight = line(-50, 0, 50, 0);
      const crossing = transformPath(straight, rotation(degrees));
      expect(overlappingOwners(lines(straight, crossing)).owners).toEqual([]);
      expect(overlappingOwners(lines(line(0, 0, 50, 0), line(50, 0, 90, 0))).owners).toEqual([]);
    }),
  );
});

test('a line that goes back over itself is its own double', () => {
  expect(overlappingOwners(lines(line(0, 0, 30, 0, 10, 0)))).toEqual({ owners: [0], lengthMm: 20 });
});

test('what is shared is counted for each pair of edges that reach into each other, in any order, and touches do not count', () => {
  const both = (a: Path, b: Path) => [overlappingOwners(lines(a, b)), overlappingOwners(lines(b, a))];
  for (const found of both(line(0, 0, 40, 0), line(30, 0, 90, 0))) {
    expect(found).toEqual({ owners: [0, 1], lengthMm: 10 });
  }
  for (const found of both(line(0, 0, 40, 0), line(10, 0, 20, 0))) expect(found.lengthMm).toBe(10);
  // A short one within the first, and one that reaches beyond it: both are held against the first.
  const three = [line(0, 0, 40, 0), line(10, 0, 20, 0), line(30, 0, 90, 0)];
  for (const order of [
    [0, 1, 2],
    [2, 1, 0],
    [1, 2, 0],
  ]) {
    expect(overlappingOwners(lines(...order.map((i) => three[i])))).toEqual({ owners: [0, 1, 2], lengthMm: 20 });
  }
  // Less than a thousandth of a mm is a touch; whoever shares a little is named all the same as long as it is enough.
  expect(overlappingOwners(lines(line(0, 0, 40, 0), line(39.9995, 0, 90, 0)))).toEqual({ owners: [], lengthMm: 0 });
  for (const found of both(line(0, -20, 0, 20), line(0, 0, 0, 60))) expect(found.lengthMm).toBeCloseTo(20, 9);
});
