import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Box, boxHeight, boxOf, boxWidth, uniteBoxes } from '../geometry/paths/box.ts';
import { rampsOf } from './ramps.ts';
import { blocksOf, type ScanPace, soonerAngles } from './scan-blocks.ts';
import type { Filled } from './scan-lines.ts';

const [speed, acceleration, spacing] = [100, 1000, 0.5];
/** v² / 2a. */
const runUp = 5;
const pace: ScanPace = {
  settings: { lineSpacingMm: spacing, speedMmPerS: speed },
  acceleration,
  ramps: rampsOf(undefined),
  runUp,
};
const piece = (x: number, y: number, width: number, height = width): Filled => ({
  outlines: [
    {
      points: Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height),
      closed: true,
    },
  ],
  bounds: boxOf(x, y, width, height),
});
const boundsOf = (pieces: readonly Filled[]) => pieces.map(({ bounds }) => bounds).reduce(uniteBoxes);
/** About how long a block takes: each row is run through, sped up to before and braked from after, at half the speed. */
const secondsOf = (box: Box, along: 'x' | 'y' = 'x') => {
  const [long, high] = along === 'x' ? [boxWidth(box), boxHeight(box)] : [boxHeight(box), boxWidth(box)];
  return (high / spacing) * ((long + 4 * runUp) / speed);
};
const total = (blocks: readonly (readonly Filled[])[]) =>
  blocks.reduce((sum, block) => sum + secondsOf(boundsOf(block)), 0);

describe('blocks', () => {
  test('are one where the way between them is shorter than speeding up twice, and two where it is not', () => {
    // Beside each other, 20 mm high: together a row is 4 run-ups shorter, and longer by the gap.
    const beside = (gap: number) => blocksOf([piece(0, 0, 30, 20), piece(30 + gap, 0, 30, 20)], pace);
    expect([beside(runUp), beside(4 * runUp - 0.1), beside(4 * runUp + 0.1)].map(({ length }) => length)).toEqual([
      1, 1, 2,
    ]);
    // Above each other nothing is saved: only those that nearly touch are one.
    const above = (gap: number) => blocksOf([piece(0, 0, 30, 20), piece(0, 20 + gap, 30, 20)], pace);
    expect([above(runUp), above(runUp + 0.1)].map(({ length }) => length)).toEqual([1, 2]);
  });

  test('are gathered by what saves most first, and burn from the top on, then from the left', () => {
    const pieces = [piece(60, 50, 10), piece(0, 50, 10), piece(24, 0, 10), piece(0, 0, 10), piece(200, 0, 10)];
    // The two at the top left are joined, the others are too far apart.
    expect(blocksOf(pieces, pace).map((block) => block.map((own) => pieces.indexOf(own)))).toEqual([
      [2, 3],
      [4],
      [1],
      [0],
    ]);
  });

  test('of very many pieces are one', () => {
    const row = (count: number) => Array.from({ length: count }, (_, i) => piece(0, 40 * i, 10));
    expect(blocksOf(row(160), pace)).toHaveLength(160);
    expect(blocksOf(row(161), pace)).toHaveLength(1);
  });

  const place = fc.integer({ min: 0, max: 300 });
  const size = fc.integer({ min: 1, max: 40 });
  const pieces = fc
    .array(fc.tuple(place, place, size, size), { minLength: 1, maxLength: 12 })
    .map((all) => all.map(([x, y, width, height]) => piece(x, y, width, height)));

  test('have every piece once, and joining two more saves nothing', () => {
    fc.assert(
      fc.property(pieces, (all) => {
        const blocks = blocksOf(all, pace);
        expect(new Set(blocks.flat())).toEqual(new Set(all));
        expect(blocks.flat()).toHaveLength(all.length);
        for (const block of blocks) {
          for (const other of blocks) {
            if (block === other) continue;
            const joined = secondsOf(boundsOf([...block, ...other]));
            expect(joined).toBeGreaterThanOrEqual(secondsOf(boundsOf(block)) + secondsOf(boundsOf(other)) - 1e-9);
          }
        }
      }),
    );
  });

  test('by angle have every piece once, and take no longer than all at either angle', () => {
    const turned = (block: readonly Filled[]) => secondsOf(boundsOf(block), 'y');
    fc.assert(
      fc.property(pieces, (all) => {
        const byAngle = soonerAngles(all, [0, 90], () => pace);
        expect(byAngle.flatMap(({ pieces: own }) => own)).toHaveLength(all.length);
        expect(new Set(byAngle.flatMap(({ pieces: own }) => own))).toEqual(new Set(all));
        const blocksAt90 = (own: readonly Filled[]) =>
          blocksOf(
            own.map((filled) => {
              const { minX, minY, maxX, maxY } = filled.bounds;
              return { filled, bounds: { minX: minY, minY: -maxX, maxX: maxY, maxY: -minX } };
            }),
            pace,
          ).map((block) => block.map(({ filled }) => filled));
        const sum = (own: readonly Filled[], angle: number) =>
          own.length === 0
            ? 0
            : angle === 0
              ? total(blocksOf(own, pace))
              : blocksAt90(own).reduce((s, block) => s + turned(block), 0);
        const found = byAngle.reduce((s, { angle, pieces: own }) => s + sum(own, angle), 0);
        expect(found).toBeLessThanOrEqual(Math.min(sum(all, 0), sum(all, 90)) + 1e-9);
      }),
    );
  });
});
