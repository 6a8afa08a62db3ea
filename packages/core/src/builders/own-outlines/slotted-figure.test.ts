import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { type Path, PathBuilder, pathBounds } from '../../geometry/paths/path.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { checkAssembly } from '../assembly/assembly.ts';
import { build } from '../build.ts';
import type { Built } from '../builder.ts';
import { slottedFigure } from './slotted-figure.ts';

const ring = (...points: number[]): Path => new PathBuilder().ring(points).build();
const plate = (width: number, height: number): Path =>
  ring(-width / 2, -height / 2, width / 2, -height / 2, width / 2, height / 2, -width / 2, height / 2);
/** A flat foot, and a round top above it. */
const hill = (width: number, height: number): Path =>
  new PathBuilder()
    .moveTo(-width / 2, height / 2)
    .cubicTo(-width / 2, -height, width / 2, -height, width / 2, height / 2)
    .close()
    .build();

type Numbers = Readonly<Record<string, unknown>>;
const answerTo = (numbers: Numbers, body: Path, wing: Path, thicknessMm = 3) =>
  build(slottedFigure, numbers, { thicknessMm, plays: guessedFits }, [
    { name: 'Body', path: body },
    { name: 'Wing', path: wing },
  ]);

function figureOf(numbers: Numbers, body: Path, wing: Path, thicknessMm = 3): Built {
  const answer = answerTo(numbers, body, wing, thicknessMm);
  if (!answer.ok) throw new Error(answer.troubles.map(({ message }) => message).join(' '));
  expect(checkAssembly(answer.built.assembly)).toMatchObject({ goesTogether: true });
  return answer.built;
}

const nominal = { fit: 'typed', play: 0 } as const;
const areasOf = (path: Path) => flatten(path, 1e-6).map((line) => Math.abs(signedArea(line)));

describe('two outlines that are each cut halfway', () => {
  test('have slots to the middle of what both have of the line: from above, and from below', () => {
    const { parts, sizes } = figureOf({ ...nominal, firstLine: 10 }, plate(80, 60), plate(40, 40), 4);
    // Both stand: 40 mm in common, so the slots meet 20 mm above the foot.
    expect(areasOf(parts[0].cut)).toEqual([expect.closeTo(80 * 60 - 4 * 40, 9)]);
    expect(areasOf(parts[1].cut)).toEqual([expect.closeTo(40 * 40 - 4 * 20, 9)]);
    const xs = [...flatten(parts[0].cut)[0].points].filter((x, i) => i % 2 === 0 && Math.abs(x) < 39);
    expect([...new Set(xs)].sort((a, b) => a - b)).toEqual([8, 12].map((x) => expect.closeTo(x, 9)));
    expect(sizes.outside).toEqual([80, 40, 60].map((mm) => expect.closeTo(mm, 9)));
  });

  test.each([
    ['feet', 0, 60 - 20],
    ['tops', 0, 20],
    ['middles', 0, 30],
    ['feet', 5, 60 - 25],
  ])('aligned by their %s, raised by %i: the first is cut %i mm deep', (align, raised, depth) => {
    const { parts } = figureOf({ ...nominal, align, raised }, plate(80, 60), plate(40, 40), 4);
    expect(areasOf(parts[0].cut)).toEqual([expect.closeTo(80 * 60 - 4 * depth, 9)]);
  });

  test('keep their curves, and have slots that are wider by the play', () => {
    const { parts } = figureOf({ fit: 'typed', play: 0.3 }, hill(80, 60), hill(50, 60), 4);
    for (const { cut } of parts) expect([...cut.verbs]).toContain(2);
    const { maxX, minX } = pathBounds(parts[1].cut);
    expect(maxX - minX).toBeCloseTo(50, 6);
    const foot = [...flatten(parts[1].cut)[0].points];
    const atFoot = foot.filter((_, i) => i % 2 === 0 && foot[i + 1] === 30).map(Math.abs);
    expect(Math.min(...atFoot)).toBeCloseTo(2.15, 9);
  });

  test('go through at lines that are turned', () => {
    const { parts } = figureOf({ ...nominal, firstTurn: 30, secondTurn: -20 }, hill(120, 90), hill(100, 90));
    const lost = areasOf(hill(120, 90))[0] - areasOf(parts[0].cut)[0];
    expect(lost).toBeGreaterThan(3 * 20);
  });
});

