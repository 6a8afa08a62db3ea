import { expect, test } from '@playwright/test';
import { choose, newJobOnPlywood, openJob, openStage, rectangle, saved } from './bench.ts';

test('the Desk shows the demo jobs with true pictures of their artwork', async ({ page }) => {
  await page.goto('/?show=all&seek=Heronbrook');
  for (const title of ['Row markers, spring batch', 'Seed packet, folding', 'Estuary relief']) {
    const picture = page.getByRole('img', { name: `The artwork of ${title}` });
    await expect(picture).toBeVisible();
    await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
  }
  await page.getByLabel('Find a job').fill('relief');
  await expect(page.getByRole('link', { name: /Row markers/ })).toHaveCount(0);
  await page.getByLabel('Find a job').fill('zeppelin');
  await expect(page.getByText('Nothing here has “zeppelin” in it.')).toBeVisible();
});

test('a demo job goes from the Desk to a finished burn on record', async ({ page }) => {
  await openJob(page, 'Row markers');
  await expect(page.getByRole('heading', { name: 'Colours' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'What #D0481E means: Cut' })).toBeVisible();
  await expect(page.getByTestId(/^step-/)).toHaveText([
    /Engrave.*22 % · 400 mm\/s/,
    /Score.*12 % · 90 mm\/s/,
    /Cut · inside.*62 % · 14 mm\/s/,
    /Cut · outside.*62 % · 14 mm\/s/,
  ]);
  const time = page.getByTestId('plan-time');
  await expect(time).toHaveText(/^\d.*4 steps/);
  const before = await time.textContent();

  await openStage(page, 'Recipe');
  await choose(page, 'Material: Birch plywood', /Poplar plywood/);
  await expect(page.getByTestId('step-cut-outer')).toContainText('75 % · 8 mm/s');
  await expect.poll(() => time.textContent()).not.toBe(before);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('step-cut-outer')).toContainText('62 % · 14 mm/s');
  await expect.poll(() => time.textContent()).toBe(before);

  const shares = await page.getByTestId('step-engrave-all').evaluateHandle((step: HTMLElement) => {
    const seen: number[] = [];
    new MutationObserver(() => seen.push(Number(step.dataset.done))).observe(step, { attributeFilter: ['data-done'] });
    return seen;
  });
  await page.getByRole('button', { name: 'Send to Wren' }).click();
  await expect(page.getByTestId('machine-part')).toContainText('Running');
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  await expect(page.getByTestId('run-row').first()).toContainText('took');
  const between = (await shares.jsonValue()).filter((share) => share > 0 && share < 1);
  expect(between.length).toBeGreaterThan(2);
  expect(between).toEqual(between.toSorted((a, b) => a - b));
  await expect(page.getByRole('link', { name: 'Burn, settled' })).toBeVisible();
  await page.goto('/?show=burnt&seek=Row%20markers');
  await expect(page.getByRole('button', { name: 'Row markers, spring batch: Burnt' })).toBeVisible();
});

test('the key decides what a file means', async ({ page }) => {
  await openJob(page, 'Seed packet');
  await choose(page, 'Colour key: Tern Lane house key', 'Evening class key');
  await page.getByRole('button', { name: 'Change the key' }).click();
  await expect(page.getByRole('button', { name: 'What #D0481E means: Score' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'What #00806A means: Cut' })).toBeVisible();
  await page.getByRole('button', { name: /^Undo: change colour key/ }).click();
  await expect(page.getByRole('button', { name: 'What #D0481E means: Cut' })).toBeVisible();
});

test('the preview plays, stands anywhere, and is left', async ({ page }) => {
  await openJob(page, 'Seed packet');
  await page.keyboard.press('7');
  const place = page.getByLabel('Place in the preview');
  await page.getByRole('button', { name: 'Play the preview' }).click();
  await expect.poll(async () => Number(await place.inputValue())).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Pause the preview' }).click();
  // A block of the strip leads to its step, and opens nothing; where the head goes unlit is shown on demand.
  await page.getByTestId('step-cut-outer').getByRole('button').first().click();
  await expect(page.getByTestId('step-cut-outer')).toHaveAttribute('data-done', '0.000');
  await expect(page.getByRole('heading', { name: 'Cut', exact: true })).toHaveCount(0);
  await page.getByLabel('Show where the head goes unlit').check();
  // What lies inside is free by then; that is told, and listed by size.
  await expect(page.getByTestId('free-by-now')).toHaveText('3 of 6 are free by now');
  await choose(page, 'Speed of the preview: 20×', '200×');
  await place.fill(await place.evaluate((input: HTMLInputElement) => input.max));
  await expect(page.getByTestId('step-cut-outer')).toHaveAttribute('data-done', '1.000');
  await expect(page.getByTestId('free-by-now')).toHaveText(/^(\d+) of \1 are free by now$/);
  await expect(page.getByRole('list', { name: 'Pieces by size' }).getByRole('listitem').first()).toContainText(
    ', free',
  );
  await page.getByRole('button', { name: 'Leave the preview' }).click();
  await expect(page.getByTestId('step-cut-outer')).not.toHaveAttribute('data-done', /./);
});

