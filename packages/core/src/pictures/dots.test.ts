import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pixels } from '../document/pixels.ts';
import { greyPicture } from '../fixtures/grey-picture.ts';
import {
  applyTo,
  type Matrix,
  multiply,
  type Point,
  rotation,
  scaling,
  translation,
} from '../geometry/paths/matrix.ts';
import { gridOver, gridWithin } from './dot-grid.ts';
import { type DotRaster, dotsOf, pictureBounds } from './dots.ts';

/** A picture on dots of its own. */
const dotsOver = (pixels: Pixels, to: Matrix, dotMm: number, rowMm: number) =>
  dotsOf(pixels, to, gridOver(pictureBounds(pixels, to), dotMm, rowMm));

const byte = fc.integer({ min: 0, max: 255 });
const picture = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })).chain(([width, height]) => {
  const bytes = fc.array(byte, { minLength: width * height, maxLength: width * height });
  return fc.tuple(bytes, fc.option(bytes)).map(([values, alpha]) => greyPicture(width, values, alpha));
});
const placing = fc
  .record({
    degrees: fc.constantFrom(0, 90, 180, 270, 15, 45, 123.4),
    across: fc.constantFrom(1, -1, 0.37, 2.6),
    down: fc.constantFrom(1, 0.8, 3.1),
  })
  .map(({ degrees, across, down }) => multiply(translation(3, -2), multiply(rotation(degrees), scaling(across, down))));

/** The part of a convex polygon on one side of a line, in the plainest way. */
function cutOff(polygon: readonly Point[], isIn: (point: Point) => number): Point[] {
  return polygon.flatMap((to, i) => {
    const from = polygon.at(i - 1) as Point;
    const [a, b] = [isIn(from), isIn(to)];
    const t = a / (a - b);
    const between = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
    return [...(a >= 0 !== b >= 0 ? [between] : []), ...(b >= 0 ? [to] : [])];
  });
}

function areaOf(polygon: readonly Point[]): number {
  return Math.abs(
    polygon.reduce((sum, to, i) => {
      const from = polygon.at(i - 1) as Point;
      return sum + (from.x * to.y - to.x * from.y) / 2;
    }, 0),
  );
}

/** What a dot covers of a picture, pixel by pixel, in mm². */
function covered(
  { left, top, dotMm, rowMm }: DotRaster,
  { width, height, rgb, alpha }: Pixels,
  to: Matrix,
  at: [number, number],
) {
  const [x, y] = [left + at[0] * dotMm, top + at[1] * rowMm];
  let [area, seen, luma] = [0, 0, 0];
  for (let i = 0; i < width * height; i++) {
    const [px, py] = [i % width, Math.floor(i / width)];
    const corners = [
      [px, py],
      [px + 1, py],
      [px + 1, py + 1],
      [px, py + 1],
    ].map(([u, v]) => applyTo(to, u, v));
    const sides = [
      (p: Point) => p.x - x,
      (p: Point) => x + dotMm - p.x,
      (p: Point) => p.y - y,
      (p: Point) => y + rowMm - p.y,
    ];
    const common = areaOf(sides.reduce<readonly Point[]>(cutOff, corners));
    const opacity = alpha ? alpha[i] / 255 : 1;
    area += common;
    seen += common * opacity;
    // What of a pixel is not the white that shows through.
    luma += common * Math.max(0, rgb[3 * i] / 255 - (1 - opacity));
  }
  return { area, seen, luma };
}

describe('a dot’s grey is the mean of what it covers', () => {
  test('of any picture, placed in any way, pixel by pixel', () => {
    fc.assert(
      fc.property(
        picture,
        placing,
        fc.constantFrom(0.4, 1, 2.3),
        fc.constantFrom(0.7, 1.9),
        (pixels, to, dotMm, rowMm) => {
          const dots = dotsOver(pixels, to, dotMm, rowMm) as DotRaster;
          for (let row = 0; row < dots.rows; row++) {
            for (let column = 0; column < dots.columns; column++) {
              const { area, seen, luma } = covered(dots, pixels, to, [column, row]);
              const i = row * dots.columns + column;
              const half = (dotMm * rowMm) / 2;
              const shown = dots.shown?.[i] ?? 1;
              if (Math.abs(area - half) > 1e-6 * half) expect(shown).toBeCloseTo(area < half ? 0 : seen / area, 4);
              // Lumas are summed in 256ths of a level.
              const rounding = ((1 / 512 / 255) * area) / seen + 1e-6;
              if (seen > 1e-4 * half) expect(Math.abs(dots.greys[i] - luma / seen)).toBeLessThan(rounding);
            }
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('and its colours count as bright as they look', () => {
    const rgb = Uint8Array.of(255, 0, 0, 0, 255, 0, 0, 0, 255);
    const dots = dotsOver({ width: 3, height: 1, rgb }, scaling(1, 1), 1, 1);
    expect([...(dots?.greys ?? [])].map((grey) => grey.toFixed(4))).toEqual(['0.2126', '0.7152', '0.0722']);
  });
});

test('a picture that is opaque and that the dots fit has no dot that does not show', () => {
  expect(dotsOver(greyPicture(4, Array(12).fill(9)), scaling(0.5, 0.5), 0.25, 0.1)?.shown).toBeNull();
});

test('dots lie over both ends alike where a picture is no whole number of them', () => {
  const dots = dotsOver(greyPicture(1, [0]), scaling(1.2, 0.9), 0.5, 0.5);
  expect(dots).toMatchObject({ columns: 2, rows: 2 });
  expect([dots?.left, dots?.top]).toEqual([expect.closeTo(0.1, 9), expect.closeTo(-0.05, 9)]);
});

test('what has no area has no dots', () => {
  expect(dotsOver(greyPicture(1, [0]), scaling(0, 1), 1, 1)).toBeNull();
  expect(dotsOver(greyPicture(0, []), scaling(1, 1), 1, 1)).toBeNull();
});

test('the greys of a picture that is very wide are as exact: no sum grows too large', () => {
  const wide = 200_000;
  const dots = dotsOver(greyPicture(wide, Array(wide).fill(250)), scaling(1, 1), 1, 1);
  expect(dots?.greys.at(-1)).toBeCloseTo(250 / 255, 3);
  expect(dots?.greys.at(0)).toBeCloseTo(250 / 255, 3);
});

test('the part of a grid that a box lies on has the dots of the whole', () => {
  const whole = gridOver({ minX: 0, minY: 0, maxX: 10, maxY: 4 }, 0.5, 0.25);
  expect(gridWithin(whole, { minX: 1, minY: 0.3, maxX: 2.1, maxY: 0.5 })).toEqual({
    column: 2,
    row: 1,
    grid: { columns: 3, rows: 1, left: 1, top: 0.25, dotMm: 0.5, rowMm: 0.25 },
  });
  expect(gridWithin(whole, { minX: -3, minY: -3, maxX: 30, maxY: 30 })).toEqual({ column: 0, row: 0, grid: whole });
  expect(gridWithin(whole, { minX: 20, minY: 0, maxX: 30, maxY: 1 }).grid.columns).toBe(0);
  // What rounding adds takes no dots more.
  expect(gridWithin(whole, { minX: 1 - 1e-12, minY: 0, maxX: 2 + 1e-12, maxY: 1 }).grid.columns).toBe(2);
});
