import type { JobCard } from '@lambent/contracts';
import { expect, test } from '@playwright/test';
import { rectangle, svg } from './bench.ts';

/** A plate in the key's red, with a mark in a blue that it does not know. */
const plate = svg(
  `${rectangle(20, 20, 80, 40)}<circle cx="60" cy="40" r="6" fill="none" stroke="#1C7ED6" stroke-width="0.2"/>`,
);

test('a drawing is left, answered for, sent in and followed; the Desk has it as it was asked for', async ({ page }) => {
  await page.goto('/drop-off');
  await expect(page.getByRole('heading', { name: 'Leave a drawing to be cut or engraved' })).toBeVisible();
  await page.getByTestId('sending-file').setInputFiles({
    name: 'broken.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('no drawing at all'),
  });
  await expect(page.getByRole('alert')).toContainText('broken.svg');
  await page.getByTestId('sending-file').setInputFiles({
    name: 'mooring plate.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(plate),
  });

  const seen = page.getByRole('region', { name: 'What you sent' });
  await expect(seen.getByRole('img')).toBeVisible();
  await expect(seen).toContainText('80 mm wide, 40 mm high');
  const open = seen.getByRole('group', { name: 'What are lines of this colour to be?' });
  await expect(open.getByRole('button', { name: 'Let the workshop decide' })).toHaveAttribute('aria-pressed', 'true');
  const cost = page.getByRole('region', { name: 'Time and price' });
  await expect(cost).toContainText('Without what has no meaning yet.');
  await open.getByRole('button', { name: 'Score it' }).click();
  await expect(seen.getByRole('list', { name: 'What the colours mean' })).toContainText('scored');
  await expect(cost).not.toContainText('Without what has no meaning yet.');

  const wishes = page.getByRole('region', { name: 'What it is to be' });
  await wishes.getByText('Cast acrylic, clear').click();
  await expect(wishes.getByRole('radio', { name: /Cast acrylic, clear/ })).toBeChecked();
  await wishes.getByLabel('How many').fill('none');
  await page.keyboard.press('Enter');
  await expect(wishes.getByRole('alert')).toHaveText('How many is 1 or more.');
  await wishes.getByLabel('How many').fill('3');
  await page.keyboard.press('Enter');
  await wishes.getByLabel('Width in mm').fill('120');
  await page.keyboard.press('Enter');
  await expect(seen).toContainText('120 mm wide, 60 mm high');

  const form = page.getByRole('form', { name: 'Send it in' });
  await form.getByLabel('Your name').fill('');
  await form.getByRole('button', { name: 'Send it in' }).click();
  await expect(form.getByRole('alert')).toHaveText('Say your name, in 1 to 120 characters.');
  await form.getByLabel('Your name').fill('Wilhelmina Strand');
  await expect(form.getByLabel('What to call it')).toHaveValue('mooring plate');
  await form.getByLabel('Anything we should know').fill('Keep the film on.');
  // A reload loses nothing of how it is to be made.
  await form.getByRole('button', { name: 'Send it in' }).click();
  await expect(page.getByRole('heading', { name: 'mooring plate' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'Came in' })).toBeVisible();
  const link = await page.getByLabel(/^Keep this link/).inputValue();

  await page.goto('/?show=came%20in&seek=mooring');
  await expect(page.getByRole('button', { name: 'mooring plate: Came in' })).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: 'mooring plate' })).toContainText('Wilhelmina Strand');
  await page.getByRole('button', { name: 'More of mooring plate' }).click();
  const asked = page.getByRole('region', { name: 'What its sender asked for' });
  await expect(asked).toContainText('3 pieces');
  await expect(asked).toContainText('Keep the film on.');
  const cards = (await (await page.request.get('/api/jobs')).json()) as JobCard[];
  const card = cards.find(({ title }) => title === 'mooring plate');
  expect(card).toMatchObject({ materialId: 'acrylic-clear-3', itemCount: 2 });

  // Who has the link sees how it goes on, and may withdraw it.
  await page.request.put(`/api/jobs/${card?.id}/state`, { data: { state: 'ready' } });
  await page.goto(link);
  await expect(page.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();
  await page.getByRole('button', { name: 'Withdraw it…' }).click();
  await page.getByRole('button', { name: 'Withdraw it: this link ends' }).click();
  await expect(page.getByRole('button', { name: 'Choose a file' })).toBeVisible();
  await page.goto(link);
  await expect(page.getByText(/There is no such sending/)).toBeVisible();
});

test('a draft is there again after a reload; on a phone nothing is wider than the screen', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto('/drop-off');
  const file = { name: 'plate.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(plate) };
  await page.getByTestId('sending-file').setInputFiles(file);
  const open = page.getByRole('group', { name: 'What are lines of this colour to be?' });
  await open.getByRole('button', { name: 'Cut it' }).click();
  await expect(page.getByRole('region', { name: 'Time and price' })).not.toContainText('Without what has no meaning');
  await page.reload();
  await expect(open.getByRole('button', { name: 'Cut it' })).toHaveAttribute('aria-pressed', 'true');
  const isWider = await page.evaluate(() => (document.querySelector('main')?.scrollWidth ?? 0) > window.innerWidth);
  expect(isWider).toBe(false);
});

test('how to draw for the shop is said by its key and its book, with a page to draw on', async ({ page }) => {
  await page.goto('/drop-off');
  await page.getByRole('link', { name: 'How to draw for us' }).click();
  await expect(page.getByRole('heading', { name: 'How to draw for us' })).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: '#D0481E' }).first()).toContainText('cut through');
  await expect(page.getByRole('row').filter({ hasText: 'Cast acrylic, clear' })).toContainText('1.2 mm');
  await expect(page.getByText('Keep 3 mm from the edge of the sheet free.')).toBeVisible();
  for (const format of ['SVG', 'PDF']) {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: `Template as ${format}` }).click();
    expect((await download).suggestedFilename()).toBe(`template.${format.toLowerCase()}`);
  }
  await page.getByRole('link', { name: 'Leave a drawing' }).click();
  await expect(page.getByRole('heading', { name: 'Leave a drawing to be cut or engraved' })).toBeVisible();
});
