import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import type { usualNumbers } from '../fields.ts';
import { depthIn, type Form } from '../forms.ts';
import { layeredBase } from './layered-base.ts';

type BaseNumbers = ReturnType<typeof usualNumbers<typeof layeredBase.fields>>;
const answerTo = (numbers: Partial<BaseNumbers>, thicknessMm = 3) =>
  build(layeredBase, numbers, { thicknessMm, plays: guessedFits });

function baseOf(numbers: Partial<BaseNumbers>, thicknessMm = 3): Built {
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

const areas = ({ cut }: Built['parts'][number]) => flatten(cut, 1e-6).map((line) => Math.abs(signedArea(line)));
const nominal = { fit: 'typed', play: 0 } as const;
const square = { corner: 0, pins: 'none', ...nominal } as const;

describe('a layered base', () => {
  const numbers = fc.record({
    outline: fc.constantFrom('rectangle', 'round'),
    width: fc.double({ min: 40, max: 300, noNaN: true }),
    depth: fc.double({ min: 40, max: 300, noNaN: true }),
    corner: fc.double({ min: 0, max: 30, noNaN: true }),
    layers: fc.integer({ min: 1, max: 5 }),
    pocket: fc.constantFrom('none', 'rectangle', 'round'),
    pocketWidth: fc.double({ min: 5, max: 100, noNaN: true }),
    pocketDepth: fc.double({ min: 5, max: 100, noNaN: true }),
    pocketLayers: fc.integer({ min: 1, max: 4 }),
    fit: fc.constant('typed'),
    play: fc.double({ min: -0.1, max: 1, noNaN: true }),
    channel: fc.constantFrom('none', 'front', 'back', 'left', 'right'),
    channelWidth: fc.double({ min: 0.5, max: 20, noNaN: true }),
    channelFrom: fc.integer({ min: 1, max: 3 }),
    channelTo: fc.integer({ min: 1, max: 5 }),
    plate: fc.boolean(),
    plateWidth: fc.double({ min: 5, max: 120, noNaN: true }),
    plateDepth: fc.double({ min: 5, max: 120, noNaN: true }),
    pins: fc.constantFrom('none', 'all', 'hidden'),
    pinWidth: fc.double({ min: 0.5, max: 5, noNaN: true }),
    pinInset: fc.double({ min: 2, max: 15, noNaN: true }),
  });

  test('goes together whatever its numbers are, or says which is wrong, and what would do', () => {
    const seen = { made: 0, plates: 0, channels: 0, taken: 0 };
    fc.assert(
      fc.property(numbers, fc.double({ min: 1, max: 6, noNaN: true }), (typed, thickness) => {
        const answer = answerTo(typed as BaseNumbers, thickness);
        if (answer.ok) {
          seen.made++;
          if (typed.plate) seen.plates++;
          if (typed.channel !== 'none') seen.channels++;
          expect(checkAssembly(answer.built.assembly)).toMatchObject({ goesTogether: true });
          return;
        }
        for (const { message, nearest, field } of answer.troubles) {
          expect(message).toMatch(/^[A-Z].*\.$/);
          if (nearest === null || answer.troubles.length > 1) continue;
          seen.taken++;
          const again = answerTo({ ...typed, [field]: nearest } as BaseNumbers, thickness);
          if (!again.ok) expect(again.troubles.map((trouble) => trouble.message)).not.toContain(message);
        }
      }),
      { numRuns: 2000 },
    );
    expect(seen.made).toBeGreaterThan(90);
    expect(seen.plates).toBeGreaterThan(10);
    expect(seen.channels).toBeGreaterThan(30);
    expect(seen.taken).toBeGreaterThan(50);
  });

  test('has its pocket in the upper layers, wider than what goes in by the fit', () => {
    const { parts } = baseOf({ ...square, layers: 3, pocketWidth: 60, pocketDepth: 40, pocketLayers: 2, play: 0.2 });
    expect(parts.map(({ name }) => name)).toEqual(['Layer 1, lowest', 'Layer 2', 'Layer 3, top']);
    const pocket = expect.closeTo(60.2 * 40.2, 9);
    expect(parts.map(areas)).toEqual([[9600], [9600, pocket], [9600, pocket]]);
  });

  test.each(['front', 'back', 'left', 'right'] as const)(
    'has a channel to the %s that is one line with its pocket',
    (channel) => {
      const { parts } = baseOf({ ...square, channel, channelWidth: 8, channelFrom: 1, channelTo: 2 });
      const along = channel === 'front' || channel === 'back';
      // From the pocket, 60 × 40, to the edge, 120 × 80.
      const length = along ? 20 : 30;
      expect(parts.map(areas)).toEqual([
        [expect.closeTo(9600 - 8 * (along ? 40 : 60), 9)],
        [expect.closeTo(9600 - 2400 - 8 * length, 9)],
        [9600, 2400],
      ]);
      // What is free at the edge is where it was asked for.
      const [{ points }] = flatten(parts[0].cut);
      const [x, y] = { front: [0, 40], back: [0, -40], left: [-60, 0], right: [60, 0] }[channel];
      const near = Array.from({ length: points.length / 2 }, (_, i) =>
        Math.hypot(points[2 * i] - x, points[2 * i + 1] - y),
      );
      expect(near.filter((mm) => Math.abs(mm - 4) < 1e-9)).toHaveLength(2);
    },
  );

  test('round, with a round pocket and a channel, is exact to the flattening of its arcs', () => {
    const { parts } = baseOf({
      ...square,
      outline: 'round',
      width: 100,
      pocket: 'round',
      pocketWidth: 60,
      channel: 'left',
      channelWidth: 10,
      channelFrom: 2,
      channelTo: 3,
    });
    // What a strip of 10 takes between two circles of 30 and of 50: integral of their difference.
    const under = (r: number) => 5 * Math.sqrt(r * r - 25) + r * r * Math.asin(5 / r);
    const ring = Math.PI * (50 ** 2 - 30 ** 2);
    expect(areas(parts[1])[0]).toBeCloseTo(ring - (under(50) - under(30)), 1);
    expect(areas(parts[1])).toHaveLength(1);
    expect(pathBounds(parts[1].cut).maxX).toBeCloseTo(50, 9);
    expect(pathBounds(parts[1].cut).minX).toBeCloseTo(-Math.sqrt(50 ** 2 - 25), 9);
  });

  test('has a plate that lies in the top layer, with the play at each of its sides', () => {
    const { parts } = baseOf({ ...square, plate: true, plateWidth: 80, plateDepth: 55, play: 0.3 });
    expect(areas(parts[2])[1]).toBeCloseTo(80.3 * 55.3, 9);
    expect(areas(parts[3])).toEqual([expect.closeTo(80 * 55, 9)]);
  });

  test('has pin holes where they are asked for, of their width, as far from the edges', () => {
    const pins = (numbers: Partial<BaseNumbers>) =>
      baseOf({ pocket: 'none', ...numbers }).parts.map(({ cut }) => flatten(cut).length - 1);
    expect(pins({ pins: 'all' })).toEqual([4, 4, 4]);
    expect(pins({ pins: 'hidden' })).toEqual([4, 4, 0]);
    const [{ cut }] = baseOf({ pocket: 'none', pins: 'all', pinWidth: 3, pinInset: 8, width: 120, depth: 80 }).parts;
    const [, { points }] = flatten(cut);
    const xs = [...points].filter((_, i) => i % 2 === 0);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([60 - 8 - 1.5, 60 - 8 + 1.5].map((x) => expect.closeTo(x, 6)));
  });
});

test('how deep a place lies in a form', () => {
  const form: Form = { kind: 'rectangle', halfX: 10, halfY: 6, corner: 2 };
  const places = [
    [0, 0],
    [9, 0],
    [11, 0],
    [10, 6],
    [8, 4],
    [13, 10],
  ] as const;
  const corner = 2 - Math.hypot(2, 2);
  expect(places.map(([x, y]) => depthIn(form, x, y))).toEqual(
    [6, 1, -1, corner, 2, 2 - Math.hypot(5, 6)].map((mm) => expect.closeTo(mm, 9)),
  );
  expect(depthIn({ kind: 'round', radius: 5 }, 3, 4.5)).toBeCloseTo(5 - Math.hypot(3, 4.5), 12);
});

test.each<[string, Partial<BaseNumbers>, { field: string; nearest: unknown }]>([
  ['a pocket as wide as the base', { pocketWidth: 118 }, { field: 'pocketWidth', nearest: 116.85 }],
  ['more pockets than layers', { pocketLayers: 5 }, { field: 'pocketLayers', nearest: 3 }],
  ['a corner beyond the middle', { corner: 50, pins: 'none' }, { field: 'corner', nearest: 40 }],
  ['a channel above the base', { channel: 'left', channelFrom: 2, channelTo: 9 }, { field: 'channelTo', nearest: 3 }],
  ['a channel wider than the pocket', { channel: 'left', channelWidth: 50 }, { field: 'channelWidth', nearest: 40.05 }],
  ['a plate that falls in', { plate: true, plateWidth: 61 }, { field: 'plateWidth', nearest: 63 }],
  ['a plate that is pressed in', { plate: true, fit: 'typed', play: -0.1 }, { field: 'play', nearest: 0 }],
])('%s is refused with what would do', (_, numbers, trouble) => {
  expect(answerTo(numbers)).toMatchObject({ ok: false, troubles: [trouble] });
  expect(answerTo({ ...numbers, [trouble.field]: trouble.nearest }).ok).toBe(true);
});
