import { expect, test } from '@playwright/test';
import { bedPoint, choose, newJob, openStage, placeOf, rectangle, rows, storedJob, svg, typeInto } from './bench.ts';

const drawing = svg(
  `<g id="Pair">${rectangle(20, 20, 40, 20)}${rectangle(30, 25, 10, 10)}</g>${rectangle(100, 20, 30, 30)}`,
);
const places = async (page: Parameters<typeof storedJob>[0]) =>
  (await storedJob(page)).document.drawing.items.map((item) => placeOf(item));

test('place, size and turn are typed, and undone step by step', async ({ page }) => {
  await newJob(page, 'Typed', drawing);
  await page.getByRole('button', { name: /^Pair/ }).click();
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('20.00');
  await typeInto(page, 'X', '50 + 2*5mm');
  await typeInto(page, 'Y', '1 1/2 in');
  expect(await places(page)).toEqual([
    [60, 38.1, 40, 20],
    [70, 43.1, 10, 10],
    [100, 20, 30, 30],
  ]);
  // Proportions are kept, about the point that X and Y are of.
  await typeInto(page, 'W', '80');
  expect((await places(page)).slice(0, 2)).toEqual([
    [60, 38.1, 80, 40],
    [80, 48.1, 20, 20],
  ]);
  await page.getByRole('button', { name: 'Proportions are kept' }).click();
  await page.getByRole('button', { name: 'bottom right' }).click();
  await typeInto(page, 'H', '20');
  expect((await places(page))[0]).toEqual([60, 58.1, 80, 20]);
  await page.getByRole('button', { name: 'Turn a quarter right' }).click();
  expect((await places(page))[0]).toEqual([90, 28.1, 20, 80]);
  // Angles count against the clock, as they are drawn.
  await typeInto(page, '∠', '90');
  expect((await places(page))[0]).toEqual([60, 58.1, 80, 20]);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
  expect((await places(page))[0]).toEqual([20, 20, 40, 20]);
  await page.keyboard.press('Control+Shift+z');
  expect((await places(page))[0]).toEqual([60, 20, 40, 20]);
});

test('a bad figure says why beside the field, and changes nothing; Escape restores', async ({ page }) => {
  await newJob(page, 'Bad figures', drawing);
  await page.getByRole('button', { name: /^Pair/ }).click();
  for (const [text, why] of [
    ['12 furlongs', 'not a unit of length'],
    ['0', 'A size is more than 0.'],
    ['-5', 'A size is more than 0.'],
    ['1e9', 'not a unit'],
    ['1000000', 'larger than any bed'],
  ]) {
    await typeInto(page, 'W', text);
    await expect(page.getByRole('alert')).toContainText(why);
  }
  await page.getByLabel('W', { exact: true }).press('Escape');
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('40.00');
  expect(await places(page)).toEqual([
    [20, 20, 40, 20],
    [30, 25, 10, 10],
    [100, 20, 30, 30],
  ]);
});

