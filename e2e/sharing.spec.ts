import { expect, type Page, test } from '@playwright/test';
import { askOwn, type OwnServer, startOwnServer } from './own-server.ts';

/*
 * Jobs that are burnt together, in a demo of a test's own: what is ready there is ready for no other test.
 */

let own: OwnServer;
test.beforeEach(async ({ page }) => {
  own = await startOwnServer();
  expect((await page.request.post(`${own.address}/api/demo`)).ok()).toBe(true);
  const open = { opensAt: '00:00', closesAt: '00:00' };
  expect((await page.request.put(`${own.address}/api/settings`, { data: open })).ok()).toBe(true);
});
test.afterEach(() => own.close());

/** A job of one cut rectangle that is ready to be burnt. */
async function ready(page: Page, title: string, width: number, height: number): Promise<void> {
  const job = { title, machineId: 'wren', materialId: 'birch-ply-3' };
  const made = await page.request.post(`${own.address}/api/jobs`, { data: job });
  const { id } = (await made.json()) as { id: string };
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}"><path d="M0 0h${width}v${height}h-${width}z" fill="none" stroke="#D0481E"/></svg>`;
  const read = await page.request.post(`${own.address}/api/jobs/${id}/drawings?name=piece.svg`, {
    data: Buffer.from(svg),
    headers: { 'Content-Type': 'application/octet-stream' },
  });
  expect(read.ok()).toBe(true);
  await page.request.put(`${own.address}/api/jobs/${id}/state`, { data: { state: 'ready' } });
}

const row = (page: Page, title: string) =>
  page.getByRole('row').filter({ has: page.getByRole('link', { name: title, exact: true }) });
const together = (page: Page) => page.getByRole('region', { name: 'Burn together' });
const shared = '2 jobs, Birch plywood 3 mm';

/** Says where a job stands, by the button of its row. */
async function move(page: Page, title: string, from: string, to: string): Promise<void> {
  await page.getByRole('button', { name: `${title}: ${from}` }).click();
  await page.getByRole('menuitem', { name: to, exact: true }).click();
  await expect(page.getByRole('button', { name: `${title}: ${to}` })).toBeVisible();
}

test('jobs that are ready are laid onto a sheet together, given to a machine, burnt, and one of them burnt again', async ({
  page,
}) => {
  await page.goto(`${own.address}/?show=all`);
  await expect(row(page, 'Drawer for packets')).toBeVisible();
  await expect(together(page)).toHaveCount(0);
  await ready(page, 'Kite winder', 80, 60);
  await expect(row(page, 'Kite winder')).toBeVisible();
  await expect(together(page)).toHaveCount(0);
  await ready(page, 'Shelf edge labels', 120, 30);

  // It comes by itself, and says what it would take.
  const card = together(page).getByRole('listitem').filter({ hasText: 'Birch plywood 3 mm' });
  await expect(card).toContainText('Wren · 2 jobs on 1 sheet, 6 % used');
  await card.getByRole('button', { name: 'Look closer' }).click();
  await expect(page.getByText('Sheet 1: 420 mm × 360 mm, 6 % used')).toBeVisible();
  await expect(page.locator('figure path')).toHaveCount(3);
  await page.keyboard.press('Escape');

  // Laid out, and taken apart again.
  await card.getByRole('button', { name: 'Lay them out' }).click();
  await expect(row(page, shared)).toContainText('Sheets that jobs share: 2');
  await expect(row(page, 'Kite winder')).toContainText(`With others: ${shared}`);
  await expect(together(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(row(page, shared)).toHaveCount(0);
  await expect(row(page, 'Kite winder')).not.toContainText('With others');

  // Given to the machine at once.
  await card.getByRole('button', { name: `Give to Wren: ${shared}` }).click();
  const day = page.getByRole('region', { name: 'The day' });
  await expect(day.getByRole('button', { name: new RegExp(`^${shared}`) })).toBeVisible();
  await page.getByRole('button', { name: `More of ${shared}` }).click();
  const parts = page.getByRole('region', { name: 'Whose pieces lie on it' }).getByRole('listitem');
  await expect(parts).toHaveText([/^Kite winder€ \d\.\d\dReady$/, /^Shelf edge labels€ \d\.\d\dReady$/]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More of Kite winder' }).click();
  await expect(page.getByText('Burns together with others:')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Give to Curlew', exact: true })).toHaveCount(0);
  await page.keyboard.press('Escape');

  // Burnt together; the one that is spoilt goes back alone.
  await move(page, shared, 'Ready', 'Burnt');
  await expect(page.getByRole('button', { name: 'Shelf edge labels: Burnt' })).toBeVisible();
  await move(page, 'Kite winder', 'Burnt', 'Ready');
  await page.getByRole('button', { name: `More of ${shared}` }).click();
  await expect(parts.first()).toContainText('Spoilt: it is burnt again alone.');
  await expect(parts.last()).toContainText('Burnt');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More of Kite winder' }).click();
  await expect(page.getByRole('list', { name: 'Steps so far' })).toContainText(`with “${shared}”`);
  await page.keyboard.press('Escape');
  await move(page, 'Shelf edge labels', 'Burnt', 'Handed over');
  await expect(row(page, shared)).toHaveCount(0);
});

test('the shared job opens on the Bench as it was shown, each job in a group of its own', async ({ page }) => {
  await page.goto(`${own.address}/?show=all`);
  await ready(page, 'Kite winder', 80, 60);
  await ready(page, 'Shelf edge labels', 120, 30);
  await together(page).getByRole('button', { name: 'Lay them out' }).click();
  await page.getByRole('link', { name: shared }).click();
  await expect(page.getByRole('button', { name: 'Send to Wren' })).toBeEnabled();
  const { jobs } = await askOwn<{ jobs: { id: string }[] }>(own, page, `desk?seek=${encodeURIComponent(shared)}`);
  const { document } = await askOwn<{ document: { drawing: { groups: { name: string }[] }; sheets: unknown[] } }>(
    own,
    page,
    `jobs/${jobs[0].id}`,
  );
  expect(document.drawing.groups.map(({ name }) => name)).toEqual(['Kite winder', 'Shelf edge labels']);
  expect(document.sheets).toHaveLength(1);
});
