import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { clickBed, newJobOnPlywood, openStage, rectangle, saved, storedJob } from './bench.ts';

/** The words of a PDF, as a reader of PDF finds them. */
async function wordsIn(bytes: Uint8Array): Promise<string> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const file = await getDocument({ data: bytes, verbosity: 0 }).promise;
  const { items } = await (await file.getPage(1)).getTextContent();
  return items
    .flatMap((entry) => ('str' in entry ? [entry.str] : []))
    .join(' ')
    .replace(/\s+/g, ' ');
}

test('the job sheet is saved as PDF with the time and price on screen, and opened to be printed', async ({ page }) => {
  await newJobOnPlywood(page, 'Sheet of paper', rectangle(20, 20, 80, 50) + rectangle(40, 30, 20, 20));
  await openStage(page, 'Burn');
  await expect(page.getByRole('list', { name: 'Pieces by size' }).getByRole('listitem')).toHaveText([
    '1 piece80.00 × 50.00 mm',
    '1 scrap20.00 × 20.00 mm',
  ]);
  const part = page.getByRole('heading', { name: 'Job sheet' }).locator('..');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    part.getByRole('button', { name: 'Save the sheet' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Sheet of paper, job sheet.pdf');
  const words = await wordsIn(new Uint8Array(await readFile(await download.path())));
  for (const said of ['Sheet of paper', 'Machine Wren', 'Birch plywood 3 mm', '80 mm', '50 mm'])
    expect(words).toContain(said);
  expect(words).toContain(`Opens at ${page.url().replace(/(\/jobs\/[^/?]*).*/, '$1')} `);
  await expect(part).toContainText('Its code opens the job at this computer.');
  const [time, price] = await page
    .getByText('In all', { exact: true })
    .locator('xpath=following-sibling::dd')
    .allTextContents();
  expect(time).toMatch(/^\d+:\d\d$/);
  expect(price).toMatch(/^€ /);
  for (const shown of [time, price]) expect(words).toContain(`In all ${shown}`);

  // Where a browser has no reader for PDF, as this one, its own window hands the file on.
  const [opened] = await Promise.all([
    page.waitForEvent('popup').then((popup) => popup.waitForEvent('download')),
    part.getByRole('button', { name: 'Open to print' }).click(),
  ]);
  expect(await wordsIn(new Uint8Array(await readFile(await opened.path())))).toContain(`In all ${price}`);
});

test('tabs hold what is cut: as many as the layer asks for, placed by clicks, and undone', async ({ page }) => {
  await newJobOnPlywood(page, 'Held', rectangle(20, 20, 80, 50));
  await openStage(page, 'Recipe');
  await page
    .getByTestId(/^step-cut/)
    .getByRole('button')
    .first()
    .click();
  const layer = page.getByRole('region', { name: 'Layer Cut' });
  await layer.getByText('Finer settings').click();
  await layer.getByLabel('Tabs per outline').fill('4');
  await layer.getByLabel('Tabs per outline').press('Enter');
  await expect(page.getByTestId(/^step-cut/)).toContainText('4 tabs');
  await page.getByRole('button', { name: 'Place tabs' }).click();
  await expect(page.getByRole('region', { name: 'On the bed' })).toContainText('hold it there by a tab');
  await clickBed(page, 30, 20, true);
  await saved(page);
  const tabs = async () => (await storedJob(page)).document.tabs.map(({ at }) => at.length);
  expect(await tabs()).toEqual([5]);
  await page.getByRole('button', { name: 'Undo: add a tab' }).click();
  await saved(page);
  expect(await tabs()).toEqual([]);
});
