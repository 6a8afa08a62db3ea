import { expect, test } from '@jest/globals';
import {
  borderAround,
  combineOutlines,
  flatten,
  offsetOutlines,
  type Path,
  plainOffset,
  pointAt,
  subpathsOf,
} from '@lambent/core/geometry';
import { setText, usualText } from '@lambent/core/text';
import fc from 'fast-check';
import { distanceFromLines } from '../../core/src/fixtures/line-distance.ts';
import { shippedTools } from '../src/index.ts';

const { fonts } = shippedTools();
const families = fonts.families.filter((family) => !family.startsWith('Single'));
const outlineOf = (words: string, family: string, height: number) => {
  const { path } = setText({ ...usualText, words, family, height }, fonts);
  return combineOutlines([{ path, rule: 'nonzero' }], 'unite');
};

/** How far the edge of one path is from another, at places along each of its segments. */
function distancesFrom(source: Path, path: Path): number[] {
  const away = distanceFromLines(flatten(source, 1e-3));
  return [...subpathsOf(path)].flatMap(({ segments }) =>
    segments.flatMap((segment) =>
      [0, 0.3, 0.5, 0.8].map((t) => {
        const { x, y } = pointAt(segment, t);
        return away(x, y);
      }),
    ),
  );
}

test('letters of every face grow and shrink by the distance, to 0.01 mm along the whole edge', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...'ABKMQRSWaegkmqsxz0268&@%ß§æø'), { minLength: 1, maxLength: 3 }),
      fc.constantFrom(...families),
      fc.constantFrom(3, 8, 30),
      fc.constantFrom(-0.11181366418488325, -0.5, 0.05, 0.4, 2),
      (letters, family, height, by) => {
        const source = outlineOf(letters.join(''), family, height);
        const made = offsetOutlines([{ path: source, rule: 'nonzero' }], { ...plainOffset, by });
        if (by > 0) expect(made.verbs.length).toBeGreaterThan(0);
        const away = distancesFrom(source, made).map((distance) => Math.abs(distance - Math.abs(by)));
        expect(Math.max(0, ...away)).toBeLessThan(0.01);
      },
    ),
    { numRuns: 40, examples: [[['g', 'k'], 'Saira Stencil One', 3, -0.11181366418488325]] },
  );
});

test('a border around letters keeps its distance, and has no spikes', () => {
  for (const [words, family, height] of [
    ['o0PWAA', 'Dancing Script', 30],
    ['Kingfisher', 'Dancing Script', 20],
  ] as const) {
    const source = outlineOf(words, family, height);
    const settings = { by: 1, bridgeGap: 0, bridgeWidth: 1, inletWidth: 1, innerRadius: 0, loop: null };
    const { path } = borderAround([{ path: source, rule: 'nonzero' }], settings);
    expect(Math.min(...distancesFrom(source, path))).toBeGreaterThan(0.99);
    // Nowhere does it turn back nearly along itself, as at the tip of a spike.
    for (const { points } of flatten(path, 1e-3)) {
      const count = points.length / 2;
      for (let i = 0; i < count; i++) {
        const [a, b, c] = [i, (i + 1) % count, (i + 2) % count].map((k) => [points[2 * k], points[2 * k + 1]]);
        const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
        expect(ux * vx + uy * vy).toBeGreaterThan(-0.9 * Math.hypot(ux, uy) * Math.hypot(vx, vy));
      }
    }
  }
});
