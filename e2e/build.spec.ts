import { readFileSync } from 'node:fs';
import { boundsOf, type Item } from '@lambent/core/document';
import { expect, type Page, test } from '@playwright/test';
import { greyPng } from '../demo/grey-png.mjs';
import { heronAtDusk } from '../demo/heron-at-dusk.mjs';
import {
  bedPoint,
  bringIn,
  burntLengths,
  choose,
  drawTyped,
  items,
  newJob,
  openStage,
  saved,
  storedJob,
  tool,
  typeInto,
} from './bench.ts';

/** A job, on birch plywood where nothing else is said, in which parts from numbers are open. */
async function building(page: Page, title: string, material = /Birch plywood.*3 mm/): Promise<void> {
  await newJob(page, title);
  await choose(page, 'Material of the sheet', material);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Parts from numbers…' }).click();
  await expect(page.getByRole('region', { name: 'Parts from numbers' })).toBeVisible();
}

/** Chooses what is built. */
const builder = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
/** How long what is cut and what is scored is burnt, in mm. */
async function burnt(page: Page): Promise<{ cut: number; score: number }> {
  const steps = Object.entries(await burntLengths(page));
  const sum = (operation: string) =>
    steps.filter(([step]) => step.startsWith(operation)).reduce((total, [, mm]) => total + mm, 0);
  return { cut: sum('cut'), score: sum('score') };
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
  await expect(page.getByRole('complementary', { name: 'Put together' })).toContainText('as it was last');
  await page.getByRole('button', { name: 'Take 3.06 mm' }).click();
  await expect(page.getByRole('alert')).toBeHidden();
  await typeInto(page, 'Finger width', '12');
  await expect(figures(page)).toContainText('Cut1.38 m');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const front = await partNamed(page, 'Front');
  expect(sizeOf(front)).toEqual([expect.closeTo(80 + 2 * 3.06, 6), expect.closeTo(43.06, 6)]);
  expect((await burnt(page)).cut / 1000).toBeCloseTo(1.38, 2);
});

test('a box with a lid on hinges from numbers to its plan', async ({ page }) => {
  await building(page, 'Hinged');
  await choose(page, 'Lid: None', 'Hinged');
  await typeInto(page, 'Width', '80');
  await typeInto(page, 'Depth', '60');
  await typeInto(page, 'Height', '40');
  await typeInto(page, 'Hinges', '9');
  await expect(page.getByRole('alert')).toContainText('9 hinges do not fit beside each other: there is room for 3.');
  await page.getByRole('button', { name: 'Take 3' }).click();
  await typeInto(page, 'Hole for the pin', '3');
  await expect(figures(page)).toContainText('Goes together: nothing overlaps, nothing gapes.');
  // Behind the back and above the lid: two radii of 1.5 + 3 mm, and the play.
  await expect(figures(page)).toContainText('86 × 75.4 × 55.4');
  await page.getByRole('button', { name: 'Put 15 parts down' }).click();
  await saved(page);
  const ear = await partNamed(page, 'Hinge 2, lid');
  // From 15 mm on the lid to the round end behind it; tab, lid and ear.
  expect(sizeOf(ear)).toEqual([expect.closeTo(15 + 0.4 + 9, 6), expect.closeTo(3 + 0.4 + 9, 6)]);
  expect((await burnt(page)).cut).toBeGreaterThan(2000);
});

test('a slotted grid from numbers to its plan', async ({ page }) => {
  await building(page, 'Grid');
  await builder(page, 'Slotted grid');
  await typeInto(page, 'Width', '120');
  await typeInto(page, 'Depth', '90');
  await expect(figures(page)).toContainText('119.5 × 89.5 × 40');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const strip = await partNamed(page, 'Strip along 1');
  expect(sizeOf(strip)).toEqual([expect.closeTo(89.5, 6), expect.closeTo(40, 6)]);
  // Two strips across with three slots each, three along with two: each slot adds its two sides.
  const strips = 2 * 2 * (119.5 + 40) + 3 * 2 * (89.5 + 40) + 12 * 2 * 20;
  expect((await burnt(page)).cut / strips).toBeCloseTo(1, 2);
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
  await choose(page, 'Lid: None', 'Slides in');
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

test('a folded box from numbers to its plan: its net is cut, its bends are scored', async ({ page }) => {
  await building(page, 'Folded', /Cotton card/);
  await builder(page, 'Folded box');
  await typeInto(page, 'Measured thickness', '0.5');
  await choose(page, /^Shape: /, /Tray$/);
  await typeInto(page, 'Glue tab angle', '0');
  await expect(figures(page)).toContainText('92 × 61 × 30.5');
  await page.getByRole('button', { name: 'Put 1 part down' }).click();
  await saved(page);
  const { cut, score } = await burnt(page);
  // Two sides and two walls, and four tabs: worked out by hand from the bends of 60.5, 90.5 and 29.5 mm.
  expect(score).toBeCloseTo(2 * 60.5 + 2 * 90.5 + 4 * 29.5, 1);
  const { minX, minY, maxX, maxY } = boundsOf(await partNamed(page, 'Box'));
  expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(152, 6), expect.closeTo(121, 6)]);
  // Round its bounds, and at each corner out to a tab and back, and into the corner beside it.
  expect(cut / (2 * (152 + 121) + 4 * (2 * 12.25 + 2 * 0.5))).toBeCloseTo(1, 1);
  await expect(page.getByTestId('step-score-all')).toBeVisible();
});

