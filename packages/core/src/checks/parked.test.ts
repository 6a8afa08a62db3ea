import { expect, test } from '@jest/globals';
import { chooseDesign } from '../edits/lists.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { beforeSend } from './before-send.ts';
import { checkJob } from './check.ts';

test('the design of a list is parked for good, and is not told of; what else is parked is', () => {
  const [design, spare] = [-100, -60].map((x) => item(box(x, 20, 20), 'cut', { parked: true }));
  const list = { id: 'l', name: 'Names', columns: ['name'], rows: [], designId: null };
  const job = chooseDesign(jobWith([item(box(20, 20, 50), 'cut'), design, spare]), list, new Set([design.id]), 'g');
  const said = (known: typeof job) => {
    const prepared = prepareJob(known, shop);
    const findings = checkJob(prepared, planJob(prepared));
    return [findings.find(({ code }) => code === 'parked')?.itemIds, beforeSend(prepared, findings).parked];
  };
  expect(said(job)).toEqual([[spare.id], '1 part is parked beside the bed and does not burn.']);
  const alone = { ...job, drawing: { ...job.drawing, items: job.drawing.items.filter(({ id }) => id !== spare.id) } };
  expect(said(alone)).toEqual([undefined, null]);
});
