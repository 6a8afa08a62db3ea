import { describe, expect, test } from '@jest/globals';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { usualSettings } from '../settings/settings.ts';
import { Move, MoveList } from './moves.ts';
import { rasterFill } from './raster.ts';

const bed = { minX: 0, minY: 0, maxX: 600, maxY: 400 };
const ring = (...points: number[]): Polyline => ({ points: Float64Array.from(points), closed: true });

/** What is lit of outlines, row by row: `y: from-to from-to`, in the order it burns. */
function rowsOf(outlines: readonly Polyline[], lineSpacingMm: number, more = {}): string[] {
  const list = new MoveList({ x: 0, y: 0 });
  const settings = {
    ...usualSettings(),
    powerPercent: 10,
    speedMmPerS: 100,
    lineSpacingMm,
    thinParts: 'skip' as const,
    scanTurns: 'same' as const,
    ...more,
  };
  rasterFill(
    list,
    outlines.map((outline) => ({ outlines: [outline], bounds: polylineBounds(outline) })),
    settings,
    { acceleration: 4000 },
    bed,
  );
  const { kinds, xs, ys } = list.build();
  const rows = new Map<number, string[]>();
  kinds.forEach((kind, i) => {
    if (kind === Move.lit) rows.set(ys[i], [...(rows.get(ys[i]) ?? []), `${xs[i - 1]}-${xs[i]}`]);
  });
  return [...rows].map(([y, lit]) => `${y}: ${lit.join(' ')}`);
}

describe('a row that meets a node exactly', () => {
  test('crosses an outline there once where that goes on down, as at the sides of a diamond', () => {
    expect(rowsOf([ring(105, 100, 110, 105, 105, 110, 100, 105)], 2, { bothWays: false })).toEqual([
      '101: 104-106',
      '103: 102-108',
      '105: 100-110',
      '107: 102-108',
      '109: 104-106',
    ]);
  });

  test('does not see a notch that only touches it from above, and parts at one that begins there', () => {
    expect(rowsOf([ring(100, 100, 105, 105, 110, 100, 110, 110, 100, 110)], 2, { bothWays: false })).toEqual([
      '101: 100-101 109-110',
      '103: 100-103 107-110',
      '105: 100-110',
      '107: 100-110',
      '109: 100-110',
    ]);
    expect(rowsOf([ring(100, 100, 110, 100, 110, 110, 105, 105, 100, 110)], 2, { bothWays: false })).toEqual([
      '101: 100-110',
      '103: 100-110',
      '105: 100-105 105-110',
      '107: 100-103 107-110',
      '109: 100-101 109-110',
    ]);
  });

  test('along an edge that lies on it takes the upper one alone', () => {
    // Two squares, one on the other: the rows at 100 + 10·k lie on their edges.
    const [upper, lower] = [ring(100, 95, 110, 95, 110, 105, 100, 105), ring(100, 105, 120, 105, 120, 115, 100, 115)];
    expect(rowsOf([upper, lower], 10, { bothWays: false })).toEqual(['100: 100-110', '110: 100-120']);
  });
});

test('lines go both ways or one, and a thing less high than the spacing gets one line', () => {
  const square = ring(100, 100, 110, 100, 110, 104, 100, 104);
  expect(rowsOf([square], 2)).toEqual(['101: 100-110', '103: 110-100']);
  expect(rowsOf([square], 2, { bothWays: false })).toEqual(['101: 100-110', '103: 100-110']);
  expect(rowsOf([square], 30)).toEqual(['102: 100-110']);
});
