import { describe, expect, test } from '@jest/globals';
import { outlineOf } from '../../document/shapes.ts';
import { usualTraceSettings } from '../../document/traced.ts';
import { pictureOfPath } from '../../fixtures/picture-of-path.ts';
import { offsetOutlines, plainOffset } from '../../geometry/offsets/offset.ts';
import { flatten } from '../../geometry/paths/flatten.ts';
import { appendPath, nodeCount, type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { distanceToLines } from '../../geometry/questions/distance.ts';
import { figureOf } from './figure.ts';
import { type MiddleLine, middleLinesOf } from './middle-lines.ts';
import { tracePicture } from './trace-picture.ts';

/** Pixels to the mm. */
const perMm = 10;
const figure = { threshold: 'best', isLight: false, smoothing: 0, part: [], rubbed: [] } as const;

/** The middle lines of a pen's way, as wide as a pen is. */
function middlesOf(way: Path, widthMm: number): MiddleLine[] {
  const offset = (by: number) => offsetOutlines([{ path: way, rule: 'nonzero' }], { ...plainOffset, by });
  const builder = new PathBuilder();
  appendPath(builder, offset(widthMm / 2), true);
  // What closes is a ring.
  if (flatten(way, 1)[0].closed) appendPath(builder, offset(-widthMm / 2), true);
  const stroke = builder.build();
  const picture = pictureOfPath(stroke, { widthMm: 40, heightMm: 30, perMm });
  return middleLinesOf(figureOf(picture, figure));
}

/** How far middle lines stray from a way, and how much of that they leave out, in mm. */
function apart(found: readonly MiddleLine[], way: Path) {
  const lines = flatten(way, 0.001);
  const inMm = found.map(({ points, closed }) => ({ points: points.map((px) => px / perMm), closed }));
  const worst = (from: readonly { points: Float64Array }[], to: typeof lines) =>
    Math.max(
      ...from.flatMap(({ points }) =>
        Array.from({ length: points.length / 2 }, (_, i) => distanceToLines(to, points[2 * i], points[2 * i + 1])),
      ),
    );
  const dense = lines.map(({ points, closed }) => {
    const count = points.length / 2;
    const places: number[] = [];
    for (let i = 0; i < (closed ? count : count - 1); i++) {
      const [ax, ay, bx, by] = [0, 1, 2, 3].map((k) => points[(2 * i + k) % points.length]);
      for (let t = 0; t < 1; t += 0.05) places.push(ax + (bx - ax) * t, ay + (by - ay) * t);
    }
    return { points: Float64Array.from(places) };
  });
  return { strays: worst(inMm, lines), misses: worst(dense, inMm) };
}

const line = (...places: number[]) => {
  const builder = new PathBuilder();
  for (let i = 0; i < places.length; i += 2) {
    if (i === 0) builder.moveTo(places[0], places[1]);
    else builder.lineTo(places[i], places[i + 1]);
  }
  return builder.build();
};
const wave = new PathBuilder().moveTo(5, 15).cubicTo(14, -6, 24, 36, 35, 12).build();
const ring = outlineOf({ kind: 'ellipse', cx: 20, cy: 15, rx: 11, ry: 8 });

describe.each([0.5, 1, 2, 3])('strokes of %s mm', (widthMm) => {
  test.each([
    ['straight', line(5, 15, 35, 15)],
    ['at an angle', line(6, 5, 33, 24)],
    ['steep', line(18, 4, 22, 26)],
    ['in a wave', wave],
  ])('%s: one line within 0.1 mm of the middle, and the width with it', (_, way) => {
    const found = middlesOf(way, widthMm);
    expect(found).toHaveLength(1);
    expect(found[0].closed).toBe(false);
    expect(Math.abs(found[0].width / perMm - widthMm)).toBeLessThan(0.06);
    const { strays, misses } = apart(found, way);
    expect(strays).toBeLessThan(0.1);
    // The round end of a stroke has its middle in its centre.
    expect(misses).toBeLessThan(Math.max(0.15, 0.2 * widthMm));
  });

  test('in a ring close', () => {
    const found = middlesOf(ring, widthMm);
    expect(found).toMatchObject([{ closed: true }]);
    const { strays, misses } = apart(found, ring);
    expect(strays).toBeLessThan(0.1);
    expect(misses).toBeLessThan(0.1);
  });

  test('that meet are joined there: a T has three lines that end in one place', () => {
    const builder = new PathBuilder();
    const tee = builder.moveTo(6, 8).lineTo(34, 8).moveTo(20, 8).lineTo(20, 25).build();
    const found = middlesOf(tee, widthMm);
    expect(found).toHaveLength(3);
    const ends = found.flatMap(({ points }) => [
      [points[0], points[1]],
      [points[points.length - 2], points[points.length - 1]],
    ]);
    const atJoint = ends.filter(([x, y]) => Math.hypot(x / perMm - 20, y / perMm - 8) < Math.max(0.15, 0.2 * widthMm));
    expect(atJoint).toHaveLength(3);
    expect(new Set(atJoint.map(String)).size).toBe(1);
  });
});

test('fitted, a wave is a few cubics, as wide as its stroke was, and a speck is left out', () => {
  const builder = new PathBuilder();
  for (const [way, mm] of [
    [wave, 1.2],
    [line(30, 25, 30.4, 25), 0.4],
  ] as const) {
    appendPath(builder, offsetOutlines([{ path: way, rule: 'nonzero' }], { ...plainOffset, by: mm / 2 }), true);
  }
  const pixels = pictureOfPath(builder.build(), { widthMm: 40, heightMm: 30, perMm });
  const found = tracePicture(pixels, { ...usualTraceSettings, makes: 'middle-lines' }, 1 / perMm);
  expect(found).toHaveLength(1);
  expect(found[0].widthPx / perMm).toBeCloseTo(1.2, 1);
  expect(nodeCount(found[0].path)).toBeLessThan(14);
  const [fitted] = flatten(found[0].path, 0.01);
  expect(apart([{ points: fitted.points, closed: false, width: 1 }], wave).strays).toBeLessThan(0.12);
});
