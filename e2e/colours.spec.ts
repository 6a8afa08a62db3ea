import { readFileSync } from 'node:fs';
import type { RunAnswer } from '@lambent/contracts';
import { operationColourKey } from '@lambent/core/colours';
import { planJob, prepareJob, stepTitle } from '@lambent/core/plan';
import { expect, type Page, test } from '@playwright/test';
import {
  bedPoint,
  choose,
  clickBed,
  finishText,
  newJob,
  newJobOnPlywood,
  openJob,
  openStage,
  rectangle,
  saved,
  storedJob,
  svg,
  typeInto,
} from './bench.ts';

const document = async (page: Page) => (await storedJob(page)).document;
const stroke = (d: string, colour: string, width = 0.1) =>
  `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${width}"/>`;

/** The plan of the stored job, as the server would send it. */
async function storedPlan(page: Page, runId?: string) {
  const get = async (path: string) => (await page.request.get(`/api/${path}`)).json();
  const shop = { machines: await get('machines'), materials: await get('materials'), keys: await get('colour-keys') };
  return planJob(prepareJob(await document(page), shop, runId ? { runId } : {}));
}

async function onPlywood(page: Page, title: string, body: string): Promise<void> {
  await newJobOnPlywood(page, title, body);
  await openStage(page, 'Colours');
}

test('a stranger’s colours, from the file to the right plan in under ten clicks', async ({ page }) => {
  await newJob(
    page,
    'Stranger',
    svg(
      rectangle(10, 10, 60, 40, '#7A1FA2') +
        stroke('M15 30H65', '#1976D2') +
        '<rect x="90" y="20" width="20" height="20" fill="#455A64"/>' +
        stroke('M10 60H40', '#F9A825') +
        stroke('M10 64H40', '#F9A825', 0.3),
    ),
  );
  let clicks = 0;
  const click = async (name: string | RegExp, role: 'button' | 'option' | 'checkbox' = 'button') => {
    clicks++;
    await page.getByRole(role, { name }).first().click();
  };
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await page.keyboard.press('3');
  await click('What #7A1FA2 means');
  await click('Cut', 'option');
  await click('What #1976D2 means');
  await click('Score', 'option');
  await click('What fill #455A64 means');
  await click('Engrave', 'option');
  // Two at once.
  await page.getByRole('checkbox', { name: 'Choose #F9A825' }).nth(0).check();
  await page.getByRole('checkbox', { name: 'Choose #F9A825' }).nth(1).check();
  await click('What they all mean');
  await click(/^Note/, 'option');
  expect(clicks).toBeLessThan(10);
  await expect(page.getByTestId(/^step-/)).toHaveCount(3);
  const { steps } = await storedPlan(page);
  expect(steps.map((step) => [stepTitle(step), Math.round(step.litMm)])).toEqual([
    ['Engrave', 4000],
    ['Score', 50],
    ['Cut · outside', 200],
  ]);
  // Kept as a key, the next drawing of its kind needs none of this.
  await click('Keep these colours as a key');
  await page.getByLabel('Name of the key').fill('Stranger’s key');
  await click('Keep');
  await expect(page.getByRole('button', { name: 'Colour key: Stranger’s key' })).toBeVisible();
  expect((await document(page)).assignments).toEqual([]);
  expect((await storedPlan(page)).steps).toHaveLength(3);
});

test('a near miss says how far off it is, and is mended here or in the key', async ({ page }) => {
  await onPlywood(page, 'Nearly', rectangle(10, 10, 60, 40, '#C8552E') + rectangle(20, 20, 5, 5, '#077F6C'));
  const miss = page.getByTestId('near-miss').filter({ hasText: '#C8552E' });
  await expect(miss).toContainText('Almost the cut colour');
  await expect(miss).toContainText('2.9 away from #D0481E');
  await expect(page.getByRole('link', { name: 'Colours, 2 want attention' })).toBeVisible();
  await miss.getByRole('button', { name: 'Treat as cut' }).click();
  await expect(miss).toBeHidden();
  expect((await storedPlan(page)).steps.map(stepTitle)).toEqual(['Cut · outside']);
  await page.keyboard.press('Control+z');
  await expect(miss).toBeVisible();
  // For the key, tried on one of its own so that other tests keep theirs.
  const made = await page.request.post('/api/colour-keys', { data: operationColourKey('x', 'Near key') });
  const { id } = await made.json();
  await page.reload();
  await choose(page, /^Colour key/, 'Near key');
  await page
    .getByTestId('near-miss')
    .filter({ hasText: '#077F6C' })
    .getByRole('button', { name: 'In the key too' })
    .click();
  await expect(page.getByRole('button', { name: 'What #077F6C means: Score' })).toBeVisible();
  const keys = await (await page.request.get('/api/colour-keys')).json();
  const [score] = keys
    .find((key: { id: string }) => key.id === id)
    .rules.filter((rule: { layerId: string }) => rule.layerId === 'score');
  expect(score.tolerance).toBeGreaterThan(1);
});

