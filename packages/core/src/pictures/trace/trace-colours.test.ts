import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import { channelsOf } from '../../document/channels.ts';
import type { Pixels } from '../../document/pixels.ts';
import { outlineOf } from '../../document/shapes.ts';
import { type TraceSettings, usualByColour, usualTraceSettings } from '../../document/traced.ts';
import { pictureInColours } from '../../fixtures/picture-in-colours.ts';
import { box } from '../../fixtures/shop.ts';
import { areaOf, intersectAreas, sizeOfArea, uniteAreas } from '../../geometry/areas/area.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { nodeCount, type Path, transformPath } from '../../geometry/paths/path.ts';
import { distanceToLines } from '../../geometry/questions/distance.ts';
import { tracePicture } from './trace-picture.ts';

const perMm = 10;
const size = { widthMm: 30, heightMm: 24, perMm };
const circle = outlineOf({ kind: 'ellipse', cx: 12, cy: 11, rx: 7, ry: 7 });
const square = box(14, 8, 10, 9);
const star = outlineOf({ kind: 'polygon', cx: 25, cy: 4.1, radius: 3.6, sides: 5, inner: 1.8, turn: 0 });
const artwork = pictureInColours(
  '#FFFFFF',
  [
    { path: circle, colour: '#D02030' },
    { path: square, colour: '#2050C0' },
    { path: star, colour: '#F0C020' },
  ],
  size,
);

type ByColour = NonNullable<TraceSettings['byColour']>;

/** The areas of a picture by their colours, in mm. */
function areasOf(pixels: Pixels, byColour: Partial<ByColour> = {}, more: Partial<TraceSettings> = {}) {
  const settings: TraceSettings = {
    ...usualTraceSettings,
    makes: 'colours',
    specksMm2: 0.05,
    toleranceMm: 0.03,
    byColour: { ...usualByColour, ...byColour },
    ...more,
  };
  return tracePicture(pixels, settings, 1 / perMm).map(({ path, colour, found }) => ({
    ...{ colour, found, path: transformPath(path, scaling(1 / perMm, 1 / perMm)) },
  }));
}

const sizeOf = (path: Path) => sizeOfArea(areaOf(path, 'nonzero'));
/** How far the points of one path are from another at most, in mm. */
const strays = (path: Path, from: Path) => {
  const lines = flatten(from, 0.001);
  let most = 0;
  for (const { points } of flatten(path, 0.001)) {
    for (let i = 0; i < points.length; i += 2) most = Math.max(most, distanceToLines(lines, points[i], points[i + 1]));
  }
  return most;
};

