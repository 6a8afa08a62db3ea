import type { JobAnswer } from '@lambent/contracts';
import { expect, type Page, test } from '@playwright/test';

/** Makes jobs of a project of the test's own, and opens the Desk on them. */
async function openDesk(page: Page, project: string, titles: readonly string[]): Promise<string[]> {
  const ids: string[] = [];
  for (const title of titles) {
    const made = await page.request.post('/api/jobs', { data: { title, project, machineId: 'wren' } });
    ids.push(((await made.json()) as JobAnswer).id);
  }
  await page.goto(`/?show=all&seek=${encodeURIComponent(project)}`);
  await expect(page.getByRole('table', { name: 'Jobs' }).getByRole('link')).toHaveCount(titles.length);
  return ids;
}

const jobLinks = (page: Page) => page.getByRole('table', { name: 'Jobs' }).getByRole('link');
const chip = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Which jobs are shown' }).getByRole('button', { name: new RegExp(`^${name} \\d`) });

test('a job is moved on, and back again; the chips count along, and each shows its own', async ({ page }) => {
  await openDesk(page, 'Sluice gate models', ['Gate one', 'Gate two', 'Gate three']);
  await expect(chip(page, 'All')).toHaveText('All 3');
  await expect(chip(page, 'Wants you')).toHaveText('Wants you 3');
  await page.getByRole('button', { name: 'Gate two: Being prepared' }).click();
  await page.getByRole('menuitem', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Gate two: Ready' })).toBeVisible();
  await expect(chip(page, 'Wants you')).toHaveText('Wants you 2');
  await chip(page, 'Ready').click();
  await expect(jobLinks(page)).toHaveText(['Gate two']);
  await page.goBack();
  await expect(jobLinks(page)).toHaveCount(3);
  await page.getByText('“Gate two” is Ready now.').waitFor();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Gate two: Being prepared' })).toBeVisible();

  // What is put away is out of sight, and found under its own chip.
  await page.getByRole('button', { name: 'Gate three: Being prepared' }).click();
  await page.getByRole('menuitem', { name: 'Put away' }).click();
  await expect(jobLinks(page)).toHaveCount(2);
  await chip(page, 'Put away').click();
  await expect(jobLinks(page)).toHaveText(['Gate three']);
});

test('what a job is called, what it belongs to and by when it is wanted is kept; it is duplicated', async ({
  page,
}) => {
  await openDesk(page, 'Tide tables', ['Table of spring']);
  await page.getByRole('button', { name: 'More of Table of spring' }).click();
  const form = page.getByRole('form', { name: 'About Table of spring' });
  await form.getByLabel('Title').fill('');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form.getByRole('alert')).toHaveText('A title has 1 to 120 characters.');
  await form.getByLabel('Title').fill('Table of autumn');
  await form.getByLabel('Wanted by').fill('2025-10-01');
  await form.getByRole('button', { name: 'Keep it' }).click();
  const row = page.getByRole('row').filter({ hasText: 'Table of autumn' });
  await expect(row).toContainText('1 Oct');
  await expect(row).toContainText('late');

  await page.getByRole('button', { name: 'More of Table of autumn' }).click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(jobLinks(page)).toHaveText(['Table of autumn, copy', 'Table of autumn']);
  // A press on a head sorts, another one turns it round; the address keeps both.
  await page.getByRole('button', { name: 'Job', exact: true }).click();
  await expect(jobLinks(page)).toHaveText(['Table of autumn', 'Table of autumn, copy']);
  await page.getByRole('button', { name: 'Job', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: 'Job', exact: true })).toHaveAttribute('aria-sort', 'descending');
  await page.reload();
  await expect(jobLinks(page)).toHaveText(['Table of autumn, copy', 'Table of autumn']);
});

test('jobs come in pages, and one that another window moves is moved here too', async ({ page }) => {
  const titles = Array.from({ length: 53 }, (_, i) => `Mudlark ${String(i + 1).padStart(2, '0')}`);
  const ids: string[] = [];
  for (const title of titles) {
    const made = await page.request.post('/api/jobs', { data: { title, project: 'Mudlarks', machineId: 'wren' } });
    ids.push(((await made.json()) as JobAnswer).id);
  }
  await page.goto('/?show=all&seek=mudlarks&sort=title');
  await expect(jobLinks(page)).toHaveCount(50);
  const pages = page.getByRole('navigation', { name: 'Pages of jobs' });
  await expect(pages).toContainText('1 to 50 of 53');
  await pages.getByRole('button', { name: 'Later page' }).click();
  await expect(jobLinks(page)).toHaveText(titles.slice(50));
  await expect(pages.getByRole('button', { name: 'Later page' })).toBeDisabled();
  await page.request.put(`/api/jobs/${ids[52]}/state`, { data: { state: 'handed over', by: 'Tobiah Okonjo' } });
  await expect(page.getByRole('button', { name: 'Mudlark 53: Handed over' })).toBeVisible();
  await page.getByRole('button', { name: 'More of Mudlark 53' }).click();
  await expect(page.getByRole('list', { name: 'Steps so far' })).toContainText('Handed over');
  await expect(page.getByRole('list', { name: 'Steps so far' })).toContainText('Tobiah Okonjo');
  // So that the tests that follow have a Desk of a page.
  for (const id of ids) await page.request.delete(`/api/jobs/${id}`);
});
