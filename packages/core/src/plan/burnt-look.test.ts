import { expect, test } from '@jest/globals';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { scaling } from '../geometry/paths/matrix.ts';
import { usualSettings } from '../settings/settings.ts';
import { burntLook } from './burnt-look.ts';

const settings = {
  ...usualSettings(),
  powerPercent: 40,
  speedMmPerS: 200,
  lineSpacingMm: 1,
  grain: 'true-greys' as const,
};
const picture = { pixels: greyPicture(5, [0, 51, 255, 255, 102, 0, 51, 255, 255, 0]), matrix: scaling(1, 1), tone: {} };

test('shows each dot as it burns', () => {
  expect(burntLook(picture, settings, 100)).toEqual({
    ...{ columns: 5, rows: 2, left: 0, top: 0, dotMm: 1, rowMm: 1 },
    burnt: Uint8ClampedArray.of(255, 204, 0, 0, 153, 255, 204, 0, 0, 255),
  });
});

test('of more dots than are wanted shows the mean of several, and of fewer at the edge', () => {
  expect(burntLook(picture, settings, 3)).toEqual({
    ...{ columns: 3, rows: 1, left: 0, top: 0, dotMm: 2, rowMm: 2 },
    burnt: Uint8ClampedArray.of(230, 0, 204),
  });
});

test('lies in the frame of its scan lines', () => {
  expect(burntLook(picture, { ...settings, scanAngle: 90 }, 100)).toMatchObject({
    ...{ columns: 2, rows: 5, left: expect.closeTo(0, 9), top: expect.closeTo(-5, 9) },
  });
  expect(burntLook({ ...picture, matrix: scaling(0, 0) }, settings, 9)).toBeNull();
});
