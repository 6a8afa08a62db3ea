// How soon what the pointer and the keys do is on screen, on large drawings, in headless Chromium.

import { jobMediaType, jobToJson, newJob } from '@lambent/core/document';
import { addItems } from '@lambent/core/edits';
import { identity, PathBuilder } from '@lambent/core/geometry';
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const items = 20_000;

/** 20,000 items of 12 or 13 segments each, half of them curves: 250,000 in all, in groups of ten. */
export function largeDrawing() {
  const groups = Array.from({ length: items / 10 }, (_, i) => ({ id: `g${i}`, name: `Part ${i}`, parentId: null }));
  const made = Array.from({ length: items }, (_, i) => {
    const [x, y] = [4 + (i % 200) * 4.9, 4 + Math.floor(i / 200) * 6.9];
    const builder = new PathBuilder().moveTo(x + 2, y);
    const count = 12 + (i % 2);
    for (let k = 1; k < count; k++) {
      const angle = (k / count) * 2 * Math.PI;
      const [px, py] = [x + 2 * Math.cos(angle), y + 2.5 * Math.sin(angle)];
      if (k % 2) builder.lineTo(px, py);
      else builder.cubicTo(px + 0.2, py, px, py + 0.2, px, py);
    }
    return {
      id: `i${i}`,
      name: null,
      shape: { kind: 'path', path: builder.close().build() },
      matrix: identity,
      paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null },
      fillRule: 'nonzero',
      groupId: `g${Math.floor(i / 10)}`,
      pinned: null,
      hidden: false,
    };
  });
  return addItems(newJob('curlew', 'house'), made, groups);
}

async function storeLarge(page, address) {
  const send = async (method, path, data, type) => {
    const answer = await page.request.fetch(`${address}${path}`, {
      method,
      data,
      headers: { 'Content-Type': type ?? 'application/json', Origin: address },
    });
    if (!answer.ok()) throw new Error(`${path}: ${answer.status()} ${await answer.text()}`);
    return answer.status() === 204 ? null : answer.json();
  };
  const { id } = await send('POST', '/api/jobs', { title: 'Twenty thousand', machineId: 'curlew' });
  const body = JSON.stringify(jobToJson(largeDrawing()));
  await send('PUT', `/api/jobs/${id}?base=1&edit=made`, body, jobMediaType);
  return id;
}

/** Begins to note, for each event of a kind, how long it takes until the frame that shows it is done. */
function listen(kind) {
  window.waits_ = [];
  window.listener_ = () => {
    const start = performance.now();
    requestAnimationFrame(() => setTimeout(() => window.waits_.push(performance.now() - start)));
  };
  window.kind_ = kind;
  window.addEventListener(kind, window.listener_, { capture: true });
}

async function measure(page, kind, work) {
  await page.evaluate(listen, kind);
  await work();
  await page.waitForTimeout(400);
  const waits = await page.evaluate(() => {
    window.removeEventListener(window.kind_, window.listener_, { capture: true });
    return window.waits_.sort((a, b) => a - b);
  });
  return { medianMs: waits[waits.length >> 1], p95Ms: waits[Math.floor(waits.length * 0.95)], count: waits.length };
}

/** @returns rows of drawing, doing, and the waits for it in ms; and of each drawing its opening and memory */
export async function benchDrawing(address) {
  const browser = await chromium.launch(config.use.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  const large = await storeLarge(page, address);
  const relief = await page.evaluate(async () => {
    const jobs = await (await fetch('/api/jobs')).json();
    return jobs.find(({ title }) => title === 'Estuary relief').id;
  });
  const rows = [];
  const opened = [];
  for (const [name, id] of [
    ['Estuary relief', relief],
    ['20,000 items', large],
  ]) {
    const start = performance.now();
    await page.goto(`${address}/jobs/${id}/art`);
    await page.getByRole('toolbar', { name: 'Tools' }).waitFor();
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))));
    const openMs = performance.now() - start;
    await page.waitForTimeout(4000);
    const bed = await page.getByTestId('bed').boundingBox();
    let [x, y] = [bed.x + bed.width / 2, bed.y + bed.height / 2];
    const card = page.getByRole('region', { name: 'Size and place' });
    const row = async (doing, kind, work) => rows.push({ name, doing, ...(await measure(page, kind, work)) });
    await row('hover', 'pointermove', async () => {
      for (let i = 0; i < 80; i++) await page.mouse.move(x + 120 * Math.sin(i / 4), y + 80 * Math.cos(i / 5));
    });
    await row('scroll the bed', 'pointermove', async () => {
      await page.mouse.move(x, y);
      await page.mouse.down({ button: 'middle' });
      for (let i = 0; i < 80; i++) await page.mouse.move(x + 60 * Math.sin(i / 6), y + 40 * Math.sin(i / 5));
      await page.mouse.move(x, y);
      await page.mouse.up({ button: 'middle' });
    });
    await row('scroll the list', 'wheel', async () => {
      const list = await page.getByRole('heading', { name: 'On the bed' }).boundingBox();
      await page.mouse.move(list.x + list.width / 2, list.y + 90);
      for (let i = 0; i < 40; i++) await page.mouse.wheel(0, i < 20 ? 400 : -400);
    });
    await row('select', 'pointerdown', async () => {
      for (let i = 0; i < 40; i++) {
        await page.mouse.click(x - 100 + i * 5, y - 40 + i * 2);
        await page.waitForTimeout(150);
      }
    });
    // Something is there.
    for (let i = 0; i < 40 && !(await card.isVisible()); i++) {
      x = bed.x + 80 + i * 11;
      y = bed.y + 60 + i * 9;
      await page.mouse.click(x, y);
      await page.waitForTimeout(100);
    }
    await row('drag', 'pointermove', async () => {
      await page.mouse.move(x, y);
      await page.mouse.down();
      for (let i = 0; i < 80; i++) await page.mouse.move(x + i, y + 20 * Math.sin(i / 6));
      await page.mouse.up();
    });
    await row('type a place', 'keydown', async () => {
      const field = page.getByLabel('X', { exact: true });
      for (let i = 0; i < 12; i++) {
        await field.fill(String(100 + i));
        await field.press('Enter');
        await page.waitForTimeout(150);
      }
    });
    await row('undo', 'keydown', async () => {
      await page.keyboard.press('Escape');
      for (let i = 0; i < 12; i++) {
        await page.keyboard.press('Control+z');
        await page.waitForTimeout(150);
      }
    });
    const session = await page.context().newCDPSession(page);
    await session.send('HeapProfiler.collectGarbage');
    const { usedSize } = await session.send('Runtime.getHeapUsage');
    opened.push({ name, openMs, heapMb: usedSize / 1e6 });
  }
  await browser.close();
  return { rows, opened };
}
