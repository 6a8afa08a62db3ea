import { expect, test } from '@jest/globals';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { formatDuration } from '../units/duration.ts';
import { checkJob } from './check.ts';

const bar = (width: number, height: number) => jobWith([item(box(60, 50, width, height), 'engrave')]);

function checked(job: ReturnType<typeof jobWith>) {
  const prepared = prepareJob(job, shop);
  const plan = planJob(prepared);
  return { timeS: plan.steps[0].timeS, found: checkJob(prepared, plan).find(({ code }) => code === 'slow-scan') };
}

test('a tall bar is told how much sooner it burns with upright lines, to the second, and then burns so', () => {
  const job = bar(2, 200);
  const { timeS, found } = checked(job);
  const [mend] = found?.mends ?? [];
  const after = checked(mended(job, mend));
  expect(found).toMatchObject({ level: 'notes', layerId: 'engrave', itemIds: [job.drawing.items[0].id] });
  expect(timeS / after.timeS).toBeGreaterThan(20);
  // Without the way to it, which turning changes as well.
  expect(found?.message).toMatch(
    /^Engrave takes 6 min 5\d s by itself with its lines at 0°, and 1\d s with lines at 90°/,
  );
  expect(mend.words).toBe('Lines at 90°, saves 6 min 39 s');
  expect(formatDuration(timeS)).toMatch(/^6 min 5\d s$/);
  expect(after.found).toBeUndefined();
});

test('a wide bar whose lines were turned upright is told to turn them back', () => {
  const { found } = checked({ ...bar(200, 2), settings: { engrave: { scanAngle: 90 } } });
  expect(found?.mends?.[0].step).toEqual({ kind: 'set', preparedId: 'engrave', setting: 'scanAngle', value: 0 });
});

test('nothing is said where it hardly matters', () => {
  expect(checked(bar(60, 60)).found).toBeUndefined();
  expect(checked(bar(200, 2)).found).toBeUndefined();
  // A share of the time, but few seconds of it.
  expect(checked(bar(1, 6)).found).toBeUndefined();
});
