import type { DayAnswer, DeskPage } from '@lambent/contracts';
import { expect, type Page, test } from '@playwright/test';
import { askOwn, type OwnServer, startOwnServer } from './own-server.ts';

/*
 * The day of the machines, in a demo of a test's own: what waits there waits for no other test.
 */

let own: OwnServer;
test.beforeEach(async ({ page }) => {
  own = await startOwnServer();
  expect((await page.request.post(`${own.address}/api/demo`)).ok()).toBe(true);
  // Open day and night, whenever the test is run.
  const open = { opensAt: '00:00', closesAt: '00:00', setUpMinutes: 5 };
  expect((await page.request.put(`${own.address}/api/settings`, { data: open })).ok()).toBe(true);
});
test.afterEach(() => own.close());

const lane = (page: Page, name: string) => page.getByRole('region', { name: 'The day' }).getByRole('region', { name });
const blocks = (page: Page, name: string) => lane(page, name).getByRole('listitem').getByRole('button');
const block = (page: Page, title: string) =>
  page.getByRole('region', { name: 'The day' }).getByRole('button', { name: new RegExp(`^${title}`) });
const row = (page: Page, title: string) => page.getByRole('row').filter({ hasText: title });

/** Opens the Desk, and waits until all that waits has its time. */
async function openDesk(page: Page): Promise<void> {
  await page.goto(`${own.address}/?show=all`);
  await expect(blocks(page, 'Wren')).toHaveCount(3);
  await expect(page.getByText('being timed')).toHaveCount(0);
}

test('a job is dragged to a machine, moved among those that wait, given to another one, and taken off; each is undone', async ({
  page,
}) => {
  await openDesk(page);
  await expect(blocks(page, 'Wren')).toHaveText([/^Row markers/, /^Seed packet/, /^Drawer/]);
  await expect(row(page, 'Drawer for packets')).toContainText('Could be burnt as it is');

  // What is pointed at is shown where it fits, with when it is ready.
  await page.getByRole('link', { name: 'Bench plaque' }).hover();
  await expect(lane(page, 'Wren').getByTestId('would-fit')).toHaveText(/^Bench plaque\s*ready \d\d:\d\d$|ready \w+ /);
  await page.getByRole('link', { name: 'Bench plaque' }).dragTo(blocks(page, 'Wren').nth(1), {
    targetPosition: { x: 1, y: 10 },
  });
  await expect(blocks(page, 'Wren')).toHaveText([/^Row markers/, /^Bench plaque/, /^Seed packet/, /^Drawer/]);

  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(blocks(page, 'Wren')).toHaveText([/^Row markers/, /^Seed packet/, /^Drawer/]);

  // By keys: opened, it goes later, and back by undo.
  await block(page, 'Row markers').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Later' }).click();
  await expect(blocks(page, 'Wren')).toHaveText([/^Seed packet/, /^Row markers/, /^Drawer/]);
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(blocks(page, 'Wren')).toHaveText([/^Row markers/, /^Seed packet/, /^Drawer/]);

  // Given to another machine, it is a job for that one.
  await block(page, 'Drawer').click();
  await page.getByRole('button', { name: 'Give to Curlew' }).click();
  await expect(blocks(page, 'Curlew')).toHaveText([/^Estuary relief/, /^Drawer/]);
  await expect(row(page, 'Drawer for packets')).toContainText('Curlew');
  await block(page, 'Drawer').click();
  await page.getByRole('button', { name: 'Take it off the day' }).click();
  await expect(blocks(page, 'Curlew')).toHaveText([/^Estuary relief/]);

  // Dropped far behind all others, it waits until then.
  const track = await lane(page, 'Dunlin').boundingBox();
  const target = { x: (track?.width ?? 0) - 60, y: 20 };
  await page.getByRole('link', { name: 'Volunteer badges' }).dragTo(lane(page, 'Dunlin'), { targetPosition: target });
  await expect(blocks(page, 'Dunlin')).toHaveText([/^Volunteer badges/]);
  const day = await askOwn<DayAnswer>(own, page, 'day');
  const [given] = day.machines.find(({ machineId }) => machineId === 'dunlin')?.blocks ?? [];
  expect(given.notBefore).not.toBeNull();
  expect(Date.parse(given.from) - Date.parse(day.now)).toBeGreaterThan(30 * 60_000);
});

