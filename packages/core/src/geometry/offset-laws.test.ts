import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, growArea, sizeOfArea } from './area.ts';
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
