import { expect, test } from '@playwright/test';
import { newJob, openStage, rectangle, saved, storedJob, svg } from './bench.ts';

test('findings are mended by a press: seen before, one or all, and undone', async ({ page }) => {
  const open = '<path d="M100 60 H130 V80 H100 V60.2" fill="none" stroke="#D0481E" stroke-width="0.1"/>';
  const drawing = [rectangle(1, 20, 30, 30), rectangle(50, 20, 30, 30), rectangle(50, 20, 30, 30), open].join('');
  await newJob(page, 'To be mended', svg(drawing));
  await openStage(page, 'Check');
  const margin = page.getByTestId('finding-into-margin');
  const doubled = page.getByTestId('finding-line-drawn-twice');
  const gap = page.getByTestId('finding-open-cut');
  await expect(margin).toContainText('1 item comes within');

  // What would change is seen on the bed while the pointer is on the button.
  const bed = page.getByTestId('bed');
  const move = margin.getByRole('button', { name: 'Move out of the margin' });
  await expect(move).toBeEnabled();
  const plain = await bed.screenshot();
  await move.hover();
  await expect.poll(async () => (await bed.screenshot()).equals(plain)).toBe(false);

  await move.click();
  await expect(margin).toBeHidden();
  await saved(page);
  const left = async () => (await storedJob(page)).document.drawing.items[0].matrix[4];
  const moved = await left();
  expect(moved).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Undo: move out of the margin' }).click();
  await expect(margin).toBeVisible();

  await page.getByRole('button', { name: 'Mend all 3 that are safe' }).click();
  for (const card of [margin, doubled, gap]) await expect(card).toBeHidden();
  await saved(page);
  expect((await storedJob(page)).document.drawing.items).toHaveLength(3);
  expect(await left()).toBe(moved);
  await page.getByRole('button', { name: 'Undo: mend 3 findings' }).click();
  for (const card of [margin, doubled, gap]) await expect(card).toBeVisible();

  // What changes the meaning is offered, and done only by its own button.
  await gap.getByRole('button', { name: 'Score it' }).click();
  await expect(gap).toBeHidden();
});
