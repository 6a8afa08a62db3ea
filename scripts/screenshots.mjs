// npm run screenshots: one PNG of each main view, from clean demo data, into docs/screenshots/.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkNode, ensureBuilt, ensureInstalled, root, startStack } from './lib.mjs';

checkNode();
ensureInstalled();
ensureBuilt();
const { chromium } = await import('@playwright/test');
const { default: config } = await import('../playwright.config.mjs');
const { greyPng } = await import('../demo/grey-png.mjs');
const { heronAtDusk } = await import('../demo/heron-at-dusk.mjs');

const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const dataFolder = mkdtempSync(join(tmpdir(), 'lambent-shots-'));
const { address, stop } = await startStack({ dataFolder, port: 7800, quiet: true });
// A shop that is new.
const newFolder = mkdtempSync(join(tmpdir(), 'lambent-shots-'));
const own = await startStack({
  dataFolder: newFolder,
  port: 7850,
  quiet: true,
  serverEnv: { LAMBENT_DEMO: '', LAMBENT_MACHINE_PORTS: '' },
});
const browser = await chromium.launch(config.use.launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shot = async (name) => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(folder, `${name}.png`) });
};
const open = async (title) => {
  await page.goto(`${address}/?show=all`);
  await page.getByRole('link', { name: title }).click();
  await page.getByTestId('step-cut-outer').waitFor();
  await page.mouse.move(40, 640);
};
const stranger = `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200">
  <g id="Shelf label"><rect x="40" y="40" width="120" height="60" rx="6" fill="none" stroke="#1D6FD1" stroke-width="0.1"/>
  <circle cx="52" cy="70" r="4" fill="none" stroke="#D0481E" stroke-width="0.1"/>
  <path d="M70 82h80" fill="none" stroke="#00806A" stroke-width="0.1"/></g>
  <rect x="40" y="120" width="120" height="60" fill="none" stroke="#D0481E" stroke-width="0.1"/>
  <rect x="160" y="120" width="60" height="60" fill="none" stroke="#D0481E" stroke-width="0.1"/>
  <path d="M180 60h40v25" fill="none" stroke="#D0481E" stroke-width="0.1"/><text x="70" y="60">Shelf 4</text></svg>`;

/** Tags, moons and leaves. */
const outline = (d) => `<path d="${d}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
const tags = `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200">
  ${outline('M20 20h50l14 14l-14 14h-50zM26 34a3 3 0 1 0 6 0a3 3 0 1 0 -6 0z')}
  <path d="M38 34h24" fill="none" stroke="#00806A" stroke-width="0.1"/>
  ${outline('M120 20a26 26 0 1 0 0 52a32 32 0 0 1 0 -52z')}
  ${outline('M160 60c0 -30 30 -40 60 -40c0 30 -10 60 -40 60c-12 0 -20 -8 -20 -20z')}</svg>`;

/** What somebody leaves at the drop-off: a bird to cut out and engrave, and a frame in a colour that means nothing here. */
const windowPiece = `<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="120mm" viewBox="0 0 180 120">
  ${outline('M14 84c16 -50 52 -66 92 -48c10 -10 24 -14 46 -12l-24 22c8 40 -16 58 -52 58c-28 0 -48 -8 -62 -20z')}
  ${outline('M88 22a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z')}
  <path d="M48 74c20 -26 44 -34 70 -32c-16 12 -24 16 -36 34c-10 6 -24 6 -34 -2z" fill="#5B3FA0"/>
  <path d="M34 92c24 -10 44 -10 62 -6c-18 8 -38 12 -62 6z" fill="#5B3FA0"/>
  <path d="M132 92h36v18h-36z" fill="none" stroke="#1C7ED6" stroke-width="0.2"/></svg>`;

const sign = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="700" viewBox="0 0 1200 700">
  <clipPath id="pane"><circle cx="640" cy="360" r="160"/></clipPath>
  <g clip-path="url(#pane)" fill="none" stroke="#5B3FA0">${Array.from({ length: 16 }, (_, i) => `<path d="M${450 + i * 26} 180q34 160 0 360"/>`).join('')}</g>
  <circle cx="640" cy="360" r="160" fill="none" stroke="#D0481E"/>
  <text x="840" y="350" font-size="56" font-family="Riverside, serif" fill="#5B3FA0">Sow in spring</text>
  <path d="M840 390h330" fill="none" stroke="#00806A" stroke-dasharray="9 5"/></svg>`;

