import { expect, type Page, test } from '@playwright/test';
import { newJobOnPlywood, openJob, openStage, rectangle, typeInto } from './bench.ts';

/** Lengths in mm that stand on the page: in its text, in what buttons and fields are called, and behind fields. */
async function lengthsInMm(page: Page): Promise<string[]> {
  await page.evaluate(() => {
    for (const fold of Array.from(document.querySelectorAll('details'))) fold.open = true;
  });
  // biome-ignore lint/performance/useDomNodeTextContent: what is seen, line by line
  const shown = (await page.locator('#root').innerText()).split('\n');
  const called = await page.evaluate(() =>
    Array.from(document.querySelectorAll('[aria-label], [title]')).flatMap((element) => [
      element.getAttribute('aria-label') ?? '',
      element.getAttribute('title') ?? '',
    ]),
  );
  const behind = await page.evaluate(() =>
    Array.from(document.querySelectorAll('#root span')).flatMap((element) =>
      element.textContent === 'mm' ? [element.closest('div')?.parentElement?.textContent ?? 'mm'] : [],
    ),
  );
  // The name of a file goes by what is written on the stock.
  const isSaid = (text: string) => !text.startsWith('Named ') && /\d\s?mm(?![\w/²])/.test(text);
  return [...shown, ...called].filter(isSaid).concat(behind);
}

test('a job in inches says every length in inches, on every stage', async ({ page }) => {
  await openJob(page, 'Row markers');
  await openStage(page, 'Bed');
  // The unit itself is offered as mm, cm and in.
  await page.getByRole('radio', { name: 'in', exact: true }).click();
  for (const stage of ['Art', 'Colours', 'Fit', 'Recipe', 'Check', 'Burn']) {
    await openStage(page, stage);
    await expect(page.getByRole('heading', { name: stage, exact: true }).first()).toBeVisible();
    expect([stage, await lengthsInMm(page)]).toEqual([stage, []]);
  }
  await openStage(page, 'Fit');
  for (const making of ['Offset', 'Border', 'Clearance', 'Kerf', 'Pack', 'Test pieces', 'Scan offset', 'Axes']) {
    const head = page.getByRole('button', { name: new RegExp(`^${making} `) });
    if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
    expect([making, await lengthsInMm(page)]).toEqual([making, []]);
  }
});

test('findings, mends and undo say inches where the job does', async ({ page }) => {
  await newJobOnPlywood(page, 'Off the bed', rectangle(0, 0, 20, 20));
  await openStage(page, 'Bed');
  await page.getByRole('radio', { name: 'in', exact: true }).click();
  await openStage(page, 'Art');
  await typeInto(page, 'X', '-0.1');
  await openStage(page, 'Check');
  const card = page.getByTestId(/^finding-/).first();
  await expect(card).toContainText(/\d in\b/);
  expect(await lengthsInMm(page)).toEqual([]);
});

test('lengths are typed with fraction signs, and with thousands as the shop writes them', async ({ page }) => {
  await newJobOnPlywood(page, 'Typed', rectangle(10, 10, 20, 20));
  await typeInto(page, 'W', '1½ in');
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('38.10');
  await typeInto(page, 'W', '1 234,5');
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('1234.50');
  await typeInto(page, 'W', '1,000.5');
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('1000.50');
});
