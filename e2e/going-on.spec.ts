import type { JobAnswer, RunAnswer } from '@lambent/contracts';
import { jobMediaType } from '@lambent/core/document';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { readProgram } from '../packages/core/src/fixtures/program-reader.ts';
import { bedPoint, rectangle, saved } from './bench.ts';
import { type OwnMachine, openOwnJob, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

/** What a job's document has in its file, as far as it is changed here. */
interface JobFile {
  readonly drawing: { readonly items: readonly object[] };
}

let started: OwnMachine;
test.afterEach(() => started.close());

const squares = [20, 80, 140].map((x) => rectangle(x, 20, 40, 40)).join('');
const runs = (page: Page, jobId: string) => askOwn<RunAnswer[]>(started.own, page, `runs?job=${jobId}`);
const programOf = async (page: Page, { id }: RunAnswer) =>
  (await (await page.request.get(`${started.own.address}/api/runs/${id}/program.gcode`)).text()).trimEnd().split('\n');
const burnt = (lines: readonly string[]) => readProgram(lines).map(({ title: _, ...burn }) => JSON.stringify(burn));

/** Chooses, by the picture of the run that ended, that it goes on where the middle square begins. */
async function chooseMiddle(page: Page): Promise<Locator> {
  // A machine that lost its place, or is in alarm, is cleared first.
  await expect.poll(async () => (await states(page)).state).toMatch(/^(idle|alarm)$/);
  if ((await states(page)).state === 'alarm') await page.getByRole('button', { name: 'Clear alarm' }).click();
  const last = page.getByTestId('run-row').first();
  await last.getByRole('button', { name: 'Go on with it…' }).click();
  const chooser = page.getByRole('group', { name: 'From where it goes on' });
  await expect(chooser.getByText(/^Piece \d of 3$/i)).toBeVisible();
  // The left edge of the middle square is drawn at X 80, Y 40.
  const edge = await bedPoint(page, 80, 40, { width: 400, height: 300 });
  await page.mouse.click(edge.x, edge.y);
  return chooser;
}

/** Burns the rest from a line on, to its end: with what was burnt until then, every stretch burns once. */
async function goOn(page: Page, id: string, fromLine: number): Promise<RunAnswer[]> {
  await page.getByRole('button', { name: `Go on from line ${fromLine}` }).click();
  await expect(page.getByTestId('run-row')).toHaveCount(2);
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  const [rest, first] = await runs(page, id);
  expect(rest).toMatchObject({ afterRunId: first.id, fromLine });
  const whole = await programOf(page, first);
  expect([...burnt(whole.slice(0, fromLine - 1)), ...burnt(await programOf(page, rest))]).toEqual(burnt(whole));
  return [rest, first];
}

for (const language of ['Lambent', 'plain'] as const) {
  test(`a run that was stopped on a machine that speaks ${language} goes on from where one clicks, and is burnt again`, async ({
    page,
  }) => {
    // Slow enough that it still burns when the page comes to its Stop, on whatever computer.
    started = await startOwnMachine(page, language, 1);
    const id = await openOwnJob(page, started, squares);
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    const part = page.getByTestId('machine-part');
    await expect(part.getByTestId('now-burning')).toContainText('Cut · outside');
    // While it burns it is held first, with the beam off, and asked about once; it can go on.
    await expect.poll(async () => (await runs(page, id))[0].status).toBe('running');
    await expect.poll(async () => (await states(page)).power).toBeGreaterThan(0);
    await part.getByRole('button', { name: 'Stop', exact: true }).click();
    await expect(part.getByText('It is held, and the beam is off.')).toBeVisible();
    await expect.poll(async () => (await states(page)).state).toBe('held');
    await part.getByRole('button', { name: 'Go on', exact: true }).click();
    await expect(part).toContainText('Running');
    await part.getByRole('button', { name: 'Stop', exact: true }).click();
    await part.getByRole('button', { name: 'Stop for good' }).click();
    const row = page.getByTestId('run-row').first();
    await expect(row).toHaveAttribute('data-status', 'stopped');
    await expect(page.getByText('“Labels” was stopped by hand.')).toBeVisible();
    const chooser = await chooseMiddle(page);
    const line = chooser.getByLabel('Line', { exact: true });
    const clicked = await line.inputValue();
    await chooser.getByRole('button', { name: 'One line on' }).click();
    await expect(line).toHaveValue(String(Number(clicked) + 1));
    await chooser.getByRole('button', { name: 'One line back' }).click();
    await typeFigure(line, '9999');
    await expect(chooser.getByRole('alert')).toBeVisible();
    await line.press('Escape');
    const [, first] = await goOn(page, id, Number(clicked));
    await expect(page.getByTestId('run-row').first()).toContainText(`from line ${clicked} on`);

    // Again: the very program; what it was planned by stands with it.
    const firstRow = page.getByTestId('run-row').nth(1);
    await firstRow.getByRole('button', { name: 'order and settings' }).click();
    await expect(firstRow.getByTestId('burnt-by')).toContainText('Cut: power 60 %, speed 20 mm/s, 1 pass');
    await firstRow.getByRole('button', { name: 'Burn again' }).click();
    await expect(page.getByTestId('run-row')).toHaveCount(3);
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    const [again] = await runs(page, id);
    expect(again.programHash).toBe(first.programHash);
  });
}

/** How a run comes to its end before its time, and what it stands on record as. */
const ends: readonly (readonly ['Lambent' | 'plain', string, () => Promise<void>, RunAnswer['status']])[] = [
  ['Lambent', 'ended by an alarm', () => started.alarm(), 'refused'],
  ['plain', 'ended by an alarm', () => started.alarm(), 'refused'],
  ['Lambent', 'broken off by a power cut', () => started.own.powerCut(), 'broken off'],
  ['plain', 'broken off by a power cut', () => started.own.powerCut(), 'broken off'],
];

for (const [language, what, end, status] of ends) {
  test(`a run that was ${what} on a machine that speaks ${language} goes on, and burns every stretch once`, async ({
    page,
  }) => {
    // A stand-in apart from the server, where somebody can touch its switch.
    const isApart = language === 'Lambent' && status === 'refused';
    started = await startOwnMachine(page, language, 4, isApart ? ['--look-ahead', '400'] : []);
    const id = await openOwnJob(page, started, squares);
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect.poll(async () => (await states(page)).power).toBeGreaterThan(0);
    await end();
    const row = page.getByTestId('run-row').first();
    await expect(row).toHaveAttribute('data-status', status);
    await expect(row).toContainText(/, at line \d+ of \d+/);
    await expect(page.getByText(`“Labels” was ${status}`)).toBeVisible();
    // Without a camera it is shown what it burnt, by its program.
    const picture = row.getByRole('button', { name: /how it came out|what it burnt/ });
    await picture.click();
    await expect(page.getByRole('status').filter({ hasText: /^(How it came out|What it burnt)/ })).toBeVisible();
    await page.getByRole('button', { name: 'Leave', exact: true }).click();
    const chooser = await chooseMiddle(page);
    await goOn(page, id, Number(await chooser.getByLabel('Line', { exact: true }).inputValue()));
  });
}

test('a job that is being made ready can be stopped: nothing of it burns', async ({ page }) => {
  started = await startOwnMachine(page, 'Lambent', 100);
  const id = await openOwnJob(page, started, squares);
  const others = await planMany(page, id);
  const part = page.getByTestId('machine-part');
  // Pressed by the page itself as soon as it is there: how long a job is made ready is not the test's to say.
  await page.evaluate(() => {
    const machine = document.querySelector('[data-testid="machine-part"]') as HTMLElement;
    new MutationObserver((_, observer) => {
      if (!machine.textContent?.includes('“Labels” is made ready')) return;
      const stop = Array.from(machine.querySelectorAll('button')).find(({ textContent }) => textContent === 'Stop');
      if (!stop) return;
      observer.disconnect();
      stop.click();
    }).observe(machine, { subtree: true, childList: true, characterData: true });
  });
  await page.getByRole('button', { name: 'Send to Plover' }).click();
  await expect(page.getByText('“Labels” was stopped before it was sent: nothing of it burns.')).toBeVisible();
  await expect(part).toContainText('Idle');
  expect(await runs(page, id)).toEqual([]);
  others.abort();
  // It can be sent again.
  await page.getByRole('button', { name: 'Send to Plover' }).click();
  await expect(page.getByTestId('run-row')).toHaveAttribute('data-status', 'done');
});

/** Keeps the server at planning a job of many squares, so that others wait, until that is aborted. */
async function planMany(page: Page, id: string): Promise<AbortController> {
  const { address } = started.own;
  const { document } = await askOwn<JobAnswer>(started.own, page, `jobs/${id}`);
  const { drawing } = document as JobFile;
  const items = Array.from({ length: 9000 }, (_, i) => ({
    ...drawing.items[0],
    id: `square-${i}`,
    shape: { kind: 'rectangle', x: (i % 100) * 3, y: Math.floor(i / 100) * 3, width: 2, height: 2, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
  }));
  const data = { title: 'Confetti', machineId: started.machine.id };
  const many = (await (await page.request.post(`${address}/api/jobs`, { data })).json()) as JobAnswer;
  const put = await page.request.put(`${address}/api/jobs/${many.id}?base=${many.version}&edit=draw`, {
    data: JSON.stringify({ ...(document as JobFile), drawing: { ...drawing, items } }),
    headers: { 'Content-Type': jobMediaType },
  });
  expect(put.status()).toBe(200);
  const plans = new AbortController();
  for (let i = 0; i < 10; i++) void fetch(`${address}/api/jobs/${many.id}/plan`, plans).catch(() => {});
  return plans;
}

test('an earlier version that was burnt is opened from its record; burnt again it says what has changed', async ({
  page,
}) => {
  started = await startOwnMachine(page, 'Lambent', 100);
  const id = await openOwnJob(page, started, squares);
  await page.getByRole('button', { name: 'Send to Plover' }).click();
  const rows = page.getByTestId('run-row');
  await expect(rows.first()).toHaveAttribute('data-status', 'done');
  const [{ version }] = await runs(page, id);
  await page.getByTestId('bed').click({ position: { x: 400, y: 500 } });
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await saved(page);
  await rows
    .first()
    .getByRole('button', { name: `version ${version}` })
    .click();
  await expect(page.getByRole('button', { name: `Undo: back to version ${version}` })).toBeVisible();
  await expect(page.getByTestId('plan-time')).toContainText('1 step');

  const { machine, own } = started;
  await page.request.put(`${own.address}/api/machines/${machine.id}`, { data: { ...machine, powerScale: 255 } });
  await expect.poll(async () => (await states(page)).state).toBe('idle');
  await rows.first().getByRole('button', { name: 'Burn again' }).click();
  await expect(rows.first()).toContainText('The machine: full power is s 1000 → 255.');
  await expect(rows.first()).toContainText('Its program is not for this machine as it is now.');
  await rows.first().getByRole('button', { name: 'Never mind' }).click();
  await page.request.put(`${own.address}/api/machines/${machine.id}`, { data: { ...machine, cornerDeviation: 0.05 } });
  await expect.poll(async () => (await states(page)).state).toBe('idle');
  // Corners are taken otherwise now, and not burnt otherwise: it is the very program still.
  await rows.first().getByRole('button', { name: 'Burn again' }).click();
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toHaveAttribute('data-status', 'done');
});

async function states(page: Page) {
  const [state] = await askOwn<{ state: string; power: number }[]>(started.own, page, 'machines/states');
  return state;
}
