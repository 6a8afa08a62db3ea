import { boundsOf, type Item } from '@lambent/core/document';
import { planJob, prepareJob } from '@lambent/core/plan';
import type { Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import {
  choose,
  drawTyped,
  items,
  newJob,
  openStage,
  placeOf,
  rectangle,
  rows,
  shopOf,
  storedJob,
  svg,
  tool,
  typeInto,
} from './bench.ts';

const making = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) }).click();
const materialOf = async (page: Page, id: string) => {
  const all = (await (await page.request.get('/api/materials')).json()) as Material[];
  return all.find((one) => one.id === id) as Material;
};
test('a drawer divider’s slot fits the measured thickness, and says what followed', async ({ page }) => {
  await newJob(page, 'Divider');
  await choose(page, 'Material of the sheet', /Birch plywood.*4 mm/);
  await tool(page, 'Rectangle');
  await drawTyped(page, 60, 60, '80', '40');
  await tool(page, 'Rectangle');
  await drawTyped(page, 200, 60, '3', '20');
  await openStage(page, 'Fit');
  await making(page, 'Clearance');
  await expect(page.getByText('0.05 mm wider than what goes in: measured by Ines Varga, 14 Oct 2026.')).toBeVisible();
  await page.getByRole('button', { name: 'A slot for the stock: 4.05 mm' }).click();
  const slot = (all: readonly Item[]) => all.find(({ shape }) => shape.kind === 'rectangle' && shape.tied) as Item;
  let all = await items(page);
  expect(placeOf(slot(all))).toEqual([199.475, 60, 4.05, 20]);
  await page.getByRole('button', { name: 'Unfold this card' }).click();
  await expect(page.getByText('As wide as the stock is thick: snug, 0.05 mm.')).toBeVisible();

  // The sheet is measured: the slot follows, which is listed; undo takes both back.
  await typeInto(page, 'Measured thickness', '4.23');
  await expect(page.getByText('Followed the thickness: 1')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Rectangle, slot: 4.05 mm → 4.28 mm' })).toBeVisible();
  all = await items(page);
  expect(placeOf(slot(all))[2]).toBe(4.28);
  const { document } = await storedJob(page);
  expect(document.sheets[0].thicknessMm).toBe(4.23);
  // Burnt with the kerf of the recipe, the opening is as wide as it is drawn.
  const plan = planJob(prepareJob(document, await shopOf(page)));
  const widths = plan.steps.flatMap(({ moves }) => {
    const xs = [...moves.xs].filter((x) => x > 190);
    return xs.length > 0 ? [Math.max(...xs) - Math.min(...xs)] : [];
  });
  expect(Math.max(...widths)).toBeCloseTo(4.28 + 0.16, 2);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect(placeOf(slot(await items(page)))[2]).toBe(4.05);

  // A part with a pocket for it: the pocket's size follows the part.
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').first().click();
  await openStage(page, 'Fit');
  const part = (await items(page))[0];
  await page.getByRole('button', { name: 'Make a pocket for it' }).click();
  const pocket = (list: readonly Item[]) => list.find(({ shape }) => shape.kind === 'offset') as Item;
  const [, , wide] = placeOf(pocket(await items(page)));
  expect(wide).toBeCloseTo(boundsOf(part).maxX - boundsOf(part).minX + 0.05, 3);
});

test('of two outlines, one is made the pocket for the other: it stays where it is, and follows', async ({ page }) => {
  await newJob(page, 'Two that meet', svg(`${rectangle(20, 20, 40, 20)}${rectangle(100, 20, 60, 30)}`));
  await choose(page, 'Material of the sheet', /Birch plywood.*4 mm/);
  const [, board] = (await items(page)).map(placeOf);
  await page.keyboard.press('Control+a');
  await openStage(page, 'Fit');
  await making(page, 'Clearance');
  await page.getByRole('button', { name: 'What follows: Rectangle' }).click();
  await expect(page.getByRole('option')).toHaveText([/40 × 20 mm/, /60 × 30 mm/]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Make it the pocket for the other' }).click();
  const pocket = async () => placeOf((await items(page)).find(({ shape }) => shape.kind === 'offset') as Item);
  const [middleX, middleY] = [board[0] + 30, board[1] + 15];
  await expect
    .poll(pocket)
    .toEqual([middleX - 20.025, middleY - 10.025, 40.05, 20.05].map((mm) => expect.closeTo(mm, 2)));
  // The part is made wider, and the pocket with it.
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').first().click();
  await page.getByRole('button', { name: 'Proportions are kept' }).click();
  await typeInto(page, 'W', '50');
  await expect
    .poll(pocket)
    .toEqual([middleX - 25.025, middleY - 10.025, 50.05, 20.05].map((mm) => expect.closeTo(mm, 2)));
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await items(page)).map(({ shape }) => shape.kind)).toEqual(['rectangle', 'rectangle']);
});

test('round holes for bolts, metric and inch', async ({ page }) => {
  await newJob(page, 'Bolts');
  await tool(page, 'Ellipse');
  await drawTyped(page, 120, 120, '20', '20');
  await openStage(page, 'Fit');
  await making(page, 'Clearance');
  await page.getByRole('button', { name: 'A hole for M4: 4.5 mm' }).click();
  expect(placeOf(await items(page)).slice(2)).toEqual([4.5, 4.5]);
  await page.getByRole('button', { name: 'Unfold this card' }).click();
  await expect(page.getByText('A hole for M4, normal.')).toBeVisible();
  await choose(page, 'Bolt: M4', '1/4 in');
  await choose(page, 'Room: Normal', 'Close');
  await page.getByRole('button', { name: /^A hole for 1\/4 in: 6\.7/ }).click();
  expect(placeOf(await items(page))[2]).toBeCloseTo((17 / 64) * 25.4, 3);
});

