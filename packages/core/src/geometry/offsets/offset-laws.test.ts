import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceFromLines } from '../../fixtures/line-distance.ts';
import { type Area, areaOf, growArea, linesOfArea, sizeOfArea } from '../areas/area.ts';
import { flatten, type Polyline, polylineContains } from '../paths/flatten.ts';
import { rotation } from '../paths/matrix.ts';
import { type Path, PathBuilder, transformPath } from '../paths/path.ts';
import { offsetOutlines, plainOffset } from './offset.ts';

/** A comb of few long edges: teeth, gaps between them, a back; turned. */
function comb(teeth: number, tooth: number, gap: number, height: number, back: number, degrees: number): Path {
  const pitch = tooth + gap;
  const builder = new PathBuilder().moveTo(0, 0);
  for (let i = 0; i < teeth; i++) {
    builder
      .lineTo(i * pitch, height)
      .lineTo(i * pitch + tooth, height)
      .lineTo(i * pitch + tooth, 0);
    if (i < teeth - 1) builder.lineTo((i + 1) * pitch, 0);
  }
  const width = (teeth - 1) * pitch + tooth;
  return transformPath(builder.lineTo(width, -back).lineTo(0, -back).close().build(), rotation(degrees));
}

test('combs of few long edges grow and shrink as the clipping library says, whatever closes or vanishes', () => {
  const length = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 5 }),
      length(0.3, 6),
      length(0.3, 6),
      length(5, 60),
      length(0.3, 12),
      length(0, 90),
      length(-2, 4),
      (teeth, tooth, gap, height, back, degrees, by) => {
        fc.pre(Math.abs(by) > 0.02);
        // Where a tooth, a gap or the back is gone to the last hundredth, either answer is right.
        fc.pre([tooth, gap, back].every((width) => Math.abs(width - 2 * Math.abs(by)) > 0.02));
        const path = comb(teeth, tooth, gap, height, back, degrees);
        const made = offsetOutlines([{ path, rule: 'evenodd' }], { ...plainOffset, by, join: 'miter' });
        const size = sizeOfArea(areaOf(made, 'nonzero'));
        const expected = sizeOfArea(growArea(areaOf(path, 'evenodd'), by));
        // Every corner is a right angle: with points, both are exact but for the raster of 0.001 mm.
        expect(Math.abs(size - expected)).toBeLessThan(0.004 * (2 * teeth * (height + tooth + gap) + 20));
      },
    ),
    { numRuns: 150 },
  );
});

/** Made of `M x y`, `L x y`, `C x1 y1 x2 y2 x y` and `Z`. */
function pathFrom(data: string): Path {
  const builder = new PathBuilder();
  for (const [, verb, rest] of data.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const [a, b, c, d, e, f] = rest.trim().split(/[ ,]+/).map(Number);
    if (verb === 'M') builder.moveTo(a, b);
    else if (verb === 'L') builder.lineTo(a, b);
    else if (verb === 'C') builder.cubicTo(a, b, c, d, e, f);
    else builder.close();
  }
  return builder.build();
}

const isWithin = (lines: readonly Polyline[], x: number, y: number) =>
  lines.filter((line) => polylineContains(line, x, y)).length % 2 === 1;

/**
 * Which of a raster of points an offset covers and should not, or should and does not. What is thinner than 0.01 mm,
 * and what is within 0.02 mm of the edge, may be either.
 */
function wrongPoints(path: Path, rule: 'evenodd' | 'nonzero', by: number): string[] {
  const source = areaOf(path, rule);
  const lines = (area: Area) => linesOfArea(area);
  const [all, thick, closed] = [
    source,
    growArea(growArea(source, -0.005), 0.005),
    growArea(growArea(source, 0.005), -0.005),
  ].map(lines);
  const [fromAll, fromThick, fromClosed] = [all, thick, closed].map(distanceFromLines);
  const made = flatten(offsetOutlines([{ path, rule }], { ...plainOffset, by }), 1e-3);
  const wrong: string[] = [];
  const { minX, minY, maxX, maxY } = source.bounds;
  const edge = Math.max(0, by) + 0.1;
  const step = Math.max(maxX - minX, maxY - minY, 0.5) / 23;
  for (let x = minX - edge; x <= maxX + edge; x += step)
    for (let y = minY - edge; y <= maxY + edge; y += step) {
      const covers = isWithin(made, x, y);
      const must =
        by > 0
          ? isWithin(thick, x, y) || fromThick(x, y) < by - 0.02
          : isWithin(all, x, y) && fromAll(x, y) > 0.02 - by;
      const may =
        by > 0
          ? isWithin(all, x, y) || fromAll(x, y) < by + 0.02
          : isWithin(closed, x, y) && fromClosed(x, y) > -by - 0.02;
      if ((must && !covers) || (covers && !may)) wrong.push(`${x.toFixed(3)} ${y.toFixed(3)}`);
    }
  return wrong;
}

