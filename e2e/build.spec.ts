import { boundsOf, type Item } from '@lambent/core/document';
import { expect, type Page, test } from '@playwright/test';
import { burntLengths, choose, items, newJob, openStage, saved, storedJob, typeInto } from './bench.ts';

/** A job on birch plywood in which parts from numbers are open. */
async function building(page: Page, title: string): Promise<void> {
  await newJob(page, title);
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Parts from numbers…' }).click();
  await expect(page.getByRole('region', { name: 'Parts from numbers' })).toBeVisible();
}

const figures = (page: Page) => page.getByTestId('built-figures');
const partNamed = async (page: Page, name: string) => (await items(page)).find((item) => item.name === name) as Item;
const sizeOf = (item: Item) => {
  const { minX, minY, maxX, maxY } = boundsOf(item);
  return [maxX - minX, maxY - minY];
};

test('a box from numbers to its plan: shown while it is typed, put down, burnt as long as it says', async ({
  page,
}) => {
  await building(page, 'Box');
  await typeInto(page, 'Measured thickness', '3.06');
  await typeInto(page, 'Width', '80');
  await typeInto(page, 'Depth', '2 3/8in');
  await typeInto(page, 'Height', '40');
  await expect(figures(page)).toContainText('80 × 60.3');
  await expect(figures(page)).toContainText('Goes together: nothing overlaps, nothing gapes.');
  // A number that cannot be is said beside it, with the nearest that can; the last good box stays.
  await typeInto(page, 'Finger width', '2');
  await expect(page.getByRole('alert')).toContainText('thinner than the stock, which is 3.06 mm');
  await expect(page.getByRole('button', { name: /^Put/ })).toBeDisabled();
  await expect(figures(page)).toContainText('As it was last');
  await page.getByRole('button', { name: 'Take 3.06 mm' }).click();
  await expect(page.getByRole('alert')).toBeHidden();
  await typeInto(page, 'Finger width', '12');
  await expect(figures(page)).toContainText('Cut1.38 m');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const front = await partNamed(page, 'Front');
  expect(sizeOf(front)).toEqual([expect.closeTo(80 + 2 * 3.06, 6), expect.closeTo(43.06, 6)]);
  const burnt = Object.entries(await burntLengths(page)).filter(([step]) => step.startsWith('cut'));
  const cutMm = burnt.reduce((sum, [, mm]) => sum + mm, 0);
  expect(cutMm / 1000).toBeCloseTo(1.38, 2);
});

test('a slotted grid from numbers to its plan', async ({ page }) => {
  await building(page, 'Grid');
  await choose(page, 'What to build: Joined box', 'Slotted grid');
  await typeInto(page, 'Width', '120');
  await typeInto(page, 'Depth', '90');
  await expect(figures(page)).toContainText('119.5 × 89.5 × 40');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const strip = await partNamed(page, 'Strip along 1');
  expect(sizeOf(strip)).toEqual([expect.closeTo(89.5, 6), expect.closeTo(40, 6)]);
  // Two strips across with three slots each, three along with two: each slot adds its two sides.
  const strips = 2 * 2 * (119.5 + 40) + 3 * 2 * (89.5 + 40) + 12 * 2 * 20;
  const burnt = Object.values(await burntLengths(page)).reduce((sum, mm) => sum + mm, 0);
  expect(burnt / strips).toBeCloseTo(1, 2);
});

test('a box follows its stock and its numbers; that is undone, and it is settled', async ({ page }) => {
  await building(page, 'Box that follows');
  await typeInto(page, 'Width', '80');
  await typeInto(page, 'Dividers across', '1');
  await page.getByRole('button', { name: 'Put 6 parts down' }).click();
  await saved(page);
  const was = await partNamed(page, 'Front');

  // Thicker stock: every part is another.
  await openStage(page, 'Bed');
  await typeInto(page, 'Measured thickness', '3.2');
  await saved(page);
  expect(sizeOf(await partNamed(page, 'Front'))[0]).toBeCloseTo(80 + 6.4, 6);
  expect(sizeOf(await partNamed(page, 'Divider across 1'))[0]).toBeCloseTo(80 + 6.4, 6);

  // Other numbers: opened again from the part that is selected.
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Change numbers' }).click();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('80.00');
  await typeInto(page, 'Dividers across', '2');
  await choose(page, 'Lid: None', 'Lid: Slides in');
  await page.getByRole('button', { name: 'Change it' }).click();
  await saved(page);
  const names = (await items(page)).map(({ name }) => name);
  expect(names).toContain('Divider across 2');
  expect(names).toContain('Lid');
  expect((await storedJob(page)).document.built[0].numbers).toMatchObject({
    width: 80,
    dividersAcross: 2,
    lid: 'slides',
  });
  await page.getByRole('button', { name: /^Undo: change a joined box/ }).click();
  await saved(page);
  expect((await items(page)).map(({ name }) => name)).not.toContain('Lid');

  await page.getByRole('button', { name: 'Settle' }).click();
  await saved(page);
  expect((await storedJob(page)).document.built).toEqual([]);
  expect((await partNamed(page, 'Front')).id).toBe(was.id);
});