test('the preview shows the stock as it is by then: brown after the first of two passes, cut through after the last', async ({
  page,
}) => {
  await newJobOnPlywood(page, 'Two passes', rectangle(40, 40, 100, 100));
  await openStage(page, 'Recipe');
  const passes = page.getByRole('textbox', { name: /^Passes/ }).first();
  await passes.fill('2');
  await passes.press('Enter');
  const speed = page.getByRole('textbox', { name: /^Speed/ }).first();
  await speed.fill(String(2 * Number(await speed.inputValue())));
  await speed.press('Enter');
  await saved(page);
  await openStage(page, 'Burn');
  const place = page.getByLabel('Place in the preview');
  const most = Number(await place.getAttribute('max'));
  // Pixels of the bed that are as black as what is cut through.
  const black = () =>
    page.getByTestId('bed').evaluate((bed) =>
      Array.from(bed.querySelectorAll('canvas')).reduce((sum, canvas) => {
        const { data } = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
        for (let i = 0; i < data.length; i += 4) if (data[i] === 14 && data[i + 1] === 12 && data[i + 2] === 10) sum++;
        return sum;
      }, 0),
    );
  await place.fill(String(most * 0.45));
  await expect(page.getByTestId('step-cut-outer')).toHaveAttribute('data-done', /^0\.4/);
  expect(await black()).toBe(0);
  await place.fill(String(most * 0.75));
  await expect.poll(black).toBeGreaterThan(100);
  const half = await black();
  await place.fill(String(most));
  await expect.poll(black).toBeGreaterThan(1.6 * half);
});

test('the preview goes back to what it showed before, in a plan of very many moves', async ({ page }) => {
  await openJob(page, 'Estuary relief');
  await page.keyboard.press('7');
  const place = page.getByLabel('Place in the preview');
  const most = Number(await place.getAttribute('max'));
  /** The bed as it is drawn, as one number. */
  const drawn = () =>
    page.getByTestId('bed').evaluate((bed) =>
      Array.from(bed.querySelectorAll('canvas')).reduce((sum, canvas) => {
        const { data } = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
        let hash = sum;
        for (let i = 0; i < data.length; i++) hash = (Math.imul(hash, 31) + data[i]) | 0;
        return hash;
      }, 7),
    );
  const settled = async () => {
    let hash = await drawn();
    for (let before = Number.NaN; before !== hash; ) {
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
      [before, hash] = [hash, await drawn()];
    }
    return hash;
  };
  const seen = new Map<number, number>();
  for (const share of [0.2, 0.35, 0.5, 0.9, 1]) {
    await place.fill(String(most * share));
    seen.set(share, await settled());
  }
  expect(new Set(seen.values()).size).toBe(5);
  for (const share of [0.5, 0.2, 0.9, 0.35]) {
    await place.fill(String(most * share));
    expect(await settled()).toBe(seen.get(share));
  }
});

test('a run has a price in its parts, by what the shop charges', async ({ page }) => {
  await page.goto('/shop');
  const prices = page.getByRole('region', { name: 'Prices' });
  await prices.getByLabel('Setting a job up').fill('4,50');
  const taken = page.waitForResponse((response) => response.request().method() === 'PUT');
  await prices.getByLabel('Setting a job up').press('Enter');
  await taken;
  await prices.getByRole('group', { name: 'A minute of' }).getByLabel('Wren').fill('-1');
  await prices.getByRole('group', { name: 'A minute of' }).getByLabel('Wren').press('Enter');
  await expect(prices.getByRole('alert')).toHaveText('From 0 to a million.');
  await prices.getByRole('group', { name: 'A minute of' }).getByLabel('Wren').press('Escape');
  await openJob(page, 'Row markers');
  await expect(page.getByTestId('plan-price')).toContainText('€');
  const before = await page.getByTestId('plan-price').textContent();
  await page.keyboard.press('7');
  await expect(page.getByText('Setting up', { exact: true })).toBeVisible();
  await expect(page.getByText('€ 4.50')).toBeVisible();
  // Half the work, less to pay.
  await page.getByRole('button', { name: 'Leave Engrave out of this run' }).click();
  await expect(page.getByTestId('plan-price')).not.toHaveText(before ?? '');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('plan-price')).toHaveText(before ?? '');
});

test('the page comes packed, its files are kept for a year, and one that is gone is not the page', async ({
  request,
}) => {
  const page = await request.get('/');
  expect(page.headers()['cache-control']).toBe('no-cache');
  const [, script] = /src="(\/assets\/[^"]+\.js)"/.exec(await page.text()) ?? [];
  const file = await request.get(script, { headers: { 'accept-encoding': 'br' } });
  expect(file.headers()).toMatchObject({
    'content-encoding': 'br',
    'cache-control': 'public, max-age=31536000, immutable',
  });
  const plain = await request.get(script, { headers: { 'accept-encoding': 'identity' } });
  expect(plain.headers()['content-encoding']).toBeUndefined();
  expect(await plain.text()).toBe(await file.text());
  expect((await request.get('/assets/gone-12345678.js')).status()).toBe(404);
});