test.each<[string, 'evenodd' | 'nonzero', number, string]>([
  ['an 8 whose loops are as large as each other', 'evenodd', 0.4, 'M0 0L10 10L10 0L0 10Z'],
  ['an 8 that touches itself along an edge', 'nonzero', 0.36, 'M10 15L15 5L10 5L0 20L10 0Z'],
  [
    'a curve that runs back along its own line',
    'nonzero',
    0.5533,
    'M0 5L5 10L15 10L10 15L10 5C0 5 15 5 15 5L0 15L10 5ZM5 20L10 20L15 10C20 10 20 15 10 5L10 20L20 5Z',
  ],
  [
    'a tip whose sides lie across each other at its end',
    'evenodd',
    0.34602713093161586,
    'M2 5.5L15.5 10L15 17.5L13.5 4L2.5 20L6 5C15 3 15 12.5 4.5 7.5C8 10.5 5 7.5 11 7L12 13.5ZM12.5 12.5C16 19 7 11 15.5 15.5L5 3.5L7.5 12.5L5.5 19C8 3 15 7 16 2L15 13.5C1 13.5 8.5 17 7.5 18ZM6.5 14C10.5 16.5 8.5 10 19.5 13C17.5 9.5 7.5 15 3.5 15C17.5 4.5 10 13 3 0Z',
  ],
  [
    'a piece of no length with handles of none',
    'nonzero',
    0.04365207332652063,
    'M0 0L0 5L0 0L5 0L5 0C0 5 0 5 5 5L5 0ZM0 5C0 0 0 5 5 0C5 0 0 5 0 5L0 5L5 0C5 5 0 5 5 0L0 5ZM5 0C5 0 5 5 0 0C0 5 0 5 5 5L5 0Z',
  ],
])('%s grows, and shrinks, loses nothing and comes nowhere nearer', (_, rule, by, data) => {
  const path = pathFrom(data);
  for (const distance of [by, -by, by / 4]) expect(wrongPoints(path, rule, distance)).toEqual([]);
  const away = distanceFromLines(linesOfArea(areaOf(path, rule)));
  const made = flatten(offsetOutlines([{ path, rule }], { ...plainOffset, by }), 1e-3);
  expect(made.length).toBeGreaterThan(0);
  // But for the ends of tips that are thinner than matters.
  for (const { points } of made)
    points.forEach((_, i) => {
      if (i % 2 === 1) return;
      const next = (i + 2) % points.length;
      const [x, y] = [(points[i] + points[next]) / 2, (points[i + 1] + points[next + 1]) / 2];
      expect([x, y, away(x, y) > by / 2]).toEqual([x, y, true]);
    });
});

test('whatever outlines on a coarse raster do to themselves, they grow and shrink by the distance', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })).map(([x, y]) => `${x} ${y}`);
  const outline = fc
    .tuple(
      place,
      fc.array(fc.oneof({ weight: 2, arbitrary: place }, fc.tuple(place, place, place)), {
        minLength: 2,
        maxLength: 7,
      }),
    )
    .map(
      ([start, legs]) =>
        `M${start}${legs.map((leg) => (typeof leg === 'string' ? `L${leg}` : `C${leg.join(' ')}`)).join('')}Z`,
    );
  fc.assert(
    fc.property(
      fc.array(outline, { minLength: 1, maxLength: 3 }).map((all) => all.join('')),
      fc.constantFrom('evenodd' as const, 'nonzero' as const),
      fc.constantFrom(0.1, -0.1, 0.4, -0.3, 1.3),
      (data, rule, by) => expect(wrongPoints(pathFrom(data), rule, by)).toEqual([]),
    ),
    { numRuns: 60 },
  );
});

test('a corner is kept though the polygon arithmetic is some steps of its raster off there', () => {
  // Part of a stencil letter: the end of a bar between a long curve and three straight sides.
  const bar = pathFrom(
    'M0.6061 0.8721L0.3445 0.8459L0.3445 0.2834L0.9288 0.2834C1.0334 0.2834 1.1352 0.2805 1.234 0.2747L1.25 0.88C1.1 0.92 0.8 0.89 0.6061 0.8721Z',
  );
  for (const by of [-0.1118, -0.05, 0.1118]) {
    const made = offsetOutlines([{ path: bar, rule: 'nonzero' }], { ...plainOffset, by });
    const lib = growArea(areaOf(bar, 'nonzero'), by);
    // Rounding of corners outward alone differs.
    const off = sizeOfArea(lib) - sizeOfArea(areaOf(made, 'nonzero'));
    expect(off).toBeLessThan(by > 0 ? 0.02 : 0.003);
    expect(off).toBeGreaterThan(-0.003);
  }
});
