import { describe, expect, test } from '@jest/globals';
import type { JobDocument } from '../document/job.ts';
import { firstRun } from '../document/run.ts';
import { acceptFinding } from '../edits/accepted.ts';
import { changeSetting } from '../edits/items.ts';
import { linesOfPdf } from '../fixtures/pdf-lines.ts';
import { box, item, jobWith, line, machine, shop } from '../fixtures/shop.ts';
import { writePaper } from '../formats/write.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { priceOf } from '../plan/price.ts';
import type { Pricing } from '../recipes/book/pricing.ts';
import { FontBook } from '../text/fonts.ts';
import { formatClock } from '../units/duration.ts';
import { acceptedOf } from './accept.ts';
import { checkJob } from './check.ts';
import { jobSheetOf } from './job-sheet.ts';

const pricing: Pricing = {
  currency: '€',
  setUp: 2,
  perRun: 0.55,
  minimum: 0,
  rounding: 0.5,
  machines: { m: 0.7, low: 0.7 },
  materials: { ply: 21 },
};

/** The lines of words on the sheet of a job. */
async function linesOn(job: JobDocument, title = 'Test sign', runId = 'run-1', address: string | null = null) {
  const prepared = prepareJob(job, shop, { runId });
  const plan = planJob(prepared);
  const price = priceOf(plan, prepared, shop, pricing);
  const findings = checkJob(prepared, plan);
  const sheet = jobSheetOf({ title, madeOn: '28 Nov 2026', address, price, pricing }, prepared, plan, findings, shop);
  const { lines, pages } = await linesOfPdf(await writePaper(sheet, new FontBook([])));
  return { lines, plan, price, pages, findings, sheet };
}

const plate = item(box(10, 20, 200, 100), 'cut');
const mark = item(line(30, 40, 90, 40), 'score');
const lettering = item(box(40, 60, 30, 10), 'engrave');
const job = changeSetting(jobWith([plate, mark, lettering], { member: 'Avocet Press' }), 'cut', 'kerfMm', 0.2);