test('a job starts from its place on the day once somebody says that the right stock lies there', async ({ page }) => {
  await openDesk(page);
  await row(page, 'Seed packet')
    .getByRole('button', { name: /: Being prepared$/ })
    .click();
  await page.getByRole('menuitem', { name: 'Ready' }).click();
  await expect(row(page, 'Seed packet')).toContainText(/Wren, until \d\d:\d\d/);
  await block(page, 'Seed packet').click();
  const panel = page.getByRole('region', { name: 'Seed packet, folding' });
  await expect(panel).toContainText('Cotton card 0.5 mm');
  const start = panel.getByRole('button', { name: 'Start on Wren' });
  await expect(start).toBeDisabled();
  await panel.getByLabel('It lies on Wren').check();
  await start.click();
  await expect(panel).toBeHidden();
  await expect(lane(page, 'Wren').getByRole('link', { name: /^Seed packet, folding\s*done/ })).toBeVisible();
  await expect(row(page, 'Seed packet')).toContainText('Burnt');
  await expect(blocks(page, 'Wren')).toHaveText([/^Row markers/, /^Drawer/]);
});

test('of two who move one job at once the second is told, and sees where it is', async ({ page, context }) => {
  await openDesk(page);
  const other = await context.newPage();
  await openDesk(other);
  // The second screen does not hear of what the first one does.
  await other.route('**/api/day', (route) => route.abort());
  await block(other, 'Row markers').click();
  const later = other.getByRole('button', { name: 'Later' });
  await expect(later).toBeVisible();
  await block(page, 'Row markers').click();
  await page.getByRole('button', { name: 'Give to Curlew' }).click();
  await expect(blocks(page, 'Curlew')).toHaveCount(2);
  await later.click();
  await expect(other.getByText('“Row markers, spring batch” was moved by somebody else meanwhile.')).toBeVisible();
  await other.unroute('**/api/day');
  await other.reload();
  await expect(blocks(other, 'Curlew')).toHaveText([/^Estuary relief/, /^Row markers/]);
});

test('what will be late is said before it is, and when a drawing could be ready is told by what waits', async ({
  page,
}) => {
  await openDesk(page);
  const { today } = await askOwn<DayAnswer>(own, page, 'day');
  const { jobs } = await askOwn<DeskPage>(own, page, 'desk?seek=drawer');
  const wantedBy = new Date(Date.parse(today) - 86_400_000).toISOString().slice(0, 10);
  await page.request.patch(`${own.address}/api/jobs/${jobs[0].id}`, { data: { wantedBy } });
  await expect(block(page, 'Drawer')).toContainText('late');
  await expect(row(page, 'Drawer for packets')).toContainText('Late on Wren');

  await page.goto(`${own.address}/drop-off`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'tag.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h50v30h-50z" fill="none" stroke="#D0481E"/></svg>',
    ),
  });
  await expect(page.getByRole('region', { name: 'Time and price' })).toContainText(/Could be ready: .*\d\d:\d\d/);
});

test('the shop’s hours are settled on its page, and the day goes by them', async ({ page }) => {
  await page.goto(`${own.address}/shop`);
  const card = page.getByRole('region', { name: 'Opening hours' });
  for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']) {
    await card.getByLabel(day).click();
    await expect(card.getByLabel(day)).not.toBeChecked();
  }
  await card.getByLabel('Opens at').fill('10:00');
  await card.getByLabel('Closes at').fill('16:30');
  await card.getByLabel('Closes at').press('Enter');
  await card.getByLabel(/^Time zone/).fill('Nowhere/Land');
  await card.getByLabel(/^Time zone/).press('Enter');
  await expect(page.getByText('That is no time zone that is known here.')).toBeVisible();
  await card.getByLabel(/^Time zone/).fill('Europe/Lisbon');
  await card.getByLabel(/^Time zone/).press('Enter');
  await expect
    .poll(async () => (await askOwn<{ timeZone: string }>(own, page, 'settings')).timeZone)
    .toBe('Europe/Lisbon');
  const { openings } = await askOwn<DayAnswer>(own, page, 'day');
  const lengths = new Set(openings.map(({ from, until }) => (Date.parse(until) - Date.parse(from)) / 60_000));
  expect([...lengths]).toEqual([390]);
  expect(new Set(openings.map(({ from }) => new Date(from).getUTCDay()))).toEqual(new Set([0]));
});
