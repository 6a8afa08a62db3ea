// A book of two hundred materials and five thousand recipes: taken in, sent, shown, changed, and planned by.

import { readFileSync } from 'node:fs';
import { newJob } from '@lambent/core/document';
import { prepareJob } from '@lambent/core/plan';
import { shopFromJson } from '@lambent/core/recipes';
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const rounds = 9;

function largeBook() {
  const operations = ['cut', 'score', 'engrave'];
  const machines = ['wren', 'curlew', 'dunlin'];
  const variants = ['', 'masked', 'deep'];
  return Array.from({ length: 200 }, (_, i) => ({
    id: `stock-${i}`,
    family: `Family ${i % 20}`,
    name: `Stock ${Math.floor(i / 4)}`,
    thicknessMm: 1 + (i % 8),
    tone: '#D8CFBA',
    sheetWidth: 600,
    sheetHeight: 400,
    forbidden: null,
    recipes: Array.from({ length: 25 }, (__, k) => ({
      machineId: machines[Math.floor(k / 9) % 3],
      operation: operations[k % 3],
      variant: variants[Math.floor(k / 3) % 3],
      powerPercent: 20 + k,
      speedMmPerS: 10 + k,
      passes: 1,
      lineSpacingMm: 0.1,
      evidence: 'proven',
      note: 'Made up for this measurement.',
    })),
  }));
}

function median(times) {
  return times.sort((a, b) => a - b)[times.length >> 1];
}

async function timed(work) {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** @returns rows of what was done with the book, and how long it took in ms */
export async function benchBook(address) {
  const materials = largeBook();
  const text = JSON.stringify({ format: 'lambent-book', version: 1, materials });
  const rows = [];
  const takeIn = () =>
    fetch(`${address}/api/book/take-in?by=Bench&format=json&take=all-or-nothing`, { method: 'POST', body: text });
  rows.push({ what: 'take it in, on the server', ms: await timed(takeIn) });
  const sent = [];
  for (let i = 0; i < rounds; i++) sent.push(await timed(async () => (await fetch(`${address}/api/materials`)).json()));
  rows.push({ what: 'ask for all of it', ms: median(sent) });

  const browser = await chromium.launch(config.use.launchOptions);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const opened = await timed(async () => {
      await page.goto(`${address}/book/stock-7`);
      await page.getByRole('row', { name: 'Wren, Cut', exact: true }).waitFor();
    });
    rows.push({ what: 'open its page', ms: opened });
    await page.getByLabel('You are').fill('Bench');
    await page.keyboard.press('Enter');
    const field = page.getByRole('row', { name: 'Wren, Cut', exact: true }).getByLabel('Speed');
    const changed = [];
    for (let i = 0; i < rounds; i++) {
      changed.push(
        await timed(async () => {
          await field.fill(String(20 + i));
          await page.keyboard.press('Enter');
          await page
            .getByText(`→ ${20 + i} mm/s`)
            .first()
            .waitFor();
        }),
      );
    }
    rows.push({ what: 'change a speed, until its history says so', ms: median(changed) });
    const looked = [];
    for (const word of ['stock 4', 'family 3', '7', 'stock 12 6', '']) {
      looked.push(await timed(() => page.getByLabel('Look for a material').fill(word)));
    }
    rows.push({ what: 'look for a material', ms: median(looked) });
  } finally {
    await browser.close();
  }

  const shop = shopFromJson(JSON.parse(readFileSync(new URL('../demo/shop.json', import.meta.url), 'utf8')));
  const large = { ...shop, materials: [...shop.materials, ...materials] };
  const job = newJob('wren', shop.keys[0].id);
  const sheets = [{ id: 's', materialId: 'stock-7', thicknessMm: 9, x: 0, y: 0, width: 300, height: 200, margin: 3 }];
  const prepared = [];
  for (let i = 0; i < 50; i++) prepared.push(await timed(async () => prepareJob({ ...job, sheets }, large)));
  rows.push({ what: 'work a job’s settings out from it', ms: median(prepared) });
  return rows;
}
