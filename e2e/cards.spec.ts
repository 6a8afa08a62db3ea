import { gunzipSync } from 'node:zlib';
import type { BurntPictureAnswer, RunAnswer } from '@lambent/contracts';
import { boundsOf, type Item } from '@lambent/core/document';
import { itemsOfCard } from '@lambent/core/edits';
import { type BurntPicture, layCard, lookOf, type Material } from '@lambent/core/recipes';
import { expect, type Page, test } from '@playwright/test';
import { greyPng } from '../demo/grey-png.mjs';
import { choose, clickBed, newJob, offer, openStage, rectangle, storedJob, svg, takeIt, typeInto } from './bench.ts';
import { burn, unknownStock } from './burning.ts';

async function pictureOf(page: Page, run: RunAnswer): Promise<BurntPicture> {
  const answer = (await (await page.request.get(`/api/runs/${run.id}/picture`)).json()) as BurntPictureAnswer;
  expect(answer.simulated).toBe(true);
  return { ...answer, codes: new Uint8Array(gunzipSync(Buffer.from(answer.codes, 'base64'))) };
}

/** How strong a picture is around a place of an item, from its left edge at 0 to its right at 1: the mean of its points. */
function meanCode({ x, y, pitchMm, width, codes }: BurntPicture, item: Item, share: number): number {
  const { minX, minY, maxX, maxY } = boundsOf(item);
  let [sum, count] = [0, 0];
  for (let down = minY + 1; down < maxY - 1; down += pitchMm) {
    const middle = minX + share * (maxX - minX);
    for (let across = middle - 3; across < middle + 3; across += pitchMm, count++) {
      sum += codes[Math.floor((down - y) / pitchMm) * width + Math.floor((across - x) / pitchMm)];
    }
  }
  return sum / count;
}

const cell = (page: Page, name: RegExp) => page.getByTestId('reading').getByRole('button', { name });

test('unknown stock: a card is laid, burnt, read and kept, and the job that goes by it cuts through', async ({
  page,
}) => {
  const stock = await unknownStock(page, 'Felt board');
  await newJob(page, 'Felt coasters', svg(rectangle(120, 20, 60, 40)));
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Felt board/);
  await expect(page.getByText('No recipe here')).toBeVisible();
  await page.getByRole('button', { name: 'Burn a test card first' }).click();
  await expect(page.getByText('Nothing is known of this: the ranges are wide')).toBeVisible();
  await page.getByRole('button', { name: 'Lay 24 cells on the sheet' }).click();
  await expect(page.getByTestId('card-block')).toContainText('words, 24 cells');

  // The card has a run of its own; the program holds each cell with its very values, mild ones first.
  const first = await burn(page, 1);
  expect(first.jobRunName).toBe('Test card');
  const { document } = await storedJob(page);
  const [laid] = document.cards;
  const card = layCard(laid.wish);
  const program = await (await page.request.get(`/api/runs/${first.id}/program.gcode`)).text();
  const feeds = [...program.matchAll(/^.*F([\d.]+)S([\d.]+)$/gm)].map(([, f, s]) => [Number(f), Number(s)]);
  const words = feeds.length - card.cells.length;
  expect(words).toBeGreaterThan(0);
  expect(feeds.slice(words)).toEqual(
    card.cells.map(({ settings }) => [
      Number((settings.speedMmPerS * 60).toFixed(2)),
      Number((settings.powerPercent * 10).toFixed(1)),
    ]),
  );

  // Whatever is moved since, the card is read where it was burnt.
  await openStage(page, 'Recipe');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('The picture is simulated')).toBeVisible();
  await page.getByRole('button', { name: 'Grade all as the picture shows' }).click();
  await expect(page.getByText('24 of 24 cells are graded')).toBeVisible();
  // Along each row, what is slow goes through and what is fast does not.
  const rows = card.rows.map((power) =>
    card.columns.map(async (speed) => {
      const name = `${power} %, ${speed} mm/s`;
      return (await page.getByTestId('reading').getByTitle(name).getAttribute('data-mark')) ?? '';
    }),
  );
  for (const row of rows) {
    const marks = (await Promise.all(row)).filter((mark) => mark !== 'over');
    expect(marks).toEqual(marks.toSorted((a, b) => a.localeCompare(b)));
    expect(marks).toContain('under');
  }
  expect(await page.getByTestId('reading').locator('[data-mark=good]').count()).toBeGreaterThan(3);
  await expect(page.getByRole('img', { name: /^The card’s grades where their settings lie/ })).toBeVisible();

  await page.getByRole('button', { name: 'the best of them' }).click();
  await page.getByTestId('reading').locator('[data-mark=good]').last().click();
  await expect(page.getByText(/^Speed: good/)).toContainText('not through at');
  await page.getByRole('button', { name: 'Keep it as a recipe' }).click();
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await expect(page.getByText('is kept in the recipe book')).toBeVisible();
  const all = (await (await page.request.get('/api/materials')).json()) as Material[];
  const [recipe] = all.find(({ id }) => id === stock.id)?.recipes ?? [];
  const { best } = (await storedJob(page)).document.cards[0];
  expect(recipe).toMatchObject({
    operation: 'cut',
    machineId: 'wren',
    evidence: 'proven',
    pictureId: expect.stringMatching(/^[0-9a-f]{64}$/),
    proof: { by: 'Ines Varga', what: 'test card, Felt coasters', jobId: first.jobId },
    powerPercent: card.cells.find(({ key }) => key === best)?.settings.powerPercent,
    speedMmPerS: card.cells.find(({ key }) => key === best)?.settings.speedMmPerS,
  });

  const picture = await page.request.get(`/api/pictures/${recipe.pictureId}`);
  expect([picture.status(), picture.headers()['content-type']]).toEqual([200, 'image/png']);

  // The work burns by it, and comes out.
  await page.getByRole('button', { name: 'Recipe', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Cut' })).toContainText('proven');
  const second = await burn(page, 2);
  expect(second.jobRunName).toBe('Run 1');
  const job = (await storedJob(page)).document;
  const onCard = new Set(itemsOfCard(job, laid.id).map(({ id }) => id));
  const [coaster] = job.drawing.items.filter(({ id }) => !onCard.has(id));
  expect(lookOf(await pictureOf(page, second), coaster, 'cut').through).toBeGreaterThan(0.98);
  await page.getByRole('button', { name: 'how it came out' }).first().click();
  await expect(page.getByRole('status').filter({ hasText: 'How it came out' })).toContainText('simulated');
  await page.getByRole('button', { name: 'Leave', exact: true }).click();
});

