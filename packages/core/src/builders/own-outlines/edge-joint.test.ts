import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, polylineLength, signedArea } from '../../geometry/paths/flatten.ts';
import { rotation } from '../../geometry/paths/matrix.ts';
import { type Path, PathBuilder, pathBounds, transformPath } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import { edgeJoint } from './edge-joint.ts';
import { straightEdges } from './edges.ts';

const ring = (...points: number[]): Path => new PathBuilder().ring(points).build();
/** A rectangle about (0, 0): its edges are 1 above, 2 right, 3 below, 4 left. */
const plate = (width: number, height: number): Path =>
  ring(-width / 2, -height / 2, width / 2, -height / 2, width / 2, height / 2, -width / 2, height / 2);

type Numbers = Readonly<Record<string, unknown>>;

const answerTo = (numbers: Numbers, shelf: Path, side: Path, thicknessMm = 3) =>
  build(edgeJoint, numbers, { thicknessMm, plays: guessedFits }, [
    { name: 'Shelf', path: shelf },
    { name: 'Side', path: side },
  ]);

const whole = { goesTogether: true, overlaps: [], wrongJoints: [], intruders: [], gapMm3: 0 };

function jointOf(numbers: Numbers, shelf: Path, side: Path, thicknessMm = 3): Built {
  const answer = answerTo(numbers, shelf, side, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly)).toEqual(whole);
  return answer.built;
}

const areasOf = ({ cut }: Built['parts'][number]) =>
  flatten(cut, 1e-6)
    .filter(({ closed }) => closed)
    .map((line) => Math.abs(signedArea(line)));
const sizeOf = ({ cut }: Built['parts'][number]) => {
  const { minX, minY, maxX, maxY } = pathBounds(cut);
  return [maxX - minX, maxY - minY];
};
const nominal = { fit: 'typed', play: 0 } as const;

describe('tabs of one outline in slots of another', () => {
  test('are where they should be: even along the edge, as long as the stock is thick, the slots as far from the edge as was said', () => {
    const { parts } = jointOf(
      { ...nominal, first: 3, second: 4, tabs: 2, tabWidth: 20, inset: 10, shift: 5 },
      plate(100, 60),
      plate(80, 200),
    );
    const [shelf, side] = parts;
    expect(shelf.name).toBe('Shelf');
    // Below 3 mm more, at 25 and 75 of 100 mm.
    expect(sizeOf(shelf)).toEqual([100, 63]);
    const [{ points }] = flatten(shelf.cut);
    const tips = [...points].filter((_, i) => i % 2 === 0 && points[i + 1] === 33).sort((a, b) => a - b);
    expect(tips).toEqual([-35, -15, 15, 35].map((x) => expect.closeTo(x, 9)));
    // The left edge of the side goes up, so a shift goes up as well.
    const slots = flatten(side.cut).slice(1);
    expect(slots.map((line) => pathBounds(ring(...line.points))).sort((a, b) => a.minY - b.minY)).toEqual(
      [-40, 10].map((minY) => ({
        minX: expect.closeTo(-30, 9),
        maxX: expect.closeTo(-27, 9),
        minY: expect.closeTo(minY, 9),
        maxY: expect.closeTo(minY + 20, 9),
      })),
    );
  });

  test('at no play both are their outlines, with the tabs, and without the slots', () => {
    const { parts } = jointOf({ ...nominal, first: 2, second: 1, tabs: 3, tabWidth: 8 }, plate(60, 90), plate(120, 40));
    expect(areasOf(parts[0])).toEqual([expect.closeTo(60 * 90 + 3 * 8 * 3, 6)]);
    expect(areasOf(parts[1])).toEqual([4800, 24, 24, 24].map((mm2) => expect.closeTo(mm2, 6)));
  });

  test('curves, holes and other edges stay as they are', () => {
    const round = new PathBuilder().moveTo(-40, 30).lineTo(-40, 0).cubicTo(-40, -50, 40, -50, 40, 0).lineTo(40, 30);
    const shelf = round.close().ring([-5, -5, 5, -5, 5, 5, -5, 5]).build();
    const { parts } = jointOf({ first: 3, second: 3 }, shelf, plate(100, 100));
    expect([...parts[0].cut.verbs].filter((verb) => verb === 2)).toHaveLength(1);
    expect(areasOf(parts[0])).toHaveLength(2);
  });
});

