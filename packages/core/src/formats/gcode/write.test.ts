import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box, item, jobWith, line, shop } from '../../fixtures/shop.ts';
import { fromMachine, toMachine } from '../../plan/frame.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
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
      'M4 S0',
      '(Cut - outside)',
      'G0 X10 Y20',
      'G1 X40 Y20 F900 S600',
      'G1 X40 Y60',
      'G1 X10 Y60',
      'G1 X10 Y20',
      'M5',
      'G0 X0 Y0',
    ]);
    expect(gcode('low').slice(6, 8)).toEqual(['G0 X10 Y340', 'G1 X10 Y380 F900 S600']);
    // From the middle of the bed the square's lower right corner is nearest.
    expect(gcode('mid').slice(6, 8)).toEqual(['G0 X-260 Y140', 'G1 X-290 Y140 F900 S600']);
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
    let [x, y, s, lit] = [0, 0, 0, 0];
    for (const text of writeGcode(plan, 't')) {
      const word = (letter: string) => new RegExp(`${letter}(-?[\\d.]+)`).exec(text.replace(/\(.*\)/, ''))?.[1];
      if (word('S') !== undefined) s = Number(word('S'));
      const [nx, ny] = [Number(word('X') ?? x), Number(word('Y') ?? y)];
      if (text.startsWith('G1') && s > 0) lit += Math.hypot(nx - x, ny - y);
      [x, y] = [nx, ny];
    }
    expect(lit).toBeCloseTo(
      plan.steps.reduce((sum, step) => sum + step.litMm, 0),
      6,
    );
    expect([x, y]).toEqual([0, 0]);
  });

  test('is made line by line: the first comes before a huge engraving is written', () => {
    const huge = planJob(prepareJob(jobWith([item(box(0, 0, 590, 390), 'engrave')]), shop));
    expect(writeGcode(huge, 'huge').next()).toEqual({ done: false, value: '(Lambent: huge)' });
  });
});
