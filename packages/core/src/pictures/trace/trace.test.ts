import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import type { Pixels } from '../../document/pixels.ts';
import { outlineOf } from '../../document/shapes.ts';
import { usualTraceSettings } from '../../document/traced.ts';
import { pictureOfPath } from '../../fixtures/picture-of-path.ts';
import { boxWidth } from '../../geometry/paths/box.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { multiply, rotation, scaling, translation } from '../../geometry/paths/matrix.ts';
import { nodeCount, type Path, PathBuilder, pathBounds, transformPath } from '../../geometry/paths/path.ts';
import { subpathsOf } from '../../geometry/paths/segments.ts';
import { distanceToLines } from '../../geometry/questions/distance.ts';
import { type PixelTraceSettings, TooManyOutlines, traceOutlines } from './trace.ts';
import { tracePicture } from './trace-picture.ts';

/** Pixels to the mm. */
const perMm = 10;
const usual: PixelTraceSettings = {
  threshold: 'best',
  isLight: false,
  smoothing: 0,
  part: [],
  rubbed: [],
  specks: 5,
  holes: 5,
  tolerance: 0.3,
  cornerDegrees: 35,
  isOuterOnly: false,
};

/** What a picture of a path is traced to, in mm. */
function traced(
  path: Path,
  more: Partial<PixelTraceSettings> = {},
  change: (pixels: Pixels) => Pixels = (same) => same,
): Path {
  const picture = change(pictureOfPath(path, { widthMm: 30, heightMm: 24, perMm }));
  return transformPath(traceOutlines(picture, { ...usual, ...more }), scaling(1 / perMm, 1 / perMm));
}

/** How far one path strays from another at most, in mm. */
function strays(path: Path, from: Path): number {
  const lines = flatten(from, 0.001);
  let most = 0;
  for (const { points } of flatten(path, 0.001)) {
    for (let i = 0; i < points.length; i += 2) {
      const next = (i + 2) % points.length;
      const steps = Math.max(
        1,
        Math.ceil(Math.hypot(points[next] - points[i], points[next + 1] - points[i + 1]) / 0.2),
      );
      for (let k = 0; k < steps; k++) {
        const [x, y] = [0, 1].map((axis) => points[i + axis] + ((points[next + axis] - points[i + axis]) * k) / steps);
        most = Math.max(most, distanceToLines(lines, x, y));
      }
    }
  }
  return most;
}

const apart = (a: Path, b: Path) => Math.max(strays(a, b), strays(b, a));

/** The places of a path's nodes. */
function nodesOf(path: Path): [number, number][] {
  const found: [number, number][] = [];
  let k = 0;
  for (const verb of path.verbs) {
    k += [2, 2, 6, 0][verb];
    if (verb < 3) found.push([path.coords[k - 2], path.coords[k - 1]]);
  }
  return found;
}

const middle = translation(15.03, 12.02);
const turned = (path: Path, degrees: number) => transformPath(path, multiply(middle, rotation(degrees)));
const star = (sides: number) => outlineOf({ kind: 'polygon', cx: 0, cy: 0, radius: 9, sides, inner: 4, turn: 0 });
const box = (width: number, height: number) =>
  outlineOf({ kind: 'rectangle', x: -width / 2, y: -height / 2, width, height, rx: 0, ry: 0 });
const rounded = outlineOf({ kind: 'rectangle', x: -8, y: -5, width: 16, height: 10, rx: 2, ry: 2 });
const circle = (radius: number) => outlineOf({ kind: 'ellipse', cx: 0, cy: 0, rx: radius, ry: radius });

/** Letters of straight and round strokes, with a hole. */
const letterD = new PathBuilder()
  .moveTo(-5, -7)
  .lineTo(0, -7)
  .cubicTo(4, -7, 6, -4, 6, 0)
  .cubicTo(6, 4, 4, 7, 0, 7)
  .lineTo(-5, 7)
  .close()
  .moveTo(-3, 5)
  .lineTo(0, 5)
  .cubicTo(3, 5, 4, 3, 4, 0)
  .cubicTo(4, -3, 3, -5, 0, -5)
  .lineTo(-3, -5)
  .close()
  .build();