test('a layered base from numbers to its plan: the channel is one line with its pocket', async ({ page }) => {
  await building(page, 'Base');
  await builder(page, 'Layered base');
  await typeInto(page, 'Corner radius', '0');
  await choose(page, /^Pin holes: /, 'None');
  await choose(page, /^Fit of what goes in: /, 'Typed');
  await typeInto(page, 'Play', '0');
  await choose(page, /^Channel: /, 'To the left');
  await expect(figures(page)).toContainText('120 × 80 × 9');
  await page.getByRole('button', { name: 'Put 3 parts down' }).click();
  await saved(page);
  // Three outlines and two pockets of 60 × 40; the channel adds its two sides of 30, and takes its mouths of 8.
  const drawn = 3 * 400 + 2 * 200 + 2 * 30 - 2 * 8;
  expect((await burnt(page)).cut / drawn).toBeCloseTo(1, 2);
});

test('a bending panel from numbers to its plan: its smallest radius is said, and its slits are burnt', async ({
  page,
}) => {
  await building(page, 'Bend');
  await builder(page, 'Bending panel');
  await typeInto(page, 'Radius', '4');
  await expect(page.getByRole('alert')).toContainText('A radius of 4 mm breaks the stock');
  await typeInto(page, 'Radius', '25');
  await expect(page.getByRole('alert')).toBeHidden();
  await expect(figures(page)).toContainText('Length when flat121.63 mm');
  await expect(figures(page)).toContainText('Slits35');
  await page.getByRole('button', { name: 'Put 1 part down' }).click();
  await saved(page);
  // Fourteen rows: seven of two slits, seven of three; each row is all but two bridges of 3 mm.
  const drawn = 2 * (121.63 + 80) + 14 * (80 - 2 * 3);
  expect((await burnt(page)).cut / drawn).toBeCloseTo(1, 2);
});

test('what was typed for one builder is there again after a look at another', async ({ page }) => {
  await building(page, 'Looking');
  await typeInto(page, 'Width', '77');
  await builder(page, 'Slotted grid');
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('280.00');
  await builder(page, 'Joined box');
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('77.00');
  await expect(figures(page)).toContainText('77 × 104 × 64');
});

test('numbers are kept under a name, taken again, and go out and in as a file', async ({ page }) => {
  await building(page, 'Keeping');
  await typeInto(page, 'Width', '66');
  await choose(page, 'Lid: None', 'Slides in');
  await expect(figures(page)).toContainText('66 × 104 × 64');
  await page.getByText('Kept numbers').click();
  await page.getByLabel('Keep these numbers as').fill('Seed drawer, small');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const kept = page.getByRole('button', { name: 'Seed drawer, small', exact: true });
  await expect(kept).toBeVisible();
  await typeInto(page, 'Width', '99');
  await kept.click();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('66.00');
  await expect(page.getByRole('button', { name: 'Lid: Slides in' })).toBeVisible();

  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take Seed drawer, small out as a file' }).click(),
  ]);
  const file = JSON.parse(readFileSync(await saved.path(), 'utf8'));
  expect(file).toMatchObject({
    name: 'Seed drawer, small',
    builder: 'joined-box',
    numbers: { width: 66, lid: 'slides' },
  });
  const offer = (content: object) =>
    page.getByTestId('numbers-file').setInputFiles({
      name: 'numbers.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(content)),
    });
  // The same name again is refused; under another it comes in; what cannot be built is told.
  await offer(file);
  await expect(page.getByText('“Seed drawer, small” already')).toBeVisible();
  await offer({ ...file, name: 'Seed drawer, large', numbers: { width: 240 } });
  await page.getByRole('button', { name: 'Seed drawer, large', exact: true }).click();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('240.00');
  await offer({ ...file, numbers: { width: -2 } });
  await expect(page.getByText('Joined box: Width is -2 mm')).toBeVisible();
  await page.getByRole('button', { name: 'Delete Seed drawer, large' }).click();
  await expect(page.getByRole('button', { name: 'Seed drawer, large', exact: true })).toBeHidden();
});

