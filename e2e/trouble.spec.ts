import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { expect, test } from '@playwright/test';
import {
  cards,
  choose,
  demoDrawing,
  holdAnswers,
  newJob,
  offer,
  openJob,
  openStage,
  rectangle,
  rows,
  saved,
  storedJob,
  svg,
  typeInto,
} from './bench.ts';

test('a file that cannot be used says why, and leaves the job as it is', async ({ page }) => {
  await newJob(page, 'Bad files', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  const half = demoDrawing('row-markers.svg').slice(0, 9000);
  for (const [name, content, why] of [
    ['note.svg', 'Dear Ines', 'none of the formats that are read here'],
    ['empty.svg', '', 'The file is empty'],
    ['half.svg', half, 'not well-formed XML'],
    ['picture.svg', Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0]), 'The picture is damaged'],
    ['flat.svg', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 0 0"/>', 'viewBox has no size'],
    ['deep.svg', `<svg xmlns="http://www.w3.org/2000/svg">${'<g>'.repeat(1e6)}`, 'more than 400 deep'],
  ] as const) {
    await offer(page, name, content);
    await expect(page.getByText(`${name} was not taken`)).toBeVisible();
    await expect(page.getByText(why)).toBeVisible();
  }
  const large = join(mkdtempSync(join(tmpdir(), 'lambent-')), 'large.svg');
  writeFileSync(large, Buffer.alloc(50 * 1024 * 1024, 32));
  await page.getByTestId('file-chooser').setInputFiles(large);
  await expect(page.getByText('It is 50 MB; Lambent takes files up to 40 MB.')).toBeVisible();
  rmSync(dirname(large), { recursive: true });
  await page.getByRole('button', { name: 'All right' }).click();
  expect((await storedJob(page)).document.drawing.items).toHaveLength(1);
});

test('a job open in two windows loses nothing: the second is told and keeps both', async ({ page, context }) => {
  await newJob(page, 'Two windows', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByTestId('save-state')).toHaveText('saved');
  await openStage(other, 'Bed');
  // The save of the one is on its way while the other saves.
  const release = await holdAnswers(other, '**/api/jobs/*?*');
  await other.getByRole('radio', { name: 'in' }).click();
  await openStage(page, 'Bed');
  await page.getByRole('radio', { name: 'cm' }).click();
  await saved(page);
  release();
  await expect(other.getByText('This job was changed in another window.')).toBeVisible();
  await other.getByRole('button', { name: /^Keep both/ }).click();
  await expect(other.getByLabel('Title of the job')).toHaveValue('Two windows, second copy');
  expect((await storedJob(other)).document.unit).toBe('in');
  expect((await storedJob(page)).document.unit).toBe('cm');
  expect((await cards(page.request)).filter(({ title }) => title.startsWith('Two windows'))).toHaveLength(2);
});

test('settings beyond the machine are said beside the field and block the burn', async ({ page }) => {
  await newJob(page, 'Too fast', svg(rectangle(20, 20, 30, 30)));
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Cork/);
  await expect(page.getByText('proven')).toBeVisible();
  await typeInto(page, 'Speed', '2 in/s');
  await expect(page.getByTestId('step-cut-outer')).toContainText('50.8 mm/s');
  await expect(page.getByText('proven, changed by hand')).toBeVisible();
  await typeInto(page, 'Speed', '900');
  await expect(page.getByRole('alert')).toContainText('cuts at more than 0 and up to 120 mm/s');
  await expect(page.getByTestId('step-off-cut')).toContainText('beyond the machine');
  await expect(page.getByRole('button', { name: 'See what blocks' })).toBeVisible();
  await page.getByRole('button', { name: 'All as in the recipe' }).click();
  await expect(page.getByTestId('step-cut-outer')).toContainText('20 mm/s');
});

test('stock that must never be lasered blocks', async ({ page }) => {
  await newJob(page, 'PVC', svg(rectangle(20, 20, 30, 30)));
  await choose(page, 'Material of the sheet', /PVC/);
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-forbidden-stock')).toContainText('hydrogen chloride');
  await expect(page.getByRole('button', { name: 'See what blocks' })).toBeVisible();
});

test('a layer is left out of a run, and said to be', async ({ page }) => {
  await newJob(page, 'Layer off', svg(rectangle(20, 20, 30, 30) + rectangle(60, 20, 30, 30, '#00806A')));
  await choose(page, 'Material of the sheet', /Cork/);
  await page.getByRole('button', { name: 'Leave Score out of this run' }).click();
  await expect(page.getByTestId('step-off-score')).toContainText('off for this run');
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-layer-off')).toBeVisible();
  await page.getByRole('button', { name: 'Burn Score in this run' }).click();
  await expect(page.getByTestId('step-score-all')).toBeVisible();
});

