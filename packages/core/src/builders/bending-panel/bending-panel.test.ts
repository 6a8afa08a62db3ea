import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, polylineLength, signedArea } from '../../geometry/paths/flatten.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import type { usualNumbers } from '../fields.ts';
import { reportOfBuilt } from '../report.ts';
import { bendingPanel } from './bending-panel.ts';
import { leastRows, linkLength, turnPerLink } from './slits.ts';

type BendNumbers = ReturnType<typeof usualNumbers<typeof bendingPanel.fields>>;
const answerTo = (numbers: Partial<BendNumbers>, thicknessMm = 3) =>
  build(bendingPanel, numbers, { thicknessMm, plays: guessedFits });

function bentOf(numbers: Partial<BendNumbers>, thicknessMm = 3): Built {
  const answer = answerTo(numbers, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly)).toMatchObject({ goesTogether: true });
  return answer.built;
}

const note = ({ notes }: Built, label: string) => notes?.find((entry) => entry.label === label)?.value;
const slitsOf = ({ parts }: Built) => flatten(parts[0].cut).slice(1);
const xOf = ({ points }: { points: Float64Array }) => points[0];

describe('a bending panel', () => {
  test('is as long as the middle of its stock, with a row of slits as often as was asked for', () => {
    const panel = bentOf({
      panelWidth: 75,
      before: 30,
      after: 20,
      angle: 90,
      radius: 25,
      sizes: 'typed',
      slit: 22,
      bridge: 3,
      spacing: 3,
      give: 5,
    });
    const arc = (Math.PI / 2) * 26.5;
    expect(note(panel, 'Length when flat')).toBeCloseTo(50 + arc, 9);
    const { minX, maxX, minY, maxY } = pathBounds(panel.parts[0].cut);
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(50 + arc, 9), 75]);
    // 41.63 mm at 3 mm come to 14 rows: seven of three slits, and seven of four, two of which are halves.
    const slits = slitsOf(panel);
    expect(note(panel, 'Slits')).toBe(7 * 3 + 7 * 4);
    expect(slits).toHaveLength(7 * 3 + 7 * 4);
    const rows = [...new Set(slits.map((slit) => xOf(slit).toFixed(6)))].map(Number);
    expect(rows).toEqual(
      Array.from({ length: 14 }, (_, i) => expect.closeTo(-(50 + arc) / 2 + 30 + ((i + 0.5) * arc) / 14, 6)),
    );
    // A row of three: 75 less three bridges. A shifted one: the same.
    const first = slits.filter((slit) => Math.abs(xOf(slit) - rows[0]) < 1e-6).map(polylineLength);
    expect(first).toEqual([22, 22, 22].map((mm) => expect.closeTo(mm, 9)));
    const second = slits.filter((slit) => Math.abs(xOf(slit) - rows[1]) < 1e-6).map(polylineLength);
    expect(second).toEqual([11, 22, 22, 11].map((mm) => expect.closeTo(mm, 9)));
  });

  test('bent has the size that its radius and its straight ends give', () => {
    const { sizes, assembly } = bentOf({ panelWidth: 60, before: 30, after: 20, angle: 90, radius: 25 });
    expect(sizes.outside).toEqual([30 + 25 + 3, 20 + 25 + 3, 60].map((mm) => expect.closeTo(mm, 6)));
    // Flat and bent have the same volume: what the inside loses the outside gains.
    const [{ outlines, depth }] = assembly.solids;
    const area = Math.abs(signedArea(outlines[0]));
    expect((area * depth) / (60 * 3 * (50 + (Math.PI / 2) * 26.5))).toBeCloseTo(1, 3);
  });

  test('never turns a link further than its fibres give, and says the smallest radius', () => {
    const seen = { made: 0, refused: 0 };
    const numbers = fc.record({
      panelWidth: fc.double({ min: 10, max: 300, noNaN: true }),
      angle: fc.double({ min: 5, max: 350, noNaN: true }),
      radius: fc.double({ min: 1, max: 120, noNaN: true }),
      sizes: fc.constantFrom('worked', 'typed'),
      slit: fc.double({ min: 5, max: 60, noNaN: true }),
      bridge: fc.double({ min: 1, max: 6, noNaN: true }),
      spacing: fc.double({ min: 1, max: 6, noNaN: true }),
      give: fc.double({ min: 0.5, max: 5, noNaN: true }),
      pattern: fc.constantFrom('straight', 'wave', 'cross'),
    });
    fc.assert(
      fc.property(numbers, fc.double({ min: 1, max: 6, noNaN: true }), (typed, thickness) => {
        const answer = answerTo(typed as BendNumbers, thickness);
        if (!answer.ok) {
          const [{ field, nearest, message }] = answer.troubles;
          expect(message).toMatch(/^[A-Z0-9].*\.$/);
          if (field !== 'radius' || nearest === null) return;
          seen.refused++;
          expect(answerTo({ ...typed, radius: nearest } as BendNumbers, thickness).ok).toBe(true);
          return;
        }
        seen.made++;
        const { built } = answer;
        const rows = [
          ...new Set(
            slitsOf(built)
              .filter(({ points }) => points.length > 4 || points[0] === points[2])
              .map((slit) => xOf(slit).toFixed(6)),
          ),
        ].map(Number);
        const first =
          slitsOf(built).filter((slit) => Math.abs(xOf(slit) - rows[0]) < 1e-6).length /
          (typed.pattern === 'cross' ? 1 : 1);
        const isTyped = typed.sizes === 'typed';
        const [bridge, spacing] = isTyped ? [typed.bridge, typed.spacing] : [thickness, thickness];
        const link = linkLength(typed.panelWidth, first, bridge);
        const turn = turnPerLink(spacing, thickness, typed.give / 100);
        expect(leastRows((typed.angle * Math.PI) / 180, link, turn)).toBeLessThanOrEqual(rows.length);
      }),
      { numRuns: 1000 },
    );
    expect(seen.made).toBeGreaterThan(50);
    expect(seen.refused).toBeGreaterThan(50);
  });

  test('with waves or crosses has slits that do not meet', () => {
    for (const pattern of ['wave', 'cross'] as const) {
      const panel = bentOf({ pattern, sizes: 'typed', give: 6 });
      const spacing = ((Math.PI / 2) * 26.5) / 14;
      const beyond = slitsOf(panel).map(({ points }) => {
        const xs = [...points].filter((_, i) => i % 2 === 0);
        return Math.max(...xs) - Math.min(...xs);
      });
      // To both sides less than half of what lies between two rows.
      expect(Math.max(...beyond)).toBeGreaterThan(0.2 * spacing);
      expect(Math.max(...beyond)).toBeLessThan(spacing * 0.7);
    }
  });
});

