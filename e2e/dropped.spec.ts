import { expect, type Page, test } from '@playwright/test';
import { cards, items, placeOf, rectangle, saved, svg, takeIt } from './bench.ts';

/** Drops files on what is open, as a hand would from a folder beside it. */
async function drop(page: Page, ...files: readonly (readonly [name: string, content: string])[]): Promise<void> {
  await expect(page.getByRole('main')).toBeVisible();
  await page.evaluate((dropped) => {
    const data = new DataTransfer();
    for (const [name, content] of dropped) data.items.add(new File([content], name));
    for (const type of ['dragenter', 'dragover', 'drop']) {
      document
        .querySelector('main')
        ?.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));
    }
  }, files);
}

test('a drawing that is dropped on the Desk becomes a job, and is placed on its bed', async ({ page }) => {
  await page.goto('/');
  await drop(page, ['Tide gauge.svg', svg(rectangle(10, 10, 60, 30))]);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Title')).toHaveValue('Tide gauge');
  await dialog.getByRole('button', { name: 'Make the job' }).click();
  await takeIt(page);
  await saved(page);
  await expect(page.getByLabel('Title of the job')).toHaveValue('Tide gauge');
  expect(placeOf(await items(page))).toEqual([10, 10, 60, 30]);
});

test('many files become a job each, or one; what cannot be read is said and becomes none', async ({ page }) => {
  await page.goto('/keys');
  await expect(page.getByRole('heading', { name: 'Colour keys' }).first()).toBeVisible();
  await drop(
    page,
    ['Reed 1.svg', svg(rectangle(10, 10, 60, 30))],
    ['broken.svg', 'no drawing at all'],
    ['Reed 2.svg', svg(rectangle(10, 10, 20, 20))],
  );
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Make 3 jobs' }).click();
  await expect(dialog.getByRole('listitem')).toHaveText([/^Reed 1$/, /^broken\.svg became no job: .+/, /^Reed 2$/]);
  const made = (await cards(page.request)).filter(({ title }) => /^(Reed|broken)/.test(title));
  expect(made.map(({ title, itemCount }) => [title, itemCount]).sort()).toEqual([
    ['Reed 1', 1],
    ['Reed 2', 1],
  ]);
  await dialog.getByRole('link', { name: 'Reed 2' }).click();
  expect(placeOf(await items(page))).toEqual([10, 10, 20, 20]);

  await page.goto('/');
  await drop(page, ['Sedge.svg', svg(rectangle(10, 10, 60, 30))], ['Rush.svg', svg(rectangle(90, 10, 20, 20))]);
  await page.getByRole('radio', { name: /^One job/ }).click();
  await page.getByRole('dialog').getByLabel('Title').fill('Marsh plants');
  await page.getByRole('dialog').getByRole('button', { name: 'Make the job' }).click();
  // The next file comes as soon as the first is in.
  await expect(page.getByText('Sedge.svg').first()).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('Rush.svg').first()).toBeVisible();
  await takeIt(page);
  await expect.poll(async () => (await items(page)).length).toBe(2);
  await expect(page.getByLabel('Title of the job')).toHaveValue('Marsh plants');
});
