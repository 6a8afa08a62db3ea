// What the page's heap holds over a long day's work on one job, in headless Chromium: after each round, garbage collected.
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const stages = ['Bed', 'Art', 'Colours', 'Fit', 'Recipe', 'Check', 'Burn'];

/** @returns the heap in MB after each round of so many edits */
export async function benchHeap(address, rounds = 12, editsEach = 100) {
  const browser = await chromium.launch(config.use.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  await page.getByRole('link', { name: /Estuary relief/ }).click();
  await page.getByTestId('plan-time').getByText('step').waitFor();
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Performance.enable');
  const bed = await page.getByTestId('bed').boundingBox();
  const heaps = [];
  const saved = () => page.getByText('saved', { exact: true }).waitFor();
  for (let round = 0; round < rounds; round++) {
    for (let edit = 0; edit < editsEach; edit++) {
      await page.keyboard.press('Control+a');
      await page.keyboard.press(edit % 2 ? 'ArrowLeft' : 'ArrowRight');
      if (edit % 10 === 0) await page.keyboard.press('Control+z');
      if (edit % 10 === 5) await page.mouse.wheel(0, edit % 20 === 5 ? -300 : 300);
      await page.mouse.move(bed.x + 100 + ((edit * 37) % 600), bed.y + 100 + ((edit * 53) % 400));
      if (edit % 15 === 0) {
        const stage = stages[(edit / 15) % stages.length];
        await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
        await saved();
      }
    }
    await saved();
    await devtools.send('HeapProfiler.collectGarbage');
    const { metrics } = await devtools.send('Performance.getMetrics');
    heaps.push(metrics.find(({ name }) => name === 'JSHeapUsedSize').value / 1e6);
    console.log(`   ${(round + 1) * editsEach} edits: ${heaps.at(-1).toFixed(1)} MB`);
  }
  await browser.close();
  return heaps;
}
