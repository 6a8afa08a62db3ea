import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { pathBounds } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import type { Vec3 } from '../assembly/space.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import { usualNumbers } from '../fields.ts';
import { joinedBox } from './joined-box.ts';
import type { Lid } from './lids.ts';

const usual = usualNumbers(joinedBox.fields);
type BoxNumbers = typeof usual;

const answerTo = (numbers: Partial<BoxNumbers>, thicknessMm = 3) =>
  build(joinedBox, { ...usual, ...numbers }, { thicknessMm, plays: guessedFits });

function boxOf(numbers: Partial<BoxNumbers>, thicknessMm = 3): Built {
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

const troublesOf = (numbers: Partial<BoxNumbers>, thicknessMm = 3) => {
  const answer = answerTo(numbers, thicknessMm);
  return answer.ok ? [] : answer.troubles;
};

const lids: readonly Lid[] = ['none', 'closed', 'lifts', 'slides', 'hinged'];
const nominal = { fit: 'typed', play: 0, lidPlay: 0 } as const;
const partOf = ({ parts }: Built, id: string) => parts.find((part) => part.id === id) as Built['parts'][number];
/** Its area less its holes, in mm². */
const areaOf = ({ cut }: Built['parts'][number]) => {
  const [outer, ...holes] = flatten(cut, 1e-5).map((line) => Math.abs(signedArea(line)));
  return outer - holes.reduce((sum, hole) => sum + hole, 0);
};
const volume = ([x, y, z]: Vec3) => x * y * z;

describe('a joined box goes together', () => {
  const numbers = fc.record({
    measured: fc.constantFrom('inside', 'outside'),
    lid: fc.constantFrom(...lids),
    sizes: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 40, max: 300, noNaN: true }))),
    play: fc.oneof(fc.constant(0), fc.double({ min: -0.1, max: 0.6, noNaN: true })),
    lidPlay: fc.double({ min: 0, max: 1, noNaN: true }),
    fingers: fc.constantFrom('width', 'count'),
    fingerWidth: fc.double({ min: 3, max: 40, noNaN: true }),
    fingerCount: fc.integer({ min: 2, max: 9 }),
    dividersAcross: fc.integer({ min: 0, max: 3 }),
    dividersAlong: fc.integer({ min: 0, max: 3 }),
    letters: fc.boolean(),
    dividerEnds: fc.constantFrom('tabs', 'tabs', 'slots'),
    below: fc.constantFrom('none', 'none', 'feet', 'rim'),
    footSize: fc.double({ min: 5, max: 30, noNaN: true }),
    rimPlay: fc.double({ min: 0, max: 1, noNaN: true }),
    handle: fc.constantFrom('none', 'none', 'sides', 'front'),
    handleWidth: fc.double({ min: 8, max: 90, noNaN: true }),
    handleHeight: fc.double({ min: 6, max: 30, noNaN: true }),
    handleTop: fc.double({ min: 4, max: 20, noNaN: true }),
    relief: fc.constantFrom('none', 'bone', 'tee'),
    reliefWidth: fc.double({ min: 0.2, max: 1, noNaN: true }),
  });

  test('whatever its numbers are, or says which of them is wrong, and what would do', () => {
    const seen = { built: 0, refused: 0 };
    fc.assert(
      fc.property(numbers, fc.double({ min: 1, max: 8, noNaN: true }), ({ sizes, ...others }, thickness) => {
        const [width, depth, height] = sizes;
        const typed = { ...others, width, depth, height, fit: 'typed', dividersLower: 0 } as Partial<BoxNumbers>;
        const answer = answerTo(typed, thickness);
        if (answer.ok) {
          seen.built++;
          expect(checkAssembly(answer.built.assembly).goesTogether).toBe(true);
          const { inside, outside } = answer.built.sizes;
          expect(others.measured === 'inside' ? inside : outside).toEqual(sizes.map((mm) => expect.closeTo(mm, 9)));
          return;
        }
        seen.refused++;
        for (const { field, message, nearest } of answer.troubles) {
          expect(Object.keys(joinedBox.fields)).toContain(field);
          expect(message).toMatch(/^[A-Z0-9].*\.$/);
          if (nearest === null) continue;
          const again = answerTo({ ...typed, [field]: nearest }, thickness);
          expect(again.ok ? [] : again.troubles).not.toContainEqual(expect.objectContaining({ field, message }));
        }
      }),
      { numRuns: 2000 },
    );
    expect(seen.built).toBeGreaterThan(200);
    expect(seen.refused).toBeGreaterThan(10);
  });

  test.each(['none', 'closed', 'lifts', 'slides'] as const)(
    'without play, with the lid “%s”, its plates are the outside less what is free, exactly',
    (lid) => {
      const t = 3.06;
      const size: Vec3 = [154, 104, 64];
      const [width, depth, height] = size;
      const box = boxOf({ lid, width, depth, height, ...nominal }, t);
      const { outside, inside } = box.sizes;
      expect(inside).toEqual(size);
      // Above a lid that slides is room, between its rails and as high as they are.
      const above: Vec3 = [width, outside[1] - t, 2 * t];
      const wanted = volume(outside) - volume(size) - (lid === 'slides' ? volume(above) : 0);
      expect(t * box.parts.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(wanted, 6);
      const extra = { none: [2, 2, 1], closed: [2, 2, 2], lifts: [2, 2, 3], slides: [4, 2, 4] }[lid];
      expect(outside).toEqual(size.map((side, i) => expect.closeTo(side + extra[i] * t, 9)));
    },
  );

  test('has the number of parts that it needs', () => {
    const count = (numbers: Partial<BoxNumbers>) => boxOf(numbers).parts.length;
    expect(lids.map((lid) => count({ lid }))).toEqual([5, 6, 7, 10, 12]);
    expect(count({ lid: 'closed', dividersAcross: 2, dividersAlong: 1 })).toBe(9);
  });
});

