import type { Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import { choose, items, newJob, openStage, rectangle, saved, sayWho, storedJob, svg, typeInto } from './bench.ts';

const field = (page: Page, row: string, name: string) =>
  page.getByRole('row', { name: row, exact: true }).getByLabel(name, { exact: true });

async function openBook(page: Page, who: string, material = ''): Promise<void> {
  await page.goto(`/book/${material}`);
  await sayWho(page, who);
}

async function materialOf(page: Page, id: string): Promise<Material> {
  const all = (await (await page.request.get('/api/materials')).json()) as Material[];
  const found = all.find((material) => material.id === id);
  if (!found) throw new Error(`There is no ${id}`);
  return found;
}

/** A material of a test's own, with a cutting recipe on Wren. */
async function addMaterial(page: Page, name: string): Promise<Material> {
  const by = 'Ines Varga';
  const material = { name, thicknessMm: 4, tone: '#C8D8B8', sheetWidth: 500, sheetHeight: 350 };
  const { id } = (await (await page.request.post('/api/materials', { data: { by, material } })).json()) as Material;
  const recipe = { machineId: 'wren', operation: 'cut', powerPercent: 55, speedMmPerS: 11, evidence: 'proven' };
  const answer = await page.request.post(`/api/materials/${id}/recipes`, { data: { by, recipe } });
  return (await answer.json()) as Material;
}

test('a material is looked for, made and described; its recipes are changed where they stand, and taken back', async ({
  page,
}) => {
  await openBook(page, 'Ines Varga');
  await page.getByLabel('Look for a material').fill('plywood 6');
  await expect(page.getByRole('complementary', { name: 'Materials' }).getByRole('listitem')).toHaveText([/Poplar/]);
  await page.getByLabel('Look for a material').fill('');
  await page.getByRole('button', { name: 'New material' }).click();
  await expect(page.getByRole('heading', { name: 'New material 3 mm' })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Ash veneer');
  await page.keyboard.press('Enter');
  await typeInto(page, 'Thickness', '0.6');
  await expect(page.getByRole('heading', { name: 'Ash veneer 0.6 mm' })).toBeVisible();
  await page.getByRole('button', { name: 'New recipe', exact: true }).click();
  await field(page, 'Wren, Cut', 'Power').fill('30');
  await page.keyboard.press('Enter');
  await field(page, 'Wren, Cut', 'Speed').fill('2400 mm/min');
  await page.keyboard.press('Enter');
  await expect(field(page, 'Wren, Cut', 'Speed')).toHaveValue('40');
  const history = page.getByRole('complementary', { name: 'History' });
  await expect(history.getByRole('listitem').first()).toContainText('Cut, Wren: speed 100 mm/s → 40 mm/s');
  // Beyond the machine is said where it is typed.
  await field(page, 'Wren, Cut', 'Speed').fill('130');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: 'Wren cuts at more than 0 and up to 120 mm/s' }),
  ).toBeVisible();
  await history.getByRole('button', { name: /^Take back: Cut, Wren: speed 40/ }).click();
  await expect(field(page, 'Wren, Cut', 'Speed')).toHaveValue('40');
  await expect(history.getByRole('listitem').first()).toContainText('speed 130 mm/s → 40 mm/s');

  // Sheets in stock, with a price or by the area.
  await page.getByRole('button', { name: 'Add a size' }).click();
  await typeInto(page, 'Sheets', '12');
  await typeInto(page, 'Price of one', '3,20');
  await expect(history.getByRole('listitem').first()).toContainText('12 of 600 × 400 mm → 12 of 600 × 400 mm at 3.2');
  await page.getByLabel('Price of one').fill('-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'From 0 to a million' })).toBeVisible();
  await page.keyboard.press('Escape');

  // A picture of the result.
  await page.getByRole('button', { name: 'More of cut' }).click();
  const photo = { name: 'result.png', mimeType: 'image/png', buffer: await page.screenshot() };
  await page.getByLabel('Add a picture').setInputFiles(photo);
  await expect(page.getByRole('img', { name: 'What comes of cut' })).toHaveJSProperty('complete', true);
  await page
    .getByLabel('Another picture', { exact: true })
    .setInputFiles({ ...photo, buffer: Buffer.from('no picture') });
  await expect(page.getByText('result.png was not kept')).toBeVisible();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(page.getByText('No picture of the result yet')).toBeVisible();

  // Beside its family, on a chart and in a table, and beside any other material.
  await typeInto(page, 'Family', 'Plywood');
  await expect(page.getByRole('img', { name: /Power against speed of \d\d? recipes/ })).toBeVisible();
  await expect(page.locator('canvas')).toBeVisible();
  const table = page.getByRole('table', { name: 'Recipes side by side' });
  await expect(table.getByRole('row', { name: /Ash veneer 0.6 mm Wren 30 % 40 mm\/s/ })).toBeVisible();
  await expect(table).not.toContainText('Cork');
  await choose(page, 'Compare another material', /Cork/);
  await expect(table).toContainText('Cork');
  await page.getByRole('button', { name: 'Leave Cork out' }).click();
  await expect(table).not.toContainText('Cork');
  // A press on a head sorts by it, another one the other way round.
  const energies = async () =>
    (await table.getByRole('row').allTextContents()).flatMap((row) =>
      (/([\d.]+) J\/mm/.exec(row) ?? []).slice(1).map(Number),
    );
  const rising = (await energies()).toSorted((a, b) => a - b);
  const head = table.getByRole('button', { name: 'Energy' });
  await head.click();
  await expect(table.getByRole('columnheader', { name: 'Energy' })).toHaveAttribute('aria-sort', 'ascending');
  expect(await energies()).toEqual(rising);
  await head.click();
  await expect(table.getByRole('columnheader', { name: 'Energy' })).toHaveAttribute('aria-sort', 'descending');
  expect(await energies()).toEqual(rising.toReversed());
  expect(rising.length).toBeGreaterThan(2);

  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByRole('link', { name: /Ash veneer/ })).toBeHidden();
  await page.getByLabel('Show what was put away').check();
  await expect(page.getByRole('link', { name: /Ash veneer/ })).toBeVisible();
});

