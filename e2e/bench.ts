import { readFileSync } from 'node:fs';
import type { JobAnswer, JobCard } from '@lambent/contracts';
import { boundsOf, boundsOfAll, type Item, jobFromJson } from '@lambent/core/document';
import { planJob, prepareJob } from '@lambent/core/plan';
import { type APIRequestContext, expect, type Page } from '@playwright/test';

export const drawings = new URL('../demo/drawings/', import.meta.url);

/** Opens a job from the Desk and waits until its plan is there. */
export async function openJob(page: Page, title: string): Promise<void> {
  await page.goto(`/?show=all&seek=${encodeURIComponent(title)}`);
  await page.getByRole('link', { name: title }).first().click();
  await expect(page.getByTestId('plan-time')).toContainText('step');
}

/**
 * Opens a new job of a test's own, on Wren, with a drawing of the demo or of SVG text brought in. The job is made over
 * HTTP: how it is made on the Desk is the test of an own file's business.
 */
export async function newJob(page: Page, title: string, svg?: string): Promise<void> {
  const made = await page.request.post('/api/jobs', { data: { title, machineId: 'wren' } });
  expect(made.status()).toBe(201);
  await page.goto(`/jobs/${((await made.json()) as JobAnswer).id}/art`);
  await onPage(page, () =>
    Array.from(document.querySelectorAll('h1, h2, h3')).some((one) => one.textContent === 'Art'),
  );
  if (svg === undefined) return;
  await bringIn(page, 'drawing.svg', svg);
}

/** Says who is at this screen. */
export async function sayWho(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^At this screen/ }).click();
  const loaded = page.waitForEvent('load');
  await page.getByRole('list', { name: 'People of the demo' }).getByText(name).click();
  await loaded;
  await expect(page.getByRole('button', { name: `At this screen: ${name}` })).toBeVisible();
}

/** Brings a file in and takes it as its card proposes. */
export async function bringIn(page: Page, name: string, content: string | Buffer): Promise<void> {
  await offer(page, name, content);
  await takeIt(page);
}

/** Takes the file whose card is open, and waits until it is in the job. */
export async function takeIt(page: Page): Promise<void> {
  await onPage(page, () =>
    Array.from(document.querySelectorAll('button')).some((one) => one.textContent === 'Take it'),
  );
  await page.getByRole('button', { name: 'Take it' }).click();
  // A picture shows how it is to burn, a drawing its list.
  const lists = page.getByRole('heading', { name: 'Art', exact: true });
  await expect(lists.or(page.getByRole('region', { name: /^Picture / }))).toBeVisible();
}

/** Chooses a file, and leaves its card open. */
export async function offer(page: Page, name: string, content: string | Buffer): Promise<void> {
  await page.getByTestId('file-chooser').setInputFiles({
    name,
    mimeType: 'application/octet-stream',
    buffer: Buffer.isBuffer(content) ? content : Buffer.from(content),
  });
}

export function svg(body: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">${body}</svg>`;
}

export const rectangle = (x: number, y: number, width: number, height: number, stroke = '#D0481E') =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="none" stroke="${stroke}" stroke-width="0.1"/>`;

export function demoDrawing(name: string): string {
  return readFileSync(new URL(name, drawings), 'utf8');
}

export async function saved(page: Page): Promise<void> {
  await onPage(page, () => document.querySelector('[data-testid="save-state"]')?.textContent === 'saved');
}

/**
 * Waits until something is so on the page, looked at with each frame: for what every test waits for. `expect` and
 * `click` look again after 0.1, 0.25, 0.5 and 1 s, which came to minutes over all tests.
 */
async function onPage(page: Page, isSo: () => boolean): Promise<void> {
  await page.waitForFunction(isSo, null, { polling: 'raf', timeout: 120_000 });
}

/** The job as it is stored, once what is on screen is saved. */
export async function storedJob(page: Page) {
  await saved(page);
  const id = /jobs\/([^/]+)/.exec(page.url())?.[1];
  const answer = (await (await page.request.get(`/api/jobs/${id}`)).json()) as JobAnswer;
  return { ...answer, document: jobFromJson(answer.document) };
}

/** The items of the stored job, from back to front. */
export const items = async (page: Page) => (await storedJob(page)).document.drawing.items;

/** Bounds as x, y, width, height in bed mm, to 0.001. */
export function placeOf(items: readonly Item[] | Item): number[] {
  const box = Array.isArray(items) ? boundsOfAll(items) : boundsOf(items as Item);
  return [box.minX, box.minY, box.maxX - box.minX, box.maxY - box.minY].map((mm) => Math.round(mm * 1000) / 1000 || 0);
}

export async function cards(request: APIRequestContext): Promise<JobCard[]> {
  return (await (await request.get('/api/jobs')).json()) as JobCard[];
}

/** Chooses from one of our lists by the words on it. */
export async function choose(page: Page, list: string | RegExp, option: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: list }).first().click();
  await page.getByRole('option', { name: option }).click();
}

/** The rows of what is on the bed that are called so; those that are called alike say how large they are, and where. */
export const rows = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^${name}(?: ?\\d.*)?$`) });

