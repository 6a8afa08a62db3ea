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

test('of a sheet that is no rectangle it is not known', () => {
  const free = shapeOf([Float64Array.of(0, 0, 100, 0, 0, 60)]);
  expect(largestRest(search, { ...room, free }, [])).toBe(0);
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
