import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { Move } from '../plan/moves.ts';
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

test('of bars that lie and bars that stand, each is filled along itself, by one press', () => {
  const job = jobWith([
    item(box(60, 50, 2, 200), 'engrave'),
    item(box(100, 50, 200, 2), 'engrave'),
    item(box(100, 100, 30), 'engrave'),
  ]);
  const { timeS, found } = checked(job);
  // Turned all together, the lying one would take as long as the standing one did.
  expect(found?.mends?.map(({ words }) => words)).toEqual([
    expect.stringMatching(/^Each piece by itself, saves 6 min /),
  ]);
  expect(found?.message).toContain('with each piece at 0° or 90°, where it burns sooner');
  const turned = mended(job, found?.mends?.[0] as Mend);
  const after = checked(turned);
  expect(after.found).toBeUndefined();
  expect(timeS / after.timeS).toBeGreaterThan(3);
  const alone = [
    jobWith([job.drawing.items[0]], { settings: { engrave: { scanAngle: 90 } } }),
    jobWith([job.drawing.items[1]]),
    jobWith([job.drawing.items[2]]),
  ];
  const least = alone.map((bars) => checked(bars).timeS).reduce((sum, s) => sum + s, 0);
  expect(after.timeS).toBeLessThan(least);
});

test('each piece burns whole, at the angle that its bars lie, also where pieces overlap and lines are turned anyway', () => {
  const [lying, standing] = [box(100, 60, 100, 6), box(120, 40, 6, 100)];
  const settings = { engrave: { lineSpacingMm: 0.5, scanAngle: 90 } };
  const movesOf = (items: Item[], scanTurns: 'same' | 'sooner') => {
    const burning = { engrave: { scanTurns } };
    const plan = planJob(prepareJob(jobWith(items, { settings, burning }), shop));
    return plan.steps[0];
  };
  const lit = (items: Item[], scanTurns: 'same' | 'sooner') => movesOf(items, scanTurns).litMm;
  // They cross: what both cover is left out, at one angle or the other.
  const crossed = [item(lying, 'engrave'), item(standing, 'engrave')];
  expect(lit(crossed, 'sooner')).toBeCloseTo((1200 - 2 * 36) / 0.5, 3);
  const apart = [item(lying, 'engrave'), item(box(300, 40, 6, 100), 'engrave')];
  expect(lit(apart, 'sooner')).toBeCloseTo(1200 / 0.5, 3);
  // Every burning move of each goes along it.
  const { kinds, xs, ys } = movesOf(apart, 'sooner').moves;
  kinds.forEach((kind, i) => {
    if (kind !== Move.lit) return;
    const [dx, dy] = [Math.abs(xs[i] - xs[i - 1]), Math.abs(ys[i] - ys[i - 1])];
    expect(xs[i] > 250 ? [dx, dy] : [dy, dx]).toEqual([expect.closeTo(0, 9), expect.closeTo(100, 6)]);
  });
});

test('narrow bars side by side are filled across, as one, where that is sooner', () => {
  const bars = Array.from({ length: 30 }, (_, i) => item(box(60 + 3 * i, 50, 2, 20), 'engrave'));
  const settings = { engrave: { lineSpacingMm: 0.5 } };
  const time = (more: Partial<JobDocument>) => checked(jobWith(bars, { settings, ...more })).timeS;
  const same = time({});
  expect(time({ burning: { engrave: { scanTurns: 'sooner' } } })).toBeCloseTo(same, 6);
});