describe('a job sheet, read back from its PDF', () => {
  test('says whose it is, where it lies, what it burns with, how long it takes', async () => {
    const { lines, plan } = await linesOn(job);
    expect(lines.slice(0, 4)).toEqual([
      'Test sign | Job sheet',
      'For | Avocet Press',
      'Machine | Test machine, CO2 60 W, bed 600 × 400 mm',
      'Run | Run 1 · as drawn · fresh stock',
    ]);
    expect(lines).toContain('Plywood 3 mm | 500 mm | 300 mm | 0 mm | 0 mm');
    expect(lines).toContain('What burns | 200 mm | 100 mm | 10 mm | 20 mm');
    const [engrave, score, cut] = plan.steps.map(({ timeS }) => formatClock(timeS));
    expect(lines).toContain(`1 Engrave | power 20 % · speed 400 mm/s · line spacing 0.1 mm | ${engrave}`);
    expect(lines).toContain(`2 Score | power 12 % · speed 90 mm/s | ${score}`);
    expect(lines).toContain(`3 Cut · outside | power 60 % · speed 15 mm/s · kerf 0.2 mm | ${cut}`);
    expect(lines).toContain(`Back to rest | ${formatClock(plan.backS)}`);
    expect(lines).toContain(`In all | ${formatClock(plan.timeS)}`);
  });

  test('says where the job opens, in words and as a code; nothing where it has no address', async () => {
    const address = 'https://laser.example/jobs/7';
    const { lines, sheet } = await linesOn(job, 'Test sign', 'run-1', address);
    expect(lines).toContain(`Opens at | ${address}`);
    expect(sheet.code).toBe(address);
    const without = await linesOn(job);
    expect([without.sheet.code, without.lines.join().includes('Opens at')]).toEqual([null, false]);
  });

  test('has a price whose parts add up to the cent', async () => {
    const { lines, price } = await linesOn(job);
    const from = lines.indexOf('For | Amount');
    const amounts = lines
      .slice(from + 1, from + 1 + price.parts.length + 1)
      .map((row) => Math.round(Number(/€ ([\d.]+)$/.exec(row)?.[1]) * 100));
    const total = amounts.pop();
    expect(amounts.length).toBeGreaterThan(3);
    expect(amounts.reduce((sum, cents) => sum + cents, 0)).toBe(total);
    expect(total).toBe(Math.round(price.total * 100));
    expect(total).toBe(Math.ceil((total ?? 0) / 50) * 50);
  });

  test('counts places from the machine’s own zero', async () => {
    const { lines } = await linesOn({ ...job, machineId: 'low' });
    // From the bottom left of a bed 400 mm high.
    expect(lines).toContain('Plywood 3 mm | 500 mm | 300 mm | 0 mm | 100 mm');
    expect(lines).toContain('What burns | 200 mm | 100 mm | 10 mm | 280 mm');
  });

  test('has a scale and a bar that belong together', async () => {
    const { lines } = await linesOn(job);
    const [words] = lines.filter((row) => row.includes('scale 1 :'));
    // 400 mm in 88; the bar of 200 mm is 44 mm long.
    expect(words).toMatch(/^200 mm \| scale 1 : 4\.55 ·/);
  });

  test('says notes, what was accepted and why, and what stands open', async () => {
    const near = item(box(2, 200, 50), 'cut');
    const note = item(line(5, 5, 6, 6), 'note', { name: 'Peel the film first' });
    const open = jobWith([plate, near, note]);
    const [margin] = (await linesOn(open)).findings.filter(({ code }) => code === 'into-margin');
    const accepted = acceptFinding(open, acceptedOf(margin, open, 'the clamp is off'));
    const text = (await linesOn(accepted)).lines.join('\n');
    expect(text).toContain('Peel the film first');
    expect(text).toContain('Accepted: the clamp is off');
    expect((await linesOn(open)).lines.join('\n')).toContain('Into the margin: ');
  });

  test('says which run it is, and what is with its stock', async () => {
    const second = { ...firstRun, id: 'run-2', name: 'Back', mirrored: true, stock: 'turned over' as const };
    const { lines } = await linesOn({ ...job, runs: [firstRun, second] }, 'Test sign', 'run-2');
    expect(lines).toContain('Run | Back, 2 of 2 · as drawn · stock turned over · mirrored');
  });

  test('goes on on more pages where it is long, each with its number', async () => {
    const notes = Array.from({ length: 90 }, (_, i) =>
      item(line(5, 5, 6, 6), 'note', { name: `Note number ${i + 1}` }),
    );
    const { lines, pages } = await linesOn(jobWith([plate, ...notes]));
    expect(pages).toBe(3);
    for (let i = 1; i <= 90; i++) expect(lines.filter((row) => row.endsWith(`Note number ${i}`))).toHaveLength(1);
    expect(lines.filter((row) => /page \d of 3$/.test(row))).toHaveLength(3);
  });

  test('takes long words, other scripts, and an empty job', async () => {
    const { lines } = await linesOn({ ...job, member: `Łukasz ${'x'.repeat(150)}` }, 'Знак');
    expect(lines.join('')).toContain('ukasz');
    expect(lines.join(' ').match(/x{20,}/g)?.length).toBeGreaterThan(1);
    const empty = await linesOn({ ...jobWith([]), sheets: [] });
    expect(empty.lines.join('\n')).toContain('Nothing burns yet');
    expect(empty.pages).toBe(1);
  });

  test('shows each layer that burns, in its operation’s colour', async () => {
    const { sheet } = await linesOn(job);
    expect(sheet.picture?.layers.map(({ isFilled }) => isFilled).sort()).toEqual([false, false, true]);
    expect(sheet.picture).toMatchObject({
      bedWidth: machine.bedWidth,
      bedHeight: machine.bedHeight,
      zero: { x: 0, y: 0 },
    });
  });
});
