import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pixels } from '../document/pixels.ts';
import { outlineOf } from '../document/shapes.ts';
import { usualTraceSettings } from '../document/traced.ts';
import { box } from '../fixtures/shop.ts';
import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { flatten, polylineContains } from '../geometry/paths/flatten.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { type Path, pathBounds } from '../geometry/paths/path.ts';
import { cornersInOrder, NotFourCorners, straighten } from './straighten.ts';
import { tracePicture } from './trace/trace-picture.ts';

const size = { widthMm: 200, heightMm: 150 };

/** A pinhole camera over a bench, so many mm from the middle of the sheet, tilted and turned. */
function camera(tilt: number, turn: number, distance: number) {
  const [ct, st, cr, sr] = [Math.cos(tilt), Math.sin(tilt), Math.cos(turn), Math.sin(turn)];
  const focal = 900;
  const middle = { x: 640, y: 480 };
  return {
    /** Where a place of the sheet, in mm from its top left, is seen. */
    see: ({ x, y }: Point): Point => {
      const [dx, dy] = [x - size.widthMm / 2, y - size.heightMm / 2];
      const [rx, ry] = [dx * cr - dy * sr, dx * sr + dy * cr];
      const depth = distance - ry * st;
      return { x: middle.x + (focal * rx) / depth, y: middle.y + (focal * ry * ct) / depth };
    },
    /** Which place of the sheet is seen there. */
    back: (x: number, y: number): Point => {
      const [u, v] = [(x - middle.x) / focal, (y - middle.y) / focal];
      const ry = (v * distance) / (ct + v * st);
      const rx = u * (distance - ry * st);
      return { x: rx * cr + ry * sr + size.widthMm / 2, y: -rx * sr + ry * cr + size.heightMm / 2 };
    },
  };
}

const sheetCorners = [
  { x: 0, y: 0 },
  { x: 200, y: 0 },
  { x: 200, y: 150 },
  { x: 0, y: 150 },
];

/** What a camera sees of a white sheet on a grey bench with black on it. */
function photoOf(black: Path, { back }: ReturnType<typeof camera>): Pixels {
  const lines = flatten(black, 0.01);
  const [width, height, samples] = [1280, 960, 3];
  const rgb = new Uint8Array(3 * width * height);
  for (let y = 0, pixel = 0; y < height; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      let sum = 0;
      for (let k = 0; k < samples * samples; k++) {
        const place = back(x + ((k % samples) + 0.5) / samples, y + (Math.floor(k / samples) + 0.5) / samples);
        const isBlack = lines.some((line) => polylineContains(line, place.x, place.y));
        const isSheet = place.x > 0 && place.x < 200 && place.y > 0 && place.y < 150;
        sum += isBlack ? 20 : isSheet ? 245 : 150;
      }
      rgb.fill(Math.round(sum / samples ** 2), 3 * pixel, 3 * pixel + 3);
    }
  }
  return { width, height, rgb, alpha: null };
}

describe('a photographed sheet', () => {
  const plate = outlineOf({ kind: 'rectangle', x: 40, y: 30, width: 90, height: 60, rx: 0, ry: 0 });

  test.each([
    [0, 0],
    [0.5, 0.2],
    [0.7, -0.3],
  ])('tilted by %p and turned by %p comes in at true size', (tilt, turn) => {
    const view = camera(tilt, turn, 420);
    const corners = cornersInOrder(sheetCorners.map(view.see));
    const { pixels, mm } = straighten(photoOf(plate, view), corners, size, false);
    expect(pixels.alpha).toBeNull();
    expect([pixels.width * mm, pixels.height * mm].map(Math.round)).toEqual([200, 150]);
    const settings = { ...usualTraceSettings, parting: 'level' as const, level: 130 };
    const [{ path }] = tracePicture(pixels, settings, mm);
    const bounds = pathBounds(path);
    expect(Math.abs(bounds.minX * mm - 40)).toBeLessThan(0.25);
    expect(Math.abs(bounds.minY * mm - 30)).toBeLessThan(0.25);
    expect(Math.abs(boxWidth(bounds) * mm - 90)).toBeLessThan(0.3);
    expect(Math.abs(boxHeight(bounds) * mm - 60)).toBeLessThan(0.3);
  });

  test('brings in what lies beside it on the bench, where that is asked for', () => {
    const view = camera(0.5, 0.1, 700);
    const part = box(-60, 20, 40, 70);
    const corners = cornersInOrder(sheetCorners.map(view.see));
    const { pixels, mm, left, top } = straighten(photoOf(part, view), corners, size, true);
    expect(left).toBeLessThan(-60);
    // Beyond the edges of the photo nothing can be seen.
    expect(pixels.alpha?.some((opacity) => opacity === 0)).toBe(true);
    const [{ path }] = tracePicture(pixels, { ...usualTraceSettings, parting: 'level', level: 85 }, mm);
    const bounds = pathBounds(path);
    expect(Math.abs(bounds.minX * mm + left + 60)).toBeLessThan(0.5);
    expect(Math.abs(bounds.minY * mm + top - 20)).toBeLessThan(0.5);
    expect(Math.abs(boxWidth(bounds) * mm - 40)).toBeLessThan(0.6);
    expect(Math.abs(boxHeight(bounds) * mm - 70)).toBeLessThan(0.6);
  });
});

describe('four corners', () => {
  test('are in order however they are marked, the top left first', () => {
    const seen = sheetCorners.map(camera(0.6, 0.3, 420).see);
    fc.assert(
      fc.property(fc.shuffledSubarray(seen, { minLength: 4 }), (places) => {
        expect(cornersInOrder(places)).toEqual(seen);
      }),
    );
  });

  test.each([[[0, 0, 10, 0, 20, 0, 0, 10]], [[0, 0, 20, 0, 10, 20, 10, 5]], [[5, 5, 5, 5, 5, 5, 5, 5]]])(
    '%p are none',
    (numbers) => {
      const places = [0, 2, 4, 6].map((i) => ({ x: numbers[i], y: numbers[i + 1] }));
      expect(() => cornersInOrder(places)).toThrow(NotFourCorners);
    },
  );
});
