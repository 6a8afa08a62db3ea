import { expect, type Page, test } from '@playwright/test';
import { bedPoint, openJob, openStage, saved } from './bench.ts';

/*
 * The Bench in little room: on a small screen, and at 200 % zoom, where 1280 × 800 are 640 × 400.
 */

const stages = ['Bed', 'Art', 'Colours', 'Fit', 'Recipe', 'Check', 'Burn'];

for (const [width, height] of [
  [1024, 700],
  [640, 400],
]) {
  test(`the Bench is whole at ${width} × ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await openJob(page, 'Row markers');
    for (const stage of stages) {
      await openStage(page, stage);
      const heading = page.getByRole('heading', { name: stage, exact: true, level: 1 });
      await expect(heading).toBeInViewport();
      expect([stage, await scrollsSideways(page)]).toEqual([stage, false]);
      // Nothing lies over what is pressed: a trial click waits for that.
      for (const name of [/^At this screen/, 'Show the whole bed (B)', /^Runs: /, /^Machine: /]) {
        await page.getByRole('button', { name }).first().click({ trial: true });
      }
      await expect(page.getByRole('button', { name: /^Send to|^See what blocks/ })).toBeInViewport({ ratio: 1 });
    }
    await openStage(page, 'Art');
    for (const name of ['Pick and move (Q)', 'Text (P)', 'Round or cut corners (G)', 'What catches points']) {
      await page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name }).click();
    }
  });
}

test('the whole bed stays whole in a window of another size; a part of it stays in the middle', async ({ page }) => {
  await openJob(page, 'Row markers');
  await openStage(page, 'Art');
  await saved(page);
  const read = () => page.getByTestId(/^pointer-/).allTextContents();
  const pointAt = async (x: number, y: number) => {
    const place = await bedPoint(page, x, y);
    await page.mouse.move(place.x, place.y, { steps: 2 });
  };
  await pointAt(300, 200);
  const middle = await read();
  await page.setViewportSize({ width: 1100, height: 720 });
  await expect(async () => {
    await pointAt(0, 0);
    await pointAt(300, 200);
    expect(await read()).toEqual(middle);
  }).toPass();
});

async function scrollsSideways(page: Page): Promise<boolean> {
  return page.evaluate(() =>
    Array.from(document.querySelectorAll('html, [data-scrolls]')).some(
      (element) => element.scrollWidth > element.clientWidth + 1,
    ),
  );
}
