import type { DeskPage } from '@lambent/contracts';
import { expect, test } from '@playwright/test';
import { askOwn, type OwnServer, startOwnServer } from './own-server.ts';

let own: OwnServer;
test.beforeEach(async ({ page }) => {
  own = await startOwnServer();
  expect((await page.request.post(`${own.address}/api/demo`)).ok()).toBe(true);
});
test.afterEach(() => own.close());

test('a drawing is sent in, offered for a price, and its sender says yes; the price holds', async ({
  page,
  context,
}) => {
  await page.goto(`${own.address}/shop`);
  const card = page.getByRole('region', { name: 'Quotes' });
  await card.getByLabel('Terms').fill('Payable when it is fetched.');
  await card.getByLabel('Terms').press('Enter');

  const sender = await context.newPage();
  await sender.goto(`${own.address}/drop-off`);
  await sender.locator('input[type=file]').setInputFiles({
    name: 'tag.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h50v30h-50z" fill="none" stroke="#D0481E"/></svg>',
    ),
  });
  await sender.getByLabel('Your name').fill('Noor Castellan');
  await sender.getByLabel('What to call it').fill('Tag for the gate');
  await sender.getByRole('button', { name: 'Send it in' }).click();
  await expect(sender.getByRole('status').filter({ hasText: 'Came in' })).toBeVisible();

  await page.goto(`${own.address}/?show=all&seek=gate`);
  await page.getByRole('button', { name: 'More of Tag for the gate' }).click();
  const quotes = page.getByRole('region', { name: 'Quotes' });
  await quotes.getByRole('button', { name: 'Make a quote' }).click();
  const form = page.getByRole('form', { name: 'New quote' });
  await expect(form.getByLabel('Terms')).toHaveValue('Payable when it is fetched.');
  await form.getByRole('button', { name: 'Another line' }).click();
  const last = await form.getByLabel(/^What line/).count();
  await form.getByRole('button', { name: 'Offer it' }).click();
  await expect(form.getByRole('alert')).toContainText('says what it is for');
  await form.getByLabel(`What line ${last} is for`).fill('Sanding the edges');
  await form.getByLabel(`Amount of line ${last}`).fill('3.5');
  await form.getByLabel(`Amount of line ${last}`).press('Tab');
  await form.getByRole('button', { name: 'Offer it' }).click();
  await expect(quotes).toContainText('Quote 1: waits for a yes');
  await expect(quotes).toContainText('Sanding the edges');
  await expect(page.getByRole('button', { name: 'Tag for the gate: Quoted' })).toBeAttached();

  await sender.reload();
  const offered = sender.getByRole('region', { name: 'Quote 1' });
  await expect(offered).toContainText('Payable when it is fetched.');
  await expect(offered).toContainText('€ 3.50');
  const download = sender.waitForEvent('download');
  await offered.getByRole('link', { name: 'As PDF' }).click();
  expect((await download).suggestedFilename()).toBe('quote-1.pdf');
  await offered.getByRole('button', { name: 'Yes, make it for this price' }).click();
  await expect(offered).toContainText('You said yes');
  await expect(sender.getByRole('status').filter({ hasText: 'Ready' })).toBeVisible();

  await page.goto(`${own.address}/?show=ready`);
  const row = page.getByRole('row').filter({ hasText: 'Tag for the gate' });
  const total = await offered.locator('dd').last().textContent();
  await expect(row).toContainText(total ?? '?');
  const { jobs } = await askOwn<DeskPage>(own, page, 'desk?show=ready');
  expect(jobs[0].estimate?.price).toBeGreaterThan(3.5);

  // Burnt, it stands among what is to be charged.
  await page.request.put(`${own.address}/api/jobs/${jobs[0].id}/state`, { data: { state: 'burnt' } });
  await page.goto(`${own.address}/shop`);
  const invoices = page.getByRole('region', { name: 'For invoices' });
  const csv = page.waitForEvent('download');
  await invoices.getByRole('link', { name: 'Save as CSV' }).click();
  const saved = await (await csv).createReadStream();
  const text = Buffer.concat(await saved.toArray()).toString('utf8');
  expect(text).toMatch(/Tag for the gate,.*,burnt,1,Sanding the edges,3\.50,€/);
  await invoices.getByLabel('Burnt from').fill('2999-01-01');
  await expect(invoices).toContainText('Choose a first day that is not after the last.');
  await expect(invoices.getByRole('link')).toHaveCount(0);
});
