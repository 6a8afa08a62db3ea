// How long frames take while the view of the Estuary relief moves, and its preview, in headless Chromium.
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

/** @returns median and 95th percentile of the time between frames, in ms, and until the crisp picture */
export async function benchFrames(address) {
  const browser = await chromium.launch(config.use.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  await page.getByRole('link', { name: /Estuary relief/ }).click();
  await page.getByTestId('step-cut-outer').waitFor();
  await page.waitForTimeout(1000);
  const bed = await page.getByTestId('bed').boundingBox();
  const [x, y] = [bed.x + bed.width / 2, bed.y + bed.height / 2];
  const begin = {
    pan: async () => {
      await page.mouse.move(x, y);
      await page.mouse.down({ button: 'middle' });
      return (i) => page.mouse.move(x + 150 * Math.sin(i / 6), y + 90 * Math.cos(i / 5));
    },
    zoom: async () => {
      await page.mouse.move(x, y);
      return (i) => page.mouse.wheel(0, i % 40 < 20 ? -40 : 40);
    },
    scrub: async () => {
      await page.keyboard.press('7');
      await page.getByRole('button', { name: 'Play the preview' }).click();
      await page.getByRole('button', { name: 'Pause the preview' }).click();
      const slider = await page.getByLabel('Place in the preview').boundingBox();
      const at = (share) => [slider.x + 8 + share * (slider.width - 16), slider.y + slider.height / 2];
      await page.mouse.move(...at(0));
      await page.mouse.down();
      // There and back, three times: all of it is painted once, and gone back to.
      return (i) => page.mouse.move(...at(Math.abs(((i / 20 + 1) % 2) - 1)));
    },
  };
  const rows = [];
  for (const name of Object.keys(begin)) {
    const move = await begin[name]();
    await page.evaluate(() => {
      window.frames_ = [];
      let last = performance.now();
      const tick = (now) => {
        window.frames_.push(now - last);
        last = now;
        window.frameId_ = requestAnimationFrame(tick);
      };
      window.frameId_ = requestAnimationFrame(tick);
    });
    for (let i = 0; i < 120; i++) await move(i);
    const frames = await page.evaluate(() => {
      cancelAnimationFrame(window.frameId_);
      return window.frames_.slice(2).sort((a, b) => a - b);
    });
    if (name !== 'zoom') await page.mouse.up({ button: name === 'pan' ? 'middle' : 'left' });
    rows.push({
      name,
      medianMs: frames[frames.length >> 1],
      p95Ms: frames[Math.floor(frames.length * 0.95)],
      count: frames.length,
    });
    await page.waitForTimeout(500);
  }
  await browser.close();
  return rows;
}
