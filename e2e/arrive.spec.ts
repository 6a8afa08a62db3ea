import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { degrees, PDFDocument, rgb } from '@cantoo/pdf-lib';
import { boundsOf } from '@lambent/core/document';
import { encodePixels } from '@lambent/core/formats';
import { expect, test } from '@playwright/test';
import {
  bedPoint,
  bringIn,
  choose,
  newJob,
  offer,
  openStage,
  placeOf,
  rectangle,
  storedJob,
  svg,
  takeIt,
  typeInto,
} from './bench.ts';

const dxf = (header: string, entities: string) =>
  `0\nSECTION\n2\nHEADER\n${header}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const line = (...[x1, y1, x2, y2]: number[]) => `0\nLINE\n8\nPanel\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`;
const square = line(0, 0, 4, 0) + line(4, 2, 4, 0) + line(4, 2, 0, 2) + line(0, 0, 0, 2);

test('a drawing without a unit waits on its card until its size is settled', async ({ page }) => {
  await newJob(page, 'Panel');
  await offer(page, 'panel.dxf', dxf('', `${square}0\nPOINT\n10\n1\n20\n1\n`));
  await expect(page.getByTestId('arrival-count')).toHaveText('1 item · DXF');
  await expect(page.getByTestId('note-lines-joined')).toContainText(
    '4 loose lines whose ends meet are joined to 1 outline',
  );
  await expect(page.getByTestId('note-point')).toContainText('left out');
  await expect(page.getByTestId('arrival-size')).toHaveText('4 × 2 mm');
  expect((await storedJob(page)).document.drawing.items).toHaveLength(0);

  await choose(page, /^Read as/, /1 inch/);
  await expect(page.getByTestId('arrival-size')).toHaveText('101.6 × 50.8 mm');
  await typeInto(page, 'Known width', '2000');
  await expect(page.getByTestId('arrival-over')).toContainText('1400 mm wider and 600 mm higher than Wren’s bed');
  await typeInto(page, 'Known height', '40');
  await choose(page, /^Place: /, 'At a marked point, by its');
  const mark = await bedPoint(page, 100, 50);
  await page.mouse.click(mark.x, mark.y);
  await expect.poll(async () => Math.abs(Number(await page.getByLabel('Point X').inputValue()) - 100)).toBeLessThan(1);
  expect(Math.abs(Number(await page.getByLabel('Point Y').inputValue()) - 50)).toBeLessThan(1);
  await typeInto(page, 'Point X', '25');
  await typeInto(page, 'Point Y', '30');
  await takeIt(page);
  const { document } = await storedJob(page);
  expect(placeOf([...document.drawing.items])).toEqual([25, 30, 80, 40]);
  expect(document.arrivals).toMatchObject([{ file: 'panel.dxf', choices: {} }]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedJob(page)).document.drawing.items.length).toBe(0);
});

test('a file left on its card leaves nothing behind, and the next one follows', async ({ page }) => {
  await newJob(page, 'Two files');
  await page.getByTestId('file-chooser').setInputFiles(
    ['first.svg', 'second.svg'].map((name, i) => ({
      name,
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(svg(rectangle(10, 10, 20 + 30 * i, 20))),
    })),
  );
  await expect(page.getByText('first.svg')).toBeVisible();
  await expect(page.getByText('1 more waits')).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.getByText('second.svg')).toBeVisible();
  await takeIt(page);
  const { document } = await storedJob(page);
  expect(placeOf([...document.drawing.items])).toEqual([10, 10, 50, 20]);
});

test('a page of a PDF, turned, at its true size', async ({ page }) => {
  const file = await PDFDocument.create();
  file.addPage([200, 200]);
  const second = file.addPage([144, 288]);
  second.drawRectangle({
    x: 0,
    y: 0,
    width: 72,
    height: 144,
    borderColor: rgb(0.8157, 0.2824, 0.1176),
    borderWidth: 0.3,
  });
  second.setRotation(degrees(90));
  await newJob(page, 'From a PDF');
  await offer(page, 'sign.pdf', Buffer.from(await file.save()));
  await expect(page.getByTestId('note-nothing-drawn')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it' })).toBeDisabled();
  await choose(page, /^Page/, 'Page 2 of 2');
  await expect(page.getByTestId('arrival-size')).toHaveText('50.8 × 25.4 mm');
  await takeIt(page);
  const [item] = (await storedJob(page)).document.drawing.items;
  expect(placeOf(item)).toEqual([0, 0, 50.8, 25.4]);
  expect(item.paint.stroke).toBe('#D0481E');
});

test('a picture is kept with the job, shown, and said not to burn', async ({ page }) => {
  const png = await encodePixels({ width: 96, height: 48, rgb: new Uint8Array(96 * 48 * 3).fill(40) });
  await newJob(page, 'With a picture');
  await offer(page, 'heron.png', Buffer.from(png));
  await expect(page.getByTestId('note-no-physical-size')).toBeVisible();
  await expect(page.getByTestId('arrival-size')).toHaveText('25.4 × 12.7 mm');
  await choose(page, /^Read as/, /^300 to the inch/);
  await typeInto(page, 'Known width', '60');
  await takeIt(page);
  const [item] = (await storedJob(page)).document.drawing.items;
  expect(boundsOf(item).maxX - boundsOf(item).minX).toBeCloseTo(60, 6);
  const id = item.shape.kind === 'picture' ? item.shape.pictureId : '';
  expect(await (await page.request.get(`/api/pictures/${id}`)).body()).toEqual(Buffer.from(png));
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-picture-not-burnt')).toBeVisible();
});

test('a solid is cut where it is asked to', async ({ page }) => {
  const corners = [
    [0, 0],
    [30, 0],
    [30, 20],
    [0, 20],
  ];
  const facets = corners.flatMap(([ax, ay], i) => {
    const [bx, by] = corners[(i + 1) % 4];
    // Walls that lean inwards: at the top, 4 mm up, it is half as large.
    const top = (x: number, y: number) => [x / 2 + 7.5, y / 2 + 5, 4];
    return [
      [[ax, ay, 0], [bx, by, 0], top(bx, by)],
      [[ax, ay, 0], top(bx, by), top(ax, ay)],
    ];
  });
  const text = `solid base\n${facets.map((points) => `facet normal 0 0 0\nouter loop\n${points.map((p) => `vertex ${p.join(' ')}`).join('\n')}\nendloop\nendfacet`).join('\n')}\nendsolid`;
  await newJob(page, 'From a solid');
  await offer(page, 'base.stl', text);
  await expect(page.getByTestId('arrival-size')).toHaveText('22.5 × 15 mm');
  await choose(page, /^Where it is cut/, 'At 25 % of its height');
  await expect(page.getByTestId('arrival-size')).toHaveText('26.25 × 17.5 mm');
  await choose(page, /^Where it is cut/, 'All that it covers');
  await expect(page.getByTestId('arrival-size')).toHaveText('30 × 20 mm');
  await page.getByRole('button', { name: 'Leave it' }).click();
  expect((await storedJob(page)).document.drawing.items).toHaveLength(0);
});

test('a font that is missing is loaded from the card, and the text set in it', async ({ page }) => {
  const font = createRequire(import.meta.url).resolve(
    '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff',
  );
  await newJob(page, 'With text');
  await offer(
    page,
    'sign.svg',
    svg('<text x="20" y="50" font-family="Atkinson Hyperlegible" font-weight="bold" font-size="20">Sow</text>'),
  );
  await expect(page.getByTestId('note-font-substituted')).toContainText('“Atkinson Hyperlegible” is not here');
  await page
    .getByTestId('font-chooser')
    .setInputFiles({ name: 'nothing.ttf', mimeType: 'font/ttf', buffer: Buffer.from('no font') });
  await expect(page.getByText('nothing.ttf was not loaded.')).toBeVisible();
  await page.getByTestId('font-chooser').setInputFiles(font);
  await expect(page.getByText('Atkinson Hyperlegible is in the shop’s fonts.')).toBeVisible();
  await expect(page.getByTestId('note-font-substituted')).toHaveCount(0);
  await takeIt(page);
  const [text] = (await storedJob(page)).document.drawing.items;
  expect(text).toMatchObject({ name: 'Sow', paint: { fill: '#000000' } });
  for (const { id, family } of await (await page.request.get('/api/fonts')).json()) {
    if (family === 'Atkinson Hyperlegible') await page.request.delete(`/api/fonts/${id}`);
  }
});

test('SVG text that is pasted arrives as a file does', async ({ page }) => {
  await newJob(page, 'Pasted');
  await page.getByTestId('bed').evaluate(
    (bed, text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      bed.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    },
    svg(rectangle(15, 15, 40, 30)),
  );
  await expect(page.getByText('pasted.svg')).toBeVisible();
  await takeIt(page);
  expect(placeOf([...(await storedJob(page)).document.drawing.items])).toEqual([15, 15, 40, 30]);
});

test('what a clip took away can be brought in, and what was hidden', async ({ page }) => {
  const clipped =
    '<clipPath id="c"><rect x="0" y="0" width="50" height="100"/></clipPath>' +
    '<path d="M10 50h80" fill="none" stroke="#D0481E" stroke-width="0.1" clip-path="url(#c)"/>' +
    `<g display="none">${rectangle(100, 10, 20, 20)}</g>`;
  await newJob(page, 'Clipped', svg(clipped));
  let { document } = await storedJob(page);
  expect(placeOf(document.drawing.items.filter(({ hidden }) => !hidden))).toEqual([10, 50, 40.005, 0]);
  await expect(page.getByText('Hidden, not burnt: 2')).toBeVisible();
  await page.getByRole('button', { name: 'Bring all 2 in' }).click();
  ({ document } = await storedJob(page));
  expect(document.drawing.items.every(({ hidden }) => !hidden)).toBe(true);
  expect(placeOf([...document.drawing.items])).toEqual([10, 10, 110, 40]);
});

test('a file is read again with other choices, and what was done since stays', async ({ page }) => {
  const dashed =
    '<path d="M20 30h60" fill="none" stroke="#00806A" stroke-width="0.1" stroke-dasharray="6 4"/>' +
    rectangle(20, 50, 30, 20);
  await newJob(page, 'Dashes');
  await offer(page, 'dashes.svg', svg(dashed));
  await expect(page.getByTestId('note-dashes-as-solid')).toBeVisible();
  await takeIt(page);
  await page.getByTestId('bed').click({ position: { x: 4, y: 300 } });
  await page.keyboard.press('Control+a');
  await typeInto(page, 'X', '120');
  await page.getByRole('button', { name: 'Read dashes.svg again, with other choices' }).click();
  await choose(page, /^Dashed lines/, 'As their dashes');
  await expect(page.getByTestId('note-dashes')).toBeVisible();
  await page.getByRole('button', { name: 'Take it this way' }).click();
  const { document } = await storedJob(page);
  expect(document.drawing.items).toHaveLength(2);
  const [line] = document.drawing.items;
  expect(line.shape.kind === 'path' && line.shape.path.verbs.length).toBe(12);
  expect(placeOf([...document.drawing.items])[0]).toBe(120);
});

test('what goes out as DXF and PDF comes in again where it was', async ({ page }) => {
  await newJob(page, 'Round trip', svg(`${rectangle(20, 30, 40, 25)}<circle cx="100" cy="50" r="12" fill="#5B3FA0"/>`));
  const before = (await storedJob(page)).document.drawing.items;
  await openStage(page, 'Burn');
  for (const [format, name] of [
    ['DXF', 'round.dxf'],
    ['PDF', 'round.pdf'],
    ['SVG', 'round.svg'],
  ]) {
    await choose(page, /^Format/, format);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Save ${format}` }).click(),
    ]);
    const bytes = await readFile(await download.path());
    await openStage(page, 'Art');
    await bringIn(page, name, bytes);
    const { items } = (await storedJob(page)).document.drawing;
    const again = items.slice(-2);
    const kind = (paint: (typeof again)[number]['paint']) => [paint.stroke, paint.fill];
    const sorted = [...again].sort((a, b) => boundsOf(a).minX - boundsOf(b).minX);
    sorted.forEach((item, i) => {
      placeOf(item).forEach((value, k) => {
        expect(Math.abs(value - placeOf(before[i])[k])).toBeLessThan(0.01);
      });
      expect(kind(item.paint)).toEqual(kind(before[i].paint));
    });
    await page.keyboard.press('Control+z');
    await openStage(page, 'Burn');
  }
});