const letterK = new PathBuilder()
  .ring([-5, -7, -3, -7, -3, -1, 3, -7, 5.6, -7, -0.6, -0.6, 6, 7, 3.4, 7, -2, 0.8, -3, 1.8, -3, 7, -5, 7])
  .build();

describe('what is drawn comes back within 0.04 mm, its corners within 0.08 mm, with hardly more nodes', () => {
  const figures: [string, Path][] = [
    ['a circle of 9 mm', turned(circle(9), 0)],
    ['a circle of 1.2 mm', turned(circle(1.2), 0)],
    ['an ellipse', turned(outlineOf({ kind: 'ellipse', cx: 0, cy: 0, rx: 9, ry: 4 }), 30)],
    ...[0, 3, 17, 45].map((degrees): [string, Path] => [
      `a rectangle turned by ${degrees}°`,
      turned(box(17, 9), degrees),
    ]),
    ...[5, 7].map((sides): [string, Path] => [`a star of ${sides}`, turned(star(sides), 11)]),
    ['a rectangle with round corners', turned(rounded, 8)],
    ['a D', turned(letterD, 0)],
    ['a D that leans', turned(letterD, 12)],
    ['a K', turned(letterK, 0)],
    ['a K that leans', turned(letterK, -7)],
  ];

  test.each(figures)('%s', (_, path) => {
    const found = traced(path);
    expect(apart(found, path)).toBeLessThan(0.04);
    expect(nodeCount(found)).toBeLessThanOrEqual(1.5 * nodeCount(path));
    const nodes = nodesOf(found);
    const lines = [...path.verbs].every((verb) => verb !== 2);
    if (!lines) return;
    for (const [x, y] of nodesOf(path)) {
      expect(Math.min(...nodes.map(([nx, ny]) => Math.hypot(nx - x, ny - y)))).toBeLessThan(0.08);
    }
  });

  test('rectangles of any size and angle', () => {
    const side = fc.double({ min: 2, max: 14, noNaN: true });
    fc.assert(
      fc.property(side, side, fc.double({ min: 0, max: 180, noNaN: true }), (width, height, degrees) => {
        const path = turned(box(width, height), degrees);
        const found = traced(path);
        expect(apart(found, path)).toBeLessThan(0.04);
        expect(nodeCount(found)).toBeLessThanOrEqual(6);
      }),
      { numRuns: 25 },
    );
  });
});

describe('what is the figure', () => {
  const plate = new PathBuilder().ring([4, 4, 26, 4, 26, 20, 4, 20]).ring([10, 8, 10, 16, 20, 16, 20, 8]).build();

  test('holes are holes, and left out where the outer outline is wanted alone', () => {
    const found = traced(plate);
    expect([...subpathsOf(found)]).toHaveLength(2);
    expect(apart(found, plate)).toBeLessThan(0.04);
    expect([...subpathsOf(traced(plate, { isOuterOnly: true }))]).toHaveLength(1);
  });

  test('may be what is light', () => {
    const light = traced(plate, {}, negative);
    expect([...subpathsOf(light)]).toHaveLength(3);
    expect(apart(traced(plate, { isLight: true }, negative), plate)).toBeLessThan(0.04);
  });

  test('is what is darker than a level: the lower it is, the less', () => {
    const wide = (threshold: number) => boxWidth(pathBounds(traced(turned(circle(6), 0), { threshold, specks: 0 })));
    expect(wide(40)).toBeLessThan(wide(128));
    expect(wide(128)).toBeLessThan(wide(230));
  });

  test('is no speck', () => {
    const spotted = (pixels: Pixels) => {
      const rgb = pixels.rgb.slice();
      for (const [x, y] of [
        [3, 3],
        [150, 110],
        [151, 110],
      ])
        rgb.fill(rgb[3 * (y * 300 + x)] > 128 ? 0 : 255, 3 * (y * 300 + x), 3 * (y * 300 + x) + 3);
      return { ...pixels, rgb };
    };
    expect([...subpathsOf(traced(turned(circle(6), 0), { specks: 0 }, spotted))].length).toBeGreaterThan(1);
    expect([...subpathsOf(traced(turned(circle(6), 0), {}, spotted))]).toHaveLength(1);
  });

  test('reaches to the picture’s edge where it is cut off there', () => {
    const found = traced(new PathBuilder().ring([-9, -9, 50, -9, 50, 12, -9, 12]).build());
    expect(apart(found, new PathBuilder().ring([0, 0, 30, 0, 30, 12, 0, 12]).build())).toBeLessThan(0.04);
  });
});

