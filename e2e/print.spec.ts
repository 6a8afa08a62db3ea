import { expect, test } from '@playwright/test';
import { openJob } from './bench.ts';

test('on paper every place shows all of what it says, and nothing to press', async ({ page }) => {
  await page.setViewportSize({ width: 900, height: 400 });
  for (const path of ['/', '/machines', '/book', '/keys', '/record', '/figures', '/shop']) {
    await page.goto(path);
    await expect(page.getByRole('main')).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden();
    const cut = await page.evaluate(() => {
      const main = document.querySelector('main') as HTMLElement;
      const { overflowY } = getComputedStyle(main);
      return { overflowY, isCut: main.scrollHeight > main.clientHeight + 1 };
    });
    expect([path, cut]).toEqual([path, { overflowY: 'visible', isCut: false }]);
    await page.emulateMedia({ media: 'screen' });
  }
  await openJob(page, 'Row markers');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('toolbar', { name: 'View' })).toBeHidden();
  await expect(page.getByRole('region', { name: 'Burn order' })).toBeHidden();
  await expect(page.locator('#bed canvas').first()).toBeInViewport();
});

test('it can be installed: its manifest names icons that are there', async ({ page }) => {
  await page.goto('/');
  const address = await page.locator('link[rel="manifest"]').getAttribute('href');
  const manifest = await (await page.request.get(address ?? '')).json();
  expect(manifest).toMatchObject({ name: 'Lambent', start_url: '/', display: 'standalone' });
  const sizes = await page.evaluate(
    (icons: { src: string }[]) =>
      Promise.all(
        icons.map(async ({ src }) => {
          const image = new Image();
          image.src = src;
          await image.decode();
          return `${image.naturalWidth}x${image.naturalHeight}`;
        }),
      ),
    manifest.icons,
  );
  expect(sizes).toEqual(manifest.icons.map(({ sizes }: { sizes: string }) => sizes));
});

test('the title says how far a run is, and the run is told in words', async ({ page }) => {
  await openJob(page, 'Seed packet');
  const said = page.getByTestId('announcer').getByRole('status');
  const titles = await page.evaluateHandle(() => {
    const seen: string[] = [];
    new MutationObserver(() => seen.push(document.title)).observe(document.head, {
      subtree: true,
      childList: true,
      characterData: true,
    });
    return seen;
  });
  await page.getByRole('button', { name: 'Send to Wren' }).click();
  await expect(said).toContainText(/“Seed packet, folding” (has begun|is \d\d % burnt)\./);
  await expect(page).toHaveTitle('Seed packet, folding · Lambent');
  expect((await titles.jsonValue()).some((title) => /^\d+ % · Seed packet, folding · Lambent$/.test(title))).toBe(true);
});
