import { encodePixels } from '@lambent/core/formats';
import { expect, type Page, test } from '@playwright/test';
import { greyPng } from '../demo/grey-png.mjs';
import { kingfisher } from '../demo/kingfisher.mjs';
import { bedPoint, choose, items, newJob, offer, openStage, placeOf, storedJob, takeIt } from './bench.ts';

/** A job in which the scan of a kingfisher lies. */
async function scanOnBed(page: Page, title: string): Promise<void> {
  await newJob(page, title);
  await offer(page, 'kingfisher.png', await greyPng(kingfisher(600, 400)));
  await takeIt(page);
  await choose(page, 'Material of the sheet', /Birch plywood 3 mm/);
  await openStage(page, 'Art');
  await page.getByRole('tab', { name: 'Make outlines' }).click();
}

/** Drags on the bed, from place to place in mm. */
async function dragOnBed(page: Page, ...places: readonly [number, number][]): Promise<void> {
  const [first, ...others] = await Promise.all(places.map(([x, y]) => bedPoint(page, x, y)));
  await page.mouse.move(first.x, first.y);
  await page.mouse.down();
  for (const { x, y } of others) await page.mouse.move(x, y, { steps: 4 });
  await page.mouse.up();
}

const count = (page: Page) => page.getByRole('status').filter({ hasText: /outlines?, \d+ points/ });

test('a silhouette becomes outlines: a scribble cropped away, the eye kept, cut in three copies', async ({ page }) => {
  await scanOnBed(page, 'Window piece');
  // The bird with its perch, its eye, what the tail encloses, and the scribble.
  await expect(count(page)).toContainText('4 outlines');
  const [picture] = await items(page);
  const [left, top, wide, high] = placeOf(picture);
  await page.getByRole('button', { name: 'Box' }).click();
  await dragOnBed(page, [left + 1, top + 1], [left + 0.81 * wide, top + high - 1]);
  await expect(count(page)).toContainText('3 outlines');
  await page.getByRole('button', { name: 'Make the outlines' }).click();
  await expect
    .poll(async () => (await items(page)).map(({ shape }) => shape.kind).sort())
    .toEqual(['picture', 'traced']);
  const [traced] = (await items(page)).filter(({ shape }) => shape.kind === 'traced');
  const [x, y, across, down] = placeOf(traced);
  // The bill's tip is 0.1 of the height from the left, the tail ends at 0.86 of it.
  expect(Math.abs(x - left - 0.1 * high)).toBeLessThan(1);
  // The perch ends at 1.12 of the height; the head's top lies at 0.145 of it, and the tail ends at about 0.88.
  expect(Math.abs(x + across - left - 1.12 * high)).toBeLessThan(1);
  expect(Math.abs(y - top - 0.145 * high)).toBeLessThan(0.5);
  expect(Math.abs(y + down - top - 0.88 * high)).toBeLessThan(1.5);
  expect((await items(page)).find(({ shape }) => shape.kind === 'picture')?.hidden).toBe(true);

  // Two more of it, and all three are cut: their outside edges last.
  await page.getByRole('textbox', { name: 'Columns' }).fill('3');
  await page.getByRole('textbox', { name: 'Columns' }).press('Enter');
  await page.getByRole('button', { name: 'Make 2 copies' }).click();
  await expect.poll(async () => (await items(page)).length).toBe(4);
  await expect(page.getByTestId('step-cut-outer')).toBeVisible();
  const edges = (await items(page)).filter(({ shape }) => shape.kind !== 'picture').map((item) => placeOf(item)[2]);
  expect(edges).toEqual([across, across, across]);
  await openStage(page, 'Burn');
  await page.getByRole('button', { name: 'Send to Wren' }).click();
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
});

