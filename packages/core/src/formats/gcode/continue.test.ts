import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readProgram } from '../../fixtures/program-reader.ts';
import { box, item, jobWith, line, shop } from '../../fixtures/shop.ts';
import type { Machine } from '../../machine/machine.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import type { TimedLine } from '../../plan/program-words.ts';
import { continueProgram } from './continue.ts';
import { programWays } from './ways.ts';
import { programLines } from './write.ts';

const able: Machine = {
  ...shop.machines[0],
  focus: { lowest: -9, highest: 5, speed: 8 },
  air: { levels: ['low', 'high'], mostBar: 2 },
};
const settings = {
  cut: { passes: 2, focusMm: 1, focusStepMm: 1.25, air: 'high' as const, pierceS: 0.4 },
  score: { cornerPowerPercent: 4, cornerWaitS: 0.05, air: 'low' as const },
  engrave: { powerPercent: 21.3, speedMmPerS: 250, lineSpacingMm: 2 },
};
const items = [
  item(box(10, 20, 30, 40), 'cut'),
  item(box(100, 100, 10), 'engrave'),
  item(line(60, 60, 80, 60, 80, 90), 'score'),
];
const plan = planJob(prepareJob(jobWith(items, { settings }), { ...shop, machines: [able] }));
const program: TimedLine[] = [...programLines(plan, 'Three things')];
const texts = program.map(({ text }) => text);
const going = (from: number) => [...continueProgram(program, from, able)];

/** Everything that is lit or stood for, each with all that it is burnt by; of a title only what it says of the step. */
const burnt = (lines: readonly string[]) =>
  readProgram(lines).map(({ title: _, floor, ...burn }) =>
    // A beam that stands has the power that is said: there is no floor to it.
    JSON.stringify({ ...burn, floor: burn.wait === null ? floor : null }),
  );

describe('a program that goes on', () => {
  test('burns what is left, and with what was burnt until then every stretch once', () => {
    const all = burnt(texts);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: texts.length }), (from) => {
        const before = burnt(texts.slice(0, from - 1));
        const rest = burnt(going(from).map(({ text }) => text));
        expect([...before, ...rest]).toEqual(all);
      }),
      { numRuns: texts.length },
    );
  });

  test('begins unlit, says its state before it burns, and ends as the whole does', () => {
    const from = texts.findIndex((text) => text.startsWith('(Score')) + 4;
    const lines = going(from).map(({ text }) => text);
    expect(lines.slice(0, 6)).toEqual([texts[0], texts[1], `(Goes on from line ${from})`, 'G21', 'G90', 'M5S0']);
    expect(lines.slice(6, 8)).toEqual(['M7', 'G0Z0']);
    expect(lines[8]).toMatch(/^G0X[\d.]+Y[\d.]+$/);
    expect(lines.slice(-3)).toEqual(texts.slice(-3));
  });

  test('runs up to a line that burns, in its direction and at its speed, and no further than the edge of the bed', () => {
    const ways = programWays(texts.join('\n'), able);
    let longest = 0;
    for (const [i, from] of ways.lines.entries()) {
      if (!ways.lit[i]) continue;
      const lines = going(from).map(({ text }) => text);
      const begins = lines.findIndex((text) => text.startsWith('G0X'));
      const [, x, y] = /^G0X([-\d.]+)Y([-\d.]+)$/.exec(lines[begins]) ?? [];
      const [runX, runY] = [ways.xs[i - 1] - Number(x), ways.ys[i - 1] - Number(y)];
      const [dx, dy] = [ways.xs[i] - ways.xs[i - 1], ways.ys[i] - ways.ys[i - 1]];
      const length = Math.hypot(runX, runY);
      longest = Math.max(longest, length);
      // Along the same line, forwards.
      if (length > 0.01) expect((runX * dx + runY * dy) / length / Math.hypot(dx, dy)).toBeCloseTo(1, 3);
      for (const mm of [Number(x), Number(y)]) expect(mm).toBeGreaterThanOrEqual(0);
    }
    // 250 mm/s at the acceleration of the machine: v² / 2a.
    expect(longest).toBeCloseTo(250 ** 2 / (2 * able.acceleration), 2);
  });

  test('keeps the seconds of its lines', () => {
    const sum = (lines: readonly TimedLine[]) => lines.reduce((all, { seconds }) => all + seconds, 0);
    const from = Math.floor(texts.length / 2);
    const rest = sum(program.slice(from - 1));
    const run = going(from).find(({ text }) => text.endsWith('S0') && text.startsWith('G1'))?.seconds ?? 0;
    expect(sum(going(from))).toBeCloseTo(rest + run, 5);
  });

  test('has no line that the program has not', () => {
    expect(() => going(texts.length + 1)).toThrow(
      `The program has ${texts.length} lines, and no line ${texts.length + 1}.`,
    );
  });
});

describe('the ways of a program', () => {
  test('are its moves, in bed mm, with their lines, steps and pieces', () => {
    const ways = programWays(texts.join('\n'), able);
    expect(ways.steps.map(({ title }) => title)).toEqual(['Engrave', 'Score', 'Cut - outside']);
    for (const { title, line: at } of ways.steps) expect(texts[at - 1]).toBe(`(${title})`);
    const lit = [...ways.lit].filter((is) => is === 1).length;
    expect(lit).toBe(readProgram(texts).filter(({ wait }) => wait === null).length);
    const [cut] = ways.steps.slice(2);
    const xs = [...ways.xs.slice(cut.move)].filter((_, i) => ways.lit[cut.move + i] === 1);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([10, 40]);
    // Five rows, a score, and an outline that is gone round twice without going unlit between.
    expect(ways.pieces.length).toBeGreaterThan(6);
    expect([...ways.pieces].every((move) => ways.lit[move] === 1 && ways.lit[move - 1] !== 1)).toBe(true);
  });
});