test('treating all as meant never fills a line: that is asked by itself, with a picture of the result', async ({
  page,
}) => {
  const near = rectangle(10, 10, 60, 40, '#C8552E') + rectangle(20, 20, 5, 5, '#077F6C');
  await onPlywood(page, 'Kinds', `${near}${rectangle(90, 10, 30, 30, '#6E58B0')}`);
  const asked = page.getByTestId('near-miss').filter({ hasText: '#6E58B0' });
  await page.getByRole('button', { name: 'Treat the 2 as meant' }).click();
  await expect(page.getByTestId('near-miss')).toHaveCount(1);
  await expect(asked).toContainText('They are lines now, and would be filled');
  await expect(asked.getByRole('img', { name: 'As they would burn' })).toBeVisible();
  expect((await storedPlan(page)).steps.map(stepTitle)).toEqual(['Score', 'Cut · outside']);
  await asked.getByRole('button', { name: 'Treat as engrave' }).click();
  await expect(page.getByTestId('near-miss')).toHaveCount(0);
  expect((await storedPlan(page)).steps.map(stepTitle)).toEqual(['Engrave', 'Score', 'Cut · outside']);
});

test('pinned by hand, another key, unpinned: what changes is said before it does', async ({ page }) => {
  await onPlywood(page, 'Pins', rectangle(10, 10, 40, 40) + rectangle(70, 10, 40, 40) + stroke('M10 80H60', '#00806A'));
  await openStage(page, 'Art');
  await clickBed(page, 10, 30);
  await choose(page, /^Layer of the selection/, /Score/);
  await openStage(page, 'Colours');
  await expect(page.getByText('Pinned by hand: 1')).toBeVisible();
  await choose(page, /^Colour key/, 'Evening class key');
  const change = page.getByTestId('key-change');
  await expect(change).toContainText('2 items change, 1 as now');
  await change.getByRole('button', { name: 'Leave it' }).click();
  expect((await document(page)).keyId).toBe('house');
  await choose(page, /^Colour key/, 'Evening class key');
  await change.getByRole('button', { name: 'Change the key' }).click();
  const lit = async () =>
    Object.fromEntries((await storedPlan(page)).steps.map((step) => [step.operation, Math.round(step.litMm)]));
  expect(await lit()).toEqual({ score: 320, cut: 50 });
  await page.getByRole('button', { name: 'Unpin', exact: true }).click();
  expect(await lit()).toEqual({ score: 320, cut: 50 });
  await choose(page, /^Colour key/, 'Tern Lane house key');
  await change.getByRole('button', { name: 'Change the key' }).click();
  expect(await lit()).toEqual({ cut: 320, score: 50 });
});

test('the strip is the order: dragged, it says what that breaks, and goes back', async ({ page }) => {
  await onPlywood(
    page,
    'Order',
    `${rectangle(10, 10, 60, 40)}<rect x="20" y="20" width="10" height="10" fill="#5B3FA0"/>${stroke('M40 30H60', '#00806A')}`,
  );
  const strip = page.getByRole('region', { name: 'Burn order' });
  await expect(strip.getByTestId(/^step-/)).toHaveCount(3);
  const [cut, engrave] = [strip.getByTestId('step-cut-outer'), strip.getByTestId('step-engrave-all')];
  const [from, to] = [await cut.boundingBox(), await engrave.boundingBox()];
  if (!from || !to) throw new Error('The strip is not shown');
  await page.mouse.move(from.x + 40, from.y + 30);
  await page.mouse.down();
  await page.mouse.move(from.x - 30, from.y + 30, { steps: 4 });
  await page.mouse.move(to.x + 20, to.y + 30, { steps: 8 });
  await page.mouse.up();
  expect((await storedPlan(page)).steps.map(stepTitle)).toEqual(['Cut · outside', 'Engrave', 'Score']);
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-order-broken')).toContainText('2 items burn after the outline around them');
  await page.getByRole('button', { name: 'Back to the usual order' }).click();
  await expect(page.getByTestId('finding-order-broken')).toBeHidden();
  expect((await storedPlan(page)).steps.map(stepTitle)).toEqual(['Engrave', 'Score', 'Cut · outside']);
});

