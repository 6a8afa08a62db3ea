import { expect, type Page, test } from '@playwright/test';
import { bedPoint, finishText, items, newJob, placeOf, rectangle, svg } from './bench.ts';

/** Types a point for a tool that waits for one: the first digit brings its fields to hand. */
async function typePoint(page: Page, x: string, y: string): Promise<void> {
  await page.keyboard.type(x);
  await page.keyboard.press('Tab');
  await page.keyboard.type(y);
  await page.keyboard.press('Enter');
}

test('every tool places by the keys alone, and no digit leaves the stage meanwhile', async ({ page }) => {
  await newJob(page, 'By the keys');
  const from = page.getByRole('group', { name: 'Where it goes' });
  const sizes = page.getByRole('group', { name: 'What is being drawn' });

  await page.keyboard.press('e');
  await typePoint(page, '100', '50');
  await expect(sizes).toBeVisible();
  await page.keyboard.type('40');
  await page.keyboard.press('Tab');
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await items(page)).map((item) => placeOf(item))).toEqual([[100, 50, 40, 30]]);
  expect(page.url()).toMatch(/\/art$/);

  // Enter begins where the mark is, or in the middle of what is seen; Escape gives it up.
  await page.keyboard.press('Enter');
  await expect(from).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(from).toBeHidden();

  // A line: where it begins, then how long it is and where it goes; Enter with nothing typed ends it.
  await page.keyboard.press('u');
  await typePoint(page, '10', '200');
  await expect(sizes).toBeVisible();
  await typePoint(page, '50', '0');
  await page.keyboard.press('Enter');
  await expect.poll(async () => placeOf((await items(page))[1])).toEqual([10, 200, 50, 0]);

  // Words: where they stand, then what they are.
  await page.keyboard.press('p');
  await typePoint(page, '200', '300');
  await expect(page.getByLabel('Capitals', { exact: true })).toBeVisible();
  await page.keyboard.type('Noor');
  await finishText(page);
  await expect.poll(async () => (await items(page)).length).toBe(3);
  expect((await items(page))[2].shape).toMatchObject({ kind: 'text', text: { words: 'Noor' } });
  expect(page.url()).toMatch(/\/art$/);
});

test('Space moves the view whatever was clicked before; a button reached by the keys is still pressed by it', async ({
  page,
}) => {
  await newJob(page, 'Space', svg(rectangle(100, 100, 80, 60)));
  const before = await items(page);
  await page.getByRole('button', { name: 'Mirror left and right' }).click();
  await page.keyboard.press('Control+z');
  const place = await bedPoint(page, 140, 130);
  await page.mouse.move(place.x, place.y);
  await page.keyboard.down('Space');
  await page.mouse.down();
  await page.mouse.move(place.x + 60, place.y + 40, { steps: 3 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  expect((await items(page)).map((item) => placeOf(item))).toEqual(before.map((item) => placeOf(item)));
  // It is where it was on the bed, and 60 pixels further to the right on the screen.
  await page.keyboard.press('Escape');
  await page.mouse.click(place.x + 60 - 40 * place.scale, place.y + 40);
  await expect(page.getByLabel('Size and place')).toBeVisible();

  await page.getByRole('button', { name: 'Duplicate (Ctrl D)' }).focus();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Space');
  await expect.poll(async () => (await items(page)).length).toBe(2);
});
