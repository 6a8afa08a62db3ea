import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { offsetOutlines, plainOffset } from '../geometry/offsets/offset.ts';
import { flatten, signedArea } from '../geometry/paths/flatten.ts';
import { type Path, PathBuilder, pathBounds } from '../geometry/paths/path.ts';
import { guessedFits } from '../recipes/book/figures.ts';
import { build } from './build.ts';
import { builders } from './list.ts';

/** The line that the beam goes along, half a kerf outside of a part, and what it leaves of that. */
function burntAway(path: Path, kerf: number): Path {
  const outside = { ...plainOffset, by: kerf / 2, join: 'miter' as const, miterLimit: 10 };
  const along = offsetOutlines([{ path, rule: 'evenodd' }], outside);
  return offsetOutlines([{ path: along, rule: 'evenodd' }], { ...plainOffset, by: -kerf / 2, join: 'round' });
}

/** Of what is cut, the closed rings: slits and dashes leave nothing. */
const closedOf = (path: Path): Path => {
  const builder = new PathBuilder();
  for (const { points, closed } of flatten(path, 1e-4)) if (closed) builder.ring(points);
  return builder.build();
};

const areaOf = (path: Path) => {
  const areas = flatten(path, 1e-4).map((line) => Math.abs(signedArea(line)));
  return areas.slice(1).reduce((sum, hole) => sum - hole, areas[0]);
};

/** The corners that a part's stock goes round, where a beam leaves a fillet: of an outline those against its turn. */
function innerCorners(path: Path): number {
  return flatten(path, 1e-4).reduce((sum, { points }, ring) => {
    const count = points.length / 2;
    const orientation = Math.sign(signedArea({ points, closed: true }));
    const at = (i: number) => [points[2 * ((i + count) % count)], points[2 * ((i + count) % count) + 1]];
    for (let i = 0; i < count; i++) {
      const [[px, py], [x, y], [nx, ny]] = [at(i - 1), at(i), at(i + 1)];
      const turn = ((x - px) * (ny - y) - (y - py) * (nx - x)) * orientation;
      const isInner = ring === 0 ? turn < -1e-9 : turn > 1e-9;
      if (isInner) sum++;
    }
    return sum;
  }, 0);
}

test.each(['box', 'grid'])(
  '%s: with the kerf applied and burnt away again, parts are what was asked for, but for fillets in inner corners',
  (word) => {
    const builder = builders.find((known) => known.word === word) as (typeof builders)[number];
    const kerfs = fc.double({ min: 0.05, max: 0.3, noNaN: true });
    const numbers = fc.record({
      width: fc.double({ min: 50, max: 200, noNaN: true }),
      depth: fc.double({ min: 50, max: 200, noNaN: true }),
      dividersAcross: fc.integer({ min: 0, max: 2 }),
      lid: fc.constantFrom('none', 'closed', 'lifts', 'slides', 'hinged'),
    });
    fc.assert(
      fc.property(numbers, fc.double({ min: 2, max: 6, noNaN: true }), kerfs, (typed, thicknessMm, kerf) => {
        const answer = build(builder, typed, { thicknessMm, plays: guessedFits });
        if (!answer.ok) return;
        for (const { cut } of answer.built.parts) {
          const burnt = burntAway(cut, kerf);
          const [was, is] = [pathBounds(cut), pathBounds(burnt)];
          for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(is[side]).toBeCloseTo(was[side], 3);
          const fillets = innerCorners(cut) * (1 - Math.PI / 4) * (kerf / 2) ** 2;
          expect(areaOf(burnt) - areaOf(cut) - fillets).toBeCloseTo(0, 1);
        }
      }),
      { numRuns: 25 },
    );
  },
);

/** An outline for builders that work on the operator's own. */
const plate = new PathBuilder().ring([-50, -40, 50, -40, 50, 40, -50, 40]).build();

test.each(builders.map(({ word }) => word))(
  '%s: what the beam leaves of its usual parts has their bounds and their area',
  (word) => {
    const builder = builders.find((known) => known.word === word) as (typeof builders)[number];
    const plates = (builder.takes ?? []).map((name) => ({ name, path: plate }));
    const answer = build(builder, {}, { thicknessMm: word === 'folded' ? 0.5 : 3, plays: guessedFits }, plates);
    if (!answer.ok) throw new Error(answer.troubles[0].message);
    for (const { cut } of answer.built.parts) {
      const path = closedOf(cut);
      const burnt = burntAway(path, 0.16);
      const [was, is] = [pathBounds(path), pathBounds(burnt)];
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(is[side]).toBeCloseTo(was[side], 2);
      expect(areaOf(burnt) / areaOf(path)).toBeCloseTo(1, 3);
    }
  },
);
