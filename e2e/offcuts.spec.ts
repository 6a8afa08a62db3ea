import { boundsOf, sheetUnder } from '@lambent/core/document';
import type { Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import { choose, newJob, openStage, rectangle, storedJob, svg, typeInto } from './bench.ts';
import { burn, unknownStock } from './burning.ts';

/** A material that can be cut on Wren, with sheets in stock. */
async function stocked(page: Page, name: string, stock: Material['stock']): Promise<Material> {
  const material = await unknownStock(page, name, { stock });
  const recipe = { machineId: 'wren', operation: 'cut', powerPercent: 60, speedMmPerS: 40, evidence: 'copied' };
  await page.request.post(`/api/materials/${material.id}/recipes`, { data: { by: 'Ines Varga', recipe } });
  return material;
}

async function stockOf(page: Page, { id }: Material) {
  const all = (await (await page.request.get('/api/materials')).json()) as Material[];
  return all.find((entry) => entry.id === id)?.stock ?? [];
}

/** A new job on a material, with the part that packs open. */
async function packing(page: Page, title: string, body: string, material: RegExp) {
  await newJob(page, title, svg(body));
  await openStage(page, 'Recipe');
  await choose(page, 'Material', material);
  await page.keyboard.press('Escape');
  await openStage(page, 'Fit');
  await page.getByRole('button', { name: /^Pack/ }).click();
  return page.getByRole('region', { name: 'Fit' });
}

/** What burns in a run of the stored job, by where it is drawn. */
async function cutsOn(page: Page) {
  const { document } = await storedJob(page);
  const cuts = document.drawing.items.filter(({ paint }) => paint.stroke === '#D0481E');
  return document.sheets.map(
    (sheet) => cuts.filter((item) => sheetUnder(document.sheets, item)?.id === sheet.id).length,
  );
}

test('forty tags are packed onto an offcut and a new sheet, and burnt in a run each', async ({ page }) => {
  const material = await stocked(page, 'Wool on the rack', [
    { id: 'whole', width: 300, height: 200, count: 5, price: null },
    { id: 'rest', width: 200, height: 150, count: 1, price: null, offcut: true },
  ]);
  const drawer = await packing(page, 'Forty tags', rectangle(20, 20, 45, 25), /Wool on the rack/);
  await typeInto(page, 'How many of each', '40');
  await drawer.getByRole('checkbox', { name: 'the offcut in stock first' }).check();
  await drawer.getByRole('button', { name: 'Look for a packing' }).click();
  const found = page.getByTestId('packing');
  await expect(found).toContainText(/40 pieces on 2 sheets: \d+\.\d, \d+\.\d % used/);
  await expect(found).toContainText(/Burns in \d+:\d\d, of which \d+:\d\d moving unlit/);
  await drawer.getByRole('button', { name: 'Stop looking' }).click();
  await drawer.getByRole('button', { name: 'Lay them like this' }).click();
  await expect(page.getByRole('button', { name: /^Undo: pack/ })).toBeVisible();
  // The sheet that lay there holds what the offcut does not.
  const { document } = await storedJob(page);
  expect(document.sheets.map(({ width }) => width).sort()).toEqual([200, 300]);
  expect((await cutsOn(page)).reduce((sum, count) => sum + count, 0)).toBe(40);
  expect(document.runs.map(({ landing }) => landing.kind)).toEqual(['as-drawn', 'sheet']);

  await openStage(page, 'Burn');
  await expect(page.getByTestId('what-to-lay')).toContainText('300 × 200 mm');
  await burn(page, 1);
  expect((await stockOf(page, material)).map(({ id, count }) => [id, count])).toEqual([
    ['whole', 4],
    ['rest', 1],
  ]);
  await page.getByRole('button', { name: 'Runs: Run 1' }).click();
  await page.getByRole('radio', { name: /^Look at Sheet/ }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('what-to-lay')).toContainText('200 × 150 mm');
  const second = await burn(page, 2);
  expect(second.taken).toMatchObject([{ stockId: 'rest', width: 200, height: 150, offcut: true }]);
  expect((await stockOf(page, material)).map(({ id, count }) => [id, count])).toEqual([['whole', 4]]);
});

test('of a sheet that a cut parts, both parts are kept', async ({ page }) => {
  const material = await stocked(page, 'Felt cut in two', [
    { id: 'whole', width: 300, height: 200, count: 1, price: null },
  ]);
  await newJob(page, 'In two', svg('<path d="M100 0V200" fill="none" stroke="#D0481E" stroke-width="0.1"/>'));
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Felt cut in two/);
  await openStage(page, 'Burn');
  await burn(page, 1);
  const parts = page.getByRole('radiogroup', { name: 'What is left' }).getByRole('radio');
  await page.getByRole('button', { name: 'keep the offcut' }).click();
  await expect(parts).toHaveText([/^199\.\d+ × 200/, /^99\.\d+ × 200/, /A rectangle that I cut/]);
  await page.getByRole('button', { name: 'Keep the offcut', exact: true }).click();
  await page.getByRole('button', { name: 'keep another offcut' }).click();
  await expect(parts).toHaveText([/^99\.\d+ × 200/, /A rectangle that I cut/]);
  await page.getByRole('button', { name: 'Keep the offcut', exact: true }).click();
  await expect(page.getByTestId('taken-sheet')).toContainText(/offcut kept, 199\.\d+ × .*; offcut kept, 99\.\d+ × /);
  const kept = (await stockOf(page, material)).filter((entry) => entry.offcut);
  expect(kept.map(({ width }) => Math.round(width)).sort()).toEqual([100, 200]);
});