describe('areas by their colours', () => {
  test('are found with the colours that they have, the lightest first, without the ground', () => {
    const areas = areasOf(artwork);
    expect(areas.map(({ colour }) => colour)).toEqual(['#F0C020', '#D02030', '#2050C0']);
    expect(areas[0].found).toEqual(['#FFFFFF', '#F0C020', '#D02030', '#2050C0']);
    expect(areasOf(artwork, { withGround: true }).map(({ colour }) => colour)).toEqual(areas[0].found);
    expect(areasOf(artwork, { most: 2 })).toHaveLength(1);
  });

  test('lie where they are in the picture, with few nodes', () => {
    const [yellow, red, blue] = areasOf(artwork);
    expect(strays(yellow.path, star)).toBeLessThan(0.04);
    expect(nodeCount(yellow.path)).toBeLessThanOrEqual(15);
    expect(strays(blue.path, square)).toBeLessThan(0.04);
    expect(nodeCount(blue.path)).toBeLessThanOrEqual(9);
    expect(sizeOf(blue.path)).toBeCloseTo(90, 0);
    // Of the circle, what the square leaves.
    const left = sizeOf(circle) - sizeOfArea(intersectAreas(areaOf(circle, 'nonzero'), areaOf(square, 'nonzero')));
    expect(sizeOf(red.path)).toBeGreaterThan(left - 0.5);
    expect(sizeOf(red.path)).toBeLessThan(left + 0.5);
  });

  test('stacked, each lies under all that come after it', () => {
    const [ground, yellow, red, blue] = areasOf(artwork, { lie: 'stacked', withGround: true });
    expect(sizeOf(ground.path)).toBeCloseTo(30 * 24, 6);
    for (const [under, over] of [
      [ground, yellow],
      [yellow, red],
      [red, blue],
    ]) {
      const both = sizeOfArea(intersectAreas(areaOf(under.path, 'nonzero'), areaOf(over.path, 'nonzero')));
      expect(both).toBeCloseTo(sizeOf(over.path), 6);
    }
  });

  test('as JPEG of quality 60 they are the same, without specks', () => {
    const { width, height, rgb } = artwork;
    const data = Buffer.alloc(4 * width * height, 255);
    for (let i = 0; i < width * height; i++) data.set(rgb.subarray(3 * i, 3 * i + 3), 4 * i);
    const back = jpeg.decode(jpeg.encode({ data, width, height }, 60).data, { useTArray: true });
    const seen = Uint8Array.from({ length: 3 * width * height }, (_, i) => back.data[4 * Math.floor(i / 3) + (i % 3)]);
    const areas = areasOf({ width, height, rgb: seen, alpha: null }, {}, { specksMm2: 0.5 });
    expect(areas).toHaveLength(3);
    [star, circle, square].forEach((shape, i) => {
      if (shape !== circle) expect(strays(areas[i].path, shape)).toBeLessThan(0.15);
    });
  });

  test('are found again with colours that are known, one by one', () => {
    const [{ found = [] }] = areasOf(artwork);
    const [red] = areasOf(artwork, { found, own: '#D02030' });
    expect(red.colour).toBe('#D02030');
    expect(areasOf(artwork, { found, own: '#D02030' })).toHaveLength(1);
    expect(areasOf(artwork, { found, own: '#123456' })).toEqual([]);
  });

  test('what is cropped away or cannot be seen is of no colour', () => {
    const part = [
      [0, 0],
      [150, 0],
      [150, 240],
      [0, 240],
    ].map(([x, y]) => ({ x, y }));
    const cropped = areasOf(artwork, { withGround: true }, { part });
    expect(cropped.reduce((sum, { path }) => sum + sizeOf(path), 0)).toBeCloseTo(15 * 24, 1);
    const alpha = new Uint8Array(artwork.width * artwork.height);
    expect(areasOf({ ...artwork, alpha }, { withGround: true })).toEqual([]);
  });
});

test('side by side, areas have neither gaps nor overlaps, whatever they are', () => {
  const colours = ['#101010', '#F0F0F0', '#D02030', '#2050C0'].map((colour) => channelsOf(colour));
  const labels = fc
    .integer({ min: 2, max: 9 })
    .chain((width) =>
      fc.tuple(
        fc.constant(width),
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 2 * width, maxLength: 9 * width }),
      ),
    );
  fc.assert(
    fc.property(labels, fc.boolean(), ([width, list], isSmooth) => {
      // Each label is a square of so many pixels.
      const side = 6;
      const height = Math.floor(list.length / width);
      const [across, down] = [width * side, height * side];
      const rgb = Uint8Array.from({ length: 3 * across * down }, (_, k) => {
        const pixel = Math.floor(k / 3);
        const [x, y] = [pixel % across, Math.floor(pixel / across)];
        const at = (px: number) => colours[list[Math.floor(y / side) * width + Math.floor(px / side)]][k % 3];
        return isSmooth ? Math.round((at(x) + at(Math.min(across - 1, x + 1))) / 2) : at(x);
      });
      const areas = areasOf(
        { width: across, height: down, rgb, alpha: null },
        { most: 8, withGround: true },
        { specksMm2: 0 },
      );
      const paths = areas.map(({ path }) => areaOf(path, 'nonzero'));
      const whole = (across * down) / perMm ** 2;
      // Borders of areas that only touch may cross each other by less than the tolerance.
      const isWhole = (found: number) => expect(Math.abs(found / whole - 1)).toBeLessThan(5e-4);
      isWhole(sizeOfArea(uniteAreas(paths)));
      isWhole(paths.reduce((sum, area) => sum + sizeOfArea(area), 0));
    }),
    { numRuns: 100 },
  );
});
