import { expect, type Page, test } from '@playwright/test';
import { bedPoint, items, newJob, openStage, placeOf, pointAt, rectangle, saved, storedJob, svg } from './bench.ts';

/*
 * What a job is like when it is opened again, and when another window works on it.
 */

/** Where the pointer is, as the page says it. */
const readout = (page: Page) => page.getByTestId(/^pointer-/);
const read = (page: Page) => readout(page).allTextContents();

/** Opens the job at hand again as the Desk does: without a stage. */
async function openAgain(page: Page): Promise<void> {
  const [address] = /^.*jobs\/[^/]+/.exec(page.url()) ?? [''];
  await page.goto(address);
}

test('a job opens at the stage and view where it was left', async ({ page }) => {
  await newJob(page, 'Left', svg(rectangle(20, 20, 60, 40)));
  await pointAt(page, 50, 40);
  const at = await read(page);
  for (let i = 0; i < 4; i++) await page.keyboard.press('+');
  // What is under the pointer stays there, and is said truly.
  await expect(readout(page)).toHaveText(at);
  await openAgain(page);
  await expect(page).toHaveURL(/\/art$/);
  const place = await bedPoint(page, 50, 40);
  await page.mouse.move(place.x + 10, place.y, { steps: 3 });
  const near = await read(page);
  await page.keyboard.press('b');
  // The whole bed again: ten pixels are more than before.
  await expect(readout(page)).not.toHaveText(near);
  await openStage(page, 'Fit');
  await openAgain(page);
  await expect(page).toHaveURL(/\/fit$/);
});

test('undo and redo go on after the page is loaded again', async ({ page }) => {
  await newJob(page, 'Undone later', svg(rectangle(20, 20, 60, 40)));
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('20.00');
  for (const x of ['30', '45']) {
    await page.getByLabel('X', { exact: true }).fill(x);
    await page.getByLabel('X', { exact: true }).press('Enter');
  }
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect(placeOf(await items(page))).toEqual([30, 20, 60, 40]);
  await isHistoryKept(page);
  await page.reload();
  await page.getByRole('button', { name: /^Redo: move/ }).click();
  expect(placeOf(await items(page))).toEqual([45, 20, 60, 40]);
  await page.getByRole('button', { name: /^Undo: move/ }).click();
  await page.getByRole('button', { name: /^Undo: move/ }).click();
  expect(placeOf(await items(page))).toEqual([20, 20, 60, 40]);
});

test('what another window saves is shown, and undo goes back to what was here', async ({ page, context }) => {
  await newJob(page, 'Seen in both', svg(rectangle(20, 20, 60, 40)));
  await saved(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await saved(other);
  await other.keyboard.press('Control+a');
  await other.getByLabel('X', { exact: true }).fill('100');
  await other.getByLabel('X', { exact: true }).press('Enter');
  await saved(other);
  await expect(page.getByText(/^Changed in another window/)).toBeVisible();
  await page.keyboard.press('Control+a');
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('100.00');
  await page.getByRole('button', { name: 'Undo: a change in another window' }).click();
  expect(placeOf(await items(page))).toEqual([20, 20, 60, 40]);
  await expect(other.getByLabel('X', { exact: true })).toHaveValue('20.00');
  const { version } = await storedJob(page);
  expect((await storedJob(other)).version).toBe(version);
});

test('folding the drawer leaves the work where it is on the screen', async ({ page }) => {
  await newJob(page, 'Folded', svg(rectangle(20, 20, 60, 40)));
  await pointAt(page, 300, 200);
  const before = await read(page);
  const { x, y } = await bedPoint(page, 300, 200);
  await page.getByRole('button', { name: 'Fold the drawer' }).click();
  await expect(page.getByRole('button', { name: 'Unfold the drawer' })).toBeVisible();
  await page.mouse.move(x + 5, y);
  await page.mouse.move(x, y);
  await expect(readout(page)).toHaveText(before);
});

/** Waits until what can be undone is in the browser's own database, as of the version that is saved. */
async function isHistoryKept(page: Page): Promise<void> {
  const { id, version } = await storedJob(page);
  await expect
    .poll(() =>
      page.evaluate(
        (jobId) =>
          new Promise<number | null>((resolve) => {
            const opening = indexedDB.open('lambent');
            opening.onsuccess = () => {
              const asked = opening.result.transaction('history').objectStore('history').get(jobId);
              asked.onsuccess = () => {
                opening.result.close();
                resolve((asked.result as { version: number } | undefined)?.version ?? null);
              };
            };
          }),
        id,
      ),
    )
    .toBe(version);
}