test('a picture of the job at the resolution that was chosen', async ({ page }) => {
  await newJob(page, 'As PNG', svg(rectangle(20, 30, 40, 25)));
  await openStage(page, 'Burn');
  await choose(page, /^Format/, 'PNG');
  await choose(page, /^Resolution/, '96 pixels to the inch');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PNG' }).click(),
  ]);
  const bytes = await readFile(await download.path());
  // Wren's bed is 600 × 400 mm.
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([2268, 1512]);
  expect(download.suggestedFilename()).toBe('As PNG.png');

  await page.getByText('Named As PNG.png').click();
  await page.getByLabel('Member this job is for').fill('Noor Castellan');
  await page.getByLabel('Member this job is for').press('Enter');
  await page.getByLabel('File names').fill('{date} {job}: {member}, run {run}');
  await page.getByLabel('File names').press('Enter');
  await expect(page.getByText(/^Named \d{4}-\d\d-\d\d As PNG- Noor Castellan, run 1.png/)).toBeVisible();
  await page.request.put('/api/settings', { data: { fileNames: '{job} {material} {thickness}' } });
});

test('the key that fits best is offered when a file arrives', async ({ page }) => {
  await newJob(page, 'Print colours');
  await offer(page, 'print.svg', svg(rectangle(10, 10, 40, 40, '#EC008C') + rectangle(20, 20, 9, 9, '#00AEEF')));
  await expect(page.getByText('All 2 colours mean something in “Ferry Steps print colours”')).toBeVisible();
  await page.getByRole('button', { name: 'Use “Ferry Steps print colours”' }).click();
  await expect(page.getByText('mean something in')).toBeHidden();
  await takeIt(page);
  await openStage(page, 'Colours');
  await expect(page.getByRole('button', { name: 'Colour key: Ferry Steps print colours' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'What #EC008C means: Cut' })).toBeVisible();
});

