import type { DeskPage } from '@lambent/contracts';
import { expect, test } from '@playwright/test';
import { askOwn, type OwnServer, startOwnServer } from './own-server.ts';

let own: OwnServer;
test.beforeEach(async ({ page }) => {
  own = await startOwnServer();
  expect((await page.request.post(`${own.address}/api/demo`)).ok()).toBe(true);
});
test.afterEach(() => own.close());

test('what was burnt stands in the figures, by week and by person, as bars, as a table and as CSV', async ({
  page,
}) => {
  const { jobs } = await askOwn<DeskPage>(own, page, 'desk?seek=plaque');
  const job = `${own.address}/api/jobs/${jobs[0].id}`;
  const quote = { lines: [{ what: 'Cutting', amount: 12.5 }], validUntil: '2999-12-31', terms: '' };
  const made = await page.request.post(`${job}/quotes`, { data: quote });
  const [{ number }] = (await made.json()) as { number: number }[];
  expect((await page.request.post(`${job}/quotes/accepted`, { data: { number } })).ok()).toBe(true);
  expect((await page.request.put(`${job}/state`, { data: { state: 'burnt' } })).ok()).toBe(true);

  await page.goto(`${own.address}/record`);
  await page.getByRole('link', { name: 'Figures of the shop' }).click();
  await expect(page.getByRole('heading', { name: 'Figures', exact: true })).toBeVisible();
  const money = page.getByRole('region', { name: 'Money', exact: true });
  await expect(money.getByRole('img', { name: 'Money by week' })).toBeVisible();
  await expect(money.getByRole('row').last()).toHaveText(/^In all1€ 12\.50$/);
  // Twelve weeks, a head and what they come to.
  await expect(money.getByRole('row')).toHaveCount(14);
  const hours = page.getByRole('region', { name: 'Machine hours', exact: true });
  await expect(hours).toContainText('Nothing in these days.');
  await expect(hours.getByRole('img')).toHaveCount(0);
  const sheets = page.getByRole('region', { name: 'Sheets', exact: true });
  await expect(sheets.getByRole('row').filter({ hasText: 'Birch plywood 3 mm' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'By person', exact: true })).toContainText('€ 12.50');

  const csv = page.waitForEvent('download');
  await money.getByRole('link', { name: 'Money: save as CSV' }).click();
  const saved = await (await csv).createReadStream();
  expect(Buffer.concat(await saved.toArray()).toString('utf8')).toMatch(/,12\.50,€,1\r\n|,12\.50,€,1$/);

  await page.getByLabel('First day').fill('2999-01-01');
  await expect(page.getByText('Choose a first day that is not after the last.')).toBeVisible();
  await page.getByLabel('Last day').fill('2999-01-31');
  await expect(money).toContainText('€ 0.00');
  await page.getByLabel('First day').fill('2000-01-01');
  await expect(page.getByText(/1100 days at most/)).toBeVisible();
});