describe('its fingers', () => {
  test('lie where they should: even on every edge, both ends alike, corners whole', () => {
    const box = boxOf({ width: 30, depth: 30, height: 30, fingerWidth: 10, ...nominal });
    const quarter = [
      [-18, -18],
      [-5, -18],
      [-5, -15],
      [5, -15],
      [5, -18],
    ];
    const turned = (turns: number) =>
      quarter.map(
        ([x, y]) =>
          [
            [x, y],
            [-y, x],
            [-x, -y],
            [y, -x],
          ][turns],
      );
    const [{ points }] = flatten(partOf(box, 'bottom').cut);
    expect([...points]).toEqual(
      [0, 1, 2, 3].flatMap((turns) => turned(turns).flat()).map((mm) => expect.closeTo(mm, 9)),
    );
  });

  test('stay behind by a quarter of the play at each side, so that a gap is wider by all of it', () => {
    const play = 0.2;
    const box = boxOf({ width: 30, depth: 30, height: 30, fingerWidth: 10, fit: 'typed', play });
    const xs = (id: string) => [...flatten(partOf(box, id).cut)[0].points].filter((_, i) => i % 2 === 0);
    // The middle gap of the bottom, and the finger of the front in it.
    expect(Math.min(...xs('bottom').filter((x) => x > 0 && x < 10))).toBeCloseTo(5 + play / 4, 9);
    expect(Math.min(...xs('front').filter((x) => x > 0 && x < 10))).toBeCloseTo(5 - play / 4, 9);
  });

  test.each([2, 3, 4, 5, 6, 7])('are %i on every edge, and no corner hangs on by one side', (fingerCount) => {
    const box = boxOf({ lid: 'closed', width: 60, depth: 60, height: 60, fingers: 'count', fingerCount });
    for (const id of ['bottom', 'top', 'front', 'back', 'left', 'right']) {
      const [{ points }] = flatten(partOf(box, id).cut);
      // A corner that is this plate's goes on as a finger along one of its sides at least.
      for (let i = 0; i < points.length; i += 2) {
        if (Math.abs(Math.abs(points[i]) - 33) > 1e-9 || Math.abs(Math.abs(points[i + 1]) - 33) > 1e-9) continue;
        const beside = [i - 2, i + 2].map((k) => (k + points.length) % points.length);
        const sides = beside.map((k) => Math.hypot(points[k] - points[i], points[k + 1] - points[i + 1]));
        expect(Math.max(...sides)).toBeGreaterThan(60 / fingerCount);
      }
    }
  });

  test('of a width that is aimed at come as near to it as an odd number allows', () => {
    const edges = (fingerWidth: number) => {
      const ys = [...flatten(partOf(boxOf({ width: 100, fingerWidth, ...nominal }), 'bottom').cut)[0].points];
      return ys.filter((y, i) => i % 2 === 1 && Math.abs(y + 55) < 1e-9).length / 2;
    };
    // Of n pieces the bottom has (n + 1) / 2.
    expect([edges(33), edges(20), edges(15), edges(9)]).toEqual([2, 3, 4, 6]);
  });
});