test('layers that a file of ours names are taken over its colours, or not', async ({ page }) => {
  const named = (operation: string, body: string) =>
    `<g aria-label="${operation}" data-lambent-layer="${operation.toLowerCase()}" data-lambent-operation="${operation.toLowerCase()}">${body}</g>`;
  const drawing = svg(named('Score', rectangle(10, 10, 40, 40)) + named('Cut', rectangle(70, 10, 40, 40)));
  await newJob(page, 'Came back');
  await offer(page, 'back.svg', drawing);
  await expect(page.getByTestId('note-layers-taken')).toContainText('Score, Cut');
  await takeIt(page);
  const pins = async () => (await storedJob(page)).document.drawing.items.map(({ pinned }) => pinned);
  expect(await pins()).toEqual(['score', null]);
  await offer(page, 'again.svg', drawing);
  await choose(page, /^Layers/, 'By colour');
  await expect(page.getByTestId('note-layers-taken')).toBeHidden();
  await takeIt(page);
  expect(await pins()).toEqual(['score', null, null, null]);
});

test('what arrives is put at one of nine places of the sheet, or by one of nine points at the mark', async ({
  page,
}) => {
  await newJob(page, 'Nine places');
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await choose(page, /^Machine: /, /^Dunlin/);
  const { sheets } = (await storedJob(page)).document;
  const [{ x, y, width, height, margin }] = sheets;
  const bounds = async () => placeOf((await storedJob(page)).document.drawing.items);
  await offer(page, 'plate.svg', svg(rectangle(20, 20, 60, 40)));
  await choose(page, /^Place: /, 'On the sheet, at its');
  await page.getByRole('button', { name: 'At the bottom right' }).click();
  await takeIt(page);
  expect(await bounds()).toEqual([x + width - margin - 60, y + height - margin - 40, 60, 40]);
  await page.keyboard.press('Control+z');
  // Dunlin counts from its bottom left: that corner is the one at the point, as it counts.
  await offer(page, 'plate.svg', svg(rectangle(20, 20, 60, 40)));
  await choose(page, /^Place: /, 'At a marked point, by its');
  await expect(page.getByRole('button', { name: 'By its bottom left' })).toHaveAttribute('aria-pressed', 'true');
  await typeInto(page, 'Point X', '30');
  await typeInto(page, 'Point Y', '50');
  await takeIt(page);
  expect(await bounds()).toEqual([30, 400 - 50 - 40, 60, 40]);
});