test('a layer’s block opens its settings: numbers by hand, order by clicks, way round, name', async ({ page }) => {
  await onPlywood(page, 'Layer', rectangle(10, 10, 20, 20) + rectangle(50, 10, 20, 20) + rectangle(90, 10, 20, 20));
  const block = page.getByTestId('step-cut-outer');
  await block.getByRole('button').first().click();
  const panel = page.getByRole('region', { name: 'Layer Cut' });
  await panel.getByLabel('Name of the layer Cut').fill('Through');
  await panel.getByLabel('Name of the layer Cut').press('Enter');
  await expect(page.getByRole('region', { name: 'Layer Through' })).toBeVisible();
  await choose(page, /^Line order/, 'By hand, numbered');
  await page.getByRole('button', { name: 'Number by clicking' }).click();
  await clickBed(page, 90, 20);
  await clickBed(page, 10, 20);
  await expect(page.getByText('2 numbered, the next is 3')).toBeVisible();
  await finishText(page);
  const step = page.getByTestId('step-cut-all');
  await step.getByRole('button').first().click();
  await choose(page, /^Way round/, 'Anticlockwise');
  await page.getByRole('button', { name: 'Choose', exact: true }).click();
  await clickBed(page, 70, 30);
  await finishText(page);
  const { steps } = await storedPlan(page);
  const { moves } = steps[0];
  const starts = [...moves.kinds].flatMap((kind, i) => (kind === 0 ? [Math.floor(moves.xs[i] / 10)] : []));
  expect(starts.map((x) => (x >= 9 ? 'third' : x >= 5 ? 'second' : 'first'))).toEqual(['third', 'first', 'second']);
  // The second one starts at the corner that was clicked.
  const second = [...moves.kinds].map((kind, i) => [kind, moves.xs[i], moves.ys[i]]).filter(([kind]) => kind === 0)[2];
  expect(second.slice(1)).toEqual([70, 30]);
  let area = 0;
  for (let i = 1; i <= 4; i++) area += moves.xs[i - 1] * moves.ys[i] - moves.xs[i] * moves.ys[i - 1];
  expect(area).toBeLessThan(0);
  expect(stepTitle(steps[0])).toBe('Cut · Through');
});

test('what is filled: asked on the bed, overlaps united, figure and ground swapped', async ({ page }) => {
  const fill = (x: number, y: number, width: number, height: number) =>
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="#5B3FA0"/>`;
  await onPlywood(page, 'Fills', `${rectangle(5, 5, 80, 60)}${fill(20, 20, 20, 20)}${fill(30, 20, 20, 20)}`);
  const engraved = async () =>
    Math.round(((await storedPlan(page)).steps.find(({ operation }) => operation === 'engrave')?.litMm ?? 0) / 10);
  expect(await engraved()).toBe(400);
  await page.getByRole('button', { name: 'Why is this filled?' }).click();
  await clickBed(page, 35, 30);
  const card = page.getByRole('region', { name: 'On the bed' });
  await expect(card).toContainText('It does not burn. 2 outlines lie around it on Engrave: an even number is a hole.');
  await clickBed(page, 24, 30);
  await expect(card).toContainText('It burns. 1 outline lies around it');
  await card.getByRole('button', { name: 'Done' }).click();

  await page.getByTestId('step-engrave-all').getByRole('button').first().click();
  await choose(page, /^Overlaps/, 'Unite');
  await page.keyboard.press('Escape');
  expect(await engraved()).toBe(600);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Flip fill of 2' }).click();
  expect(await engraved()).toBe(80 * 60 - 600);
  const { drawing } = await document(page);
  expect(drawing.items).toHaveLength(3);
  await page.getByRole('button', { name: 'Flip back' }).click();
  expect(await engraved()).toBe(600);
});

test('bars that lie and bars that stand are each filled along themselves, by the operator’s leave', async ({
  page,
}) => {
  const fill = (x: number, y: number, width: number, height: number) =>
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="#5B3FA0"/>`;
  await onPlywood(page, 'Bars', `${rectangle(5, 5, 280, 250)}${fill(20, 40, 2, 200)}${fill(60, 40, 200, 2)}`);
  const planned = async () =>
    (await storedPlan(page)).steps.find(({ operation }) => operation === 'engrave')?.timeS ?? 0;
  const before = await planned();
  await openStage(page, 'Check');
  const slow = page.getByTestId('finding-slow-scan');
  await expect(slow).toContainText('with each piece at 0° or 90°, where it burns sooner');
  await slow.getByRole('button', { name: /^Each piece by itself, saves \d/ }).click();
  await expect(slow).toBeHidden();
  await saved(page);
  expect(before / (await planned())).toBeGreaterThan(5);

  // It stands with the layer, and can be said otherwise there.
  await page.getByTestId('step-engrave-all').getByRole('button').first().click();
  await expect(page.getByRole('button', { name: /^Scan angle/ })).toContainText('The quickest for each piece');
  await choose(page, /^Scan angle/, 'One for all');
  await page.keyboard.press('Escape');
  await saved(page);
  expect(await planned()).toBeCloseTo(before, 3);
});