const newJob = async (title) => {
  await page.goto(address);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Make the job' }).click();
  await page.getByRole('heading', { name: 'Art', exact: true }).waitFor();
};
/** A plate of birch with a hole, that is ready to be burnt. */
const readyJob = async (title, width, height) => {
  const job = { title, machineId: 'wren', materialId: 'birch-ply-3' };
  const { id } = await (await page.request.post(`${address}/api/jobs`, { data: job })).json();
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="-5 -5 ${width} ${height}">
    <rect width="${width - 10}" height="${height - 10}" rx="8" fill="none" stroke="#D0481E"/>
    <circle cx="${width / 2 - 5}" cy="12" r="5" fill="none" stroke="#D0481E"/></svg>`;
  const headers = { 'Content-Type': 'application/octet-stream' };
  await page.request.post(`${address}/api/jobs/${id}/drawings?name=plate.svg`, { data: Buffer.from(svg), headers });
  await page.request.put(`${address}/api/jobs/${id}/state`, { data: { state: 'ready' } });
};
const bringIn = async (name, svg) => {
  await page.getByTestId('file-chooser').setInputFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(svg) });
  await page.getByTestId('arrival-count').waitFor();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('heading', { name: 'Art', exact: true }).waitFor();
};
const bringInPhoto = async (name, picture) => {
  const buffer = await greyPng(picture);
  await page.getByTestId('file-chooser').setInputFiles({ name, mimeType: 'image/png', buffer });
  await page.getByTestId('arrival-count').waitFor();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('region', { name: `Picture ${name}` }).waitFor();
};
const material = async (name) => {
  await page.getByRole('button', { name: /^Material of the sheet/ }).click();
  await page.getByRole('option', { name }).click();
};
const making = async (name) => {
  await page.keyboard.press('4');
  const head = page.getByRole('button', { name: new RegExp(`^${name} `) });
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
};

try {
  // Open day and night, so that the day shows the same whenever this runs.
  await page.request.put(`${address}/api/settings`, { data: { opensAt: '00:00', closesAt: '00:00' } });
  await readyJob('Kite winder', 90, 140);
  await readyJob('Shelf edge labels', 180, 40);
  await readyJob('Nest box front', 150, 200);
  await page.goto(`${address}/?show=all`);
  await page.getByRole('button', { name: /^Lay them out/ }).waitFor();
  await page.getByText('being timed').waitFor({ state: 'detached' });
  await page.getByText('€').nth(10).waitFor();
  await shot('desk');

  await open(/Row markers/);
  await shot('bench-colours');
  await page.keyboard.press('2');
  await page.getByRole('button', { name: /^Marker Radish/ }).click();
  await page.mouse.move(40, 640);
  await shot('bench-art');
  await page.keyboard.press('5');
  await shot('bench-recipe');
  await page.keyboard.press('7');
  const place = page.getByLabel('Place in the preview');
  await place.fill(String(Number(await place.getAttribute('max')) * 0.9));
  await page.getByRole('heading', { name: 'Burn', level: 1 }).click();
  await shot('bench-preview');

  await open(/Drawer for packets/);
  await page.keyboard.press('2');
  await page
    .getByRole('button', { name: /^Drawer for packets/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Change numbers' }).click();
  await page.getByText('Goes together').waitFor();
  await page.getByRole('slider', { name: 'From closed to apart' }).fill('0.6');
  await page.mouse.move(40, 640);
  await shot('bench-built');

  await newJob('Plaque, second try');
  await material(/Slate/);
  await bringInPhoto('heron-at-dusk.png', heronAtDusk(900, 600));
  await page.keyboard.press('2');
  await page.getByRole('button', { name: 'Burn its greys' }).click();
  await page.getByRole('radio', { name: 'Dot screen' }).click();
  await page.getByTestId('step-photo-all').getByText('dot screen').waitFor();
  await page.getByTestId('burnt-split').locator('canvas').waitFor();
  await page.getByTestId('burnt-split').getByText('As it burns').waitFor();
  await page.mouse.move(40, 640);
  await page.waitForTimeout(1500);
  await shot('bench-photo');

  await open('Volunteer badges');
  await page.getByRole('button', { name: 'Runs: Holder' }).click();
  await page.getByRole('radio', { name: 'Look at Badges', exact: true }).check();
  await page.keyboard.press('Escape');
  await making('List');
  for (const name of ['Tobiah', 'Wilhelmina']) {
    await page.getByRole('button', { name: 'Row after' }).click();
    await page.getByRole('img', { name: `The design for ${name}` }).waitFor();
  }
  await page.mouse.move(40, 640);
  await shot('bench-list');

  await newJob('Tags of three kinds');
  await bringIn('tags.svg', tags);
  await material(/Cork/);
  await page.keyboard.press('Escape');
  await making('Pack');
  await page.getByLabel('How many of each').fill('14');
  await page.getByLabel('How many of each').press('Enter');
  await page.getByRole('button', { name: 'Look for a packing' }).click();
  await page.getByText(/^([2-9]\d|\d{3,}) tries, looking on/).waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Stop looking' }).click();
  await page.getByText(/^Burns in/).waitFor();
  await page.getByTestId('packing').scrollIntoViewIfNeeded();
  await page.mouse.move(40, 640);
  await shot('bench-pack');
  await page.getByRole('button', { name: 'Leave it' }).click();

  const alder = { name: 'Alder board', family: 'Solid wood', thicknessMm: 5, tone: '#E3C49A' };
  await page.request.post(`${address}/api/materials`, {
    data: { by: 'Ines Varga', material: { ...alder, sheetWidth: 400, sheetHeight: 300 } },
  });
  await newJob('Trying alder');
  await material(/Alder board/);
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'New test card' }).click();
  await page.getByRole('button', { name: /^Lay \d+ cells/ }).click();
  await page.getByTestId('card-block').waitFor();
  await page.getByRole('button', { name: /^Send / }).click();
  await page.getByRole('button', { name: 'how it came out' }).waitFor({ timeout: 60_000 });
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('button', { name: 'Grade all as the picture shows' }).click();
  await page.getByRole('button', { name: 'the best of them' }).click();
  await page.getByTestId('reading').getByTitle('66 %, 7.92 mm/s').click();
  await page.locator('[data-scrolls]').evaluate((drawer) => drawer.scrollTo(0, drawer.scrollHeight));
  await page.getByTestId('reading').locator('canvas').nth(1).waitFor();
  await page.mouse.move(40, 640);
  await shot('test-card');

  await page.goto(address);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Title').fill('Shelf labels');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await page
    .getByTestId('file-chooser')
    .setInputFiles({ name: 'shelf-labels.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(stranger) });
  await page.getByTestId('arrival-count').waitFor();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('heading', { name: 'Art', exact: true }).waitFor();
  await page.keyboard.press('Escape');
  await page
    .getByTestId('file-chooser')
    .setInputFiles({ name: 'window-sign.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(sign) });
  await page.getByTestId('arrival-count').waitFor();
  await page.mouse.move(40, 640);
  await shot('bench-arrival');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('button', { name: /^Material of the sheet/ }).click();
  await page.getByRole('option', { name: /Cork/ }).click();
  await page.keyboard.press('6');
  await page.mouse.move(40, 640);
  await shot('bench-check');

  await open(/Estuary relief/);
  await page.getByRole('button', { name: 'Send to Curlew' }).click();
  await page
    .getByTestId('step-score-all')
    .and(page.locator('[data-done]:not([data-done="0.000"])'))
    .waitFor({ timeout: 60_000 });
  await page.waitForTimeout(5000);
  await shot('bench-burning');
  await page.keyboard.press('Escape');
  await page.goto(`${address}/keys/grey-depth`);
  await page.getByTestId('key-trial').waitFor();
  await shot('colour-keys');
  await page.goto(`${address}/book/birch-ply-4`);
  await page.getByRole('table').first().waitFor();
  for (const speed of ['9.5', '10.5']) {
    await page.getByRole('row', { name: 'Curlew, Cut', exact: true }).getByLabel('Speed').fill(speed);
    await page.keyboard.press('Enter');
    await page.getByText(`→ ${speed} mm/s`).first().waitFor();
  }
  await page.locator('canvas').waitFor();
  await page.locator('main > div').evaluate((middle) => middle.scrollTo(0, 0));
  await shot('recipe-book');
  await page.goto(`${address}/machines`);
  await page.waitForTimeout(600);
  await shot('machines');
  await page.goto(`${address}/machines/curlew`);
  await page.getByRole('heading', { name: 'Curlew' }).waitFor();
  await shot('machine');

  await page.goto(`${address}/drop-off`);
  await page.getByTestId('sending-file').setInputFiles({
    name: 'kingfisher-window.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(windowPiece),
  });
  const wishes = page.getByRole('region', { name: 'What it is to be' });
  await wishes.getByText('Cast acrylic, clear').click();
  await wishes.getByRole('radio', { name: /Cast acrylic, clear/, checked: true }).waitFor({ state: 'attached' });
  await page.getByLabel('What to call it').fill('Kingfisher window piece');
  await page.getByRole('region', { name: 'Time and price' }).getByText('Could be ready').waitFor();
  await shot('drop-off');
  await page.goto(own.address);
  await page.getByLabel('Name of the shop').fill('Tern Lane Workshop');
  await page.getByLabel('Your name').fill('Ines Varga');
  await page.getByRole('button', { name: 'On to the machine' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Wren');
  await shot('first-run');
} finally {
  await browser.close();
  stop();
  own.stop();
  for (const made of [dataFolder, newFolder]) rmSync(made, { recursive: true, force: true });
}
