import { boundsOf } from '@lambent/core/document';
import type { Box } from '@lambent/core/geometry';
import { expect, test } from '@playwright/test';
import { items, newJobOnPlywood, openStage, rectangle, storedJob, typeInto } from './bench.ts';

/** A tag that is cut out, with a line that is scored on it. */
const tag = (x: number, y: number) =>
  `${rectangle(x, y, 60, 40)}<path d="M${x + 10} ${y + 20}h40" fill="none" stroke="#00806A" stroke-width="0.1"/>`;

/** How far two boxes are apart along the axis where they are further apart; below 0 where they meet. */
const gapBetween = (a: Box, b: Box) => Math.max(a.minX - b.maxX, b.minX - a.maxX, a.minY - b.maxY, b.minY - a.maxY);

test('tags are packed with what is scored on them, as many as fit; it is one step, and left it changes nothing', async ({
  page,
}) => {
  await newJobOnPlywood(page, 'Tags', tag(20, 20) + rectangle(100, 5, 90, 90));
  await page.keyboard.press('Escape');
  await openStage(page, 'Fit');
  await page.getByRole('button', { name: /^Pack/ }).click();
  const drawer = page.getByRole('region', { name: 'Fit' });
  await expect(drawer.getByText('All that is cut is packed: 2 pieces.')).toBeVisible();
  await drawer.getByRole('checkbox', { name: 'as many as fit' }).check();
  await typeInto(page, 'Between pieces', '7');
  await typeInto(page, 'To the edge', '11');
  await expect(page.getByLabel('Between pieces')).toHaveValue('7.00');
  await drawer.getByRole('button', { name: 'Look for a packing' }).click();
  const found = page.getByTestId('packing');
  await expect(found).toContainText(/\d+ pieces on 1 sheet, \d+\.\d % of it used/);
  await drawer.getByRole('button', { name: 'Stop looking' }).click();
  await expect(drawer.getByRole('button', { name: 'Look again' })).toBeVisible();
  // Left, it is as it was.
  await drawer.getByRole('button', { name: 'Leave it' }).click();
  await expect(found).toBeHidden();
  expect(await items(page)).toHaveLength(3);

  await drawer.getByRole('button', { name: 'Look for a packing' }).click();
  await expect(found).toContainText(/pieces on 1 sheet/);
  await drawer.getByRole('button', { name: 'Stop looking' }).click();
  const pieces = Number(/(\d+) pieces/.exec((await found.textContent()) ?? '')?.[1]);
  await drawer.getByRole('button', { name: 'Lay them like this' }).click();
  await expect(page.getByRole('button', { name: /^Undo: pack/ })).toBeVisible();
  const { document } = await storedJob(page);
  const [sheet] = document.sheets;
  const outlines = document.drawing.items.filter(({ paint }) => paint.stroke === '#D0481E').map(boundsOf);
  const scored = document.drawing.items.filter(({ paint }) => paint.stroke === '#00806A').map(boundsOf);
  expect(outlines).toHaveLength(pieces);
  expect(pieces).toBeGreaterThan(20);
  for (const { minX, minY, maxX, maxY } of outlines) {
    const { x, y, width, height } = sheet;
    expect(Math.min(minX - x, minY - y, x + width - maxX, y + height - maxY)).toBeGreaterThan(10.999);
  }
  const gaps = outlines.flatMap((a, i) => outlines.slice(i + 1).map((b) => gapBetween(a, b)));
  expect(Math.min(...gaps)).toBeGreaterThan(6.999);
  // Each tag has its own line on it.
  const tags = outlines.filter(({ minX, minY, maxX, maxY }) => Math.round((maxX - minX) * (maxY - minY)) === 2400);
  for (const { minX, minY, maxX, maxY } of tags) {
    const on = scored.filter((line) => line.minX > minX && line.maxX < maxX && line.minY > minY && line.maxY < maxY);
    expect(on).toHaveLength(1);
  }
  expect(scored).toHaveLength(tags.length);
  await page.getByRole('button', { name: /^Undo: pack/ }).click();
  await expect.poll(async () => (await items(page)).length).toBe(3);
});