describe('what of the picture counts', () => {
  const two = new PathBuilder().ring([3, 4, 11, 4, 11, 20, 3, 20]).ring([17, 4, 27, 4, 27, 20, 17, 20]).build();
  const inPixels = (...places: number[]) =>
    Array.from({ length: places.length / 2 }, (_, i) => ({ x: places[2 * i] * perMm, y: places[2 * i + 1] * perMm }));

  test('is a part with corners of its own, at any angle', () => {
    expect([...subpathsOf(traced(two, { part: inPixels(1, 1, 14, 1, 14, 23, 1, 23) }))]).toHaveLength(1);
    const cut = traced(two, { part: inPixels(1, 1, 9, 1, 5, 23, 1, 23) });
    // The crop runs from (9, 1) to (5, 23), and leaves of the left bar what is left of it.
    const left = new PathBuilder().ring([3, 4, 11 - 28 / 11, 4, 9 - 38 / 11, 20, 3, 20]).build();
    expect(apart(cut, left)).toBeLessThan(0.05);
  });

  test('is not what is rubbed out', () => {
    const rubbed = traced(two, { rubbed: [{ ...inPixels(7, 12)[0], radius: 20 }] });
    const hole = outlineOf({ kind: 'ellipse', cx: 7, cy: 12, rx: 2, ry: 2 });
    expect([...subpathsOf(rubbed)]).toHaveLength(3);
    expect(strays(hole, rubbed)).toBeLessThan(0.04);
  });

  test('is not what can be seen through', () => {
    const halfSeen = (pixels: Pixels): Pixels => {
      const alpha = new Uint8Array(pixels.width * pixels.height).fill(255);
      for (let i = 0; i < alpha.length; i++) if (i % pixels.width >= 140) alpha[i] = 0;
      return { ...pixels, alpha };
    };
    expect([...subpathsOf(traced(two, {}, halfSeen))]).toHaveLength(1);
    // Light ones are seen to be see-through too.
    const bounds = pathBounds(traced(two, { isLight: true }, (pixels) => halfSeen(pixels)));
    expect(Math.abs(bounds.maxX - 14)).toBeLessThan(0.06);
  });
});

test('paper that is lit unevenly is parted by what is around, where no level does', () => {
  const strokes = new PathBuilder().ring([4, 4, 5, 4, 5, 20, 4, 20]).ring([24, 4, 25, 4, 25, 20, 24, 20]).build();
  // From the light into a shadow that is darker than the ink was.
  const shaded = ({ width, height, rgb }: Pixels): Pixels => ({
    width,
    height,
    rgb: rgb.map((value, i) => (0.25 + 0.75 * (1 - ((i / 3) % width) / width)) * (90 + 0.65 * value)),
  });
  expect(apart(traced(strokes, { threshold: 'local' }, shaded), strokes)).toBeLessThan(0.15);
  const apartByLevel = (threshold: number) => {
    const found = traced(strokes, { threshold }, shaded);
    return found.verbs.length === 0 ? Infinity : apart(found, strokes);
  };
  for (const level of [60, 90, 120, 150]) expect(apartByLevel(level)).toBeGreaterThan(1);
});

test('with a hole that is left out goes what lies in it, and with a figure its holes', () => {
  const ringed = (hole: number, dot: number) =>
    new PathBuilder()
      .ring([5, 5, 25, 5, 25, 20, 5, 20])
      .ring([15 - hole, 12 - hole, 15 + hole, 12 - hole, 15 + hole, 12 + hole, 15 - hole, 12 + hole])
      .ring([15 - dot, 12 - dot, 15 + dot, 12 - dot, 15 + dot, 12 + dot, 15 - dot, 12 + dot])
      .build();
  const count = (more: Partial<PixelTraceSettings>) => [...subpathsOf(traced(ringed(3, 1.5), more))].length;
  // The hole is 36 mm² and the dot in it 9 mm², in pixels² a hundred times as much.
  expect(count({})).toBe(3);
  expect(count({ specks: 1000 })).toBe(2);
  expect(count({ holes: 4000 })).toBe(1);
  const small = new PathBuilder().ring([5, 5, 8, 5, 8, 8, 5, 8]).ring([6, 6, 6, 7, 7, 7, 7, 6]).build();
  expect([...subpathsOf(traced(small, { specks: 1000, holes: 10 }))]).toHaveLength(0);
});

