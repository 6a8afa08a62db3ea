import { expect, test } from '@playwright/test';
import { items, storedJob } from './bench.ts';

test('the guide is searched from the keys, and its job opens at the right place', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Bed', exact: true })).toBeVisible();
  await page.getByLabel('Search the guide').fill('name tag');
  await page.getByRole('link', { name: 'Cut a name tag' }).click();
  await expect(page.getByRole('article')).toContainText('The name is engraved first');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/art$/);
  await expect(page.getByLabel('Title of the job')).toHaveValue('Cut a name tag');
  expect((await items(page)).length).toBeGreaterThan(2);
  expect((await storedJob(page)).document.sheets).toHaveLength(1);

  await page.keyboard.press('?');
  await page.getByRole('dialog').getByLabel('Search the guide').fill('kerf');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Find the kerf', level: 1 })).toBeVisible();
  await page.getByLabel('Search the guide').fill('zeppelin');
  await expect(page.getByText('No page has “zeppelin” in it.')).toBeVisible();
});

test('every small job opens', async ({ page }) => {
  await page.goto('/guide');
  const links = page.getByRole('navigation', { name: 'Pages of the guide' }).getByRole('link');
  await expect(links).toHaveCount(20);
  const addresses = await links.evaluateAll((all) => all.map((link) => link.getAttribute('href') ?? ''));
  let opened = 0;
  for (const address of addresses) {
    await page.goto(address);
    await expect(page.getByRole('article').getByRole('heading')).toBeVisible();
    const open = page.getByRole('button', { name: 'Open the job' });
    if ((await open.count()) === 0) continue;
    await open.click();
    await expect(page).toHaveURL(/\/jobs\/[^/]+\/\w+$/);
    await expect(page.getByLabel('Title of the job')).toBeVisible();
    opened += 1;
  }
  expect(opened).toBe(13);
});