describe('its dividers', () => {
  test('make equal rooms, go through the walls by tabs, and cross at half their height', () => {
    const box = boxOf({
      width: 100,
      depth: 80,
      height: 40,
      dividersAcross: 1,
      dividersAlong: 2,
      fit: 'typed',
      play: 0.1,
    });
    const slots = (id: string) => flatten(partOf(box, id).cut).slice(1);
    expect(slots('left')).toHaveLength(1);
    expect(slots('front')).toHaveLength(2);
    const [slot] = slots('left');
    const xs = [...slot.points].filter((_, i) => i % 2 === 0);
    const ys = [...slot.points].filter((_, i) => i % 2 === 1);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(3.1, 9);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(20.1, 9);
    const { minX, maxX, minY, maxY } = pathBounds(partOf(box, 'across-1').cut);
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(106, 9), expect.closeTo(40, 9)]);
    // The rooms: (100 − 2 × 3) / 3 wide.
    const tops = [...flatten(partOf(box, 'across-1').cut)[0].points].filter(
      (_, i, all) => i % 2 === 0 && Math.abs(all[i + 1]) < 1e-9,
    );
    expect(tops.map((x) => Math.abs(x)).sort((a, b) => a - b)).toEqual(
      [94 / 6 - 0.05, 94 / 6 - 0.05, 94 / 6 + 3.05, 94 / 6 + 3.05].map((x) => expect.closeTo(x, 9)),
    );
  });
});