test('marks are put with the pointer and the keyboard, and taken back; a closer card goes around the best', async ({
  page,
}) => {
  await unknownStock(page, 'Felt strip');
  await newJob(page, 'Trying a strip');
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Felt strip/);
  await page.getByRole('button', { name: 'New test card' }).click();
  await typeInto(page, 'Speed from', '4');
  await typeInto(page, 'Speed to', '12');
  await page.getByRole('button', { name: /^Lay \d+ cells/ }).click();
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('It has not been burnt yet')).toBeVisible();
  const row = page.getByTestId('reading').locator('button[data-mark]');
  await expect(row).toHaveCount(24);
  const [from, to] = [await cell(page, /^42 %, 4 mm/).boundingBox(), await cell(page, /^42 %, 8.8 mm/).boundingBox()];
  if (!from || !to) throw new Error('The cells are not shown.');
  await page.getByRole('button', { name: /^not through/ }).click();
  await page.mouse.move(from.x + 5, from.y + 5);
  await page.mouse.down();
  await page.mouse.move(to.x + 5, to.y + 5, { steps: 20 });
  await page.mouse.up();
  await expect(page.locator('[data-mark=under]')).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-mark=under]')).toHaveCount(0);
  await cell(page, /^54 %, 4 mm/).focus();
  await page.keyboard.press('Enter');
  await expect(cell(page, /^54 %, 4 mm\/s: not through/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, /^54 %, 4 mm\/s: not graded/)).toBeVisible();

  await page.getByRole('button', { name: 'the best of them' }).click();
  await cell(page, /^54 %, 5.6 mm/).click();
  await page.getByRole('button', { name: 'A card that looks closer' }).click();
  await expect(page.getByLabel('Speed from')).toHaveValue('4');
  await expect(page.getByLabel('Speed to')).toHaveValue('7.2');
  await expect(page.getByRole('button', { name: 'Lay 25 cells on the sheet' })).toBeEnabled();
  // Escape leaves what is open.
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Recipe', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('reading')).toBeHidden();
});

