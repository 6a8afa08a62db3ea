import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { boundsOf } from '../document/item.ts';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { Move } from '../plan/moves.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const slits = (count: number, apart: number): Item[] =>
  Array.from({ length: count }, (_, i) => item(line(30, 30 + i * apart, 90, 30 + i * apart), 'cut'));
const heatIn = (items: readonly Item[], change = (job: ReturnType<typeof jobWith>) => job) => {
  const prepared = prepareJob(change(jobWith(items)), shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'heat');
};

test('rows of cuts within half the thickness are said, as many as they are, and burn spread in time on a press', () => {
  const items = slits(30, 1.4);
  const [heat] = heatIn(items);
  expect(heat).toMatchObject({ level: 'notes', mends: [{ words: 'Spread in time', isSafe: false }] });
  expect(heat.message).toContain('30 cuts lie within 1.5 mm of each other');
  const job = mended(jobWith(items), heat.mends?.[0] as Mend);
  const prepared = prepareJob(job, shop);
  const plan = planJob(prepared);
  expect(checkJob(prepared, plan).filter(({ code }) => code === 'heat')).toEqual([]);
  // Each line burns, and never next to the one before it.
  const ys = plan.steps.flatMap(({ moves }) =>
    [...moves.kinds].flatMap((kind, i) => (kind === Move.lit ? [moves.ys[i]] : [])),
  );
  expect(ys.toSorted((a, b) => a - b)).toEqual(items.map((entry) => expect.closeTo(boundsOf(entry).minY, 3)));
  for (let i = 1; i < ys.length; i++) expect(Math.abs(ys[i] - ys[i - 1])).toBeGreaterThan(1.5);
});

test('few, or further apart, or nested ones are none', () => {
  expect(heatIn(slits(11, 1.4))).toEqual([]);
  expect(heatIn(slits(30, 1.6))).toEqual([]);
  const nested = Array.from({ length: 14 }, (_, i) => item(box(100 + i, 100 + i, 100 - 2 * i), 'cut'));
  expect(heatIn(nested)).toEqual([]);
  expect(heatIn(slits(30, 1.4), (job) => setBurning(job, 'cut', { order: 'by-hand' }))).toEqual([]);
});