describe('slots that give', () => {
  test('have a strip on each side, that ends in slits so long that it does not break', () => {
    const numbers = { ...nominal, kind: 'flex', first: 3, second: 1, tabs: 1, tabWidth: 20, inset: 12, narrower: 0.2 };
    const { parts, playMm } = jointOf({ ...numbers, strip: 1.5, room: 0.5 }, plate(80, 40), plate(120, 80));
    expect(playMm).toBe(-0.2);
    // 3 b δ / l² = 1 %: for b = 1.5 and δ = 0.1, l is √45.
    const over = Math.sqrt(45);
    const lines = flatten(parts[1].cut);
    const slits = lines.filter(({ closed }) => !closed);
    expect(slits).toHaveLength(4);
    for (const slit of slits) expect(polylineLength(slit)).toBeCloseTo(over, 9);
    const [, slot, ...reliefs] = areasOf(parts[1]);
    expect(slot).toBeCloseTo(20 * 2.8, 9);
    expect(reliefs).toEqual([0, 1].map(() => expect.closeTo((20 + 2 * over) * 0.5, 6)));
  });

  test.each<[string, Numbers, { field: string; nearest: unknown }]>([
    ['no room to bend into', { room: 0.1, narrower: 0.4 }, { field: 'room', nearest: 0.2 }],
    ['slots that close', { narrower: 2 }, { field: 'narrower', nearest: 0.5 }],
    ['too near to the edge', { inset: 3 }, { field: 'inset', nearest: 5 }],
  ])('%s', (_, numbers, trouble) => {
    const t = numbers.narrower === 2 ? 1 : 3;
    const answer = answerTo(
      { ...nominal, kind: 'flex', tabs: 1, inset: 8, ...numbers },
      plate(90, 90),
      plate(90, 90),
      t,
    );
    expect(answer).toMatchObject({ ok: false, troubles: expect.arrayContaining([expect.objectContaining(trouble)]) });
  });
});

describe('bolts with nuts', () => {
  const numbers = { ...nominal, kind: 'bolt', first: 3, second: 3, tabs: 2, tabWidth: 12, inset: 10, bolt: 'M3' };

  test('lie between the tabs: a hole in the one, a gap for bolt and nut in the other', () => {
    const { parts } = jointOf({ ...numbers, boltLength: 16, nutPlay: 0.2 }, plate(80, 60), plate(100, 60));
    const [, hole] = areasOf(parts[1])
      .sort((a, b) => b - a)
      .slice(2);
    void hole;
    const round = areasOf(parts[1]).find((mm2) => mm2 < 20);
    expect(round).toBeCloseTo(Math.PI * 1.7 ** 2, 2);
    // 12 mm of the bolt go in and past the nut, 2 beyond it; the nut takes 5.7 × 2.6 mm.
    const gap = 3.4 * 14 + (5.7 - 3.4) * 2.6;
    expect(areasOf(parts[0])[0]).toBeCloseTo(80 * 60 + 2 * 12 * 3 - gap, 6);
  });

  test.each([
    ['a single tab', { tabs: 1 }, { field: 'tabs', nearest: 2 }],
    ['a bolt that is too short', { boltLength: 8 }, { field: 'boltLength', nearest: 9.6 }],
    ['a bolt that goes through all of the part', { boltLength: 90 }, { field: 'boltLength', nearest: null }],
  ])('%s', (_, change, trouble) => {
    const answer = answerTo({ ...numbers, ...change }, plate(80, 60), plate(100, 60));
    expect(answer).toMatchObject({ ok: false, troubles: [trouble] });
  });
});

describe('fingers at a corner', () => {
  test('are shared out in turn: at no play both parts are their outlines less one corner', () => {
    const t = 3.06;
    const { parts, sizes } = jointOf(
      { ...nominal, kind: 'fingers', first: 2, second: 4, fingerWidth: 12 },
      plate(100, 60),
      plate(50, 60),
      t,
    );
    const [a, b] = parts.map((part) => areasOf(part)[0]);
    expect(a + b).toBeCloseTo(100 * 60 + 50 * 60 - t * 60, 6);
    // Five pieces: three are the first's, two the second's.
    expect(a).toBeCloseTo(100 * 60 - (2 / 5) * 60 * t, 6);
    expect(sizes.outside).toEqual([60, 50, 100].map((mm) => expect.closeTo(mm, 9)));
  });

  test('of edges that are not equally long go over what they have in common', () => {
    const { parts } = jointOf(
      { kind: 'fingers', fit: 'typed', play: 0.2, first: 2, second: 4, fingerWidth: 20, shift: 7 },
      plate(100, 60),
      plate(50, 90),
    );
    expect(sizeOf(parts[0])[1]).toBeCloseTo(60, 9);
    expect(sizeOf(parts[1])[1]).toBeCloseTo(90, 9);
  });

  test.each<[string, Numbers, Path, { field: string; nearest: unknown }]>([
    ['a corner that is not square', {}, ring(-50, -30, 50, -30, 40, 30, -40, 30), { field: 'first', nearest: null }],
    ['fingers thinner than the stock', { fingerWidth: 1 }, plate(60, 100), { field: 'fingerWidth', nearest: 3 }],
    ['a finger as long as the edge', { fingerWidth: 90 }, plate(60, 100), { field: 'fingerWidth', nearest: 33.33 }],
    ['shifted past each other', { shift: 150 }, plate(60, 100), { field: 'shift', nearest: 0 }],
  ])('%s', (_, numbers, first, trouble) => {
    const answer = answerTo({ kind: 'fingers', first: 2, second: 4, ...numbers }, first, plate(60, 100));
    expect(answer).toMatchObject({ ok: false, troubles: [trouble] });
  });
});

