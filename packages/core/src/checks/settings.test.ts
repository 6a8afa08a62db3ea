import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobDocument } from '../document/job.ts';
import { changeSetting } from '../edits/items.ts';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, machine, shop } from '../fixtures/shop.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { checkJob } from './check.ts';

const able: Shop = {
  ...shop,
  machines: [
    {
      ...machine,
      leastPower: 4,
      mostPower: 90,
      topSpeeds: { cut: 120 },
      focus: { lowest: -10, highest: 20, speed: 5 },
      air: { levels: ['low'], mostBar: 1.5 },
    },
    { ...machine, id: 'plain' },
  ],
};
const items = [item(box(20, 20, 60), 'cut'), item(box(100, 20, 20), 'engrave')];

function beyondIn(job: JobDocument) {
  const prepared = prepareJob(job, able);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'beyond-machine');
}

describe('settings beyond the machine', () => {
  test('are brought to the nearest that it can do, on a press each', () => {
    const wild = fc.double({ min: -500, max: 2000, noNaN: true });
    const wish = fc.record({
      machineId: fc.constantFrom('m', 'plain'),
      cut: fc.record({
        powerPercent: wild,
        speedMmPerS: wild,
        kerfMm: wild,
        tabs: wild,
        tabWidthMm: wild,
        passes: wild,
        cornerPowerPercent: wild,
        pierceS: wild,
        cornerWaitS: wild,
        focusMm: wild,
        focusStepMm: wild,
        air: fc.constantFrom('high' as const, 'low' as const, 'off' as const, 0.8, 7),
      }),
      engrave: fc.record({ lineSpacingMm: wild, scanAngle: wild, runUpMm: wild, speedMmPerS: wild }),
    });
    fc.assert(
      fc.property(wish, ({ machineId, ...settings }) => {
        let job = jobWith(items, { machineId, settings });
        for (let round = 0; round < 3; round++) {
          for (const { mends = [] } of beyondIn(job)) {
            expect(mends).toHaveLength(1);
            job = mended(job, mends[0]);
          }
        }
        expect(beyondIn(job)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  test('say what is set on the button, and leave alone what is well', () => {
    const job = jobWith(items, { settings: { cut: { speedMmPerS: 300, powerPercent: 95 } } });
    const mends = beyondIn(job).flatMap((found) => found.mends ?? []);
    expect(mends.map(({ words }) => words)).toEqual(['Set power to 90 %', 'Set speed to 120 mm/s']);
    expect(mended(job, mends[1]).settings.cut).toEqual({ speedMmPerS: 120, powerPercent: 95 });
  });
});

describe('greys that are too faint to light', () => {
  const light = (id: string, fill: string, operation: 'photo' | 'engrave', x: number) =>
    item(box(x, 20, 10), operation, { id, pinned: operation, paint: { stroke: null, strokeWidthMm: 0, fill } });
  const faintIn = (job: JobDocument) => {
    const prepared = prepareJob(job, able);
    return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'greys-too-faint');
  };
  const greys = (operation: 'photo' | 'engrave') =>
    jobWith([light('dark', '#202020', operation, 20), light('light', '#E6E6E6', operation, 40)]);

  test('are told of, and brought to the least power of the beam', () => {
    const job = changeSetting(
      changeSetting(greys('photo'), 'photo', 'grain', 'true-greys'),
      'photo',
      'powerPercent',
      20,
    );
    // 1 − 230 ÷ 255 of 20 %.
    const [found, ...more] = faintIn(job);
    expect(more).toEqual([]);
    expect(found.message).toBe(
      'The lightest greys of Photo burn with 2 % power; the beam of Test machine lights from 4 % on. They stay bare.',
    );
    expect(found.itemIds).toEqual(['dark', 'light']);
    const [mend] = found.mends ?? [];
    expect(mend.words).toBe('Set least power to 4 %');
    expect(faintIn(mended(job, mend))).toEqual([]);
    expect(faintIn({ ...job, machineId: 'plain' })).toEqual([]);
  });

  test('are told of an engraving by depths too; dots and even powers are not', () => {
    const job = changeSetting(greys('engrave'), 'engrave', 'powerPercent', 20);
    expect(faintIn(job)).toEqual([]);
    expect(faintIn(setBurning(job, 'engrave', { depth: { steps: 8, lightest: 0.1 } }))).toHaveLength(1);
    expect(faintIn(setBurning(job, 'engrave', { depth: { steps: 8, lightest: 0.2 } }))).toEqual([]);
    expect(faintIn(greys('photo'))).toEqual([]);
  });
});
