import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pixels } from '../document/pixels.ts';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { type Matrix, multiply, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { burntDots, rowsOfDots, type ToneSettings } from './tones.ts';

/** The rows of a picture that burns in true greys. */
function toneRows(pixels: Pixels, placing: Matrix, spacing: number, more: Partial<ToneSettings> = {}) {
  const settings: ToneSettings = {
    grain: 'true-greys',
    diffusion: 'near',
    screenPerCm: 10,
    screenAngle: 45,
    greyLevels: 256,
    burntGreys: [],
    powerPercent: 40,
    leastPowerPercent: 0,
    lineSpacingMm: spacing,
    dotMm: null,
    ...more,
  };
  const dots = burntDots([{ pixels, matrix: placing, tone: {} }], settings);
  return dots
    ? Array.from(rowsOfDots(dots, settings), (row) => ({ ...row, xs: row.xs.slice(), powers: powersOf(row) }))
    : [];
}

const powersOf = ({ powers = new Float32Array() }: { readonly powers?: Float32Array }) => powers.slice();

const plain = (rows: ReturnType<typeof toneRows>) =>
  rows.map(({ y, xs, powers }) => [y, [...xs], [...powers].map((power) => Math.round(power * 255))]);

/** What burns in all: power by mm². */
const energyOf = (rows: ReturnType<typeof toneRows>, spacing: number) =>
  rows.reduce((sum, { xs, powers }) => {
    powers.forEach((power, i) => {
      sum += power * (xs[2 * i + 1] - xs[2 * i]) * spacing;
    });
    return sum;
  }, 0);

const picture = fc
  .tuple(fc.integer({ min: 2, max: 12 }), fc.integer({ min: 2, max: 12 }))
  .chain(([width, height]) =>
    fc
      .array(fc.integer({ min: 0, max: 255 }), { minLength: width * height, maxLength: width * height })
      .map((values) => greyPicture(width, values)),
  );

describe('a picture on the raster of its own pixels', () => {
  const pixels = greyPicture(4, [0, 0, 51, 255, 255, 255, 255, 255, 255, 102, 102, 0]);

  test('burns each dot with 1 − grey ÷ 255, neighbours alike as one, white not at all', () => {
    expect(plain(toneRows(pixels, scaling(0.5, 0.5), 0.5))).toEqual([
      [0.25, [0, 1, 1, 1.5], [255, 204]],
      [1.25, [0.5, 1.5, 1.5, 2], [153, 255]],
    ]);
  });

  test('mirrored, it burns from the other side', () => {
    const [first] = toneRows(pixels, multiply(translation(2, 0), scaling(-0.5, 0.5)), 0.5);
    expect([[...first.xs], [...first.powers].map((power) => Math.round(power * 255))]).toEqual([
      [0.5, 1, 1, 2],
      [204, 255],
    ]);
  });

  test('colours burn as bright as they look', () => {
    const rgb = Uint8Array.of(255, 0, 0, 0, 255, 0, 0, 0, 255);
    const [row] = toneRows({ width: 3, height: 1, rgb }, scaling(1, 1), 1);
    expect([...row.powers].map((power) => Math.round(power * 255))).toEqual([201, 73, 237]);
  });
});

test('a dot over several pixels burns with their mean, parts of pixels counted as parts', () => {
  const row = greyPicture(3, [0, 90, 255]);
  // Two dots of 1.5 pixels each: black with half of the grey, and half of that with white.
  const [{ powers }] = toneRows(row, scaling(1 / 1.5, 1), 1);
  expect([...powers].map((power) => Math.round(power * 255))).toEqual([255 - 30, 255 - 200]);
});

test('a picture turned by any angle burns with the same energy as it has darkness', () => {
  fc.assert(
    fc.property(picture, fc.integer({ min: 0, max: 359 }), (pixels, degrees) => {
      const spacing = 0.5;
      // Fine dots: those over the edge, which burn whole, weigh little.
      const placing = multiply(rotation(degrees), scaling(6, 6));
      const dark = Array.from({ length: pixels.width * pixels.height }, (_, i) => 1 - pixels.rgb[3 * i] / 255);
      const area = dark.reduce((sum, share) => sum + share, 0) * 36;
      const rim = 2 * (pixels.width + pixels.height) * 6 * spacing;
      expect(Math.abs(energyOf(toneRows(pixels, placing, spacing), spacing) - area)).toBeLessThan(
        1.1 * rim + 0.01 * area,
      );
    }),
    { numRuns: 30 },
  );
});

/** The level that burns at a place, of 255. */
function levelAt(rows: ReturnType<typeof toneRows>, x: number, y: number, spacing: number): number {
  const row = rows.find((entry) => Math.abs(entry.y - y) < spacing / 2);
  const segment = row?.powers.findIndex((_, i) => row.xs[2 * i] < x && x < row.xs[2 * i + 1]) ?? -1;
  return row && segment >= 0 ? Math.round(row.powers[segment] * 255) : 0;
}

test('one that is turned by hardly anything burns as the level one: the two ways of finding means agree', () => {
  const askew: Matrix = [1, 1e-9, -1e-9, 1, 0, 0];
  fc.assert(
    fc.property(picture, fc.constantFrom(0.3, 0.7, 1.3), (pixels, spacing) => {
      const level = toneRows(pixels, scaling(1, 1), spacing);
      const turned = toneRows(pixels, askew, spacing);
      for (let y = spacing / 3; y < pixels.height; y += spacing)
        for (let x = spacing / 3; x < pixels.width; x += spacing)
          expect(Math.abs(levelAt(level, x, y, spacing) - levelAt(turned, x, y, spacing))).toBeLessThan(2);
    }),
    { numRuns: 40 },
  );
});

test('what has no area burns nothing', () => {
  expect(toneRows(greyPicture(2, [0, 0, 0, 0]), scaling(0, 1), 0.1)).toEqual([]);
  expect(toneRows(greyPicture(2, [255, 255, 255, 255]), scaling(1, 1), 0.1)).toEqual([]);
});