export async function typeInto(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** Holds back what the page asks of an address of the server until the function that this gives back is called. */
export async function holdAnswers(page: Page, address: string): Promise<() => void> {
  let release = () => {};
  const released = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route(address, async (route) => {
    await released;
    await route.continue();
  });
  return release;
}

/** A new job with a drawing on a sheet of birch plywood, 3 mm. */
export async function newJobOnPlywood(page: Page, title: string, body: string): Promise<void> {
  await newJob(page, title, svg(body));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
}

export async function openStage(page: Page, name: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
}

/** Where a place of the bed (mm from its top left) is on the page, in pixels, when the whole bed is shown. */
export async function bedPoint(page: Page, x: number, y: number, bed = { width: 600, height: 400 }) {
  const frame = await page.getByTestId('bed').boundingBox();
  if (!frame) throw new Error('The bed is not shown');
  const [width, height] = [Math.floor(frame.width - 22), Math.floor(frame.height - 22)];
  const scale = Math.min((width - 64) / bed.width, (height - 64) / bed.height);
  return {
    x: frame.x + 22 + width / 2 + (x - bed.width / 2) * scale,
    y: frame.y + 22 + height / 2 + (y - bed.height / 2) * scale,
    scale,
  };
}

/** Takes a drawing tool to hand by its button. */
export async function tool(page: Page, name: string): Promise<void> {
  await page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name }).click();
}

/** Moves the pointer to a place of the bed, while the whole bed is shown. */
export async function pointAt(page: Page, x: number, y: number): Promise<void> {
  const at = await bedPoint(page, x, y);
  await page.mouse.move(at.x, at.y, { steps: 3 });
}

/** Clicks a place of the bed. `free` holds Alt, so that nothing catches the point. */
export async function clickBed(page: Page, x: number, y: number, free = false): Promise<void> {
  if (free) await page.keyboard.down('Alt');
  await pointAt(page, x, y);
  await page.mouse.down();
  await page.mouse.up();
  if (free) await page.keyboard.up('Alt');
}

/** Clicks a place of the bed twice. The browser is told when: on a busy machine the two would come too far apart. */
export async function doubleClickBed(page: Page, x: number, y: number): Promise<void> {
  const place = await bedPoint(page, x, y);
  await page.mouse.move(place.x, place.y, { steps: 3 });
  const input = await page.context().newCDPSession(page);
  const start = Date.now() / 1000;
  for (const [i, clickCount] of [1, 1, 2, 2].entries()) {
    const type = i % 2 === 0 ? 'mousePressed' : 'mouseReleased';
    const event = { ...place, type, button: 'left', clickCount, timestamp: start + i / 20 } as const;
    await input.send('Input.dispatchMouseEvent', event);
  }
  await input.detach();
}

/** Draws with the tool at hand: a click, then the sizes typed. */
export async function drawTyped(page: Page, x: number, y: number, ...sizes: string[]): Promise<void> {
  await clickBed(page, x, y, true);
  await pointAt(page, x + 20, y + 20);
  for (const [i, size] of sizes.entries()) {
    if (i > 0) await page.keyboard.press('Tab');
    await page.keyboard.type(size);
  }
  await page.keyboard.press('Enter');
}

/** The shop as the server has it. */
export async function shopOf(page: Page) {
  const get = async (path: string) => (await page.request.get(`/api/${path}`)).json();
  return { machines: await get('machines'), materials: await get('materials'), keys: await get('colour-keys') };
}

/** What the plan of the stored job burns, by step title, in mm. */
export async function burntLengths(page: Page): Promise<Record<string, number>> {
  const { document } = await storedJob(page);
  const { steps } = planJob(prepareJob(document, await shopOf(page)));
  return Object.fromEntries(
    steps.map((step) => [`${step.operation} ${step.part}`, Math.round(step.litMm * 1000) / 1000]),
  );
}

/** Puts the text on its card into the drawing, and waits until it is there. */
export async function finishText(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('region', { name: 'Text', exact: true })).toHaveCount(0);
}
