import { readFileSync } from 'node:fs';
import { encodeJpeg } from '@lambent/core/formats';
import { shippedAssets } from '@lambent/fonts';
import { expect, type Page, test } from '@playwright/test';
import { greyPng } from '../demo/grey-png.mjs';
import { heronAtDusk } from '../demo/heron-at-dusk.mjs';
import {
  bedPoint,
  choose,
  items,
  newJob,
  offer,
  openStage,
  placeOf,
  rows,
  storedJob,
  svg,
  takeIt,
  typeInto,
} from './bench.ts';

/** A job in which a made-up photo lies on slate. */
async function photoOnSlate(page: Page, title: string, width: number, height: number): Promise<void> {
  await newJob(page, title);
  await offer(page, 'heron-at-dusk.png', await greyPng(heronAtDusk(width, height)));
  await takeIt(page);
  await choose(page, 'Material of the sheet', /Slate/);
  await openStage(page, 'Art');
}

/** How long the photo burns, as its block says, in seconds. */
async function photoTime(page: Page): Promise<number> {
  const words = (await page.getByTestId('step-photo-all').textContent()) ?? '';
  const [, minutes, seconds] = /(\d+):(\d\d)/.exec(words) ?? [];
  return 60 * Number(minutes) + Number(seconds);
}

const tone = async (page: Page) => {
  const [{ shape }] = (await storedJob(page)).document.drawing.items;
  return shape.kind === 'picture' ? shape.tone : null;
};

test('a photo goes from its file to a burnt plaque: toned, in a grain, on slate', async ({ page }) => {
  await photoOnSlate(page, 'Small plaque', 90, 60);
  const panel = page.getByRole('region', { name: 'Picture heron-at-dusk.png' });
  await expect(panel).toContainText('90 × 60 pixels · 3.78 per mm');
  await expect(panel).toContainText('It is shown, and does not burn');
  await panel.getByRole('button', { name: 'Burn its greys' }).click();
  await expect(page.getByTestId('step-photo-all')).toBeVisible();

  // Slate does, as the book knows; somebody may know better.
  const lighter = panel.getByLabel('The stock turns lighter where it burns');
  await expect(lighter).toBeChecked();
  await lighter.uncheck();
  await typeInto(page, 'Contrast', '20');
  await expect.poll(() => tone(page)).toEqual({ lighter: false, contrast: 20 });
  await lighter.check();
  await expect.poll(() => tone(page)).toEqual({ contrast: 20 });
  await panel.getByRole('radio', { name: 'Blue noise' }).click();
  await expect(panel.getByRole('radio', { name: 'Blue noise' })).toBeChecked();
  await expect(page.getByTestId('step-photo-all')).toContainText('blue noise');
  const fine = await photoTime(page);
  await typeInto(page, 'Line spacing', '0.4');
  // A quarter of the lines takes a quarter of the time.
  await expect.poll(async () => (await photoTime(page)) / fine).toBeLessThan(0.3);

  await openStage(page, 'Burn');
  await page.getByRole('button', { name: 'Send to Wren' }).click();
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
});

test('pictures of any kind come in and burn, one that is cut short is refused', async ({ page }) => {
  const file = (name: string) => readFileSync(new URL(`../packages/core/src/fixtures/files/${name}`, import.meta.url));
  for (const name of ['grey1.png', 'rgb565.bmp', 'usual.png']) {
    await newJob(page, `From ${name}`);
    await offer(page, name, file(name));
    await takeIt(page);
    const panel = page.getByRole('region', { name: `Picture ${name}` });
    await panel.getByRole('button', { name: 'Burn its greys' }).click();
    await choose(page, 'Material of the sheet', /Slate/);
    await openStage(page, 'Art');
    await expect(page.getByTestId('step-photo-all')).toBeVisible();
  }
  await newJob(page, 'Cut short');
  await offer(page, 'half.jpg', file('trunc.jpg'));
  await expect(page.getByText(/half\.jpg.*The picture is damaged and cannot be unpacked/)).toBeVisible();
});

test('a picture of very many pixels comes in smaller, or keeps them all', async ({ page }) => {
  const [width, height] = [8000, 5600];
  const rgb = new Uint8Array(3 * width * height).fill(230).fill(30, 0, (3 * width * height) / 2);
  await newJob(page, 'Very large');
  await offer(page, 'very-large.jpg', Buffer.from(await encodeJpeg({ width, height, rgb }, 90, shippedAssets)));
  await expect(page.getByText('it is made smaller, to 4000 × 2800')).toBeVisible();
  await choose(page, 'Pixels', 'All, slow to work with');
  await expect(page.getByText('and keeps them all')).toBeVisible();
  await choose(page, 'Pixels', 'Fewer, quick to work with');
  await expect(page.getByText('it is made smaller, to 4000 × 2800')).toBeVisible();
  await takeIt(page);
  const [{ shape, matrix }] = (await storedJob(page)).document.drawing.items;
  expect(shape).toMatchObject({ width: 4000, height: 2800 });
  expect(4000 * matrix[0]).toBeCloseTo((8000 * 25.4) / 96, 3);
});