test('the badges: the holder is cut in one run, the badges engraved in the next, with their own stock’s recipe', async ({
  page,
}) => {
  await openJob(page, 'Volunteer badges');
  await expect(page.getByTestId(/^step-cut/)).toHaveCount(2);
  await page.getByRole('button', { name: 'Send Holder' }).click();
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  await expect(page.getByRole('button', { name: 'Holder is burnt' })).toBeVisible();
  // Burnt again it would burn over what is there: that is asked first, by page and server alike.
  const id = /jobs\/([^/]+)/.exec(page.url())?.[1];
  const again = await page.request.post(`/api/jobs/${id}/runs`, { data: { version: 1, runId: 'run-1' } });
  expect(again.status()).toBe(409);
  expect((await again.json()).error.code).toBe('burnt-already');

  await page.getByRole('button', { name: 'Runs: Holder' }).click();
  await page.getByRole('radio', { name: 'Look at Badges', exact: true }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('step-engrave@laminate-16-all')).toContainText('15 %');
  await page.getByRole('button', { name: 'Send Badges' }).click();
  await expect(page.getByTestId('run-row')).toHaveCount(2);
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  const runs = (await (await page.request.get(`/api/runs?job=${id}`)).json()) as RunAnswer[];
  expect(runs.map(({ jobRunName, status }) => `${jobRunName} ${status}`)).toEqual(['Badges done', 'Holder done']);
  const program = await (await page.request.get(`/api/runs/${runs[0].id}/program.gcode`)).text();
  expect(program).toContain('S150');
});

test('a run is added, named, mirrored for the back, and shown to be', async ({ page }) => {
  await onPlywood(page, 'Back', rectangle(10, 10, 40, 40) + stroke('M20 20H40', '#00806A'));
  await page.getByRole('button', { name: 'Runs: Run 1' }).click();
  await page.getByRole('button', { name: 'Another run' }).click();
  await page.getByRole('checkbox', { name: 'Score burns in Run 2' }).check();
  await page.getByRole('checkbox', { name: 'Score burns in Run 1' }).uncheck();
  await page.getByLabel('Name of Run 2').fill('Back');
  await page.getByLabel('Name of Run 2').press('Enter');
  await page.getByRole('checkbox', { name: 'Mirrored for the back' }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('run-chip')).toHaveText('Back: mirrored for the back');
  const { runs, sheets } = await document(page);
  expect(runs).toMatchObject([
    { id: 'run-1', off: ['score'] },
    { name: 'Back', mirrored: true, stock: 'turned over', off: ['cut'] },
  ]);
  const { steps } = await storedPlan(page, runs[1].id);
  const xs = [...steps[0].moves.xs];
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([sheets[0].width - 40, sheets[0].width - 20]);
  // The stock that it turns over lies there only once the first run is burnt.
  await openStage(page, 'Burn');
  await expect(page.getByText('Run 1 was not burnt yet')).toBeVisible();
  await expect(page.getByText('Back needs the stock as Run 1 leaves it.')).toBeVisible();
});