test('a proven number that is typed over is proven no more; of two who change it the second is told', async ({
  page,
  browser,
}) => {
  const { id } = await addMaterial(page, 'Willow board');
  const other = await (await browser.newContext()).newPage();
  await openBook(page, 'Ines Varga', id);
  await openBook(other, 'Tobiah Okonjo', id);
  await expect(field(other, 'Wren, Cut', 'Speed')).toHaveValue('11');
  await field(page, 'Wren, Cut', 'Speed').fill('12');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'How cut is known: Copied' })).toBeVisible();
  await field(other, 'Wren, Cut', 'Power').fill('60');
  await other.keyboard.press('Enter');
  await expect(other.getByText(/was changed meanwhile by Ines Varga: .*speed 11 mm\/s → 12 mm\/s/)).toBeVisible();
  await expect(field(other, 'Wren, Cut', 'Speed')).toHaveValue('12');
  const [recipe] = (await materialOf(page, id)).recipes;
  expect(recipe).toMatchObject({ powerPercent: 55, speedMmPerS: 12, evidence: 'copied', proof: { by: 'Ines Varga' } });
  await other.context().close();
});

test('a table with mistakes is shown line by line; the good ones are taken if asked', async ({ page }) => {
  const { id } = await addMaterial(page, 'Rush mat');
  await openBook(page, 'Ines Varga', id);
  const table = [
    'material id,machine,operation,power %,speed mm/s,note',
    `${id},wren,score,9,100,from the evening class`,
    `${id},kestrel,score,9,100,`,
  ].join('\n');
  const file = { name: 'evening.csv', mimeType: 'text/csv', buffer: Buffer.from(table) };
  await page.getByTestId('book-file').setInputFiles(file);
  const trouble = page.getByRole('region', { name: 'Lines that cannot be taken' });
  await expect(trouble).toContainText('Line 3: There is no machine “kestrel”');
  expect((await materialOf(page, id)).recipes).toHaveLength(1);
  await trouble.getByRole('button', { name: 'Take the others' }).click();
  await expect(page.getByText('1 added, 0 changed')).toBeVisible();
  await expect(field(page, 'Wren, Score', 'Speed')).toHaveValue('100');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Table, CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('recipe-book.csv');
});