test('outlines are changed later, and what was rubbed out comes back', async ({ page }) => {
  await scanOnBed(page, 'Changed later');
  await expect(count(page)).toContainText('4 outlines');
  const [picture] = await items(page);
  const [left, top, wide, high] = placeOf(picture);
  await page.getByRole('button', { name: 'Rub out' }).click();
  const scribble = top + 0.16 * high;
  await dragOnBed(page, [left + 0.83 * wide, scribble], [left + wide - 1, scribble + 3]);
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: 'Bring back what was rubbed out' })).toBeVisible();
  await page.getByRole('checkbox', { name: 'outer outlines only' }).check();
  await page.getByRole('button', { name: 'Make the outlines' }).click();
  const kinds = async () => (await items(page)).map(({ shape }) => shape.kind);
  await expect.poll(kinds).toContain('traced');

  // What was made is selected, and how it was found can be looked at.
  const settings = async () => {
    const { document } = await storedJob(page);
    return document.drawing.items.flatMap(({ shape }) => (shape.kind === 'traced' ? [shape.settings] : []))[0];
  };
  expect((await settings()).isOuterOnly).toBe(true);
  await page.getByRole('button', { name: 'Find them another way' }).click();
  await page.getByRole('checkbox', { name: 'outer outlines only' }).uncheck();
  await page.getByRole('button', { name: 'Bring back what was rubbed out' }).click();
  await expect(count(page)).toContainText('4 outlines');
  await page.getByRole('button', { name: 'Change the outlines' }).click();
  await expect.poll(async () => (await settings()).rubbed).toEqual([]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await settings()).isOuterOnly).toBe(true);
});

test('strokes become lines along their middle, to be scored', async ({ page }) => {
  await scanOnBed(page, 'Middle lines');
  await expect(count(page)).toContainText('4 outlines');
  const [picture] = await items(page);
  const [left, top, wide, high] = placeOf(picture);
  await page.getByRole('button', { name: /^Makes/ }).click();
  await page.getByRole('option', { name: /Lines along its middle/ }).click();
  await page.getByRole('button', { name: 'Lasso' }).click();
  const right = left + wide;
  // Around the scribble.
  await dragOnBed(
    page,
    [right - 0.26 * high, top + 2],
    [right - 1, top + 2],
    [right - 1, top + 0.3 * high],
    [right - 0.26 * high, top + 0.3 * high],
  );
  await expect(page.getByRole('status').filter({ hasText: /^1 line, \d+ points/ })).toBeVisible();
  await page.getByRole('button', { name: 'Make the lines' }).click();
  await expect(page.getByTestId(/^step-score/).first()).toBeVisible();
  const [scribble] = (await items(page)).filter(({ shape }) => shape.kind === 'traced');
  // It was drawn from 1.27 to 1.46 of the height, as a line 0.024 of it wide.
  const [x, , across] = placeOf(scribble);
  expect(Math.abs(x - left - 1.28 * high)).toBeLessThan(0.015 * high);
  expect(Math.abs(x + across - left - 1.45 * high)).toBeLessThan(0.015 * high);
});

test('areas by their colours get a paint each, which colours then give a meaning', async ({ page }) => {
  await newJob(page, 'Two colours');
  const [width, height] = [120, 80];
  const rgb = new Uint8Array(3 * width * height).fill(255);
  const paint = (left: number, top: number, side: number, colour: readonly number[]) => {
    for (let y = top; y < top + side; y++)
      for (let x = left; x < left + side; x++) rgb.set(colour, 3 * (y * width + x));
  };
  paint(10, 10, 40, [200, 30, 40]);
  paint(40, 20, 40, [30, 60, 180]);
  await offer(page, 'squares.png', Buffer.from(await encodePixels({ width, height, rgb })));
  await takeIt(page);
  await choose(page, 'Material of the sheet', /Birch plywood 3 mm/);
  await openStage(page, 'Art');
  await page.getByRole('tab', { name: 'Make outlines' }).click();
  await choose(page, /^Makes/, 'Areas by their colour');
  await expect(page.getByRole('status').filter({ hasText: '2 colours' })).toBeVisible();
  await page.getByRole('button', { name: 'Make the areas' }).click();
  const areas = async () => (await items(page)).filter(({ shape }) => shape.kind === 'traced');
  await expect.poll(async () => (await areas()).map(({ paint: { fill } }) => fill)).toEqual(['#C81E28', '#1E3CB4']);
  const [, blue] = await areas();
  const [, , wide, high] = placeOf(blue);
  // 40 pixels at 96 to the inch.
  expect(Math.abs(wide - (40 * 25.4) / 96)).toBeLessThan(0.05);
  expect(Math.abs(high - (40 * 25.4) / 96)).toBeLessThan(0.05);
  await openStage(page, 'Colours');
  await choose(page, 'What fill #1E3CB4 means', /Engrave/);
  await expect(page.getByTestId('step-engrave-all')).toBeVisible();
});