describe('what else a box can have', () => {
  const ringsOf = (box: Built, id: string) => flatten(partOf(box, id).cut);
  const sizeOf = (box: Built, id: string) => {
    const { minX, minY, maxX, maxY } = pathBounds(partOf(box, id).cut);
    return [maxX - minX, maxY - minY];
  };

  test('feet at its corners, and a rim that goes into the box below', () => {
    const feet = boxOf({ below: 'feet', footSize: 12 });
    expect([1, 2, 3, 4].map((i) => areaOf(partOf(feet, `foot-${i}`)))).toEqual([144, 144, 144, 144]);
    expect(feet.sizes.outside[2]).toBeCloseTo(64 + 6, 9);
    const rim = boxOf({ below: 'rim', rimPlay: 0.4 });
    expect(sizeOf(rim, 'rim')).toEqual([expect.closeTo(153.6, 9), expect.closeTo(103.6, 9)]);
    expect(areaOf(partOf(rim, 'rim'))).toBeCloseTo(153.6 * 103.6 - 129.6 * 79.6, 6);
    const typed = { measured: 'outside', width: 160, depth: 110, height: 70, below: 'rim' } as const;
    expect(boxOf(typed).sizes.inside).toEqual([154, 104, 64].map((mm) => expect.closeTo(mm, 9)));
  });

  test('handle holes, in both layers of a side where it has two', () => {
    const handle = { handle: 'sides', handleWidth: 60, handleHeight: 20, handleTop: 15 } as const;
    const round = 40 * 20 + Math.PI * 100;
    for (const [lid, ids] of [
      ['none', ['left', 'right']],
      ['slides', ['left', 'right', 'inner-left', 'inner-right']],
    ] as const) {
      const box = boxOf({ ...handle, lid });
      for (const id of ids) {
        const holes = ringsOf(box, id).slice(1);
        expect(holes).toHaveLength(1);
        expect(Math.abs(signedArea(holes[0])) / round).toBeCloseTo(1, 2);
      }
      expect(ringsOf(box, 'front')).toHaveLength(1);
    }
    // From the top of an open box: 15 mm of wall, the hole, and what is below it.
    const [{ points }, hole] = ringsOf(boxOf({ ...handle }), 'left');
    const top = Math.min(...[...points].filter((_, i) => i % 2 === 1));
    expect(Math.min(...[...hole.points].filter((_, i) => i % 2 === 1)) - top).toBeCloseTo(15, 6);
  });

  test('dividers that hang in slots, and lift out', () => {
    const box = boxOf({ dividersAcross: 1, dividerEnds: 'slots', letters: true, fit: 'typed', play: 0.1 });
    expect(ringsOf(box, 'left')).toHaveLength(1);
    const [{ points }] = ringsOf(box, 'left');
    const notch = Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]).filter(
      ([x]) => Math.abs(Math.abs(x) - 1.55) < 1e-9,
    );
    const ys = notch.map(([, y]) => y);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(32, 9);
    const letters = (id: string) => partOf(box, id).labels.map(({ words }) => words);
    expect(letters('across-1')).toEqual(['I']);
    expect(letters('left')).toContain('I');
    expect(letters('right')).toContain('I');
  });

  test.each(['bone', 'tee'] as const)(
    'relief “%s” in its inner corners: half a circle at each, and nothing else',
    (relief) => {
      const numbers = { width: 30, depth: 30, height: 30, fingerWidth: 10, ...nominal } as const;
      const [plain, relieved] = [boxOf(numbers), boxOf({ ...numbers, relief, reliefWidth: 1 })];
      // The bottom has a gap in the middle of each side: eight inner corners, and its own corners are whole.
      const lost = areaOf(partOf(plain, 'bottom')) - areaOf(partOf(relieved, 'bottom'));
      const half = (Math.PI * 0.25) / 2;
      // Of a round one, the triangle between its ends and the corner was free before.
      expect(lost / (8 * (relief === 'tee' ? half : half - 0.25))).toBeCloseTo(1, 1);
      const tooWide = answerTo({ ...numbers, relief, reliefWidth: 12 });
      expect(tooWide).toMatchObject({ ok: false, troubles: [{ field: 'reliefWidth' }] });
      if (tooWide.ok) return;
      const [{ nearest }] = tooWide.troubles;
      expect(answerTo({ ...numbers, relief, reliefWidth: nearest as number }).ok).toBe(true);
    },
  );
});

