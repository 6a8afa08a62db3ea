import { expect, test } from '@playwright/test';
import { rectangle } from './bench.ts';
import { openOwnJob, startOwnMachine } from './own-machine.ts';

test('what was burnt is found by job, material, machine and day, and leads back to its job', async ({ page }) => {
  const started = await startOwnMachine(page, 'Lambent', 100);
  try {
    await page.goto(`${started.own.address}/record`);
    await expect(page.getByText('Nothing was burnt yet')).toBeVisible();
    await openOwnJob(page, started, rectangle(20, 20, 40, 40));
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');

    await page.goto(`${started.own.address}/`);
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Record' }).click();
    const rows = page.getByRole('table', { name: 'Runs' }).getByRole('row');
    await expect(rows).toHaveCount(2);
    await expect(rows.nth(1)).toContainText('Labels');
    await expect(rows.nth(1)).toContainText('Plover');
    await expect(rows.nth(1)).toContainText('done');
    await page.getByLabel('Job', { exact: true }).fill('crate');
    await expect(page.getByText('No run matches')).toBeVisible();
    await page.getByLabel('Job', { exact: true }).fill('LAB');
    await expect(rows).toHaveCount(2);
    // What is searched for is in the address.
    await expect(page).toHaveURL(/title=LAB/);
    await page.getByLabel('Day').fill('2001-01-01');
    await expect(page.getByText('No run matches')).toBeVisible();
    await page.getByRole('button', { name: 'Show all' }).click();
    await expect(rows).toHaveCount(2);
    await rows.nth(1).getByRole('link', { name: 'Labels' }).click();
    await expect(page.getByTestId('run-row')).toHaveCount(1);
  } finally {
    await started.close();
  }
});
