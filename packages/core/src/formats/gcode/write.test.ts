import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readMoves, readProgram } from '../../fixtures/program-reader.ts';
import { box, item, jobWith, line, shop } from '../../fixtures/shop.ts';
import { fromMachine, toMachine } from '../../machine/frame.ts';
import type { Machine } from '../../machine/machine.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { coordinate } from '../../plan/program-words.ts';
import { writeGcode } from './write.ts';

describe('G-code', () => {
  const square = item(box(10, 20, 30, 40), 'cut');
  const gcode = (machineId: string, items = [square]) => [
    ...writeGcode(planJob(prepareJob(jobWith(items, { machineId }), recipesFor(machineId))), 'Square (test)'),
  ];
  const recipesFor = (machineId: string) => ({
    ...shop,
    materials: shop.materials.map((one) => ({
      ...one,
      recipes: one.recipes.map((recipe) => ({ ...recipe, machineId })),
    })),
  });

  test('is in the machine’s own frame, with feed in mm/min and power on its scale', () => {
    expect(gcode('m')).toEqual([
      '(Lambent: Square test)',
      '(Test machine, 600 x 400 mm)',
      'G21',
      'G90',
      'M4S0',
      '(Cut - outside)',
      'G0X10Y20',
      'G1X40F900S600',
      'Y60',
      'X10',
      'Y20',
      'M5',
      'G0X0Y0',
    ]);
    expect(gcode('low').slice(6, 8)).toEqual(['G0X10Y340', 'G1Y380F900S600']);
    // From the middle of the bed the square's lower right corner is nearest.
    expect(gcode('mid').slice(6, 8)).toEqual(['G0X-260Y140', 'G1X-290F900S600']);
  });

  test('frames go there and back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...shop.machines),
        fc.integer({ min: 0, max: 600 }),
        fc.integer({ min: 0, max: 400 }),
        (bed, x, y) => {
          const there = toMachine(bed, x, y);
          expect(fromMachine(bed, there.x, there.y)).toEqual({ x, y });
        },
      ),
    );
  });

  test('says lit length and place exactly as the plan has them', () => {
    const items = [square, item(box(100, 100, 7), 'engrave'), item(line(5, 5, 80, 90), 'score')];
    const plan = planJob(prepareJob(jobWith(items), shop));
    let [x, y, lit] = [0, 0, 0];
    for (const move of readMoves(writeGcode(plan, 't'))) {
      if (move.lit) lit += Math.hypot(move.x - x, move.y - y);
      ({ x, y } = move);
    }
    expect(lit).toBeCloseTo(
      plan.steps.reduce((sum, step) => sum + step.litMm, 0),
      6,
    );
    expect([x, y]).toEqual([0, 0]);
  });

  test('holds every setting of every operation, pass and focus step exactly', () => {
    const able: Machine = {
      ...shop.machines[0],
      focus: { lowest: -9, highest: 5, speed: 8 },
      air: { levels: ['low', 'high'], mostBar: 2 },
    };
    const settings = {
      cut: { powerPercent: 63.5, speedMmPerS: 7.25, passes: 3, focusMm: 1, focusStepMm: 1.25, air: 0.8, pierceS: 0.4 },
      score: { powerPercent: 9, speedMmPerS: 110, cornerPowerPercent: 4, cornerWaitS: 0.05, air: 'low' as const },
      engrave: { powerPercent: 21.3, speedMmPerS: 250, passes: 2, focusMm: -2, focusStepMm: 0.5, lineSpacingMm: 0.5 },
    };
    const items = [square, item(box(100, 100, 10), 'engrave'), item(line(60, 60, 80, 60, 80, 90), 'score')];
    const plan = planJob(prepareJob(jobWith(items, { settings }), { ...shop, machines: [able] }));
    expect(plan.steps.map(({ operation }) => operation)).toEqual(['engrave', 'score', 'cut']);
    const burns = readProgram([...writeGcode(plan, 't')]);
    const of = (title: string) => burns.filter((burn) => burn.title.startsWith(title));
    const all = (title: string, what: 's' | 'f' | 'z' | 'air' | 'floor') => [
      ...new Set(of(title).map((burn) => burn[what])),
    ];
    for (const [title, { powerPercent, speedMmPerS }] of [
      ['Cut', settings.cut],
      ['Score', settings.score],
      ['Engrave', settings.engrave],
    ] as const) {
      expect(all(title, 's')).toEqual([Number((powerPercent * 10).toFixed(1))]);
      expect(all(title, 'f').filter((f) => f !== null)).toEqual([speedMmPerS * 60]);
    }
    expect(all('Engrave', 'z')).toEqual([-2, -2.5]);
    expect(all('Score', 'z')).toEqual([0]);
    expect(all('Cut', 'z')).toEqual([1, -0.25, -1.5]);
    expect([all('Engrave', 'air'), all('Score', 'air'), all('Cut', 'air')]).toEqual([['M9'], ['M7'], ['M8P0.8']]);
    expect([all('Score', 'floor'), all('Cut', 'floor')]).toEqual([[40], [0]]);
    // Three times round the square, each at its own focus; pierced where it starts, the first time only.
    for (const z of [1, -0.25, -1.5]) {
      expect(
        of('Cut')
          .filter((burn) => burn.z === z && burn.lit > 0)
          .reduce((sum, { lit }) => sum + lit, 0),
      ).toBeCloseTo(140);
    }
    expect(of('Cut').flatMap(({ wait }) => (wait ? [wait] : []))).toEqual([0.4]);
    expect(of('Score').flatMap(({ wait, x, y }) => (wait ? [[wait, x, y]] : []))).toEqual([[0.05, 80, 60]]);
    // Rows of the engraving are as far apart as asked, the same in both passes.
    const rows = of('Engrave')
      .filter(({ z }) => z === -2)
      .map(({ y }) => y);
    expect(rows).toHaveLength(20);
    expect(new Set(rows.slice(1).map((y, i) => Number((y - rows[i]).toFixed(3))))).toEqual(new Set([0.5]));
    expect(of('Engrave')).toHaveLength(40);
    // The focus is back and the air off at the end, and the time holds what the focus and the waits take.
    const end = [...writeGcode(plan, 't')].slice(-4);
    expect(end).toEqual(['M5', 'M9', 'G0Z0', 'G0X0Y0']);
    const still = plan.steps.reduce(
      (sum, { moves, durations }) => sum + durations.reduce((time, s, i) => time + (moves.kinds[i] > 2 ? s : 0), 0),
      0,
    );
    // Engraving 2 + 0.5, back up 2.5; for the cut 1, down 1.25 twice; and waits of 0.05 and 0.4.
    expect(still).toBeCloseTo((2 + 0.5 + 2.5 + 1 + 1.25 + 1.25) / 8 + 0.45, 5);
  });

  test('begins and ends with the lines of the shop, with the focus where it rests', () => {
    const own: Machine = {
      ...shop.machines[0],
      focus: { lowest: -9, highest: 20, speed: 10 },
      restFocus: 15,
      startLines: ['M106 P1', 'G4 P2'],
      endLines: ['M106 P0'],
    };
    const plan = planJob(prepareJob(jobWith([square]), { ...shop, machines: [own] }));
    const lines = [...writeGcode(plan, 't')];
    expect(lines.slice(2, 9)).toEqual(['G21', 'G90', 'M106 P1', 'G4 P2', 'M4S0', 'G0Z15', '(Cut - outside)']);
    expect(lines.slice(-4)).toEqual(['M5', 'G0Z15', 'G0X0Y0', 'M106 P0']);
    expect(readProgram(lines).every(({ z }) => z === 0)).toBe(true);
    // Down to the stock and up again, at 10 mm/s, is in the time.
    const { restFocus: _, ...level } = own;
    const still = planJob(prepareJob(jobWith([square]), { ...shop, machines: [level] }));
    expect(plan.timeS - still.timeS).toBeCloseTo(3, 1);
  });

  test('scan lines run at their angle, one way if asked, and stay within the bed', () => {
    const settings = { engrave: { scanAngle: 30, bothWays: false, lineSpacingMm: 1, speedMmPerS: 300 } };
    const burns = (more: object) =>
      readProgram([
        ...writeGcode(
          planJob(
            prepareJob(
              jobWith([item(box(5, 5, 12), 'engrave')], { settings: { engrave: { ...settings.engrave, ...more } } }),
              shop,
            ),
          ),
          't',
        ),
      ]);
    const angles = (all: ReturnType<typeof burns>) =>
      new Set(all.map(({ dx, dy }) => Math.round((Math.atan2(dy, dx) * 180) / Math.PI)));
    expect(angles(burns({}))).toEqual(new Set([30]));
    expect(angles(burns({ bothWays: true }))).toEqual(new Set([30, -150]));
    expect(angles(burns({ scanAngle: 90 }))).toEqual(new Set([90]));
    // What is lit covers the square: its area over the spacing.
    for (const scanAngle of [0, 30, 90, -45]) {
      const lit = burns({ scanAngle }).reduce((sum, one) => sum + one.lit, 0);
      expect(Math.abs(lit - 144)).toBeLessThan(6);
    }
    const plan = planJob(prepareJob(jobWith([item(box(1, 1, 12), 'engrave')], { settings }), shop));
    const [{ moves, runUpShort }] = plan.steps;
    expect(runUpShort).toBe(true);
    expect(Math.min(...moves.xs, ...moves.ys)).toBeGreaterThanOrEqual(0);
  });

  test('is made line by line: the first comes before a huge engraving is written', () => {
    const huge = planJob(prepareJob(jobWith([item(box(0, 0, 590, 390), 'engrave')]), shop));
    expect(writeGcode(huge, 'huge').next()).toEqual({ done: false, value: '(Lambent: huge)' });
  });
});

test('a coordinate is rounded as toFixed rounds it', () => {
  const nearHalves = fc.integer({ min: -5_000_000, max: 5_000_000 }).map((n) => (n + 0.5) / 1000);
  const any = fc.double({ min: -1e5, max: 1e5, noNaN: true });
  fc.assert(
    fc.property(fc.oneof(nearHalves, any, fc.double({ noNaN: true, noDefaultInfinity: true })), (mm) => {
      expect(coordinate(mm)).toBe(String(Number(mm.toFixed(3)) || 0));
    }),
    { numRuns: 2000 },
  );
  expect([-0.0001, 12.3456, 1e-7, 100].map(coordinate)).toEqual(['0', '12.346', '0', '100']);
});