test('machines are held, resumed, stopped, and their lids opened, from their own place', async ({ page }) => {
  await openJob(page, 'Estuary relief');
  await page.getByRole('button', { name: 'Send to Curlew' }).click();
  await expect(page.getByTestId('machine-part')).toContainText('Running');
  await page.goto('/machines');
  const curlew = page.getByRole('region', { name: 'Curlew' });
  await expect(curlew).toContainText('Estuary relief');
  await curlew.getByRole('button', { name: 'Hold' }).click();
  await expect(page.getByTestId('state-curlew')).toHaveText('Held');
  await curlew.getByRole('button', { name: 'Resume' }).click();
  await expect(page.getByTestId('state-curlew')).toHaveText('Running');
  await curlew.getByRole('button', { name: 'Open lid' }).click();
  await expect(curlew).toContainText('Held: the lid is open.');
  await expect(curlew.getByRole('button', { name: 'Resume' })).toHaveCount(0);
  await curlew.getByRole('button', { name: 'Close lid' }).click();
  // It is held already: it is not asked about once more.
  await curlew.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByTestId('state-curlew')).toHaveText('Idle');
  await openJob(page, 'Estuary relief');
  await openStage(page, 'Burn');
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'stopped');
  await expect(page.getByTestId('run-row').first()).toContainText(/stopped by hand, at line \d+ of \d+/);
});

test('addresses that lead nowhere say so and lead back', async ({ page }) => {
  await page.goto('/jobs/no-such-job');
  await expect(page.getByText('There is no such job. It may have been deleted.')).toBeVisible();
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
  await page.getByRole('link', { name: 'To the Desk', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
});

test('the keys are on a sheet, and stages open by number', async ({ page }) => {
  await openJob(page, 'Seed packet');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Ctrl Shift Z');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  for (const [key, name] of [
    ['1', 'Bed'],
    ['2', 'Art'],
    ['3', 'Colours'],
    ['4', 'Fit'],
    ['5', 'Recipe'],
    ['6', 'Check'],
    ['7', 'Burn'],
  ]) {
    await page.keyboard.press(key);
    await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  }
});

test('nothing is loaded from outside, and no page complains', async ({ page }) => {
  const outside: string[] = [];
  const complaints: string[] = [];
  page.on('request', (request) => {
    const { protocol, host } = new URL(request.url());
    if (protocol.startsWith('http') && host !== new URL(process.env.LAMBENT_ADDRESS ?? '').host)
      outside.push(request.url());
  });
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  await openJob(page, 'Row markers');
  for (const key of '123456') await page.keyboard.press(key);
  await page.goto('/machines');
  await expect(page.getByTestId('state-wren')).toBeVisible();
  expect(outside).toEqual([]);
  expect(complaints).toEqual([]);
});

test('every save is a version that can be gone back to, and that can be undone', async ({ page }) => {
  await newJob(page, 'Versions', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect(page.getByText('Drop a drawing here')).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'saved' }).click();
  await page.getByRole('button', { name: /bring in drawing.svg/ }).click();
  await expect(rows(page, 'Rectangle')).toBeVisible();
  expect((await storedJob(page)).document.drawing.items).toHaveLength(1);
  await page.getByRole('button', { name: /^Undo: back to version 2/ }).click();
  await expect(page.getByText('Drop a drawing here')).toBeVisible();
});

test('while the server cannot be reached nothing is lost, and it is saved once it is back', async ({ page }) => {
  await newJob(page, 'No server', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  await page.route('**/api/jobs/**', (route) => route.abort());
  await page.keyboard.press('Control+a');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('save-state')).toHaveText('not saved, trying again');
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('21.00');
  await page.unroute('**/api/jobs/**');
  await saved(page);
  const { document } = await storedJob(page);
  expect(document.drawing.items[0].matrix[4]).toBe(1);
});

test('a job is named, its drawer folds, and its real colours are shown', async ({ page }) => {
  await newJob(page, 'Old name', svg(rectangle(20, 20, 30, 30)));
  const title = page.getByLabel('Title of the job');
  await title.fill('New name');
  await title.press('Enter');
  await page.getByRole('button', { name: 'Fold the drawer' }).click();
  await expect(page.getByRole('heading', { name: 'Art' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Unfold the drawer' }).click();
  await choose(page, /^Drawn as/, 'Real colours');
  await page.keyboard.press('Escape');
  await page.keyboard.press('c');
  await expect(page.getByRole('button', { name: 'Drawn as (C): Outlines' })).toBeVisible();
  await page.getByRole('link', { name: 'To the Desk' }).click();
  await expect(page.getByRole('link', { name: /New name/ })).toBeVisible();
});
