import { describe, expect, test } from '@jest/globals';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { scaling } from '../geometry/paths/matrix.ts';
import { grains } from '../settings/grain.ts';
import { usualSettings } from '../settings/settings.ts';
import { grainSamples } from './grain-samples.ts';
import { burntDots } from './tones.ts';

const settings = { ...usualSettings(), powerPercent: 40, speedMmPerS: 200, lineSpacingMm: 0.5 };
const pixels = greyPicture(
  40,
  Array.from({ length: 40 * 30 }, (_, i) => ((i * 37) % 251) + ((i % 40) % 5)),
);
const matrix = scaling(0.5, 0.5);

describe('the part of a picture around a place', () => {
  test.each([
    ['as it came', {}],
    ['sharpened', { sharpen: 80, sharpenMm: 0.7 }],
    ['with local contrast', { localContrast: 60 }],
  ])('is toned as the whole is: %s', (_, tone) => {
    const picture = { pixels, matrix, tone };
    const whole = burntDots([picture], { ...settings, grain: 'true-greys' });
    const sample = grainSamples(picture, settings, { x: 10, y: 7 }, { columns: 8, rows: 6 });
    expect(sample).toMatchObject({ columns: 8, rows: 6 });
    const rows = Array.from({ length: 6 }, (_, y) => [
      ...(whole?.levels ?? []).slice((11 + y) * 40 + 16, (11 + y) * 40 + 24),
    ]);
    const found = [...(sample?.byGrain['true-greys'] ?? [])];
    for (const [i, value] of rows.flat().entries()) expect(Math.abs(found[i] - value)).toBeLessThan(2);
  });

  test('lies on the picture, however near its edge, and is all of a small one', () => {
    const picture = { pixels, matrix, tone: {} };
    const corner = grainSamples(picture, settings, { x: -50, y: 900 }, { columns: 8, rows: 6 });
    const whole = burntDots([picture], { ...settings, grain: 'true-greys' });
    expect([...(corner?.byGrain['true-greys'] ?? [])].slice(0, 8)).toEqual([
      ...(whole?.levels ?? []).slice(24 * 40, 24 * 40 + 8),
    ]);
    expect(grainSamples(picture, settings, { x: 0, y: 0 }, { columns: 100, rows: 100 })).toMatchObject({
      columns: 40,
      rows: 30,
    });
    expect(
      grainSamples({ ...picture, matrix: scaling(0, 1) }, settings, { x: 0, y: 0 }, { columns: 9, rows: 9 }),
    ).toBeNull();
  });

  test('is there in each grain, in two levels or in many', () => {
    const sample = grainSamples({ pixels, matrix, tone: {} }, settings, { x: 10, y: 7 }, { columns: 20, rows: 20 });
    for (const grain of grains) {
      const levels = new Set(sample?.byGrain[grain]);
      if (grain === 'true-greys') expect(levels.size).toBeGreaterThan(20);
      else expect([...levels].sort((a, b) => a - b)).toEqual([0, 255]);
    }
  });

  test('goes with the angle of the lines', () => {
    const turned = grainSamples(
      { pixels, matrix, tone: {} },
      { ...settings, scanAngle: 90 },
      { x: 10, y: 7 },
      { columns: 100, rows: 100 },
    );
    expect(turned).toMatchObject({ columns: 30, rows: 40 });
  });
});