test('two boards side by side, each with the recipe of its own', async ({ page }) => {
  await newJob(page, 'Two boards', svg(rectangle(10, 10, 40, 40) + rectangle(140, 10, 40, 40)));
  await openStage(page, 'Bed');
  await choose(page, /^Material: Choose/, /Birch plywood.*3 mm/);
  await typeInto(page, 'Width', '100');
  await choose(page, /^Material: Choose/, /Cork/);
  await expect(page.getByTestId('step-cut-outer')).toContainText('62 %');
  await expect(page.getByTestId('step-cut@cork-3-outer')).toContainText('42 %');
  await page.getByTestId('step-cut@cork-3-outer').getByRole('button').first().click();
  await typeInto(page, 'Power (22.7 W)', '50');
  const { steps } = await storedPlan(page);
  expect(steps.map(({ preparedId, settings }) => [preparedId, settings.powerPercent])).toEqual([
    ['cut', 62],
    ['cut@cork-3', 50],
  ]);
});

test('keys are made, edited, tried on a drawing, taken out and in, put first, and removed', async ({ page }) => {
  await page.goto('/keys');
  await page.getByRole('button', { name: 'New key' }).click();
  await expect(page.getByText('It has no rules yet')).toBeVisible();
  await page.getByLabel('Name of the key').fill('Quay pens');
  await page.getByRole('button', { name: 'Another rule' }).click();
  const rule = (n: number) => page.getByRole('listitem', { name: `Rule ${n}` });
  await rule(1).getByLabel('Colour', { exact: true }).fill('#00806a');
  await rule(1).getByLabel('Colour', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Another rule' }).click();
  await rule(2).getByLabel('Colour', { exact: true }).fill('00806A');
  await rule(2).getByLabel('Colour', { exact: true }).press('Enter');
  await rule(2)
    .getByRole('button', { name: /^Layer of the rule/ })
    .click();
  await page.getByRole('option', { name: /Score/ }).click();
  // Two rules that contradict each other are said to.
  await expect(rule(2)).toContainText('this one never gets its turn');
  await rule(2).getByRole('button', { name: 'Rule 2 earlier' }).click();
  await rule(2).getByRole('button', { name: 'Take rule 2 away' }).click();
  await choose(page, /^Try the key on/, 'Row markers');
  await expect(page.getByText('33 items have no meaning.')).toBeVisible();
  await expect(page.getByTestId('key-trial')).toBeVisible();
  await page.getByRole('button', { name: 'Save the key' }).click();
  await expect(page.getByText('“Quay pens” is saved')).toBeVisible();

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'To a file' }).click(),
  ]);
  const text = readFileSync((await file.path()) as string, 'utf8');
  expect(JSON.parse(text)).toMatchObject({ name: 'Quay pens', rules: [{ colour: '#00806A', layerId: 'score' }] });
  await page
    .getByTestId('key-file')
    .setInputFiles({ name: 'quay.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page.getByRole('link', { name: /^Quay pens/ })).toHaveCount(2);
  for (const [name, content, sentence] of [
    ['picture.json', 'not json', 'picture.json was not taken. This is not a colour key: the file holds no JSON'],
    ['other.json', '{"id":"x","name":"X","layers":[],"rules":[{}]}', 'rule 1: part must be stroke or fill'],
  ]) {
    await page
      .getByTestId('key-file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
    await expect(page.getByText(sentence)).toBeVisible();
  }
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('button', { name: 'Remove it for good' }).click();
  await expect(page.getByRole('link', { name: /^Quay pens/ })).toHaveCount(1);
  // One that jobs go by stays.
  await page.getByRole('link', { name: /^Tern Lane house key/ }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('button', { name: 'Remove it for good' }).click();
  await expect(page.getByText(/jobs go by “Tern Lane house key”/)).toBeVisible();
});

test('five hundred paints are listed, searched, and given one meaning', async ({ page }) => {
  const hex = (i: number) => `#${(0x202020 + i * 0x2f1b).toString(16).padStart(6, '0').slice(-6)}`;
  const body = Array.from({ length: 500 }, (_, i) =>
    stroke(`M${10 + (i % 50) * 3} ${10 + Math.floor(i / 50) * 8}v5`, hex(i)),
  ).join('');
  await onPlywood(page, 'Five hundred', body);
  await expect(page.getByText('500 paints')).toBeVisible();
  const rows = page.getByRole('checkbox', { name: /^Choose #/ });
  expect(await rows.count()).toBeLessThan(80);
  await page.getByLabel('Search paints').fill(hex(123).toUpperCase());
  await expect(rows).toHaveCount(1);
  await choose(page, new RegExp(`What ${hex(123)} means`, 'i'), 'Score');
  await page.getByLabel('Search paints').fill('score');
  await expect(rows).toHaveCount(1);
  const frame = await bedPoint(page, 0, 0);
  expect(frame.scale).toBeGreaterThan(0);
});
