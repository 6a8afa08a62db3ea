import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Area, areaOf, intersectAreas, sizeOfArea } from '../../geometry/areas/area.ts';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { PathBuilder } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import type { Solid } from '../assembly/space.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import { joinedBox } from './joined-box.ts';

const answerTo = (numbers: Readonly<Record<string, unknown>>, thicknessMm = 3) =>
  build(joinedBox, { lid: 'hinged', ...numbers }, { thicknessMm, plays: guessedFits });

function boxOf(numbers: Readonly<Record<string, unknown>>, thicknessMm = 3): Built {
  const answer = answerTo(numbers, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly).goesTogether).toBe(true);
  return answer.built;
}

const areaOfPart = ({ cut }: Built['parts'][number]) => {
  const [outer, ...holes] = flatten(cut, 1e-6).map((line) => Math.abs(signedArea(line)));
  return outer - holes.reduce((sum, hole) => sum + hole, 0);
};

test('at no play all parts are the box with its lid, less the inside, and the ears', () => {
  const [t, hole, w, d, h] = [3.06, 3, 154, 104, 64];
  const box = boxOf({ width: w, depth: d, height: h, fit: 'typed', play: 0, lidPlay: 0, pinHole: hole }, t);
  const r = hole / 2 + t;
  const end = (Math.PI * r * r) / 2 - (Math.PI * hole * hole) / 4;
  // On the back 5 t high and sloped by half a right angle below; on the lid 5 t long, from t high to 2 r.
  const onBack = 2 * r * (t + r + 5 * t) - (2 * r) ** 2 / 2 + end;
  const onLid = (5 * t * (t + 2 * r)) / 2 + 2 * r * r + end;
  const shell = (w + 2 * t) * (d + 2 * t) * (h + 2 * t) - w * d * h;
  const wanted = shell + 2 * t * (2 * onBack + onLid);
  expect(t * box.parts.reduce((sum, part) => sum + areaOfPart(part), 0)).toBeCloseTo(wanted, 1);
  expect(box.sizes.outside).toEqual(
    [w + 2 * t, d + 2 * t + 2 * r, h + 2 * t + 2 * r].map((mm) => expect.closeTo(mm, 9)),
  );
});

/** What solids fill as they are seen from the right, turned back by an angle about an axis. */
function sideOf(solids: readonly Solid[], [axisY, axisZ]: readonly [number, number], angle: number): Area[] {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return solids.map(({ outlines, place, depth }) => {
    const builder = new PathBuilder();
    const add = (points: readonly (readonly [y: number, z: number])[]) =>
      builder.ring(
        points.flatMap(([y, z]) => [
          axisY + cos * (y - axisY) + sin * (z - axisZ),
          axisZ - sin * (y - axisY) + cos * (z - axisZ),
        ]),
      );
    const { origin, u, v } = place;
    if (u[0] === 0 && v[0] === 0) {
      for (const { points } of outlines) {
        const count = points.length / 2;
        const inSpace = (i: number, axis: 1 | 2) =>
          origin[axis] + points[2 * i] * u[axis] + points[2 * i + 1] * v[axis];
        add(Array.from({ length: count }, (_, i) => [inSpace(i, 1), inSpace(i, 2)] as const));
      }
    } else {
      // A plate that is seen from its edge: from its front to its back, or from its foot to its top.
      const ys = outlines.flatMap(({ points }) => [...points].filter((_, i) => i % 2 === 1));
      const [from, to] = [Math.min(...ys), Math.max(...ys)];
      const isFlat = Math.abs(v[1]) === 1;
      const corner = (along: number, off: number) =>
        isFlat
          ? ([origin[1] + along * v[1], origin[2] - off] as const)
          : ([origin[1] - off, origin[2] + along * v[2]] as const);
      add([corner(from, 0), corner(to, 0), corner(to, depth), corner(from, depth)]);
    }
    return areaOf(builder.build(), 'evenodd');
  });
}

test('a lid opens from shut to lying behind the box, and meets nothing', () => {
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  const numbers = fc.record({
    depth: mm(40, 200),
    height: mm(40, 100),
    lidPlay: fc.oneof(fc.constant(0), mm(0, 2)),
    pinHole: mm(0.5, 12),
  });
  const seen = { opened: 0 };
  fc.assert(
    fc.property(numbers, mm(1, 6), (typed, t) => {
      const answer = answerTo({ ...typed, fit: 'typed', play: typed.lidPlay === 0 ? 0 : 0.1 }, t);
      if (!answer.ok) return;
      seen.opened++;
      const { solids } = answer.built.assembly;
      const named = (pick: (id: string) => boolean) => solids.filter(({ partId }) => pick(partId));
      const radius = typed.pinHole / 2 + Math.max(t, 3);
      const axis = [typed.depth + 2 * t, typed.height + 2 * t].map((mm) => mm + typed.lidPlay + radius);
      const about = [axis[0], axis[1]] as const;
      const [lid, ear] = [named((id) => id === 'lid'), named((id) => id === 'hinge-1-lid')];
      const [back, stands] = [named((id) => id === 'back'), named((id) => id === 'hinge-1-left')];
      const [backSide, standsSide] = [sideOf(back, about, 0), sideOf(stands, about, 0)];
      for (let step = 0; step <= 18; step++) {
        const angle = (step * Math.PI) / 18;
        const [lidSide, earSide] = [sideOf(lid, about, angle), sideOf(ear, about, angle)];
        // The ear turns beside the others, and is not where they are.
        const pairs = [
          [lidSide, backSide],
          [lidSide, standsSide],
          [step === 0 ? [] : earSide, backSide],
        ] as const;
        for (const [a, b] of pairs) {
          for (const area of a) {
            for (const other of b) expect(sizeOfArea(intersectAreas(area, other))).toBeLessThan(0.01);
          }
        }
      }
    }),
    { numRuns: 60 },
  );
  expect(seen.opened).toBeGreaterThan(30);
});

describe('what is wrong with hinges is said', () => {
  const troublesOf = (numbers: Readonly<Record<string, unknown>>) => {
    const answer = answerTo(numbers);
    return answer.ok ? [] : answer.troubles;
  };

  test.each([
    ['a box that is too low', { height: 6 }, { field: 'lid', nearest: 'lifts' }],
    ['a box that is too shallow', { depth: 5 }, { field: 'lid', nearest: 'lifts' }],
    ['more hinges than fit', { width: 100, hinges: 9 }, { field: 'hinges', nearest: 4 }],
    ['dividers behind a hinge', { dividersAlong: 3, dividersLower: 0, height: 20 }, { field: 'hinges', nearest: null }],
  ])('%s', (_, numbers, trouble) => {
    expect(troublesOf(numbers)).toMatchObject([trouble]);
  });

  test('and as many as there is room for are built', () => {
    expect(boxOf({ width: 100, hinges: 4 }).parts).toHaveLength(18);
  });
});

test('an ear that is out of place by a tenth is told of', () => {
  const { assembly } = boxOf({});
  const moved = assembly.solids.map((solid) => {
    if (solid.partId !== 'hinge-2-lid') return solid;
    const [x, y, z] = solid.place.origin;
    return { ...solid, place: { ...solid.place, origin: [x + 0.1, y, z] as const } };
  });
  const { wrongJoints } = checkAssembly({ ...assembly, solids: moved });
  expect(wrongJoints.map(({ name }) => name)).toEqual(['Hinge 2, lid', 'Hinge 2, lid, lengthwise', 'Hinge 2']);
});
