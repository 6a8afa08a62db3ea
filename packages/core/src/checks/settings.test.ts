import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobDocument } from '../document/job.ts';
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