describe('a box with round corners', () => {
  test.each([3, 4])('is built of %i mm stock by its usual numbers', (thickness) => {
    expect(bentOf({ shape: 'box' }, thickness).parts).toHaveLength(2);
  });

  test('goes together whatever its numbers are, or says which is wrong', () => {
    let made = 0;
    const numbers = fc.record({
      shape: fc.constant('box'),
      measured: fc.constantFrom('inside', 'outside'),
      width: fc.double({ min: 40, max: 300, noNaN: true }),
      depth: fc.double({ min: 40, max: 300, noNaN: true }),
      height: fc.double({ min: 20, max: 120, noNaN: true }),
      closed: fc.boolean(),
      radius: fc.double({ min: 10, max: 60, noNaN: true }),
      fit: fc.constant('typed'),
      play: fc.double({ min: -0.1, max: 0.6, noNaN: true }),
      give: fc.double({ min: 2, max: 8, noNaN: true }),
    });
    fc.assert(
      fc.property(numbers, fc.double({ min: 1, max: 5, noNaN: true }), (typed, thickness) => {
        const answer = answerTo(typed as BendNumbers, thickness);
        if (!answer.ok) {
          const [{ field, nearest }] = answer.troubles;
          if (nearest === null || answer.troubles.length > 1) return;
          const again = answerTo({ ...typed, [field]: nearest } as BendNumbers, thickness);
          if (!again.ok) expect(again.troubles.map((trouble) => trouble.field)).not.toContain(field);
          return;
        }
        made++;
        const { inside, outside } = answer.built.sizes;
        const size = [typed.width, typed.depth, typed.height].map((mm) => expect.closeTo(mm, 9));
        expect(typed.measured === 'inside' ? inside : outside).toEqual(size);
        expect(checkAssembly(answer.built.assembly)).toMatchObject({ goesTogether: true });
      }),
    );
    expect(made).toBeGreaterThan(20);
  });

  test('has a wall as long as its middle line, and notches where the tabs of its bottom come', () => {
    const box = bentOf({ shape: 'box', width: 120, depth: 80, height: 50, radius: 25, fit: 'typed', play: 0.1 });
    const length = 2 * 70 + 2 * 30 + 2 * Math.PI * 26.5;
    expect(note(box, 'Length when flat')).toBeCloseTo(length, 9);
    const [{ points }] = flatten(box.parts[0].cut);
    const notches = Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]])
      .filter(([, y]) => Math.abs(y - (26.5 - 3)) < 1e-9)
      .map(([x]) => x)
      .sort((a, b) => a - b);
    const arc = (Math.PI / 2) * 26.5;
    const side = 35 + arc + 15;
    const middles = [-length / 2 + 17.5, -length / 2 + side, 0, length / 2 - side, length / 2 - 17.5];
    const half = [17.5, 10, 20, 10, 17.5].map((width) => (width + 0.1) / 2);
    expect(notches).toEqual(
      middles.flatMap((middle, i) => [middle - half[i], middle + half[i]]).map((x) => expect.closeTo(x, 9)),
    );
    expect(box.parts.map(({ name }) => name)).toEqual(['Wall', 'Bottom']);
    const { holdsMm3, assembly } = reportOfBuilt(box);
    expect(assembly.goesTogether).toBe(true);
    // A rectangle of 70 × 80, two of 25 × 30, and a circle of 25.
    expect(holdsMm3).toBeCloseTo((70 * 80 + 2 * 25 * 30 + Math.PI * 625) * 50, 6);
  });
});

test.each<[string, Partial<BendNumbers>, { field: string; nearest: unknown }]>([
  ['a radius that breaks the stock', { radius: 2, panelWidth: 30 }, { field: 'radius', nearest: expect.any(Number) }],
  ['slits that are all bridge', { sizes: 'typed', slit: 2, bridge: 3 }, { field: 'slit', nearest: 3.3 }],
  ['corners that leave no straight side', { shape: 'box', depth: 60 }, { field: 'depth', nearest: 74 }],
])('%s is refused with what would do', (_, numbers, trouble) => {
  const answer = answerTo(numbers);
  expect(answer).toMatchObject({ ok: false, troubles: [trouble] });
  if (answer.ok) return;
  const [{ field, nearest }] = answer.troubles;
  const again = answerTo({ ...numbers, [field]: nearest });
  expect(again.ok ? [] : again.troubles.map((entry) => entry.message)).not.toContain(answer.troubles[0].message);
});
