import { expect, test } from '@jest/globals';
import { boxOf } from '../geometry/paths/box.ts';
import { evenSpacings } from './spacing.ts';

const row = [boxOf(0, 0, 10, 10), boxOf(15, 2, 10, 10)];

test('a third piece is caught as far from the second as that is from the first', () => {
  expect(evenSpacings(boxOf(30.4, 1, 8, 8), row, 1)).toEqual([
    {
      axis: 'x',
      by: expect.closeTo(-0.4, 9),
      gap: 5,
      gaps: [expect.objectContaining({ from: 10, to: 15 }), expect.anything()],
    },
  ]);
  expect(evenSpacings(boxOf(-12.7, 1, 8, 8), row, 1)).toEqual([
    expect.objectContaining({ axis: 'x', by: expect.closeTo(-0.3, 9), gap: 5 }),
  ]);
});

test('midway between two, and upwards as well as across', () => {
  expect(evenSpacings(boxOf(40.2, 3, 10, 4), [boxOf(0, 0, 20, 10), boxOf(70, 0, 10, 10)], 1)).toEqual([
    expect.objectContaining({ axis: 'x', by: expect.closeTo(-0.2, 9), gap: 20 }),
  ]);
  expect(evenSpacings(boxOf(2, 39.5, 4, 10), [boxOf(0, 0, 10, 10), boxOf(0, 15, 10, 10)], 1)).toEqual([]);
  expect(evenSpacings(boxOf(2, 30.5, 4, 10), [boxOf(0, 0, 10, 10), boxOf(0, 15, 10, 10)], 1)).toEqual([
    expect.objectContaining({ axis: 'y', by: expect.closeTo(-0.5, 9), gap: 5 }),
  ]);
});

test('what stands in another row does not count, nor what overlaps', () => {
  expect(evenSpacings(boxOf(30, 50, 8, 8), row, 1)).toEqual([]);
  expect(evenSpacings(boxOf(30, 1, 8, 8), [boxOf(0, 0, 10, 10), boxOf(5, 0, 10, 10)], 30)).toEqual([]);
});
