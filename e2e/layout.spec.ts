import { boundsOf, placeDimension } from '@lambent/core/document';
import { expect, type Page, test } from '@playwright/test';
import {
  bedPoint,
  choose,
  clickBed,
  finishText,
  newJob,
  openStage,
  placeOf,
  pointAt,
  rectangle,
  storedJob,
  svg,
  tool,
  typeInto,
} from './bench.ts';

const document = async (page: Page) => (await storedJob(page)).document;
const items = async (page: Page) => (await document(page)).drawing.items;

test('guide lines are pulled out of the rulers, caught, moved, typed, and dropped back', async ({ page }) => {
  await newJob(page, 'Guides', svg(rectangle(20, 30, 50, 40)));
  const ruler = await page.getByTestId('ruler-down').boundingBox();
  const to = await bedPoint(page, 70, 200);
  await page.mouse.move((ruler?.x ?? 0) + 10, to.y);
  await page.mouse.down();
  await page.mouse.move(to.x - 60, to.y, { steps: 4 });
  // The right edge of the square catches it within some pixels.
  const edge = await bedPoint(page, 70, 70);
  await page.mouse.move(edge.x + 3, edge.y + 2, { steps: 4 });
  await page.mouse.up();
  expect((await document(page)).guides).toMatchObject([{ axis: 'x', at: 70 }]);

  const at = await bedPoint(page, 70, 300);
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await page.keyboard.down('Alt');
  await page.mouse.move(at.x + 40, at.y, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  expect((await document(page)).guides[0].at).toBeCloseTo(70 + 40 / at.scale, 0);
  await typeInto(page, 'Upright at X', '120 + 3/2');
  expect((await document(page)).guides).toMatchObject([{ axis: 'x', at: 121.5 }]);
  const now = await bedPoint(page, 121.5, 300);
  await page.mouse.move(now.x, now.y);
  await page.mouse.down();
  await page.mouse.move((ruler?.x ?? 0) - 8, now.y, { steps: 6 });
  await page.mouse.up();
  expect((await document(page)).guides).toEqual([]);
  await page.keyboard.press('Control+z');
  expect((await document(page)).guides).toHaveLength(1);
});

test('dimension marks measure an edge and between points, and follow', async ({ page }) => {
  await newJob(page, 'Measures', svg(rectangle(100, 100, 80, 40)));
  await tool(page, 'Dimension mark');
  // An edge, away from its ends and middle, then how far beside it.
  await clickBed(page, 120, 100);
  await clickBed(page, 140, 80, true);
  // Two corners.
  await clickBed(page, 100, 100);
  await clickBed(page, 180, 140);
  await clickBed(page, 200, 60, true);
  await page.keyboard.press('Escape');
  const first = await document(page);
  const values = (job: typeof first) => job.dimensions.map((mark) => placeDimension(job.drawing, mark)?.valueMm ?? 0);
  expect(values(first)).toEqual([80, Math.hypot(80, 40)].map((mm) => expect.closeTo(mm, 6)));
  expect(placeDimension(first.drawing, first.dimensions[0])?.lineFrom.y).toBeCloseTo(80, 0);
  await expect(page.getByText('Dimension marks: 2')).toBeVisible();

  await clickBed(page, 100, 120);
  await page.getByRole('button', { name: 'Proportions are kept' }).click();
  await typeInto(page, 'W', '50%');
  expect(values(await document(page))[0]).toBeCloseTo(40, 6);
  await page.getByRole('button', { name: 'Take this dimension mark away' }).first().click();
  expect((await document(page)).dimensions).toHaveLength(1);
  // What is measured goes, and the mark with it; undo brings both.
  await page.keyboard.press('Delete');
  expect((await document(page)).dimensions).toEqual([]);
  await page.keyboard.press('Control+z');
  expect((await document(page)).dimensions).toHaveLength(1);
});

test('a piece is made to stay put on the bed, and the rest aligned to it; gaps come out alike', async ({ page }) => {
  await newJob(page, 'Row', svg(rectangle(20, 20, 30, 20) + rectangle(65, 26, 30, 20) + rectangle(150, 60, 30, 20)));
  await page.keyboard.press('Control+a');
  await page.keyboard.down('Alt');
  const piece = await bedPoint(page, 65, 36);
  await page.mouse.click(piece.x, piece.y);
  await page.keyboard.up('Alt');
  await page.getByRole('button', { name: 'Middles up and down' }).click();
  expect((await items(page)).map((item) => placeOf(item)[1])).toEqual([26, 26, 26]);
  await page.keyboard.press('Escape');
  // Dragged near to where its gap would be the 15 mm of the other two.
  const from = await bedPoint(page, 150, 36);
  const to = await bedPoint(page, 110.8, 37.5);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
  expect(placeOf((await items(page))[2])[0]).toBeCloseTo(110, 3);
  await page.keyboard.press('Control+a');
  await choose(page, /^Spread by/, 'From centre to centre');
  await typeInto(page, 'Centres', '50');
  await page.getByRole('button', { name: 'In a row' }).click();
  expect((await items(page)).map((item) => placeOf(item)[0])).toEqual([20, 70, 120]);
});

test('two lines are led to each other in a corner that keeps its radius', async ({ page }) => {
  const path = (d: string) => `<path d="${d}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
  await newJob(page, 'Meeting', svg(path('M20 20H90') + path('M120 40V90')));
  await tool(page, 'Round or cut corners');
  await typeInto(page, 'Radius', '12');
  await clickBed(page, 50, 20, true);
  await clickBed(page, 120, 70, true);
  const [one, ...more] = await items(page);
  expect(more).toEqual([]);
  expect(one.shape).toMatchObject({ kind: 'path', corners: [{ x: 120, y: 20, kind: 'round', size: 12 }] });
  expect(placeOf(one)).toEqual([20, 20, 100, 70]);
  await typeInto(page, 'Corner 1', '20');
  expect((await items(page))[0].shape).toMatchObject({ corners: [{ size: 20 }] });
  await expect(page.getByRole('button', { name: /^Undo: change corner 1/ })).toBeVisible();
});

test('all corners of a selection at once, edges straightened, circles found again', async ({ page }) => {
  const ring = Array.from({ length: 60 }, (_, i) => {
    const angle = (i / 60) * 2 * Math.PI;
    return `${(150 + 20 * Math.cos(angle)).toFixed(4)},${(50 + 20 * Math.sin(angle)).toFixed(4)}`;
  }).join(' ');
  await newJob(
    page,
    'Corners',
    svg(
      `${rectangle(20, 20, 40, 30)}<polygon points="${ring}" fill="none" stroke="#D0481E" stroke-width="0.1"/>` +
        '<path d="M20 80C30 70 40 90 60 80" fill="none" stroke="#00806A" stroke-width="0.1"/>',
    ),
  );
  await clickBed(page, 20, 40);
  await tool(page, 'Round or cut corners');
  await typeInto(page, 'Radius', '4');
  await page.getByRole('button', { name: 'All of the selection' }).click();
  expect((await items(page))[0].shape).toMatchObject({
    corners: Array(4).fill({ size: 4 }).map(expect.objectContaining),
  });
  await page.keyboard.press('Escape');
  await clickBed(page, 170, 50);
  await page.getByRole('button', { name: 'Find arcs' }).click();
  await expect(page.getByText('1 arc found.')).toBeVisible();
  expect((await items(page))[1].shape).toMatchObject({ kind: 'ellipse', rx: expect.closeTo(20, 3) });

  await clickBed(page, 20, 80);
  await tool(page, 'Points (W)');
  await clickBed(page, 20, 80);
  await page.keyboard.down('Shift');
  await clickBed(page, 60, 80);
  await page.keyboard.up('Shift');
  await page.getByRole('button', { name: 'Straighten' }).click();
  expect(placeOf((await items(page))[2])).toEqual([20, 80, 40, 0]);
});

test('a text is led along a line and set straight again', async ({ page }) => {
  await newJob(
    page,
    'Round name',
    svg('<circle cx="100" cy="100" r="60" fill="none" stroke="#D0481E" stroke-width="0.1"/>'),
  );
  await tool(page, 'Text');
  await clickBed(page, 250, 60, true);
  await page.keyboard.type('Heronbrook');
  await finishText(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Lead the text along the line' }).click();
  await expect(page.getByRole('button', { name: /^Undo: lead a text/ })).toBeVisible();
  const text = (await items(page)).find(({ shape }) => shape.kind === 'text');
  if (!text) throw new Error('The text is gone');
  // It stands on the circle, from where that begins, at the right.
  const box = boundsOf(text);
  expect(box.minY).toBeGreaterThan(95);
  expect(box.maxX).toBeGreaterThan(160);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: '“Heronbrook”', exact: true }).click();
  await page.getByRole('button', { name: 'Set the text straight again' }).click();
  await expect(page.getByRole('button', { name: 'Set the text straight again' })).toBeHidden();
});

test('several sheets, one of them turned; another machine says what no longer fits', async ({ page }) => {
  await newJob(page, 'Two boards', svg(rectangle(20, 20, 30, 20) + rectangle(330, 40, 40, 20)));
  await openStage(page, 'Bed');
  await choose(page, /^Material: Choose/, /Birch plywood.*3 mm/);
  await typeInto(page, 'Width', '300');
  await choose(page, /^Material: Choose/, /Cork/);
  const widths = page.getByLabel('Width', { exact: true });
  await widths.nth(1).fill('120');
  await widths.nth(1).press('Enter');
  await page.getByLabel('Turned', { exact: true }).nth(1).fill('30');
  await page.getByLabel('Turned', { exact: true }).nth(1).press('Enter');
  const { sheets } = await document(page);
  expect(sheets).toMatchObject([
    { materialId: 'birch-ply-3', width: 300 },
    { width: 120, angle: -30 },
  ]);
  await openStage(page, 'Art');
  await clickBed(page, 20, 30);
  await page.getByRole('button', { name: /^Aligned to/ }).click();
  await expect(page.getByRole('option')).toContainText(['The selection', 'Birch plywood', 'Cork', 'The bed']);
  await page.keyboard.press('Escape');
  await choose(page, 'Machine: Wren', /Dunlin/);
  await expect(page.getByText(/The bed of Dunlin is 400 × 400 mm/)).toBeVisible();
});

test('outlines of thousands of points are put together off the page', async ({ page }) => {
  const blob = (cx: number) =>
    `<polygon fill="none" stroke="#D0481E" stroke-width="0.1" points="${Array.from({ length: 1500 }, (_, i) => {
      const [angle, r] = [(i / 1500) * 2 * Math.PI, 30 + (i % 2)];
      return `${(cx + r * Math.cos(angle)).toFixed(4)},${(50 + r * Math.sin(angle)).toFixed(4)}`;
    }).join(' ')}"/>`;
  await newJob(page, 'Heavy union', svg(blob(60) + blob(90)));
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Unite', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Undo: unite/ })).toBeVisible();
  const [made, ...more] = await items(page);
  expect(more).toEqual([]);
  expect(made.shape.kind).toBe('combined');
  expect(placeOf(made)[2]).toBeGreaterThan(91);
});

test('the selection is put on a layer by hand, over the key, and handed back', async ({ page }) => {
  await newJob(page, 'Pinned', svg(rectangle(20, 20, 30, 20)));
  await clickBed(page, 20, 30);
  await choose(page, /^Layer of the selection/, /Guide/);
  expect((await items(page))[0].pinned).toBe('guide');
  await page.getByRole('button', { name: 'Unpin' }).click();
  expect((await items(page))[0].pinned).toBeNull();
  await expect(page.getByRole('button', { name: 'Layer of the selection: Cut' })).toBeVisible();
});

test('mirrored over an edge of its own, and the point marked by M is caught', async ({ page }) => {
  await newJob(page, 'Mirrored', svg(rectangle(20, 20, 30, 20)));
  await clickBed(page, 20, 30);
  await page.getByRole('button', { name: 'right', exact: true }).click();
  await page.getByRole('button', { name: 'at its point' }).click();
  expect(placeOf((await items(page))[0])).toEqual([50, 20, 30, 20]);
  await pointAt(page, 50.6, 20.5);
  await page.keyboard.press('m');
  expect((await document(page)).mark).toEqual({ x: expect.closeTo(50, 9), y: expect.closeTo(20, 9) });
});
