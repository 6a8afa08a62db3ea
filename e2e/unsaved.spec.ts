import { expect, test } from '@playwright/test';
import {
  bringIn,
  cards,
  choose,
  holdAnswers,
  newJob,
  offer,
  openStage,
  placeOf,
  rectangle,
  saved,
  storedJob,
  svg,
  takeIt,
} from './bench.ts';

/*
 * What is drawn is never lost: while the server is away, when a tab is closed, when another window was faster.
 */

const noServer = 'not saved, trying again';

/** Draws on while no save gets through: one step to the right. */
async function moveUnsaved(page: import('@playwright/test').Page): Promise<void> {
  await page.route('**/api/jobs/**', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.keyboard.press('Control+a');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('save-state')).toHaveText(noServer);
}

test('what is drawn while the server is away is still there after a walk to the Desk, and is saved', async ({
  page,
}) => {
  await newJob(page, 'Away to the Desk', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  await moveUnsaved(page);
  await page.getByRole('link', { name: 'To the Desk' }).click();
  await expect(page.getByRole('alert', { name: 'Work that is not saved' })).toContainText('Away to the Desk');
  await page.unroute('**/api/jobs/**');
  await page.getByRole('link', { name: /Away to the Desk/ }).click();
  expect(placeOf((await storedJob(page)).document.drawing.items[0])).toEqual([21, 20, 30, 30]);
  await expect(page.getByRole('alert', { name: 'Work that is not saved' })).toHaveCount(0);
});

test('a tab that is closed before it could save loses nothing: the next one saves it', async ({ page, context }) => {
  await newJob(page, 'Closed tab', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  const address = page.url();
  await moveUnsaved(page);
  await page.close({ runBeforeUnload: false });
  const next = await context.newPage();
  await next.goto(address);
  expect(placeOf((await storedJob(next)).document.drawing.items[0])).toEqual([21, 20, 30, 30]);
});

test('where another window was faster, what was kept is offered beside it, and both stay', async ({
  page,
  context,
}) => {
  await newJob(page, 'Both stay', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  const address = page.url();
  const other = await context.newPage();
  await other.goto(address);
  await saved(other);
  await moveUnsaved(page);
  await page.close({ runBeforeUnload: false });
  await openStage(other, 'Bed');
  await other.getByRole('radio', { name: 'cm' }).click();
  await saved(other);
  await other.goto('/');
  const kept = other.getByRole('alert', { name: 'Work that is not saved' });
  await expect(kept).toContainText('the job was changed elsewhere since');
  await kept.getByRole('button', { name: 'Keep both' }).click();
  await expect(other.getByLabel('Title of the job')).toHaveValue('Both stay, unsaved copy');
  expect(placeOf((await storedJob(other)).document.drawing.items[0])).toEqual([21, 20, 30, 30]);
  const titles = (await cards(other.request))
    .map(({ title }) => title)
    .filter((title) => title.startsWith('Both stay'));
  expect(titles.toSorted()).toEqual(['Both stay', 'Both stay, unsaved copy']);
});

test('what is undone back to what was saved is not saved again when the page is opened anew', async ({ page }) => {
  await newJob(page, 'Undone', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  await moveUnsaved(page);
  await page.keyboard.press('Control+z');
  await saved(page);
  await page.unroute('**/api/jobs/**');
  const { version } = await storedJob(page);
  await page.reload();
  await saved(page);
  expect((await storedJob(page)).version).toBe(version);
});

test('a file with a very long name is brought in and saved like any other', async ({ page }) => {
  await newJob(page, 'Long name');
  await bringIn(page, `${'estuary '.repeat(30)}.svg`, svg(rectangle(20, 20, 30, 30)));
  expect((await storedJob(page)).document.drawing.items).toHaveLength(1);
});

test('of two reading choices in a row both hold', async ({ page }) => {
  const drawn =
    '<clipPath id="c"><rect x="0" y="0" width="50" height="100"/></clipPath>' +
    '<path d="M10 50h80" fill="none" stroke="#D0481E" stroke-width="0.1" stroke-dasharray="6 4" clip-path="url(#c)"/>';
  await newJob(page, 'Two choices');
  await offer(page, 'two.svg', svg(drawn));
  await expect(page.getByTestId('note-dashes-as-solid')).toBeVisible();
  // Reading asks for the fonts first: until they come, nothing is read.
  const release = await holdAnswers(page, '**/api/fonts');
  await choose(page, /^Dashed lines/, 'As their dashes');
  await choose(page, /^Clips/, 'Left out, parts are whole');
  release();
  await expect(page.getByTestId('note-dashes')).toBeVisible();
  await takeIt(page);
  const [line] = (await storedJob(page)).document.drawing.items;
  expect(placeOf(line)[2]).toBeGreaterThan(70);
  expect(line.shape.kind === 'path' && line.shape.path.verbs.length).toBeGreaterThan(10);
});

test('a job is deleted on the Desk, and taken back', async ({ page }) => {
  await newJob(page, 'Not needed', svg(rectangle(20, 20, 30, 30)));
  await saved(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'More of Not needed' }).click();
  await page.getByRole('button', { name: 'Delete Not needed' }).click();
  await expect(page.getByRole('link', { name: /Not needed/ })).toHaveCount(0);
  await page.getByText(/^Deleted jobs/).click();
  const deleted = page.getByRole('group').getByRole('listitem').filter({ hasText: 'Not needed' });
  await deleted.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByRole('link', { name: /Not needed/ })).toBeVisible();
});

test('twenty tabs work: each is told what the machines do, and each is answered', async ({ context }) => {
  const pages = await Promise.all(
    Array.from({ length: 20 }, async () => {
      const page = await context.newPage();
      await page.goto('/machines');
      return page;
    }),
  );
  for (const page of pages) await expect(page.getByTestId('state-dunlin')).toHaveText('Idle');
  await pages[7].getByRole('region', { name: 'Dunlin' }).getByRole('button', { name: 'Open lid' }).click();
  for (const page of pages) {
    await expect(page.getByRole('region', { name: 'Dunlin' }).getByRole('button', { name: 'Close lid' })).toBeVisible();
  }
  await pages[3].getByRole('region', { name: 'Dunlin' }).getByRole('button', { name: 'Close lid' }).click();
  await Promise.all(pages.map((page) => page.close()));
});