test('a quick look at a large picture is near the truth', () => {
  const path = turned(letterD, 12);
  const pixels = pictureOfPath(path, { widthMm: 30, heightMm: 24, perMm: 40 });
  const looked = (most?: number) =>
    tracePicture(pixels, usualTraceSettings, 1 / 40, most).map((found) =>
      transformPath(found.path, scaling(1 / 40, 1 / 40)),
    );
  const [quick] = looked(100_000);
  expect(apart(quick, path)).toBeLessThan(0.15);
  const [whole] = looked();
  expect(apart(whole, path)).toBeLessThan(0.06);
});

const negative = ({ width, height, rgb }: Pixels): Pixels => ({ width, height, rgb: rgb.map((value) => 255 - value) });

test('noise moves outlines by less than 0.15 mm, and leaves no speck', () => {
  const noisy = ({ width, height, rgb }: Pixels): Pixels => {
    let seed = 7;
    const out = rgb.slice();
    for (let i = 0; i < out.length; i += 3) {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      out.fill(Math.min(255, Math.max(0, rgb[i] + ((seed >>> 24) / 255 - 0.5) * 120)), i, i + 3);
    }
    return { width, height, rgb: out };
  };
  for (const path of [turned(circle(9), 0), turned(star(5), 11), turned(letterD, 0)]) {
    const found = traced(path, {}, noisy);
    expect(apart(found, path)).toBeLessThan(0.15);
    expect([...subpathsOf(found)]).toHaveLength([...subpathsOf(path)].length);
  }
});

test('JPEG of quality 40 moves outlines by less than 0.15 mm, and leaves no speck', () => {
  const squeezed = ({ width, height, rgb }: Pixels): Pixels => {
    const data = new Uint8Array(width * height * 4).fill(255);
    for (let i = 0; i < width * height; i++) data.set(rgb.subarray(3 * i, 3 * i + 3), 4 * i);
    const back = jpeg.decode(jpeg.encode({ width, height, data }, 40).data, { useTArray: true, formatAsRGBA: false });
    return { width, height, rgb: new Uint8Array(back.data) };
  };
  for (const path of [turned(circle(9), 0), turned(star(5), 11), turned(letterK, -7), turned(box(17, 9), 17)]) {
    const found = traced(path, {}, squeezed);
    expect(apart(found, path)).toBeLessThan(0.15);
    expect([...subpathsOf(found)]).toHaveLength([...subpathsOf(path)].length);
  }
});

test('a picture of one pixel is traced as that', () => {
  const dot = { width: 1, height: 1, rgb: new Uint8Array(3) };
  const found = traceOutlines(dot, { ...usual, threshold: 128, specks: 0 });
  expect(pathBounds(found)).toEqual({ minX: 0, minY: 0, maxX: 1, maxY: 1 });
  expect(traceOutlines({ ...dot, rgb: new Uint8Array(3).fill(255) }, { ...usual, threshold: 128 }).verbs).toHaveLength(
    0,
  );
});

test('a picture of one colour has no outline, and one of nothing but noise is refused', () => {
  const even = (grey: number): Pixels => ({ width: 40, height: 30, rgb: new Uint8Array(3600).fill(grey) });
  expect(traceOutlines(even(255), usual).verbs).toHaveLength(0);
  const rgb = Uint8Array.from(
    { length: 3 * 900 * 900 },
    (_, i) => ((Math.imul(Math.floor(i / 3) + 1, 2654435761) >>> 24) & 1) * 255,
  );
  expect(() => traceOutlines({ width: 900, height: 900, rgb }, { ...usual, specks: 0, holes: 0 })).toThrow(
    TooManyOutlines,
  );
});
