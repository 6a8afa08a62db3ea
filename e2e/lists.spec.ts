import { expect, type Page, test } from '@playwright/test';
import {
  choose,
  clickBed,
  finishText,
  newJobOnPlywood,
  openStage,
  rectangle,
  storedJob,
  tool,
  typeInto,
} from './bench.ts';
import { burn } from './burning.ts';

const names = [
  ['Ines', 'workshop'],
  ['Tobiah', 'workshop'],
  ['Wilhelmina Strand of the Seed Library', 'seed library'],
  ['Pavel', 'seed library'],
  ['Noor', ''],
  ...Array.from({ length: 18 }, (_, i) => [`Guest ${i + 1}`, 'welcome']),
  ['Pavel', 'workshop'],
];

const fit = (page: Page) => page.getByRole('region', { name: 'Fit' });

/** A badge of 60 × 30 mm on the bed, with a text for the name in a frame of 50 mm. */
async function badge(page: Page, title: string): Promise<void> {
  await newJobOnPlywood(page, title, rectangle(20, 20, 60, 30));
  await page.keyboard.press('Escape');
  await tool(page, 'Text');
  await clickBed(page, 25, 38);
  const card = page.getByRole('region', { name: 'Text', exact: true });
  await card.getByLabel('Words').fill('{name}');
  await typeInto(page, 'Widest (0: free)', '50');
  await choose(page, 'Longer texts', 'are set smaller');
  await typeInto(page, 'Capitals at least', '3');
  await finishText(page);
  await page.keyboard.press('Control+a');
}

test('a list of names: one too long, one twice; laid, burnt, and the one that broke burnt again', async ({ page }) => {
  await badge(page, 'Names');
  await openStage(page, 'Fit');
  await fit(page).getByRole('button', { name: /^List/ }).click();
  await fit(page)
    .getByLabel('Rows', { exact: true })
    .fill(`name\twhat\n${names.map((row) => row.join('\t')).join('\n')}`);
  await fit(page).getByRole('button', { name: 'Make the list' }).click();
  await expect(page.getByTestId('list-rows')).toHaveText('24 rows: name, what');
  const unmeant = fit(page).getByRole('list', { name: 'What may not be meant' });
  await expect(unmeant).toContainText('Row 5, what: the cell is empty.');
  await expect(unmeant).toContainText('Row 24 is called “Pavel”, as row 4 is.');

  await fit(page).getByRole('button', { name: 'Take the selection as the design' }).click();
  await expect(page.getByTestId('row-shown')).toHaveText('Row 1 of 24: Ines');
  await expect(fit(page).getByRole('img', { name: 'The design for Ines' })).toBeVisible();
  await fit(page).getByRole('button', { name: 'Row before' }).click();
  await expect(page.getByTestId('row-shown')).toHaveText('Row 24 of 24: Pavel');
  const long = fit(page).getByRole('list', { name: 'Does not come out' }).getByRole('button');
  await expect(long).toHaveText(/^Row 3, “Wilhelmina Strand of the Seed Library”: .* mm too large for its place\.$/);
  await long.click();
  await expect(fit(page).getByRole('img', { name: /^The design for Wilhelmina/ })).toBeVisible();

  await expect(page.getByTestId('rows-take')).toHaveText('24 rows on 1 sheet');
  await fit(page).getByRole('button', { name: 'Lay 24 rows' }).click();
  await expect(page.getByRole('button', { name: 'Undo: lay 24 rows' })).toBeVisible();
  const { document } = await storedJob(page);
  expect(document.drawing.groups.flatMap(({ name, row }) => (row ? [name] : []))).toEqual(names.map(([name]) => name));
  // The design stays beside the bed.
  expect(document.drawing.items.filter(({ parked }) => parked)).toHaveLength(2);
  await openStage(page, 'Art');
  await expect(page.getByRole('region', { name: 'Art' })).toContainText('Guest 7');

  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-text-over-frame')).toContainText('(row 3)');
  await openStage(page, 'Burn');
  await burn(page, 1);
  await page.getByLabel('Find a row by its name').fill('noor');
  await page.getByRole('button', { name: 'Burn Noor again' }).click();
  await expect(page.getByRole('button', { name: 'Runs: Noor again' })).toBeVisible();
  const again = await burn(page, 2);
  expect(again.jobRunName).toBe('Noor again');
  const now = (await storedJob(page)).document;
  const run = now.runs.find(({ name }) => name === 'Noor again');
  const group = now.drawing.groups.find(({ name }) => name === 'Noor');
  expect(run?.only).toEqual(now.drawing.items.flatMap(({ id, groupId }) => (groupId === group?.id ? [id] : [])));
});
