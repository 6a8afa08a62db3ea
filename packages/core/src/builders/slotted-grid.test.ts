import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, signedArea } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { guessedFits } from '../recipes/book/figures.ts';
import { checkAssembly } from './assembly/assembly.ts';
import { build } from './build.ts';
import type { usualNumbers } from './fields.ts';
import { slottedGrid } from './slotted-grid.ts';

type GridNumbers = ReturnType<typeof usualNumbers<typeof slottedGrid.fields>>;
const answerTo = (numbers: Partial<GridNumbers>, thicknessMm = 3) =>
  build(slottedGrid, numbers, { thicknessMm, plays: guessedFits });
function gridOf(numbers: Partial<GridNumbers>, thicknessMm = 3) {
  const answer = answerTo(numbers, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly).goesTogether).toBe(true);
  return answer.built;
}
const nominal = { fit: 'typed', play: 0, smaller: 0 } as const;

describe('a slotted grid', () => {
  test('goes together whatever its numbers are, or says which is wrong', () => {
    let made = 0;
    const numbers = fc.record({
      width: fc.double({ min: 20, max: 500, noNaN: true }),
      depth: fc.double({ min: 20, max: 500, noNaN: true }),
      height: fc.double({ min: 4, max: 90, noNaN: true }),
      cells: fc.constantFrom('count', 'sizes'),
      cellWidths: fc.array(fc.double({ min: 10, max: 80, noNaN: true }), { minLength: 1, maxLength: 4 }),
      cellDepths: fc.array(fc.double({ min: 10, max: 80, noNaN: true }), { minLength: 1, maxLength: 4 }),
      cellsAcross: fc.integer({ min: 1, max: 8 }),
      cellsDeep: fc.integer({ min: 1, max: 8 }),
      ends: fc.constantFrom('walls', 'comb'),
      overhang: fc.double({ min: 0.5, max: 12, noNaN: true }),
      smaller: fc.double({ min: 0, max: 2, noNaN: true }),
      fit: fc.constant('typed'),
      play: fc.double({ min: -0.1, max: 0.5, noNaN: true }),
    });
    fc.assert(
      fc.property(numbers, fc.double({ min: 1, max: 6, noNaN: true }), (typed, thickness) => {
        const answer = answerTo(typed as GridNumbers, thickness);
        if (!answer.ok) return answer.troubles.every(({ message }) => message.endsWith('.'));
        made++;
        expect(answer.built.sizes.outside[0]).toBeCloseTo(typed.width - typed.smaller, 9);
        return checkAssembly(answer.built.assembly).goesTogether;
      }),
      { numRuns: 2000 },
    );
    expect(made).toBeGreaterThan(400);
  });

  test('has a strip between two cells, equal cells, and strips that fill what cells do not', () => {
    const grid = gridOf({ width: 106, depth: 63, height: 20, cellsAcross: 4, cellsDeep: 2, ...nominal }, 2);
    expect(grid.parts.map(({ name }) => name)).toEqual(['Strip across 1', ...[1, 2, 3].map((i) => `Strip along ${i}`)]);
    const area = grid.parts.reduce((sum, { cut }) => sum + Math.abs(signedArea(flatten(cut)[0])), 0);
    // Cells are (106 − 3 × 2) / 4 = 25 by (63 − 2) / 2 = 30.5.
    expect(2 * area).toBeCloseTo(20 * (106 * 63 - 8 * 25 * 30.5), 6);
    const tops = [...flatten(grid.parts[0].cut)[0].points].filter(
      (_, i, all) => i % 2 === 0 && Math.abs(all[i + 1]) < 1e-9,
    );
    expect(tops.sort((a, b) => a - b)).toEqual([-28, -26, -1, 1, 26, 28].map((x) => expect.closeTo(x, 9)));
  });

  test('of typed sizes has those cells, and one more of what is left over', () => {
    const sizes = { cells: 'sizes', cellWidths: [30, 40], cellDepths: [20], ...nominal } as const;
    const xs = (width: number) => {
      const grid = gridOf({ width, depth: 43, height: 20, ...sizes }, 3);
      const across = grid.parts.find(({ id }) => id === 'across-1');
      const [{ points }] = flatten((across ?? grid.parts[0]).cut);
      return [...points]
        .flatMap((x, i) => (i % 2 === 0 && Math.abs(points[i + 1]) < 1e-9 ? [x + width / 2] : []))
        .sort((a, b) => a - b);
    };
    // Slots after 30 and after 40 more; 24 are left over.
    expect(xs(100)).toEqual([30, 33, 73, 76].map((x) => expect.closeTo(x, 9)));
    // Nothing is left over: one slot.
    expect(xs(73)).toEqual([30, 33].map((x) => expect.closeTo(x, 9)));
    const troubles = (width: number) => answerTo({ width, depth: 43, height: 20, ...sizes });
    expect(troubles(70)).toMatchObject({ ok: false, troubles: [{ field: 'cellWidths', nearest: null }] });
    expect(troubles(77)).toMatchObject({
      ok: false,
      troubles: [{ message: expect.stringContaining('leave 4 mm over') }],
    });
  });

  test('as a comb has a frame that strips go beyond', () => {
    const grid = gridOf({ width: 100, depth: 60, height: 20, cellsAcross: 2, cellsDeep: 1, ends: 'comb', overhang: 6 });
    expect(grid.parts).toHaveLength(5);
    const { minX, maxX } = pathBounds(grid.parts[0].cut);
    expect(maxX - minX).toBeCloseTo(99.5, 9);
    expect(Math.max(...grid.assembly.joints.map(({ region }) => region.max[0]))).toBeLessThan(99.5 - 6 + 3);
  });

  test.each<[string, Partial<GridNumbers>, { field: string; nearest: unknown }]>([
    ['more cells than fit', { width: 40, cellsAcross: 20 }, { field: 'cellsAcross', nearest: 7 }],
    ['no room in a frame', { depth: 20, ends: 'comb' }, { field: 'depth', nearest: 37.5 }],
    ['a single cell', { cellsAcross: 1, cellsDeep: 1 }, { field: 'cellsAcross', nearest: 2 }],
  ])('%s is refused with what would do', (_, numbers, trouble) => {
    const answer = answerTo(numbers);
    expect(answer).toMatchObject({ ok: false, troubles: [trouble] });
    expect(answerTo({ ...numbers, [trouble.field]: trouble.nearest }).ok).toBe(true);
  });
});
