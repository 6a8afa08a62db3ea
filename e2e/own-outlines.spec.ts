import { boundsOf, type Item, pathOf } from '@lambent/core/document';
import { flatten, signedArea } from '@lambent/core/geometry';
import { expect, type Page, test } from '@playwright/test';
import {
  burntLengths,
  choose,
  clickBed,
  drawTyped,
  items,
  newJob,
  openStage,
  saved,
  storedJob,
  tool,
  typeInto,
} from './bench.ts';

/** A job with outlines of its own: a plate 100 × 60 mm at (30, 30), and one 80 × 150 mm at (160, 30). */
async function withPlates(page: Page, title: string): Promise<void> {
  await newJob(page, title);
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await openStage(page, 'Art');
  await tool(page, 'Rectangle');
  await drawTyped(page, 30, 30, '100', '60');
  await tool(page, 'Rectangle');
  await drawTyped(page, 160, 30, '80', '150');
  await page.keyboard.press('Escape');
}

/** Opens a builder of parts from numbers. */
async function open(page: Page, builder: string): Promise<void> {
  await page.getByRole('button', { name: 'Parts from numbers…' }).click();
  await page.getByRole('button', { name: builder, exact: true }).click();
}

const figures = (page: Page) => page.getByTestId('built-figures');
const areaOf = (item: Item) => {
  const [outer, ...holes] = flatten(pathOf(item)).map((line) => Math.abs(signedArea(line)));
  return outer - holes.reduce((sum, hole) => sum + hole, 0);
};
const cutMm = async (page: Page) =>
  Object.entries(await burntLengths(page)).reduce((sum, [step, mm]) => (step.startsWith('cut') ? sum + mm : sum), 0);

test('two outlines are joined at edges that are pressed on the bed; the joint follows the stock, and is taken back', async ({
  page,
}) => {
  await withPlates(page, 'Joined');
  await open(page, 'Joint');
  await expect(page.getByRole('status').filter({ hasText: 'Select two closed outlines' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make it' })).toBeDisabled();
  await page.keyboard.press('Control+a');
  await expect(figures(page)).toContainText('Goes together: nothing overlaps, nothing gapes.');
  // The lower edge of the first, and the left one of the second.
  await clickBed(page, 60, 90);
  await expect(page.getByRole('button', { name: /^First edge: 3, bottom/ })).toBeVisible();
  await clickBed(page, 160, 150);
  await expect(page.getByRole('button', { name: /^Second edge: 4, left/ })).toBeVisible();
  await typeInto(page, 'Slots from the edge', '1');
  await expect(page.getByRole('alert')).toContainText('leave too little stock beside them');
  await page.getByRole('button', { name: 'Take 3 mm' }).click();
  await typeInto(page, 'Slots from the edge', '12');
  await expect(page.getByRole('alert')).toBeHidden();
  await expect(figures(page)).toContainText('Cut0.86 m');
  await page.getByRole('button', { name: 'Make it' }).click();
  await saved(page);
  const [first, second] = await items(page);
  expect(boundsOf(first)).toEqual({ minX: 30, minY: 30, maxX: 130, maxY: expect.closeTo(93, 6) });
  expect(areaOf(first)).toBeCloseTo(6000 + 2 * 15 * 3, 6);
  expect(areaOf(second)).toBeCloseTo(12000 - 2 * 15.05 * 3.05, 6);
  // The outlines, four sides of tabs, and two slots.
  expect((await cutMm(page)) / (320 + 460 + 4 * 3 + 4 * 18.1)).toBeCloseTo(1, 2);

  await openStage(page, 'Bed');
  await typeInto(page, 'Measured thickness', '3.2');
  await saved(page);
  expect(boundsOf((await items(page))[0]).maxY).toBeCloseTo(93.2, 6);

  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Change numbers' }).click();
  await choose(page, 'Joint: Tabs in slots', 'Tabs, and bolts with nuts');
  await expect(figures(page)).toContainText('Goes together');
  await page.getByRole('button', { name: 'Change it' }).click();
  await saved(page);
  // Two slots, and a hole for the bolt between them.
  expect(flatten(pathOf((await items(page))[1]))).toHaveLength(4);

  await page.getByRole('button', { name: 'Give the outlines back' }).click();
  await saved(page);
  expect((await items(page)).map((item) => [areaOf(item), item.part])).toEqual([
    [expect.closeTo(6000, 6), undefined],
    [expect.closeTo(12000, 6), undefined],
  ]);
  expect((await storedJob(page)).document.built).toEqual([]);
});

test('two outlines become a slotted figure; what is a part already is refused until it is settled', async ({
  page,
}) => {
  await withPlates(page, 'Figure');
  await page.keyboard.press('Control+a');
  await open(page, 'Slotted figure');
  await expect(figures(page)).toContainText('100 × 80 × 150');
  // The outlines that were taken stay while another builder is looked at.
  await page.getByRole('button', { name: 'Joint', exact: true }).click();
  await expect(figures(page)).toContainText('150 × 80 × 63');
  await page.getByRole('button', { name: 'Slotted figure', exact: true }).click();
  await expect(figures(page)).toContainText('100 × 80 × 150');
  await typeInto(page, 'First: line at', '20');
  await choose(page, 'Slots: Sliding', 'Typed');
  await typeInto(page, 'Play', '0');
  await expect(figures(page)).toContainText('Goes together');
  await page.getByRole('button', { name: 'Make it' }).click();
  await saved(page);
  const [first, second] = await items(page);
  expect([areaOf(first), areaOf(second)]).toEqual([6000 - 3 * 30, 12000 - 3 * 30].map((mm2) => expect.closeTo(mm2, 6)));
  expect((await cutMm(page)) / (320 + 460 + 4 * 30)).toBeCloseTo(1, 2);

  await page.keyboard.press('Control+a');
  await open(page, 'Joint');
  await expect(page.getByRole('status').filter({ hasText: 'Settle it first' })).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('button', { name: 'Settle' }).click();
  await open(page, 'Joint');
  await expect(figures(page)).toContainText('Goes together');
});