describe('an outline that goes through another', () => {
  test('stays as it is; the other has an opening as long as it is wide there', () => {
    const wing = ring(-70, -8, 0, -15, 70, -8, 70, 8, 0, 15, -70, 8);
    const { parts } = figureOf(
      { ...nominal, crossing: 'through', align: 'middles', raised: 4 },
      plate(160, 50),
      wing,
      2,
    );
    expect(areasOf(parts[1].cut)).toEqual(areasOf(wing));
    const [body, opening] = areasOf(parts[0].cut);
    expect(body).toBeCloseTo(160 * 50, 9);
    expect(opening).toBeCloseTo(2 * 30, 9);
    const { minY, maxY } = pathBounds(ring(...flatten(parts[0].cut)[1].points));
    expect([minY, maxY]).toEqual([-19, 11].map((y) => expect.closeTo(y, 9)));
  });

  test.each<[string, Numbers, Path, { field: string; nearest: unknown }]>([
    [
      'wider to both sides of its line',
      {},
      ring(-50, -20, 0, -5, 50, -20, 50, 20, 0, 5, -50, 20),
      { field: 'crossing', nearest: 'halves' },
    ],
    ['not in the other', { align: 'feet' }, plate(90, 20), { field: 'align', nearest: 'middles' }],
    ['too high', { align: 'middles', raised: 20 }, plate(90, 20), { field: 'raised', nearest: null }],
  ])('%s', (_, numbers, wing, trouble) => {
    const answer = answerTo({ crossing: 'through', align: 'middles', ...numbers }, plate(120, 60), wing);
    expect(answer).toMatchObject({ ok: false, troubles: [trouble] });
  });
});

test.each<[string, Numbers, Path, { field: string; nearest: unknown }]>([
  ['a line beside its outline', { firstLine: 90 }, plate(120, 60), { field: 'firstLine', nearest: 0 }],
  ['parts above each other', { raised: 58 }, plate(120, 60), { field: 'raised', nearest: 0 }],
  [
    'two peaks on the line',
    {},
    ring(-40, 30, -40, -30, 40, -30, 40, -10, -20, -10, -20, -2, 40, -2, 40, 30),
    { field: 'firstLine', nearest: null },
  ],
])('%s', (_, numbers, body, trouble) => {
  expect(answerTo(numbers, body, plate(80, 60))).toMatchObject({ ok: false, troubles: [trouble] });
});

test('figures go together whatever the numbers are, or it is said which of them is wrong', () => {
  /** Evenly, in thousandths. */
  const mm = (min: number, max: number) =>
    fc.integer({ min: min * 1000, max: max * 1000 }).map((thousandths) => thousandths / 1000);
  const numbers = fc.record({
    crossing: fc.constantFrom('halves', 'halves', 'through'),
    play: fc.oneof(fc.constant(0), mm(0, 0.5)),
    firstLine: mm(-30, 30),
    secondLine: mm(-30, 30),
    firstTurn: fc.oneof(fc.constant(0), mm(-60, 60)),
    secondTurn: fc.oneof(fc.constant(0), mm(-60, 60)),
    align: fc.constantFrom('feet', 'middles', 'tops'),
    raised: fc.oneof(fc.constant(0), mm(-20, 20)),
  });
  const shape = fc.tuple(fc.constantFrom(plate, hill), mm(30, 200), mm(30, 150)).map(([make, w, h]) => make(w, h));
  const seen = { halves: 0, through: 0, refused: 0 };
  fc.assert(
    fc.property(numbers, shape, shape, mm(1, 6), (typed, body, wing, thickness) => {
      const asked = { ...typed, fit: 'typed' };
      const answer = answerTo(asked, body, wing, thickness);
      if (answer.ok) {
        seen[typed.crossing as 'halves']++;
        expect(checkAssembly(answer.built.assembly)).toMatchObject({
          wrongJoints: [],
          overlaps: [],
          goesTogether: true,
        });
        return;
      }
      seen.refused++;
      for (const { field, message, nearest } of answer.troubles) {
        expect(Object.keys(slottedFigure.fields)).toContain(field);
        expect(message).toMatch(/^[A-Z0-9“].*\.$/);
        if (nearest === null) continue;
        const again = answerTo({ ...asked, [field]: nearest }, body, wing, thickness);
        expect(again.ok ? [] : again.troubles.map((trouble) => trouble.message)).not.toContain(message);
      }
    }),
    { numRuns: 2000 },
  );
  for (const count of Object.values(seen)) expect(count).toBeGreaterThan(30);
});
