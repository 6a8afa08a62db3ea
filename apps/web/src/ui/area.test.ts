import { expect, test } from '@jest/globals';
import { asArea, squareIn } from './area.ts';

test('areas are said in square inches where lengths are in inches, else in cm²', () => {
  expect(asArea(64_516, 'in', 1)).toBe('100.0 in²');
  expect(asArea(12_345, 'mm', 1)).toBe('123.5 cm²');
  expect(asArea(12_345, 'cm', 0)).toBe('123 cm²');
  expect([squareIn('mm'), squareIn('cm')]).toEqual([1, 100]);
  expect(squareIn('in')).toBeCloseTo(645.16, 9);
});