describe('a check of the assembly', () => {
  const { assembly } = boxOf({ lid: 'lifts', dividersAcross: 2, fit: 'typed', play: 0.1 });
  const changed = (
    partId: string,
    change: (solid: (typeof assembly.solids)[number]) => (typeof assembly.solids)[number],
  ) =>
    checkAssembly({
      ...assembly,
      solids: assembly.solids.map((solid) => (solid.partId === partId ? change(solid) : solid)),
    });
  const moved = (partId: string, by: Vec3) =>
    changed(partId, (solid) => {
      const [x, y, z] = solid.place.origin;
      return { ...solid, place: { ...solid.place, origin: [x + by[0], y + by[1], z + by[2]] } };
    });

  test('tells of a part that is out of place by a hundredth', () => {
    const away = moved('front', [0, -0.01, 0]);
    expect(away).toMatchObject({ goesTogether: false, overlaps: [] });
    const into = moved('front', [0, 0.01, 0]);
    expect(into.overlaps.length).toBeGreaterThan(0);
    expect(into.intruders).toEqual(['front']);
    expect(moved('liner', [0.01, 0, 0]).wrongJoints).toContainEqual({
      name: 'Lid between left and right',
      gapMm: expect.closeTo(0.21, 6),
    });
    const wrong = moved('across-1', [0, 0.02, 0]).wrongJoints.map(({ name }) => name);
    expect(wrong).toEqual(expect.arrayContaining(['Divider across 1 in Left', 'Divider across 1 in Right']));
  });

  test('tells of stock that is not as thick as was said', () => {
    expect(changed('bottom', (solid) => ({ ...solid, depth: 2.9 })).gapMm3).toBeGreaterThan(100);
    expect(changed('left', (solid) => ({ ...solid, depth: 3.1 })).intruders).toEqual(['left']);
  });

  test('tells of a part that is missing', () => {
    const without = checkAssembly({ ...assembly, solids: assembly.solids.filter(({ partId }) => partId !== 'left') });
    expect(without.goesTogether).toBe(false);
    expect(without.gapMm3).toBeGreaterThan(1000);
  });
});

describe('numbers that cannot be', () => {
  test.each<[string, Partial<BoxNumbers>, number, { field: string; nearest: unknown }]>([
    ['thicker than a side', { measured: 'outside', width: 5 }, 3, { field: 'width', nearest: 7 }],
    ['fingers thinner than the stock', { fingerWidth: 2 }, 3, { field: 'fingerWidth', nearest: 3 }],
    ['too many fingers', { fingers: 'count', fingerCount: 40 }, 3, { field: 'fingerCount', nearest: 21 }],
    ['more dividers than fit', { dividersAcross: 40 }, 3, { field: 'dividersAcross', nearest: 16 }],
    ['dividers too low', { dividersAlong: 1, dividersLower: 60 }, 3, { field: 'dividersLower', nearest: 52 }],
    ['a rim under a closed box', { below: 'rim', lid: 'closed' }, 3, { field: 'below', nearest: 'feet' }],
    ['feet that meet', { below: 'feet', footSize: 60 }, 3, { field: 'footSize', nearest: 52 }],
    ['a handle as high as the box', { handle: 'front', handleHeight: 55 }, 3, { field: 'handleHeight', nearest: 49 }],
    ['a handle as wide as the box', { handle: 'sides', handleWidth: 104 }, 3, { field: 'handleWidth', nearest: 98 }],
    ['a divider in the handle', { handle: 'sides', dividersAcross: 1 }, 3, { field: 'handle', nearest: 'none' }],
    [
      'slots under a lid',
      { lid: 'closed', dividersAlong: 1, dividerEnds: 'slots' },
      3,
      { field: 'dividerEnds', nearest: 'tabs' },
    ],
    ['a lid without play', { lid: 'lifts', lidPlay: 0 }, 3, { field: 'lidPlay', nearest: 0.4 }],
    ['nothing', { height: 0 }, 3, { field: 'height', nearest: 1 }],
    ['less than nothing', { height: -4 }, 3, { field: 'height', nearest: 1 }],
    ['enormous', { depth: 1e9 }, 3, { field: 'depth', nearest: 3000 }],
    ['no number', { depth: Number.NaN }, 3, { field: 'depth', nearest: 104 }],
    ['half a divider', { dividersAcross: 1.5 }, 3, { field: 'dividersAcross', nearest: 2 }],
    ['no stock', {}, 0, { field: 'stock', nearest: null }],
  ])('%s', (_, numbers, thickness, trouble) => {
    expect(troublesOf(numbers, thickness)).toMatchObject([trouble]);
  });

  test('what is nearest can be', () => {
    for (const numbers of [{ fingerWidth: 2 }, { dividersAcross: 40 }, { measured: 'outside', width: 5 } as const]) {
      const [{ field, nearest }] = troublesOf(numbers);
      expect(troublesOf({ ...numbers, [field]: nearest })).toEqual([]);
    }
  });
});
