import { expect, type Page, test } from '@playwright/test';
import { rectangle, svg } from './bench.ts';

test.use({ locale: 'de-DE' });

const stage = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stufen' }).getByRole('link', { name }).click();

test('a browser that asks for German gets the whole way in German, from the Desk to the finished burn', async ({
  page,
}) => {
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await expect(page.getByRole('heading', { name: 'Auftragstisch', level: 1 })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Alle/ })).toBeVisible();
  await page.getByRole('button', { name: 'Neuer Auftrag' }).click();
  await expect(page.getByLabel('Titel')).toHaveValue('Auftrag ohne Titel');
  await page.getByRole('button', { name: 'Auftrag anlegen' }).click();
  await expect(page.getByRole('heading', { name: 'Zeichnung' })).toBeVisible();

  // From a file, with a colour that means nothing: found by the core, in a worker.
  const drawing = svg(
    `${rectangle(20, 20, 40, 30)}<rect x="80" y="20" width="40" height="30" fill="none" stroke="#123456" stroke-width="0.1"/>`,
  );
  const file = { name: 'schild.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(drawing) };
  await page.getByTestId('file-chooser').setInputFiles(file);
  await page.getByRole('button', { name: 'Übernehmen' }).click();
  await page.getByRole('button', { name: /^Material der Platte:/ }).click();
  await page.getByRole('option', { name: /Birch plywood.*3 mm/ }).click();
  await stage(page, 'Prüfen');
  await expect(page.getByText('Eine Farbe ohne Bedeutung', { exact: true })).toBeVisible();
  await expect(
    page.getByText(/^1 Objekt hat #123456 mit 0\.1 mm, was in „.*“ nichts bedeutet und nicht gebrannt würde\./),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Sagen, was es bedeutet' }).click();
  await page.getByRole('button', { name: /^Was #123456 bedeutet/ }).click();
  await page.getByRole('option', { name: 'Score' }).click();
  await stage(page, 'Prüfen');
  await expect(page.getByText('Eine Farbe ohne Bedeutung', { exact: true })).toBeHidden();
  await expect(page.getByRole('button', { name: /^Rückgängig: / })).toBeEnabled();

  // What the server refuses is said in German as well.
  await stage(page, 'Brennen');
  const x = page.getByTestId('hand-pad').getByLabel('X', { exact: true });
  await x.fill('9999');
  await x.press('Enter');
  await expect(page.getByText(/X9999 Y0 liegt neben dem Bett von Wren: X geht von 0 bis 600 mm/)).toBeVisible();

  await page.getByRole('button', { name: 'An Wren senden' }).click();
  const row = page.getByTestId('run-row');
  await expect(row).toHaveAttribute('data-status', 'done');
  await expect(row).toContainText('fertig');
  await expect(page.getByText(/ist gebrannt, in \d+:\d\d\./).first()).toBeVisible();
});

test('a language is chosen for one screen, and stays; what it cannot say it says in English', async ({ page }) => {
  await page.goto('/shop');
  await page.getByRole('button', { name: /^Sprache an diesem Bildschirm:/ }).click();
  await page.getByRole('option', { name: 'English' }).click();
  await expect(page.getByRole('heading', { name: 'Shop', level: 1 })).toBeVisible();
  await page.goto('/machines');
  await expect(page.locator('html')).toHaveAttribute('lang', 'en');
  await expect(page.getByRole('heading', { name: 'Machines', level: 1 })).toBeVisible();
  await page.goto('/shop');
  await page.getByRole('button', { name: /^Language at this screen:/ }).click();
  await page.getByRole('option', { name: /^As the browser/ }).click();
  await expect(page.getByRole('heading', { name: 'Werkstatt', level: 1 })).toBeVisible();
});