test('put together: turned by keys, taken apart, a part lit in both pictures, and all of it in words', async ({
  page,
}) => {
  await building(page, 'Together');
  const card = page.getByRole('complementary', { name: 'Put together' });
  const picture = card.getByRole('img', { name: /^Put together: 5 parts/ });
  await expect(picture).toBeVisible();
  const lit = card.getByTestId('lit-part');
  const canvas = (await picture.boundingBox()) as { x: number; y: number; width: number; height: number };
  const over = (x: number, y: number) => page.mouse.move(canvas.x + canvas.width * x, canvas.y + canvas.height * y);
  // From above and to the left of its front: the front is below the middle, to the right.
  await expect(async () => {
    await over(0.5, 0.5);
    await over(0.62, 0.68);
    await expect(lit).toHaveText('Front', { timeout: 1000 });
  }).toPass();
  await expect(page.getByTestId('bed')).toBeVisible();
  const closed = await picture.screenshot();
  await picture.focus();
  for (let i = 0; i < 18; i++) await page.keyboard.press('ArrowRight');
  await expect(async () => {
    await over(0.5, 0.5);
    await over(0.38, 0.68);
    await expect(lit).toHaveText('Back', { timeout: 1000 });
  }).toPass();
  await card.getByRole('slider', { name: 'From closed to apart' }).fill('1');
  await expect(async () => expect((await picture.screenshot()).equals(closed)).toBe(false)).toPass();
  // The bed lights it as well: the bottom is the highest part, and so the first.
  const { x, y } = await bedPoint(page, 60, 60);
  await page.mouse.move(x, y);
  await expect(lit).toHaveText('Bottom');
  await card.getByText('Parts in words').click();
  await expect(card.getByRole('listitem').filter({ hasText: /^Front,/ })).toContainText('meets Bottom, Left, Right');
});

test('what was engraved on a face stays on it when its box gets other numbers', async ({ page }) => {
  await building(page, 'Engraved box');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const middleOf = (item: Item) => {
    const { minX, minY, maxX, maxY } = boundsOf(item);
    return [(minX + maxX) / 2, (minY + maxY) / 2];
  };
  const [x, y] = middleOf(await partNamed(page, 'Right'));
  await page.getByRole('button', { name: /^Show the whole bed/ }).click();
  await tool(page, 'Rectangle');
  await drawTyped(page, x - 10, y - 5, '20', '10');
  await saved(page);
  const mark = (await items(page)).at(-1) as Item;
  expect(middleOf(mark)).toEqual([expect.closeTo(x, 1), expect.closeTo(y, 1)]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Joined box/ }).click();
  await page.getByRole('button', { name: 'Change numbers' }).click();
  await typeInto(page, 'Width', '120');
  await typeInto(page, 'Depth', '90');
  await page.getByRole('button', { name: 'Change it' }).click();
  await saved(page);
  const now = await items(page);
  const right = now.find(({ name }) => name === 'Right') as Item;
  expect(sizeOf(right)[0]).toBeCloseTo(96, 6);
  const moved = now.find(({ id }) => id === mark.id) as Item;
  expect(middleOf(moved)).toEqual(middleOf(right).map((mm) => expect.closeTo(mm, 1)));
});

/** How many pixels of the picture of parts that are put together are darker than any stock or line there is without a picture. */
async function darkPixels(page: Page): Promise<number> {
  const shot = await page.getByRole('img', { name: /^Put together/ }).screenshot();
  return page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
    const bitmap = await createImageBitmap(new Blob([bytes]));
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext(
      '2d',
    ) as OffscreenCanvasRenderingContext2D;
    context.drawImage(bitmap, 0, 0);
    const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
    let dark = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i] + data[i + 1] + data[i + 2] < 300) dark++;
    return dark;
  }, shot.toString('base64'));
}

test('a picture that lies on a face is shown there, put together', async ({ page }) => {
  await building(page, 'Box with a heron');
  await page.getByRole('button', { name: 'Put 5 parts down' }).click();
  await saved(page);
  const change = async () => {
    await page.getByRole('button', { name: /^Joined box/ }).click();
    await page.getByRole('button', { name: 'Change numbers' }).click();
    await expect(figures(page)).toContainText('Goes together');
  };
  await change();
  await expect(page.getByRole('img', { name: /^Put together/ })).toBeVisible();
  const before = await darkPixels(page);
  await page.getByRole('button', { name: 'Leave it' }).click();
  const { minX, minY } = boundsOf(await partNamed(page, 'Front'));
  await bringIn(page, 'heron.png', await greyPng(heronAtDusk(300, 200)));
  await typeInto(page, 'W', '50');
  await typeInto(page, 'X', String(minX + 20));
  await typeInto(page, 'Y', String(minY + 15));
  await saved(page);
  await page
    .getByRole('region', { name: /^Picture / })
    .getByRole('button', { name: 'Art', exact: true })
    .click();
  await change();
  await expect.poll(() => darkPixels(page)).toBeGreaterThan(before + 200);
});