test('a card of grey steps gives a tone curve, and a photo that burns by it comes out even', async ({ page }) => {
  const stock = await unknownStock(page, 'Marble tile', {
    ...{ family: 'Stone', turnsLighter: true, sheetWidth: 600, sheetHeight: 400 },
  });
  await newJob(page, 'Even greys');
  // Five even greys, side by side, 53 mm wide in all.
  const [width, height, steps] = [200, 40, 5];
  const greys = Uint8Array.from({ length: width * height }, (_, i) =>
    Math.round(((Math.floor(((i % width) * steps) / width) + 1) * 255) / steps),
  );
  await offer(page, 'steps.png', await greyPng({ width, height, greys }));
  await takeIt(page);
  await choose(page, 'Material of the sheet', /Marble tile/);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  await expect(page.getByText('How dark greys come out was not measured here')).toBeVisible();

  await openStage(page, 'Recipe');
  await page.getByRole('button', { name: 'New test card' }).click();
  await choose(page, 'Operation', 'Photo');
  await choose(page, 'Kind of card', /Grey steps/);
  await typeInto(page, 'Power at black', '60');
  await typeInto(page, 'Speed from', '150');
  await typeInto(page, 'Speed to', '250');
  await typeInto(page, 'Cell', '5');
  await page.getByRole('button', { name: 'Lay 30 cells on the sheet' }).click();
  await expect(page.getByTestId('card-block')).toContainText('words, 30 cells');
  const first = await burn(page, 1);
  expect(first.jobRunName).toBe('Test card');
  await openStage(page, 'Recipe');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('The picture is simulated')).toBeVisible();
  await page.getByRole('button', { name: 'the best of them' }).click();
  await cell(page, /^150 mm\/s, 100 % grey/).click();
  await expect(page.getByRole('img', { name: /^Measured greys: 10 % came out as/ })).toBeVisible();
  // What was measured by hand goes before the picture, and is undone.
  const half = page.getByLabel('50 %', { exact: true });
  const seen = await half.inputValue();
  await typeInto(page, '50 %', '12');
  await expect.poll(async () => (await storedJob(page)).document.cards[0].darks).toEqual({ '1-5': 12 });
  await page.keyboard.press('Control+z');
  await expect(half).toHaveValue(seen);
  await page.getByRole('button', { name: 'Keep it as a recipe' }).click();
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await expect(page.getByText('is kept in the recipe book')).toBeVisible();
  const all = (await (await page.request.get('/api/materials')).json()) as Material[];
  const [recipe] = all.find(({ id }) => id === stock.id)?.recipes ?? [];
  const measured = new Map(recipe.burntGreys?.map(({ asked, burnt }) => [asked, burnt]));
  expect([...measured.keys()]).toEqual([0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1]);
  // On stone, half of the dots burn far more than half as strong.
  expect(measured.get(0.5)).toBeGreaterThan(0.6);

  // The photo goes by it, without a word, and says so.
  await page.getByRole('button', { name: 'Recipe', exact: true }).click();
  const second = await burn(page, 2);
  const picture = await pictureOf(page, second);
  const [photo] = (await storedJob(page)).document.drawing.items.filter(({ shape }) => shape.kind === 'picture');
  const stripes = Array.from({ length: steps }, (_, i) => meanCode(picture, photo, (i + 0.5) / steps));
  const darkest = stripes.at(-1) ?? 0;
  stripes.forEach((code, i) => expect(Math.abs(code / darkest - (i + 1) / steps)).toBeLessThan(0.05));

  await openStage(page, 'Art');
  await page.keyboard.press('Escape');
  await page.keyboard.press('b');
  await clickBed(page, 300, 200);
  const follows = page.getByLabel(/^Burnt greys follow the card of \d+ \w+ for marble tile/);
  await expect(follows).toBeChecked();
  await follows.uncheck();
  await expect
    .poll(async () => Object.values((await storedJob(page)).document.settings))
    .toContainEqual({ burntGreys: [] });
  await follows.check();
  await expect(page.getByText('with other settings')).toBeHidden();
  await typeInto(page, 'Line spacing', '0.2');
  await expect(page.getByText('The card was burnt with other settings than these')).toBeVisible();
});