test('joints go together whatever the numbers are, or it is said which of them is wrong, and what would do', () => {
  /** Evenly, in thousandths. */
  const mm = (min: number, max: number) =>
    fc.integer({ min: min * 1000, max: max * 1000 }).map((thousandths) => thousandths / 1000);
  const numbers = fc.record({
    kind: fc.constantFrom('tabs', 'flex', 'bolt', 'bolt', 'fingers'),
    first: fc.integer({ min: 0, max: 4 }),
    second: fc.integer({ min: 0, max: 4 }),
    play: fc.oneof(fc.constant(0), mm(-0.1, 0.5)),
    tabs: fc.integer({ min: 1, max: 4 }),
    tabWidth: mm(3, 30),
    fingerWidth: mm(3, 30),
    inset: mm(0, 30),
    shift: fc.oneof(fc.constant(0), mm(-20, 20)),
    narrower: mm(0.01, 0.4),
    bolt: fc.constantFrom('M2', 'M3', 'M5'),
    boltLength: fc.constantFrom(12, 16, 25, 40),
  });
  const sizes = fc.tuple(...[0, 1, 2, 3].map(() => mm(30, 250)));
  // Upright, or turned so that no edge goes along an axis.
  const turns = fc.constantFrom(0, 0, 17, 200);
  const seen: Record<string, number> = { tabs: 0, flex: 0, bolt: 0, fingers: 0, refused: 0 };
  fc.assert(
    fc.property(
      numbers,
      sizes,
      mm(1, 6),
      turns,
      fc.boolean(),
      ({ ...typed }, [w, h, v, u], thickness, turn, mirrored) => {
        const shelf = transformPath(plate(w, h), rotation(turn));
        const side = transformPath(plate(v, u), [mirrored ? -1 : 1, 0, 0, 1, 0, 0]);
        const asked = { ...typed, fit: 'typed' };
        const answer = answerTo(asked, shelf, side, thickness);
        if (answer.ok) {
          seen[typed.kind]++;
          expect(checkAssembly(answer.built.assembly)).toEqual(whole);
          return;
        }
        seen.refused++;
        for (const { field, message, nearest } of answer.troubles) {
          expect(Object.keys(edgeJoint.fields)).toContain(field);
          expect(message).toMatch(/^[A-Z0-9“].*\.$/);
          if (nearest === null) continue;
          const again = answerTo({ ...asked, [field]: nearest }, shelf, side, thickness);
          expect(again.ok ? [] : again.troubles.map((trouble) => trouble.message)).not.toContain(message);
        }
      },
    ),
    { numRuns: 2000 },
  );
  expect(Object.values(seen).every((count) => count > 30) ? {} : seen).toEqual({});
});

test('edges are those that are straight, numbered as the outline goes round; there is none of a circle', () => {
  const box = straightEdges(plate(40, 20));
  expect(box.map(({ number, lengthMm, inward }) => [number, lengthMm, inward.x, inward.y])).toEqual([
    [1, 40, expect.closeTo(0), 1],
    [2, 20, -1, expect.closeTo(0)],
    [3, 40, expect.closeTo(0), -1],
    [4, 20, 1, expect.closeTo(0)],
  ]);
  const circle = new PathBuilder()
    .moveTo(-5, 0)
    .cubicTo(-5, 7, 5, 7, 5, 0)
    .cubicTo(5, -7, -5, -7, -5, 0)
    .close()
    .build();
  expect(answerTo({}, circle, plate(90, 90))).toMatchObject({
    ok: false,
    troubles: [{ field: 'first', message: '“Shelf” has no straight edge of 1 mm or more.', nearest: null }],
  });
  expect(answerTo({ second: 9 }, plate(90, 90), plate(90, 90))).toMatchObject({
    ok: false,
    troubles: [{ field: 'second', message: '“Side” has no straight edge 9: it has 4.', nearest: 0 }],
  });
  expect(build(edgeJoint, {}, { thicknessMm: 3, plays: guessedFits }, [])).toMatchObject({
    ok: false,
    troubles: [{ field: 'outlines', message: 'Joint is made of 2 outlines, and there are 0.' }],
  });
});