test('the tone curve goes by pointer and by keys, and is undone', async ({ page }) => {
  await photoOnSlate(page, 'Curve', 60, 40);
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  const curve = page.getByRole('img', { name: /^Tone curve/ });
  const box = await curve.boundingBox();
  if (!box) throw new Error('There is no tone curve');
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 4);
  const middle = page.getByRole('button', { name: /^50 % grey becomes/ });
  await expect(middle).toHaveCount(1);
  const [, added] = (await tone(page))?.curve ?? [];
  expect(added.to).toBeGreaterThan(0.7);
  await middle.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect.poll(async () => (await tone(page))?.curve?.[1].to).toBeCloseTo(added.to - 0.1, 9);

  // Dragged, it follows, and is one step to undo.
  const lower = await middle.boundingBox();
  if (!lower) throw new Error('The point is gone');
  await page.mouse.move(lower.x + 7, lower.y + 7);
  await page.mouse.down();
  await page.mouse.move(lower.x + 40, lower.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await tone(page))?.curve?.[1].from).toBeGreaterThan(0.6);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await tone(page))?.curve?.[1])
    .toEqual({ from: 0.5, to: expect.closeTo(added.to - 0.1, 9) });
  await page.getByRole('button', { name: /^50 % grey becomes/ }).focus();
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await tone(page))?.curve).toHaveLength(2);
  await page.getByRole('button', { name: 'As it came' }).click();
  await expect.poll(() => tone(page)).toBeUndefined();
});

test('as it burns stands beside as it came, parted where one likes', async ({ page }) => {
  await photoOnSlate(page, 'Split', 900, 600);
  await expect(page.getByTestId('burnt-split')).toBeHidden();
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  const split = page.getByTestId('burnt-split');
  await expect(split.locator('canvas')).toBeVisible();
  await expect(split).toContainText('As it burns, simulated');
  const slider = split.getByRole('slider');
  await expect(slider).toHaveAttribute('aria-valuenow', '50');
  await slider.focus();
  await page.keyboard.press('ArrowRight');
  await expect(slider).toHaveAttribute('aria-valuenow', '52');
  const box = await slider.boundingBox();
  if (!box) throw new Error('There is no slider');
  await page.mouse.move(box.x + 5, box.y + 5);
  await page.mouse.down();
  await page.mouse.move(box.x - 60, box.y + 5, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await slider.getAttribute('aria-valuenow'))).toBeLessThan(45);
  // Elsewhere, and without a picture selected, it is away.
  await page
    .getByRole('region', { name: /^Picture/ })
    .getByRole('button', { name: 'Art' })
    .click();
  await expect(split).toBeHidden();
});

test('a photo is cropped by a circle, burns in less time, and comes back whole', async ({ page }) => {
  await photoOnSlate(page, 'Round plaque', 360, 240);
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  const whole = placeOf(await items(page));
  const [x, y, width, height] = whole;
  await expect(page.getByTestId('step-photo-all')).toBeVisible();
  const time = await photoTime(page);
  await rows(page, 'Circle').click();
  await page.keyboard.press('b');
  const middle = await bedPoint(page, x + width / 2, y + height / 2);
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + 20 * middle.scale, middle.y, { steps: 4 });
  await page.mouse.up();
  const cropped = async () => placeOf(await items(page)).map(Math.round);
  await expect.poll(cropped).toEqual([x + width / 2 - 20, y + height / 2 - 20, 40, 40].map(Math.round));
  await expect.poll(() => photoTime(page)).toBeLessThan(time / 1.5);
  await page.getByRole('button', { name: 'Show all of it' }).click();
  await expect.poll(async () => placeOf(await items(page))).toEqual(whole);
  await expect.poll(() => photoTime(page)).toBe(time);
  await page.keyboard.press('Control+z');
  await expect.poll(cropped).toEqual([x + width / 2 - 20, y + height / 2 - 20, 40, 40].map(Math.round));

  // What lies beside the picture crops nothing.
  await page.getByRole('button', { name: 'Box', exact: true }).click();
  await page.mouse.move(middle.x, middle.y - 30 * middle.scale);
  await page.mouse.down();
  await page.mouse.move(middle.x + 20, middle.y - 25 * middle.scale, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText('Nothing of the picture lies in it.')).toBeVisible();
  expect(await cropped()).toEqual([x + width / 2 - 20, y + height / 2 - 20, 40, 40].map(Math.round));
});

test('a fill that fades is engraved alike, which is said, and on Photo burns its greys', async ({ page }) => {
  const fade = '<linearGradient id="g"><stop stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient>';
  await newJob(page, 'Fading', svg(`${fade}<rect x="20" y="20" width="80" height="20" fill="url(#g)"/>`));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await openStage(page, 'Colours');
  await choose(page, 'What fill #808080 means', /Engrave/);
  const notice = page.getByText('One fill fades');
  await expect(notice).toBeVisible();
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-fading-engraved')).toBeVisible();
  await openStage(page, 'Colours');
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  await expect(notice).toBeHidden();
  await expect(page.getByTestId('step-photo-all')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(notice).toBeVisible();
});