test('a card that is too large says how many cells have room, and what the machine cannot do', async ({ page }) => {
  await unknownStock(page, 'Felt offcut', { sheetWidth: 70, sheetHeight: 45 });
  await newJob(page, 'Trying an offcut');
  await openStage(page, 'Recipe');
  await choose(page, 'Material', /Felt offcut/);
  await page.getByRole('button', { name: 'New test card' }).click();
  await choose(page, 'Operation', 'Photo');
  await choose(page, 'Kind of card', /Grey steps/);
  await expect(page.getByText('the sheet has room for')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Lay 30 cells/ })).toBeDisabled();
  await page.getByRole('button', { name: /^Take \d × \d/ }).click();
  await expect(page.getByText(/^It takes \d+ × \d+ mm\.$/)).toBeVisible();
  await typeInto(page, 'Power at black', '2');
  await expect(page.getByRole('alert').filter({ hasText: 'Wren takes from 4 to 100 %' })).toBeVisible();
  await typeInto(page, 'Power at black', '20');
  await page.getByRole('button', { name: /^Lay \d+ cells/ }).click();
  await expect(page.getByTestId('card-block')).toBeVisible();
  const { cards, drawing, layers } = (await storedJob(page)).document;
  const card = layCard(cards[0].wish);
  expect(layers).toHaveLength(card.cells.length + 1);
  await page.getByRole('button', { name: 'Take it off' }).click();
  await expect(page.getByTestId('card-block')).toBeHidden();
  const after = (await storedJob(page)).document;
  expect([after.layers, after.cards, after.drawing.items.length, after.runs.length]).toEqual([[], [], 0, 1]);
  expect(drawing.items.length).toBe(card.cells.length + card.labels.length);
  // Its cells are drawn in their greys, and burn with one power.
  const fills = drawing.items.slice(0, card.cells.length).map(({ paint }) => paint.fill);
  expect(fills).toEqual(card.cells.map(({ fill }) => fill));
  expect(new Set(fills).size).toBeGreaterThan(1);
});

test('a run takes its sheet from stock; it is put back, or what is left of it kept; the price goes by the sheet', async ({
  page,
}) => {
  const stock = [{ id: 'whole', width: 300, height: 200, count: 5, price: 7.5 }];
  const material = await unknownStock(page, 'Felt on the rack', { stock });
  const recipe = { machineId: 'wren', operation: 'cut', powerPercent: 60, speedMmPerS: 10, evidence: 'copied' };
  await page.request.post(`/api/materials/${material.id}/recipes`, { data: { by: 'Ines Varga', recipe } });
  const inStock = async () => {
    const all = (await (await page.request.get('/api/materials')).json()) as Material[];
    return all.find(({ id }) => id === material.id)?.stock?.map(({ width, height, count }) => [width, height, count]);
  };
  const settings = await (await page.request.get('/api/settings')).json();
  const charge = (stockBy: string) =>
    page.request.put('/api/settings', { data: { ...settings, pricing: { ...settings.pricing, stockBy } } });
  expect((await charge('sheet')).ok()).toBe(true);
  try {
    await newJob(page, 'From the rack', svg(rectangle(20, 20, 60, 40)));
    await openStage(page, 'Recipe');
    await choose(page, 'Material', /Felt on the rack/);
    await openStage(page, 'Burn');
    await expect(page.getByText('Felt on the rack, a sheet 300 × 200 mm')).toBeVisible();
    await expect(page.getByText('€ 7.50')).toBeVisible();
  } finally {
    await charge('area');
  }
  await burn(page, 1);
  await expect(page.getByTestId('taken-sheet')).toContainText('a sheet of felt on the rack, 300 × 200 mm');
  expect(await inStock()).toEqual([[300, 200, 4]]);
  await page.getByRole('button', { name: 'keep the offcut' }).click();
  // What is left is the sheet with a hole in it; the operator cuts it down.
  await expect(page.getByRole('radio', { name: '300 × 200 mm' })).toBeChecked();
  await page.getByRole('radio', { name: 'A rectangle that I cut' }).click();
  await typeInto(page, 'Offcut’s width', '220');
  await typeInto(page, 'Its height', '200');
  await page.getByRole('button', { name: 'Keep the offcut', exact: true }).click();
  await expect(page.getByTestId('taken-sheet')).toContainText('offcut kept');
  expect(await inStock()).toEqual([
    [300, 200, 4],
    [220, 200, 1],
  ]);
  // The next job lies on the offcut.
  await openStage(page, 'Bed');
  await choose(page, 'From stock', /220.* offcut/);
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('220.00');
  const [sheet] = (await storedJob(page)).document.sheets;
  expect([sheet.width, sheet.height]).toEqual([220, 200]);
  await openStage(page, 'Burn');
  await page.getByRole('button', { name: 'put it back' }).click();
  await page.getByRole('button', { name: 'Put it back', exact: true }).click();
  await expect(page.getByTestId('taken-sheet')).toContainText('Put back into stock');
  expect((await inStock())?.[0]).toEqual([300, 200, 5]);
});
