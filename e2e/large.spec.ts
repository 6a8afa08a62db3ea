import { expect, type Page, test } from '@playwright/test';
import { bedPoint, choose, items, newJob, offer, openStage, placeOf, saved, svg, takeIt } from './bench.ts';

/** A comb of so many teeth in red, from (20, 20) to (180, 80) of the bed: nothing is drawn beside it. */
function comb(teeth: number): string {
  const wide = 160 / teeth;
  return svg(
    `<path fill="none" stroke="#D0481E" stroke-width="0.1" d="M20 20${`v60h${wide}v-60h${wide}`.repeat(teeth / 2)}"/>`,
  );
}

/** Whether something reddish is drawn within a few pixels of a place of the bed. */
async function isRedAt(page: Page, x: number, y: number): Promise<boolean> {
  const at = await bedPoint(page, x, y);
  return page.evaluate(({ x, y }) => {
    const around = 3;
    return Array.from(document.querySelectorAll<HTMLCanvasElement>('[data-testid="bed"] canvas')).some((canvas) => {
      const frame = canvas.getBoundingClientRect();
      const ratio = canvas.width / frame.width;
      const [px, py] = [(x - frame.x - around) * ratio, (y - frame.y - around) * ratio];
      const size = 2 * around * ratio;
      const { data } = canvas.getContext('2d')?.getImageData(px, py, size, size) ?? { data: [] };
      for (let i = 0; i < data.length; i += 4) {
        if (data[i + 3] > 60 && data[i] > 150 && data[i] > data[i + 1] + 40) return true;
      }
      return false;
    });
  }, at);
}

test('a drawing of very many lines is shown as it arrives, taken in, moved, and there when it is opened again', async ({
  page,
}) => {
  await newJob(page, 'Comb of many teeth');
  await offer(page, 'comb.svg', comb(20_000));
  await expect(page.getByTestId('arrival-count')).toHaveText('1 item · SVG');
  await expect.poll(() => isRedAt(page, 100, 50)).toBe(true);
  expect(await isRedAt(page, 250, 50)).toBe(false);

  await takeIt(page);
  await expect.poll(() => isRedAt(page, 100, 50)).toBe(true);
  await openStage(page, 'Colours');
  await expect(page.getByText('1 item · 1200.16 m')).toBeVisible();

  // Dragged by the pointer, it goes along, and stays where it was put.
  await page.keyboard.press('Control+a');
  const from = await bedPoint(page, 100, 50);
  const to = await bedPoint(page, 300, 250);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await expect.poll(() => isRedAt(page, 300, 250)).toBe(true);
  await expect.poll(() => isRedAt(page, 100, 50)).toBe(false);
  await page.mouse.up();
  await saved(page);
  expect(await isRedAt(page, 300, 250)).toBe(true);
  const [x, y, width, height] = placeOf((await items(page))[0]);
  expect([Math.round(x / 10), Math.round(y / 10), width, height]).toEqual([22, 22, 160, 60]);

  await page.reload();
  await expect.poll(() => isRedAt(page, 300, 250)).toBe(true);
  expect(await isRedAt(page, 100, 50)).toBe(false);
});

test('a plan that takes long says how far it has come', async ({ page }) => {
  const circles = Array.from({ length: 30_000 }, (_, i) => {
    const [x, y] = [(i % 250) * 2 + 3, Math.floor(i / 250) * 2 + 3];
    return `<circle cx="${x}" cy="${y}" r="0.8" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
  });
  await newJob(page, 'Many holes');
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await offer(
    page,
    'holes.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" width="600mm" height="400mm" viewBox="0 0 600 400">${circles.join('')}</svg>`,
  );
  await takeIt(page);
  await expect(page.getByTestId('plan-time')).toContainText(/planning, \d+ %/);
  await expect(page.getByTestId('plan-time').getByText('1 step')).toBeVisible();
  await expect(page.getByTestId('plan-time')).not.toContainText('planning');
});

test('a drawing of more lines than a job can hold is refused in a sentence, and nothing is changed', async ({
  page,
}) => {
  await newJob(page, 'Too many teeth');
  await offer(page, 'comb.svg', comb(600_000));
  await expect(
    page.getByText(/The drawing holds 1,200,001 lines and curves; Lambent takes up to 1,000,000\. Simplify it/),
  ).toBeVisible();
  expect(await items(page)).toEqual([]);
});
