import { expect, test } from '@jest/globals';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { darknessOf, histogramOf } from './luma.ts';

test('pixels are counted by how bright they are, those that cannot be seen are not', () => {
  expect([...histogramOf(greyPicture(4, [0, 63, 64, 255]), 4)]).toEqual([2, 1, 0, 1]);
  expect([...histogramOf(greyPicture(4, [0, 63, 80, 255], [255, 127, 160, 0]), 4)]).toEqual([1, 1, 0, 0]);
});

test('a colour burns by as much as it is dark', () => {
  expect(darknessOf('#000000')).toBe(1);
  expect(darknessOf('#FFFFFF')).toBeCloseTo(0, 9);
  expect(darknessOf('#FF0000')).toBeCloseTo(1 - 0.2126, 9);
});