test('an offcut is kept with its outline, shown in the book, and packed by the next job', async ({ page }) => {
  const material = await stocked(page, 'Felt with a hole', [
    { id: 'whole', width: 300, height: 200, count: 2, price: null },
  ]);
  await newJob(
    page,
    'A round window',
    svg('<circle cx="150" cy="100" r="60" fill="none" stroke="#D0481E" stroke-width="0.1"/>'),
  );
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Felt with a hole/);
  await openStage(page, 'Burn');
  await burn(page, 1);
  await page.getByRole('button', { name: 'keep the offcut' }).click();
  await page.getByRole('button', { name: 'Keep the offcut', exact: true }).click();
  await expect(page.getByTestId('taken-sheet')).toContainText('offcut kept');
  const offcut = (await stockOf(page, material)).find((entry) => entry.offcut);
  expect(offcut).toMatchObject({ width: 300, height: 200 });
  expect(offcut?.outline).toHaveLength(2);

  const drawer = await packing(page, 'Around the hole', rectangle(20, 20, 50, 40), /Felt with a hole/);
  await drawer.getByRole('checkbox', { name: 'as many as fit' }).check();
  await openStage(page, 'Bed');
  await choose(page, 'From stock', /300.*200.* offcut/);
  await expect(page.getByText('300 × 200 mm, with an outline of its own')).toBeVisible();
  await openStage(page, 'Fit');
  await drawer.getByRole('button', { name: 'Look for a packing' }).click();
  await expect(page.getByTestId('packing')).toContainText(/pieces on 1 sheet/);
  await drawer.getByRole('button', { name: 'Stop looking' }).click();
  await drawer.getByRole('button', { name: 'Lay them like this' }).click();
  await expect(page.getByRole('button', { name: /^Undo: pack/ })).toBeVisible();
  const { document } = await storedJob(page);
  const [sheet] = document.sheets;
  const cuts = document.drawing.items.map(boundsOf);
  expect(cuts.length).toBeGreaterThan(8);
  for (const { minX, minY, maxX, maxY } of cuts) {
    const [x, y] = [sheet.x + 150, sheet.y + 100];
    const [dx, dy] = [Math.max(minX - x, 0, x - maxX), Math.max(minY - y, 0, y - maxY)];
    // The hole of the window, its charred edge, and the margin beside it.
    expect(Math.hypot(dx, dy)).toBeGreaterThan(63);
  }
  await openStage(page, 'Check');
  await expect(page.getByText('On a blocked place')).toBeHidden();
});

test('a sheet gets the outline that is drawn, and what is drawn on it blocks a place', async ({ page }) => {
  await newJob(page, 'Knots', svg(rectangle(20, 20, 60, 40)));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await openStage(page, 'Bed');
  await page.getByRole('button', { name: 'Block these places' }).click();
  await expect(page.getByRole('button', { name: 'Unblock 1 place' })).toBeVisible();
  const { document } = await storedJob(page);
  expect(document.drawing.items).toEqual([]);
  expect(document.sheets[0].blocked).toHaveLength(1);
  await page.getByRole('button', { name: 'Unblock 1 place' }).click();
  await expect.poll(async () => (await storedJob(page)).document.sheets[0].blocked).toBeUndefined();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => (await storedJob(page)).document.drawing.items.length).toBe(1);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Give it this outline' }).click();
  await expect(page.getByText('60 × 40 mm, with an outline of its own')).toBeVisible();
  await page.getByRole('button', { name: 'Make it a rectangle' }).click();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('60.00');
});