test('what is changed by hand is kept as a recipe, or goes with the material unless it is kept', async ({ page }) => {
  const { id } = await addMaterial(page, 'Reed board');
  await newJob(page, 'Reed tags', svg(rectangle(20, 20, 60, 40)));
  await choose(page, 'Material of the sheet', /Reed board/);
  await openStage(page, 'Recipe');
  const card = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(card.getByText('proven', { exact: true })).toBeVisible();
  await typeInto(page, 'Speed', '8.5');
  await expect(card.getByText('proven, changed by hand')).toBeVisible();
  await card.getByRole('button', { name: 'Keep this as a recipe' }).click();
  await expect(card.getByText('There is a usual recipe')).toBeVisible();
  await card.getByLabel('Called').fill('masked');
  await card.getByRole('button', { name: 'Keep it' }).click();
  await expect(card.getByText('proven', { exact: true })).toBeVisible();
  await expect(card.getByLabel('Speed')).toHaveValue('8.5');
  await expect(card.getByRole('button', { name: 'Recipe of Cut: masked' })).toBeVisible();
  expect((await materialOf(page, id)).recipes[1]).toMatchObject({
    variant: 'masked',
    speedMmPerS: 8.5,
    evidence: 'proven',
    proof: { by: 'Ines Varga', what: 'Reed tags' },
  });
  await choose(page, 'Recipe of Cut: masked', 'The usual recipe');
  await expect(card.getByLabel('Speed')).toHaveValue('11');

  await typeInto(page, 'Passes', '3');
  await choose(page, /^Material/, /Cork/);
  await expect(page.getByText('A setting that was changed by hand was for the other material')).toBeVisible();
  await expect(card.getByLabel('Passes')).toHaveValue('1');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(card.getByLabel('Passes')).toHaveValue('3');
  expect(await items(page)).toHaveLength(1);
  // Nor does it go along to another machine unasked.
  await openStage(page, 'Bed');
  await choose(page, 'Machine: Wren', /^Curlew/);
  const moved = page.getByRole('region', { name: 'Another machine' });
  await expect(moved.getByRole('heading', { name: 'From Wren to Curlew' })).toBeVisible();
  await expect(moved.getByRole('listitem')).toHaveText(/Cut, passes.*3.*here/);
  await saved(page);
  expect((await storedJob(page)).document.settings).toEqual({});
  await moved.getByRole('button', { name: 'Take it along' }).click();
  await saved(page);
  expect((await storedJob(page)).document.settings).toMatchObject({ cut: { passes: 3 } });
  await expect(moved.getByText('not taken along')).toBeHidden();
});

test('stock of another thickness is worked out, with its doubt, never silently', async ({ page }) => {
  await newJob(page, 'Thick box', svg(rectangle(20, 20, 60, 40)));
  await choose(page, 'Material of the sheet', /Birch plywood.*4 mm/);
  await openStage(page, 'Bed');
  await typeInto(page, 'Measured thickness', '5');
  await openStage(page, 'Recipe');
  const card = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(card.getByText('worked out', { exact: true })).toBeVisible();
  await expect(
    card.getByText(/Worked out from Birch plywood 3 and 4 mm, Wren.* The right speed is somewhere from/),
  ).toBeVisible();
  await openStage(page, 'Check');
  await expect(page.getByText('Worked out, never burnt')).toBeVisible();
});

test('speeds are typed and shown as the shop reckons them, or as whoever sits there does', async ({ page }) => {
  const { id } = await addMaterial(page, 'Sedge board');
  await page.goto('/shop');
  await choose(page, /^The shop’s speeds in/, 'mm/min');
  await expect(page.getByRole('button', { name: 'The shop’s speeds in: mm/min' })).toBeVisible();
  await page.goto(`/book/${id}`);
  await expect(page.getByRole('columnheader', { name: 'Speed mm/min' })).toBeVisible();
  await expect(field(page, 'Wren, Cut', 'Speed')).toHaveValue('660');
  await newJob(page, 'Sedge tags', svg(rectangle(20, 20, 60, 40)));
  await choose(page, 'Material of the sheet', /Sedge board/);
  await openStage(page, 'Recipe');
  await expect(page.getByLabel('Speed', { exact: true })).toHaveValue('660');
  await choose(page, /^Speeds in/, 'in/s');
  await expect(page.getByLabel('Speed', { exact: true })).toHaveValue('0.43');
  await choose(page, /^Speeds in/, /as the shop/);
  await expect(page.getByLabel('Speed', { exact: true })).toHaveValue('660');
  await page.goto('/shop');
  await choose(page, /^The shop’s speeds in/, 'mm/s');
  await expect(page.getByRole('button', { name: 'The shop’s speeds in' })).toContainText('mm/s');
});
