import { expect, test } from '@jest/globals';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const [machine] = shop.machines;
const found = (scanOffsets?: (typeof machine)['scanOffsets'], engrave = {}, burning = {}) => {
  const job = jobWith([item(box(50, 50, 10), 'engrave'), item(line(10, 10, 40, 10), 'score')], {
    settings: { engrave },
    burning,
  });
  const prepared = prepareJob(job, { ...shop, machines: [{ ...machine, ...(scanOffsets ? { scanOffsets } : {}) }] });
  return checkJob(prepared, planJob(prepared)).flatMap(({ code, level, message }) =>
    code === 'scan-offset' ? [[level, message]] : [],
  );
};

test('what is taken back is said of what is scanned, and where it is guessed', () => {
  expect(found()).toEqual([]);
  expect(found([{ axis: 'x', speed: 500, mm: 0.5 }])).toEqual([
    ['notes', 'Engrave: the scan offset of 0.40 mm at 400 mm/s is taken back, half there and half back.'],
  ]);
  expect(found([{ axis: 'x', speed: 200, mm: 0.2 }])).toEqual([
    [
      'warns',
      'Engrave: the scan offset of 0.40 mm at 400 mm/s is taken back, half there and half back. It was measured up to 200 mm/s, and is guessed beyond that.',
    ],
  ]);
  expect(found([{ axis: 'x', speed: 500, mm: 0.5 }], { scanAngle: 90 })).toEqual([]);
  expect(found([{ axis: 'x', speed: 500, mm: 0.001 }])).toEqual([]);
  // Where each piece is filled at the angle that is sooner, both angles count.
  const offsets = [{ axis: 'y' as const, speed: 500, mm: 0.5 }];
  expect(found(offsets, {}, { engrave: { scanTurns: 'sooner' } })).toEqual([
    [
      'notes',
      'Engrave: the scan offset of 0.40 mm at 400 mm/s, with lines at 90°, is taken back, half there and half back.',
    ],
  ]);
});