test('a holder and its object: cut from card in one run, the object burnt in the next', async ({ page }) => {
  const badge = `${rectangle(60, 30, 64, 30)}<path d="M70 40h40v10h-40z" fill="#5B3FA0"/>`;
  await newJob(page, 'Badge', svg(badge));
  await choose(page, 'Material of the sheet', /Grey board/);
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').first().click();
  await page.getByRole('button', { name: 'Parts from numbers…' }).click();
  await page.getByRole('button', { name: 'Holder', exact: true }).click();
  await choose(page, /^Object of/, /Two-colour engraving laminate/);
  await page.getByRole('button', { name: 'Make the holder' }).click();
  await expect(page.getByRole('button', { name: /Undo: a holder/ })).toBeVisible();
  const { document } = await storedJob(page);
  expect(document.runs.map(({ name, stock }) => [name, stock])).toEqual([
    ['Holder', 'fresh'],
    ['Object', 'in place'],
  ]);
  expect(document.sheets.map(({ materialId }) => materialId)).toEqual(['grey-board-2', 'laminate-16']);
  const shop = await shopOf(page);
  const steps = document.runs.map(({ id }) =>
    planJob(prepareJob(document, shop, { runId: id })).steps.map(({ layerId, part }) => `${layerId} ${part}`),
  );
  expect(steps).toEqual([['holder-score all', 'holder-cut inner', 'holder-cut outer'], ['engrave all']]);
  // What is on screen is the first of the two.
  await expect(page.getByTestId('step-holder-cut-outer')).toBeVisible();
  await expect(page.getByTestId('step-engrave-all')).toBeHidden();
});

test('a kerf comb is laid, and its reading is the recipe’s kerf, with date and who', async ({ page }) => {
  // A material of this test's own: what is kept with it holds for every job.
  await newJob(page, 'Kerf of leather');
  await choose(page, 'Material of the sheet', /leather/);
  await openStage(page, 'Fit');
  await making(page, 'Test pieces');
  await page.getByRole('button', { name: 'Lay it on the sheet' }).click();
  await expect(page.getByRole('button', { name: /Undo: lay a kerf comb/ })).toBeVisible();
  const all = await items(page);
  expect(all.filter(({ keep }) => keep === 'line')).toHaveLength(2);
  expect(all.flatMap(({ shape }) => (shape.kind === 'text' ? [shape.text.words] : []))).toEqual([
    '0.40',
    '0.35',
    '0.30',
    '0.25',
    '0.20',
    '0.15',
    '0.10',
    '0.05',
  ]);
  await making(page, 'Kerf');
  await expect(
    page.getByText('Not measured on this stock: cut along the line. A kerf comb measures it.'),
  ).toBeVisible();
  await making(page, 'Test pieces');
  await choose(page, 'The highest the tongue goes into', '0.25 mm');
  await expect(page.getByText('Read by Ines Varga')).toBeVisible();
  await page.getByRole('button', { name: 'Keep it as the kerf' }).click();
  await expect(page.getByText(/The kerf of vegetable-tanned leather on Wren is 0\.25 mm from now on\./)).toBeVisible();
  const { recipes } = await materialOf(page, 'veg-leather-2');
  const today = new Date().toISOString().slice(0, 10);
  expect(recipes.find(({ machineId, operation }) => machineId === 'wren' && operation === 'cut')).toMatchObject({
    kerfMm: 0.25,
    kerfFrom: { from: 'measured', by: 'Ines Varga', on: today },
  });
  await making(page, 'Kerf');
  await expect(page.getByText(/^From the recipe: measured by Ines Varga/)).toBeVisible();

  // A slot comb, read into the material's fits.
  await making(page, 'Test pieces');
  await choose(page, 'Test piece: Kerf comb', 'Slot comb');
  await choose(page, 'The opening', '+0.10 mm');
  await choose(page, 'The fit is', 'sliding');
  await page.getByRole('button', { name: 'Keep it as the fit' }).click();
  await expect(page.getByText(/sliding is 0\.1 mm from now on/)).toBeVisible();
  expect((await materialOf(page, 'veg-leather-2')).fits?.sliding).toEqual({
    mm: 0.1,
    source: { from: 'measured', by: 'Ines Varga', on: today },
  });
});

test('which side is kept, what a piece will measure, and the burn as wide as it is', async ({ page }) => {
  await newJob(page, 'Keep', svg(`${rectangle(20, 20, 60, 40)}${rectangle(30, 30, 10, 10)}`));
  await choose(page, 'Material of the sheet', /Birch plywood.*4 mm/);
  await openStage(page, 'Fit');
  await making(page, 'Kerf');
  await expect(page.getByText('From the recipe: measured by Ines Varga, 14 Oct 2026.')).toBeVisible();
  await expect(page.getByText('1 piece comes free; 1 cut-out falls out.')).toBeVisible();
  await page.keyboard.press('Control+a');
  const plate = (await items(page))[0];
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').first().click();
  await openStage(page, 'Fit');
  await expect(page.getByText(/^Drawn 60\.00 × 40\.00 mm; once burnt 60\.00 × 40\.00 mm$/)).toBeVisible();
  await choose(page, /^Selection keeps/, /^On the line/);
  await expect(page.getByText(/^Drawn 60\.00 × 40\.00 mm; once burnt 59\.84 × 39\.84 mm$/)).toBeVisible();
  expect((await items(page)).find(({ id }) => id === plate.id)?.keep).toBe('line');
  await page.getByRole('button', { name: 'Show the burn’s width' }).click();
  await expect(page.getByRole('button', { name: 'Drawn as (C): As burnt' })).toBeVisible();
});
