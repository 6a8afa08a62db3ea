import { deriveMeaning } from '@lambent/core/colours';
import { expect, type Page, test } from '@playwright/test';
import {
  bedPoint,
  choose,
  items,
  newJob,
  newJobOnPlywood,
  openStage,
  placeOf,
  rectangle,
  rows,
  shopOf,
  storedJob,
  svg,
} from './bench.ts';

test.use({ permissions: ['clipboard-read', 'clipboard-write'] });

const menu = (page: Page) => page.getByTestId('context-menu');
const selectAll = (page: Page) => page.keyboard.press('Control+a');

test('what is copied is pasted beside itself, in place, at the pointer, and in another window’s job', async ({
  page,
  context,
}) => {
  await newJob(page, 'Source', svg(rectangle(100, 100, 40, 30)));
  const [source] = await items(page);
  const [x, y] = placeOf(source);
  await selectAll(page);
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await expect.poll(async () => (await items(page)).length).toBe(2);
  expect(placeOf((await items(page))[1])).toEqual([x + 10, y + 10, 40, 30]);
  // Once more, and it lies beside the second as well.
  await page.keyboard.press('Control+v');
  await expect.poll(async () => (await items(page)).length).toBe(3);
  expect(placeOf((await items(page))[2])).toEqual([x + 20, y + 20, 40, 30]);
  await page.keyboard.press('Control+Shift+v');
  await expect.poll(async () => (await items(page)).length).toBe(4);
  expect(placeOf((await items(page))[3])).toEqual([x, y, 40, 30]);
  const spot = await bedPoint(page, 400, 300);
  await page.mouse.move(spot.x, spot.y);
  await page.keyboard.press('Control+Alt+v');
  await expect.poll(async () => (await items(page)).length).toBe(5);
  expect(placeOf((await items(page))[4])).toEqual([expect.closeTo(380, 0), expect.closeTo(285, 0), 40, 30]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await items(page)).length).toBe(4);

  // Cut out here, pasted there: in a window of its own.
  await selectAll(page);
  await page.keyboard.press('Control+x');
  await expect.poll(async () => (await items(page)).length).toBe(0);
  const other = await context.newPage();
  await newJob(other, 'Target');
  await other.keyboard.press('Control+v');
  await expect.poll(async () => (await items(other)).length).toBe(4);
  expect(placeOf((await items(other))[0])).toEqual([x, y, 40, 30]);
  // Other programs get it as SVG.
  expect(await other.evaluate(() => navigator.clipboard.readText())).toMatch(/^<svg /);
});

test('what is pasted means what it meant, under a key that makes something else of its colour', async ({ page }) => {
  await newJob(page, 'By operation', svg(rectangle(100, 100, 40, 30)));
  await selectAll(page);
  await page.keyboard.press('Control+c');
  await newJob(page, 'By another key');
  await openStage(page, 'Colours');
  await choose(page, /^Colour key/, 'Evening class key');
  const { document } = await storedJob(page);
  await page.keyboard.press('Control+v');
  await expect.poll(async () => (await items(page)).length).toBe(1);
  const [pasted] = await items(page);
  const { keys } = await shopOf(page);
  const key = keys.find(({ id }: { id: string }) => id === document.keyId);
  const meaning = deriveMeaning((await storedJob(page)).document, key);
  const on = meaning.layers.filter(({ id }) => meaning.placed.get(id)?.some(({ item }) => item.id === pasted.id));
  expect(on.map(({ operation }) => operation)).toEqual(['cut']);
  expect(document.keyId).not.toBe('house');
});

test('menus: of the selection, of the bed, of a row and of a block of the strip; by key as well', async ({ page }) => {
  await newJobOnPlywood(page, 'Menus', rectangle(100, 100, 40, 30) + rectangle(200, 100, 40, 30, '#00806A'));
  const [first] = await items(page);
  const [x, y] = placeOf(first);
  await page.keyboard.press('Escape');
  const edge = await bedPoint(page, x, y + 15);
  await page.mouse.click(edge.x, edge.y, { button: 'right' });
  await expect(page.getByLabel('Size and place')).toBeVisible();
  await menu(page).getByRole('menuitem', { name: /^Copy/ }).click();
  await expect(menu(page)).toBeHidden();
  const spot = await bedPoint(page, 400, 300);
  await page.mouse.click(spot.x, spot.y, { button: 'right' });
  await menu(page)
    .getByRole('menuitem', { name: /^Paste here/ })
    .click();
  await expect.poll(async () => (await items(page)).length).toBe(3);
  expect(placeOf((await items(page))[2])).toEqual([expect.closeTo(380, 0), expect.closeTo(285, 0), 40, 30]);

  // By the keys alone: the menu of the selection, its lines by arrows, Enter.
  await page.keyboard.press('Shift+F10');
  await expect(menu(page)).toBeVisible();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await items(page)).length).toBe(2);

  const row = rows(page, 'Rectangle').first();
  await row.click({ button: 'right' });
  await menu(page).getByRole('menuitem', { name: 'Lock', exact: true }).click();
  await expect.poll(async () => (await items(page)).filter(({ locked }) => locked).length).toBe(1);

  const block = page.getByTestId(/^step-/).first();
  await block.getByRole('button').first().click({ button: 'right' });
  await expect(menu(page)).toHaveAccessibleName(/^(Cut|Score)/);
  await menu(page).getByRole('menuitem', { name: 'Select what it burns' }).click();
  await expect(page.getByLabel('Size and place')).toBeVisible();
});

test('what is locked stands against keys, typed places, delete, select all and a drag', async ({ page }) => {
  await newJob(page, 'Locked', svg(rectangle(100, 100, 40, 30) + rectangle(200, 100, 40, 30)));
  const row = rows(page, 'Rectangle').first();
  await row.hover();
  await page.getByRole('button', { name: 'Lock Rectangle' }).first().click();
  const before = (await items(page)).map((item) => placeOf(item));
  const lockedAt = (await items(page)).findIndex(({ locked }) => locked);
  const told = page.getByText('Rectangle is locked, so nothing was changed.');
  const stands = async (what: string) => {
    await expect(told, what).toBeVisible();
    expect(
      (await items(page)).map((item) => placeOf(item)),
      what,
    ).toEqual(before);
    await page.getByRole('button', { name: 'Close toast' }).or(told).first().waitFor();
  };
  await row.click();
  await page.keyboard.press('ArrowRight');
  await stands('an arrow key');
  await page.keyboard.press('Delete');
  await stands('Delete');
  const field = page.getByLabel('Size and place').getByLabel('X', { exact: true });
  await field.fill('10');
  await field.press('Enter');
  await stands('a typed place');
  // A drag begins on what is not locked, and a frame or the key for all leaves it out.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('ArrowDown');
  await expect.poll(async () => placeOf((await items(page))[1 - lockedAt])[1]).toBe(before[1 - lockedAt][1] + 1);
  expect(placeOf((await items(page))[lockedAt])).toEqual(before[lockedAt]);
  await row.click();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Unlock it' }).click();
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await items(page)).length).toBe(1);
});
