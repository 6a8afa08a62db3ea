import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, polylineLength, signedArea } from '../../geometry/paths/flatten.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import type { usualNumbers } from '../fields.ts';
import { foldedBox } from './folded-box.ts';

type FoldedNumbers = ReturnType<typeof usualNumbers<typeof foldedBox.fields>>;
const answerTo = (numbers: Partial<FoldedNumbers>, thicknessMm = 0.5) =>
  build(foldedBox, numbers, { thicknessMm, plays: guessedFits });

function boxOf(numbers: Partial<FoldedNumbers>, thicknessMm = 0.5): Built {
  const answer = answerTo(numbers, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly)).toEqual({
    goesTogether: true,
    overlaps: [],
    wrongJoints: [],
    intruders: [],
    gapMm3: 0,
  });
  return answer.built;
}

const sizeOf = ({ cut }: Built['parts'][number]) => {
  const { minX, minY, maxX, maxY } = pathBounds(cut);
  return [maxX - minX, maxY - minY];
};
const near = (values: readonly number[]) => values.map((value) => expect.closeTo(value, 9));

describe('a folded box', () => {
  const numbers = fc.record({
    measured: fc.constantFrom('inside', 'outside'),
    shape: fc.constantFrom('tray', 'lid', 'tuck'),
    width: fc.double({ min: 10, max: 300, noNaN: true }),
    depth: fc.double({ min: 10, max: 300, noNaN: true }),
    height: fc.double({ min: 5, max: 120, noNaN: true }),
    lidHeight: fc.double({ min: 3, max: 120, noNaN: true }),
    flap: fc.double({ min: 3, max: 40, noNaN: true }),
    fit: fc.constant('typed'),
    play: fc.double({ min: 0, max: 1, noNaN: true }),
    tabWidth: fc.double({ min: 2, max: 30, noNaN: true }),
    tabAngle: fc.double({ min: 0, max: 60, noNaN: true }),
    window: fc.boolean(),
    windowRim: fc.double({ min: 1, max: 40, noNaN: true }),
    bends: fc.constantFrom('score', 'dashes'),
    bendLine: fc.double({ min: 0, max: 100, noNaN: true }),
  });

  test('goes together whatever its numbers are, or says which is wrong, and what would do', () => {
    const seen = { made: 0, taken: 0 };
    fc.assert(
      fc.property(numbers, fc.double({ min: 0.2, max: 2, noNaN: true }), (typed, thickness) => {
        const answer = answerTo(typed as FoldedNumbers, thickness);
        if (answer.ok) {
          seen.made++;
          const { inside, outside } = answer.built.sizes;
          expect(typed.measured === 'inside' ? inside : outside).toEqual(
            near([typed.width, typed.depth, typed.height]),
          );
          expect(checkAssembly(answer.built.assembly)).toMatchObject({ goesTogether: true });
          for (const { cut } of answer.built.parts) expect(pathBounds(cut).maxX).toBeGreaterThan(0);
          return;
        }
        for (const { message, nearest, field } of answer.troubles) {
          expect(message).toMatch(/^[A-Z].*\.$/);
          if (nearest === null || answer.troubles.length > 1) continue;
          seen.taken++;
          const again = answerTo({ ...typed, [field]: nearest } as FoldedNumbers, thickness);
          if (!again.ok) expect(again.troubles.map((trouble) => trouble.field)).not.toContain(field);
        }
      }),
      { numRuns: 2000 },
    );
    expect(seen.made).toBeGreaterThan(100);
    expect(seen.taken).toBeGreaterThan(50);
  });

  test('has the net that its sizes make: worked out by hand', () => {
    const tray = boxOf({ shape: 'tray', width: 90, depth: 60, height: 30, tabWidth: 12, tabAngle: 0 }, 0.5);
    // Side to side: two walls of 30 and a bottom of 90 + 2 tabs, and a quarter on each side of the four bends … .
    expect(sizeOf(tray.parts[0])).toEqual(near([90 + 2 * 0.5 + 2 * 30 + 4 * 0.25, 60 + 2 * 30 + 4 * 0.25]));
    // … as long as front and back with their tabs: 90 + 2 × 12, and four times a quarter.
    const [{ points }] = flatten(tray.parts[0].cut);
    const tabEnds = [...points].filter((x, i) => i % 2 === 0 && Math.abs(x) > 57 && Math.abs(x) < 58);
    expect(new Set(tabEnds.map((x) => Math.abs(x).toFixed(9)))).toEqual(new Set([((90 + 24) / 2 + 0.5).toFixed(9)]));
    // Eight bends: four walls, four tabs.
    const bends = flatten(tray.parts[0].score).map((line) => polylineLength(line));
    // A tab begins and ends half a card from what is above and below it.
    const tab = 30 + 0.25 - 0.25 - 0.5;
    expect(bends.sort((a, b) => a - b)).toEqual(near([tab, tab, tab, tab, 60.5, 60.5, 90.5, 90.5]));
  });

  test('has a lid that clears the base by its card and the play, at every side', () => {
    const play = 0.3;
    const { parts, sizes } = boxOf({
      shape: 'lid',
      width: 90,
      depth: 60,
      height: 30,
      lidHeight: 20,
      fit: 'typed',
      play,
    });
    expect(parts.map(({ name }) => name)).toEqual(['Base', 'Lid']);
    expect(sizes.outside).toEqual(near([90 + 8 * 0.5 + play, 60 + 4 * 0.5 + play, 31]));
    const [base, lid] = parts.map(sizeOf);
    // The lid’s walls are 20 high, the base’s 30; from front to back it is two cards and the play wider.
    expect(lid[1] - base[1]).toBeCloseTo(2 * 0.5 + play - 2 * 10, 9);
    expect(lid[0] - base[0]).toBeCloseTo(4 * 0.5 + play - 2 * 10, 9);
  });

  test('of one piece has a top as deep as the inside and the flap, which goes in behind the front', () => {
    const { parts } = boxOf({ shape: 'tuck', width: 90, depth: 60, height: 30, flap: 15 });
    expect(parts).toHaveLength(1);
    // Front, bottom, back, top and flap one after the other, with two quarters for each of four bends, and the flap’s card.
    expect(sizeOf(parts[0])[1]).toBeCloseTo(30 + 60 + 30 + 60 + 15 + 8 * 0.25 + 0.5, 9);
  });

  test('has a window where it is asked for, and none in a tray', () => {
    const holes = (numbers: Partial<FoldedNumbers>) =>
      boxOf({ window: true, windowRim: 10, ...numbers }).parts.map(({ cut }) =>
        flatten(cut)
          .slice(1)
          .map((line) => Math.abs(signedArea(line))),
      );
    expect(holes({ shape: 'tray' })).toEqual([[]]);
    expect(holes({ shape: 'tuck' })).toEqual([[expect.closeTo(70 * 40, 9)]]);
    expect(holes({ shape: 'lid', fit: 'typed', play: 0 })).toEqual([[], [expect.closeTo(72 * 41, 9)]]);
  });

  test('is cut in dashes at its bends where that is asked for, as much as dash and bridge say', () => {
    const scored = boxOf({ shape: 'tray' }).parts[0];
    const dashed = boxOf({ shape: 'tray', bends: 'dashes', dash: 4, bridge: 2 }).parts[0];
    const lengthOf = (path: typeof scored.cut) => flatten(path).reduce((sum, line) => sum + polylineLength(line), 0);
    expect(dashed.score.verbs).toHaveLength(0);
    expect(lengthOf(dashed.cut) - lengthOf(scored.cut)).toBeCloseTo((lengthOf(scored.score) * 2) / 3, 9);
  });
});

