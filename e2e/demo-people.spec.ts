import { expect, test } from '@playwright/test';
import { sayWho } from './bench.ts';

test('the demo says that one is signed in as its manager, and makes one anybody else of it by a click', async ({
  page,
}) => {
  await page.goto('/shop');
  const chip = page.getByRole('button', { name: 'At this screen: Ines Varga' });
  await expect(page.getByText('Demo', { exact: true })).toBeVisible();
  await chip.click();
  await expect(page.getByText('This is the demo.')).toBeVisible();
  await expect(page.getByRole('list', { name: 'People of the demo' }).getByRole('button')).toHaveCount(5);
  await page.keyboard.press('Escape');
  await sayWho(page, 'Tobiah Okonjo');

  // An operator neither changes the shop nor reads who did what.
  await expect(page.getByText('A manager says who signs in here')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Who did what' })).toBeHidden();
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  const form = page.getByRole('form', { name: 'New job' });
  await form.getByLabel('Title').fill('Tobiah’s hook board');
  await form.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByRole('link', { name: /^Art/ })).toBeVisible();

  await page.goto('/shop');
  await sayWho(page, 'Ines Varga');
  const done = page.getByRole('list', { name: 'Who did what' }).getByRole('listitem');
  await expect(done.filter({ hasText: 'New job: Tobiah’s hook board' })).toContainText('Tobiah Okonjo');
});
