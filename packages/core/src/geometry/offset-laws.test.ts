import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Area, areaOf, growArea, linesOfArea, sizeOfArea } from './area.ts';
import { distanceToLines } from './distance.ts';
import { flatten, type Polyline, polylineContains } from './flatten.ts';
import { rotation } from './matrix.ts';
import { offsetOutlines, plainOffset } from './offset.ts';
import { type Path, PathBuilder, transformPath } from './path.ts';

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
          ? isWithin(thick, x, y) || distanceToLines(thick, x, y) < by - 0.02
          : isWithin(all, x, y) && distanceToLines(all, x, y) > 0.02 - by;
      const may =
        by > 0
          ? isWithin(all, x, y) || distanceToLines(all, x, y) < by + 0.02
          : isWithin(closed, x, y) && distanceToLines(closed, x, y) > -by - 0.02;
      if ((must && !covers) || (covers && !may)) wrong.push(`${x.toFixed(3)} ${y.toFixed(3)}`);
    }
  return wrong;
}

test.each<[string, string, number]>([
  ['an 8 whose loops are as large as each other', 'M0 0L10 10L10 0L0 10Z', 0.4],
  ['an 8 that touches itself along an edge', 'M10 15L15 5L10 5L0 20L10 0Z', 0.36],
  ['a curve that runs back along its own line', 'M0 5L5 10L15 10L10 15L10 5C0 5 15 5 15 5L0 15L10 5Z', 0.55],
  ['a tip whose sides lie across each other at its end', 'M0 0C0 5 5 5 5 5C5 5 0 5 5 0Z', 1],
  ['handles that lie on their ends', 'M0 5C0 0 0 5 5 0C5 0 0 5 0 5L0 5L5 0C5 5 0 5 5 0L0 5Z', 0.044],
  [
    'a tip that bends more tightly than the distance',
    'M12.5 12.5C16 19 7 11 15.5 15.5L5 3.5L7.5 12.5L5.5 19C8 3 15 7 16 2Z',
    0.35,
  ],
])('%s grows, and shrinks, and loses nothing', (_, data, by) => {
  for (const rule of ['evenodd', 'nonzero'] as const)
    for (const distance of [by, -by, by / 4]) expect(wrongPoints(pathFrom(data), rule, distance)).toEqual([]);
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
