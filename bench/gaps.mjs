// How long the page shows no frame while it takes in, changes and opens very large drawings, in headless Chromium.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { jobMediaType, jobToJson, newJob } from '@lambent/core/document';
import { addItems } from '@lambent/core/edits';
import { identity } from '@lambent/core/geometry';
import { chromium } from '@playwright/test';
import config from '../playwright.config.mjs';

const svg = (body) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="600mm" height="400mm" viewBox="0 0 600 400">${body}</svg>`;

/** One outline of so many arcs, wandering over the bed. */
function arcsSvg(count) {
  const arcs = [];
  let [x, dx] = [10, 0.4];
  for (let i = 0; i < count; i++) {
    x += dx;
    if (x > 590 || x < 10) {
      dx = -dx;
      arcs.push('l0 .2');
    } else arcs.push(`a.3 .3 0 0 ${i % 2} ${dx} 0`);
  }
  return svg(`<path fill="none" stroke="#D0481E" stroke-width=".1" d="M10 10${arcs.join('')}"/>`);
}

/** So many circles as DXF. */
function circlesDxf(count) {
  const entities = [];
  for (let i = 0; i < count; i++) {
    entities.push(`0\nCIRCLE\n8\ncut\n10\n${(i % 380) * 1.5 + 5}\n20\n${Math.floor(i / 380) * 1.5 + 5}\n40\n0.6`);
  }
  return `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities.join('\n')}\n0\nENDSEC\n0\nEOF\n`;
}

/** A combination in a combination, so many deep. */
function nestedShape(depth) {
  let shape = { kind: 'ellipse', cx: 300, cy: 200, rx: 40, ry: 40 };
  for (let i = 1; i <= depth; i++) {
    const [cx, cy] = [300 + 120 * Math.cos(i), 200 + 120 * Math.sin(i)];
    const other = { kind: 'ellipse', cx, cy, rx: 60, ry: 50 };
    const part = (shape) => ({ name: null, shape, matrix: [1, 0, 0, 1, 0, 0], rule: 'nonzero' });
    shape = { kind: 'combined', how: 'exclude', parts: [part(shape), part(other)] };
  }
  return shape;
}

async function watch(page) {
  await page.evaluate(() => {
    window.gap_ = { longest: 0, last: performance.now() };
    const tick = (now) => {
      const gap = now - window.gap_.last;
      window.gap_.longest = Math.max(window.gap_.longest, gap);
      window.gap_.last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
}

/** @returns the longest gap since last asked, in ms, once two more frames were shown */
const longestGap = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve) =>
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            const { longest } = window.gap_;
            window.gap_.longest = 0;
            resolve(longest);
          }),
        ),
      ),
  );

async function makeJob(page, address, title) {
  await page.goto(address);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Make the job' }).click();
  await page.getByRole('heading', { name: 'Art' }).waitFor();
  await page.evaluate(() => document.fonts.ready);
}

async function newPage(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(120_000);
  page.on('pageerror', (error) => console.log(`   ${error.message}`));
  return page;
}

async function chooseFile(page, path, content) {
  writeFileSync(path, content);
  await watch(page);
  await longestGap(page);
  await page.getByTestId('file-chooser').setInputFiles(path);
}

async function openFromDesk(page, address, title) {
  await page.goto(address);
  const link = page.getByRole('link', { name: title });
  await link.waitFor();
  await watch(page);
  await link.click();
}

/** So many times each is measured: what else the machine does only makes a gap longer, and hits another one each time. */
const rounds = 3;

/** @param only measures what bears this in its name @returns rows of { what, doing, least, most }, in ms, of all rounds */
export async function benchGaps(address, only = null) {
  const all = [];
  for (let round = 1; round <= rounds; round++) all.push(await measureOnce(address, only, round));
  return all[0].map(({ what, doing }, i) => {
    const times = all.map((rows) => rows[i].ms);
    return { what, doing, least: Math.min(...times), most: Math.max(...times) };
  });
}

async function measureOnce(address, only, round) {
  const browser = await chromium.launch(config.use.launchOptions);
  const folder = mkdtempSync(join(tmpdir(), 'lambent-gaps-'));
  const rows = [];
  const titleOf = (what) => `${what}, round ${round}`;
  const note = async (page, what, doing) => {
    rows.push({ what, doing, ms: await longestGap(page) });
    console.log(`   ${what}, ${doing}: ${Math.round(rows.at(-1).ms)} ms`);
  };
  const files = [
    ['450,000 arcs', 'arcs.svg', () => arcsSvg(450_000)],
    ['95,000 circles of a DXF', 'circles.dxf', () => circlesDxf(95_000)],
  ];
  for (const [what, name, content] of files) {
    if (only && !what.includes(only)) continue;
    const page = await newPage(browser);
    await makeJob(page, address, titleOf(what));
    await chooseFile(page, join(folder, name), content());
    await page.getByTestId('arrival-count').waitFor();
    await note(page, what, 'read and shown');
    await page.getByRole('button', { name: 'Take it' }).click();
    await page.getByRole('heading', { name: 'Art', exact: true }).waitFor();
    await note(page, what, 'taken in');
    await page.getByText('saved', { exact: true }).waitFor();
    await note(page, what, 'saved');
    await page.getByTestId('plan-time').getByText('step').waitFor();
    await note(page, what, 'planned');
    await page.keyboard.press('Control+a');
    await note(page, what, 'all selected');
    await page.keyboard.press('ArrowRight');
    await note(page, what, 'moved');
    await page.keyboard.press('Control+z');
    await note(page, what, 'undone');
    await page.getByText('saved', { exact: true }).waitFor();
    await note(page, what, 'saved again');
    await openFromDesk(page, address, titleOf(what));
    await page.getByTestId('plan-time').getByText('step').waitFor();
    await note(page, what, 'opened');
    await page.close();
  }
  if (!only || '2,000,000 arcs'.includes(only)) {
    const what = '2,000,000 arcs';
    const page = await newPage(browser);
    await makeJob(page, address, titleOf(what));
    await chooseFile(page, join(folder, 'too-many.svg'), arcsSvg(2_000_000));
    await page.getByText('Lambent takes up to').waitFor();
    await note(page, what, 'refused');
    await page.close();
  }
  if (!only || '55 combinations'.includes(only)) {
    const what = '55 combinations in one another';
    const page = await newPage(browser);
    await makeJob(page, address, titleOf(what));
    const id = /jobs\/([^/]+)/.exec(page.url())[1];
    const item = {
      id: 'nested',
      name: null,
      shape: nestedShape(55),
      matrix: identity,
      paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    };
    const put = await page.request.put(`${address}/api/jobs/${id}?base=1&edit=nested`, {
      headers: { 'Content-Type': jobMediaType, Origin: address },
      data: JSON.stringify(jobToJson(addItems(newJob('wren', 'house'), [item]))),
    });
    if (!put.ok()) throw new Error(await put.text());
    await openFromDesk(page, address, titleOf(what));
    await page.getByTestId('plan-time').getByText('step').waitFor();
    await note(page, what, 'opened');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('ArrowRight');
    await page.getByText('saved', { exact: true }).waitFor();
    await note(page, what, 'moved');
    await page.close();
  }
  await browser.close();
  rmSync(folder, { recursive: true });
  return rows;
}