test.each<[string, Partial<FoldedNumbers>, { field: string; nearest: unknown }]>([
  ['a lid with no clearance', { fit: 'typed', play: -0.2 }, { field: 'play', nearest: 0 }],
  ['a lid that is pressed on', { fit: 'press' }, { field: 'fit', nearest: 'sliding' }],
  ['a lid higher than its base', { lidHeight: 40 }, { field: 'lidHeight', nearest: 30.5 }],
  ['tabs that meet', { tabWidth: 40, tabAngle: 0 }, { field: 'tabWidth', nearest: 30 }],
  ['tabs that come to a point', { tabAngle: 58 }, { field: 'tabAngle', nearest: 37 }],
  ['a window of nothing', { window: true, windowRim: 40 }, { field: 'windowRim', nearest: 29 }],
  ['a flap as deep as the box', { shape: 'tuck', flap: 31 }, { field: 'flap', nearest: 29.5 }],
  ['smaller than its card', { measured: 'outside', width: 4 }, { field: 'width', nearest: 7.15 }],
])('%s is refused with what would do', (_, numbers, trouble) => {
  expect(answerTo(numbers)).toMatchObject({ ok: false, troubles: [trouble] });
  expect(answerTo({ ...numbers, [trouble.field]: trouble.nearest }).ok).toBe(true);
});
