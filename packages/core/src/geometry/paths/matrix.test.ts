import { expect, test } from '@jest/globals';
import { assert, double, property, tuple } from 'fast-check';
import { type Matrix, multiplierBy, multiply } from './matrix.ts';

const number = double({ min: -1e4, max: 1e4, noNaN: true });
const matrix = tuple(number, number, number, number, number, number);

test('one matrix after another is multiplied by the same one, as if each were by itself', () => {
  assert(
    property(matrix, matrix, matrix, (outer, a, b) => {
      const by = multiplierBy(outer);
      for (const inner of [a, a, b, a, b]) expect(by(inner)).toEqual(multiply(outer, inner));
    }),
  );
});

test('what shares a matrix shares its product', () => {
  const by = multiplierBy([2, 0, 0, 2, 5, 5]);
  const [a, b]: Matrix[] = [
    [1, 0, 0, 1, 3, 4],
    [1, 0, 0, 1, 3, 4],
  ];
  expect(by(a)).toBe(by(a));
  expect(by(b)).toEqual(by(a));
});
