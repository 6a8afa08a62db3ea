import { expect, test } from '@jest/globals';
import { shapeOf } from './edges.ts';
import type { Search } from './layout.ts';
import { largestRest, sharedEdges } from './score.ts';
import { turnedPieces } from './turned.ts';

const square = Float64Array.of(0, 0, 20, 0, 20, 20, 0, 20);
const search: Search = {
  turned: [turnedPieces([square], [{ angle: 0, isMirrored: false }], false)],
  rooms: [],
  wanted: [],
  sharesEdges: false,
};
const room = { box: { minX: 0, minY: 0, maxX: 100, maxY: 60 }, free: null };
const at = (x: number, y: number) => ({ piece: 0, turn: 0, x, y });

test('the largest rectangle in which nothing lies', () => {
  expect(largestRest(search, room, [])).toBe(6000);
  expect(largestRest(search, room, [at(0, 0)])).toBe(80 * 60);
  expect(largestRest(search, room, [at(80, 0), at(80, 40)])).toBe(80 * 60);
  expect(largestRest(search, room, [at(40, 20)])).toBe(40 * 60);
  // Between them a band, or what is beside both.
  expect(largestRest(search, room, [at(0, 0), at(80, 40)])).toBe(60 * 60);
  expect(largestRest(search, room, [at(30, 0), at(50, 40)])).toBe(50 * 40);
});

test('of a sheet that is all margin nothing is left', () => {
  const shape = shapeOf([]);
  expect(largestRest(search, { box: shape.box, free: shape }, [])).toBe(0);
});

test('the largest rectangle of a sheet of any outline: exact between upright edges, a little less along slanted ones', () => {
  const rest = (rings: readonly number[][], ...places: ReturnType<typeof at>[]) =>
    Math.round(
      1e6 * largestRest(search, { ...room, free: shapeOf(rings.map((ring) => Float64Array.from(ring))) }, places),
    ) / 1e6;
  const whole = [0, 0, 100, 0, 100, 60, 0, 60];
  // An L: 100 × 20 along the top, 30 × 60 along the left.
  const corner = [0, 0, 100, 0, 100, 20, 30, 20, 30, 60, 0, 60];
  expect(rest([corner])).toBe(2000);
  expect(rest([corner], at(0, 0))).toBe(1600);
  expect(rest([corner], at(60, 0))).toBe(1800);
  // A hole in the middle, and one that reaches the edge.
  expect(rest([whole, [40, 20, 40, 40, 60, 40, 60, 20]])).toBe(2400);
  expect(rest([whole, [40, 20, 40, 60, 60, 60, 60, 20]])).toBe(2400);
  expect(rest([whole, [40, 20, 40, 40, 60, 40, 60, 20]], at(0, 0))).toBe(2400);
  // Half of a right-angled triangle is the most that a rectangle takes of it.
  const triangle = rest([[0, 0, 100, 0, 0, 60]]);
  expect(triangle).toBeLessThanOrEqual(1500);
  expect(triangle).toBeGreaterThan(1440);
});

test('how far edges lie along others', () => {
  expect(sharedEdges(search, [at(0, 0), at(20, 0)])).toBeCloseTo(20, 9);
  expect(sharedEdges(search, [at(0, 0), at(20.001, 0)])).toBeCloseTo(20, 9);
  expect(sharedEdges(search, [at(0, 0), at(20, 12)])).toBeCloseTo(8, 9);
  expect(sharedEdges(search, [at(0, 0), at(20.1, 0)])).toBe(0);
  expect(sharedEdges(search, [at(0, 0), at(20, 20)])).toBe(0);
  // Four around a corner: an edge between each two side by side.
  expect(sharedEdges(search, [at(0, 0), at(20, 0), at(0, 20), at(20, 20)])).toBeCloseTo(80, 9);
});
