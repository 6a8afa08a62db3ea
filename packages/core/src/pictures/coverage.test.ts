import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaOf, intersectAreas, linesOfArea, sizeOfArea } from '../geometry/areas/area.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { coverageOf } from './coverage.ts';
import type { DotGrid } from './dot-grid.ts';

const grid: DotGrid = { columns: 7, rows: 5, left: -1, top: 2, dotMm: 0.5, rowMm: 0.4 };

const ring = (points: readonly (readonly number[])[], into = new PathBuilder()) => into.ring(points.flat());

/** Each dot's share of what a path encloses, by clipping the one with the other. */
function clippedShares(path: Path): number[] {
  const whole = areaOf(path, 'evenodd');
  return Array.from({ length: grid.columns * grid.rows }, (_, i) => {
    const [x, y] = [grid.left + (i % grid.columns) * grid.dotMm, grid.top + Math.floor(i / grid.columns) * grid.rowMm];
    const dot = ring([
      [x, y],
      [x + grid.dotMm, y],
      [x + grid.dotMm, y + grid.rowMm],
      [x, y + grid.rowMm],
    ]).build();
    return sizeOfArea(intersectAreas(whole, areaOf(dot, 'evenodd'))) / (grid.dotMm * grid.rowMm);
  });
}

const place = fc.tuple(fc.integer({ min: -100, max: 250 }), fc.integer({ min: 200, max: 400 }));
const corner = place.map(([x, y]) => [x / 100, y / 100]);

test('each dot is covered by as much as clipping it leaves, whatever the outline, with its holes', () => {
  fc.assert(
    fc.property(
      fc.array(corner, { minLength: 3, maxLength: 8 }),
      fc.array(corner, { maxLength: 5 }),
      (outer, inner) => {
        const path = (inner.length > 2 ? ring(inner, ring(outer)) : ring(outer)).build();
        const shares = coverageOf(linesOfArea(areaOf(path, 'evenodd')), grid);
        const expected = clippedShares(path);
        // Areas are kept in whole hundredths of a micrometre or so: what they round, they round otherwise when clipped.
        for (const [i, share] of expected.entries()) expect(Math.abs(shares[i] - share)).toBeLessThan(2e-3);
      },
    ),
    { numRuns: 300 },
  );
});

test('a dot is covered by an edge exactly', () => {
  const outline = ring([
    [-1, 2],
    [-0.375, 2],
    [-0.375, 2.2],
    [-1, 2.2],
  ]).build();
  const shares = coverageOf(linesOfArea(areaOf(outline, 'evenodd')), grid);
  expect([...shares.slice(0, 3)]).toEqual([0.5, expect.closeTo(0.125, 6), 0]);
  expect([...shares.slice(7)].every((share) => share === 0)).toBe(true);
  expect(coverageOf([], grid).every((share) => share === 0)).toBe(true);
});