/** An A4 sheet with a black plate of 120 × 80 mm on it, photographed from the side: how it looks, and where its corners are. */
function sheetFromTheSide() {
  const [width, height] = [900, 700];
  const [tilt, distance, focal] = [0.6, 520, 1000];
  const [sin, cos] = [Math.sin(tilt), Math.cos(tilt)];
  const see = (x: number, y: number) => {
    const [dx, dy] = [x - 148.5, y - 105];
    const depth = distance - dy * sin;
    return { x: width / 2 + (focal * dx) / depth, y: height / 2 + (focal * dy * cos) / depth };
  };
  const greys = Uint8Array.from({ length: width * height }, (_, pixel) => {
    const [u, v] = [
      ((pixel % width) + 0.5 - width / 2) / focal,
      (Math.floor(pixel / width) + 0.5 - height / 2) / focal,
    ];
    const dy = (v * distance) / (cos + v * sin);
    const [x, y] = [u * (distance - dy * sin) + 148.5, dy + 105];
    if (x < 0 || x > 297 || y < 0 || y > 210) return 140;
    return x > 80 && x < 200 && y > 60 && y < 140 ? 20 : 245;
  });
  return { width, height, greys, corners: [see(0, 0), see(297, 0), see(297, 210), see(0, 210)] };
}

test('a sheet photographed at an angle becomes a part of true size', async ({ page }) => {
  const { corners, ...photo } = sheetFromTheSide();
  await newJob(page, 'From a photo');
  await offer(page, 'sheet.png', await greyPng(photo));
  await takeIt(page);
  await choose(page, 'Material of the sheet', /Birch plywood 3 mm/);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Photographed at an angle? Straighten it' }).click();
  const [left, top, wide] = placeOf(await items(page));
  const mm = wide / photo.width;
  for (const { x, y } of corners) {
    const place = await bedPoint(page, left + x * mm, top + y * mm);
    await page.mouse.click(place.x, place.y);
  }
  const form = page.getByRole('region', { name: 'Straighten it' });
  await expect(form.getByRole('button', { name: /A4 sheet/ })).toContainText('297 × 210');
  await form.getByRole('button', { name: 'Straighten', exact: true }).click();
  await expect
    .poll(async () =>
      placeOf(await items(page))
        .slice(2)
        .map(Math.round),
    )
    .toEqual([297, 210]);
  await page.getByRole('tab', { name: 'Make outlines' }).click();
  await expect(count(page)).toContainText('1 outline');
  await page.getByRole('button', { name: 'Make the outlines' }).click();
  const traced = async () => (await items(page)).filter(({ shape }) => shape.kind === 'traced');
  await expect.poll(async () => (await traced()).length).toBe(1);
  const [, , across, down] = placeOf(await traced());
  // A click is as true as a pixel of the screen, which is most of a millimetre here.
  expect(Math.abs(across - 120)).toBeLessThan(1);
  expect(Math.abs(down - 80)).toBeLessThan(1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => placeOf(await items(page))[2]).toBeCloseTo(wide, 6);
});