test('mouse and keys: click, drag, frame, nudge, delete', async ({ page }) => {
  await newJob(page, 'By mouse', drawing);
  const at = (x: number, y: number) => bedPoint(page, x, y);
  await page.keyboard.press('Escape');
  // Beside the handles that a selection has at its corners and middles.
  const [edge, { scale }] = [await at(100, 28), await at(0, 0)];
  await page.mouse.move(edge.x, edge.y);
  await expect(rows(page, 'Rectangle')).toHaveAttribute('data-under', 'true');
  await expect(page.getByRole('button', { name: /^Pair/ })).toHaveAttribute('data-under', 'false');
  await page.mouse.click(edge.x, edge.y);
  await expect(page.getByRole('region', { name: 'Size and place' })).toContainText('1 item');
  await page.mouse.move(edge.x, edge.y);
  await page.mouse.down();
  // Alt keeps it from being caught by what is near.
  await page.keyboard.down('Alt');
  await page.mouse.move(edge.x + 40, edge.y + 25, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  const [, , moved] = await places(page);
  expect(Math.abs(moved[0] - 100 - 40 / scale)).toBeLessThan(0.02);
  expect(Math.abs(moved[1] - 20 - 25 / scale)).toBeLessThan(0.02);
  expect(moved.slice(2)).toEqual([30, 30]);
  await page.keyboard.press('Control+z');

  // Escape gives a drag up.
  await page.mouse.move(edge.x, edge.y);
  await page.mouse.down();
  await page.mouse.move(edge.x + 90, edge.y + 90, { steps: 3 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect((await places(page))[2]).toEqual([100, 20, 30, 30]);

  const [from, to] = [await at(15, 15), await at(65, 45)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Pair');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Alt+ArrowLeft');
  expect((await places(page))[0]).toEqual([20.9, 30, 40, 20]);
  await page.keyboard.press('Delete');
  expect(await places(page)).toEqual([[100, 20, 30, 30]]);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Delete (Del)' }).click();
  expect(await places(page)).toEqual([]);
  await page.getByRole('button', { name: 'Undo: delete 1 item (Ctrl Z)' }).click();
  expect(await places(page)).toHaveLength(1);
});

test('handles scale from the opposite corner', async ({ page }) => {
  await newJob(page, 'Handles', svg(rectangle(100, 100, 100, 50)));
  await rows(page, 'Rectangle').click();
  const corner = await bedPoint(page, 200, 150);
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.down();
  await page.mouse.move(corner.x + 100 * corner.scale, corner.y + 50 * corner.scale, { steps: 6 });
  await page.mouse.up();
  const [[x, y, width, height]] = await places(page);
  expect([x, y]).toEqual([100, 100]);
  expect(Math.abs(width - 200)).toBeLessThan(1);
  expect(Math.abs(width / height - 2)).toBeLessThan(0.01);
});

test('zoom keeps the point under the wheel, and comes back to the bed', async ({ page }) => {
  await newJob(page, 'Zoom', drawing);
  const corner = await bedPoint(page, 100, 20);
  await page.keyboard.press('Escape');
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.wheel(0, -900);
  await expect(page.getByText(/mm 1\d\d %/)).toBeVisible();
  await page.mouse.click(corner.x, corner.y);
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('100.00');
  await page.keyboard.press('b');
  await expect(page.getByText(/mm 3\d %/)).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByText(/mm [2-9]\d\d %/)).toBeVisible();
});

test('one card says what another machine means, and brings what lies off its bed onto it', async ({ page }) => {
  await newJob(page, 'Moved', svg(rectangle(10, 20, 180, 20)));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await rows(page, 'Rectangle').click();
  await typeInto(page, 'X', '500');
  await choose(page, 'Machine: Wren', /^Dunlin/);
  const card = page.getByRole('region', { name: 'Another machine' });
  await expect(card.getByText('The bed of Dunlin is 400 × 400 mm: 1 item lies off it.')).toBeVisible();
  await expect(card.getByTestId('moved-time')).toHaveText(/s · € \d/);
  await card.getByRole('button', { name: 'Move it on' }).click();
  expect(await places(page)).toEqual([[215, 20, 180, 20]]);
  await expect(card.getByText('The bed of Dunlin is 400 × 400 mm: all that is drawn lies on it.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await card.getByRole('button', { name: 'Turn it by 90°' }).click();
  expect(await places(page)).toEqual([[190, 110, 20, 180]]);
  await page.keyboard.press('Control+z');
  // What fits is not made smaller; what does not, is, if asked.
  await expect(card.getByRole('button', { name: 'Make it smaller' })).toHaveCount(0);
  await typeInto(page, 'W', '780');
  await expect(card.getByRole('button', { name: 'Move it on' })).toHaveCount(0);
  await card.getByRole('button', { name: 'Make it smaller' }).click();
  expect(await places(page)).toEqual([[5, 178.333, 390, 43.333]]);
  // The sheet was larger than the bed.
  await card.getByRole('button', { name: 'Fit it at the zero corner' }).click();
  const [sheet] = (await storedJob(page)).document.sheets;
  expect([sheet.x, sheet.y, sheet.width, sheet.height]).toEqual([0, 40, 400, 360]);
  await expect(card.getByText('larger than it')).toHaveCount(0);
  await card.getByRole('button', { name: 'Close' }).click();
  await expect(card).toHaveCount(0);
});

test('another machine keeps every size, has its own zero, and says what no longer fits', async ({ page }) => {
  await newJob(page, 'Machines', svg(rectangle(20, 20, 40, 20)));
  await rows(page, 'Rectangle').click();
  await typeInto(page, 'X', '500');
  await openStage(page, 'Bed');
  await choose(page, 'Machine: Wren', /^Dunlin/);
  await expect(page.getByText('Zero bottom left, Y upwards.')).toBeVisible();
  // Of the corner nearest to zero: 400 mm of bed less 40 mm to the rectangle's lower edge.
  await expect(page.getByLabel('Y', { exact: true })).toHaveValue('360.00');
  expect(await places(page)).toEqual([[500, 20, 40, 20]]);
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-off-bed')).toContainText('off the 400 × 400 mm bed of Dunlin');
  await page.getByRole('button', { name: 'Unfold this card' }).click();
  await typeInto(page, 'Y', '100');
  await typeInto(page, 'X', '50');
  expect(await places(page)).toEqual([[50, 280, 40, 20]]);
  await expect(page.getByTestId('finding-off-bed')).toHaveCount(0);
});

test('lengths in inches show and take inches, and change no geometry', async ({ page }) => {
  await newJob(page, 'Inches', svg(rectangle(25.4, 50.8, 12.7, 12.7)));
  await openStage(page, 'Bed');
  await page.getByRole('radio', { name: 'in' }).click();
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').click();
  await expect(page.getByLabel('X', { exact: true })).toHaveValue('1');
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('0.5');
  await typeInto(page, 'X', '2 3/8');
  expect(await places(page)).toEqual([[60.325, 50.8, 12.7, 12.7]]);
});
