import { boundsOf, type Item, pathOf } from '@lambent/core/document';
import { encodePixels } from '@lambent/core/formats';
import { subpathsOf } from '@lambent/core/geometry';
import { expect, test } from '@playwright/test';
import {
  bringIn,
  burntLengths,
  choose,
  clickBed,
  drawTyped,
  finishText,
  items,
  newJob,
  openStage,
  pointAt,
  rectangle,
  rows,
  svg,
  takeIt,
  tool,
  typeInto,
} from './bench.ts';

const boxOf = (item: Item) => {
  const { minX, minY, maxX, maxY } = boundsOf(item);
  return [minX, minY, maxX, maxY].map((value) => Math.round(value * 1000) / 1000);
};
const offsetOf = (all: readonly Item[]) => all.find(({ shape }) => shape.kind === 'offset') as Item;

test('an offset is shown, made onto a layer, and follows its source until it is settled', async ({ page }) => {
  await newJob(page, 'Coaster');
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await tool(page, 'Rectangle');
  await drawTyped(page, 60, 60, '50', '30');
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '2.5');
  await choose(page, /^Layer/, /^Score/);
  await page.getByRole('button', { name: 'Make the offset' }).click();
  await expect(page.getByRole('button', { name: /Undo: offset 2.5 mm/ })).toBeVisible();
  let [made, source] = await items(page);
  expect(made).toMatchObject({ pinned: 'score', shape: { kind: 'offset', sources: [source.id] } });
  expect(boxOf(made)).toEqual([57.5, 57.5, 112.5, 92.5]);
  const burnt = await burntLengths(page);
  expect(burnt['score all']).toBeCloseTo(160 + 2 * Math.PI * 2.5, 1);

  // The source is made wider: what follows it is wider too, and after undo as it was.
  await openStage(page, 'Art');
  await rows(page, 'Rectangle').first().click();
  await typeInto(page, 'W', '70');
  [made] = await items(page);
  expect(boxOf(made)).toEqual([57.5, 57.5, 132.5, 92.5]);
  await page.keyboard.press('Control+z');
  expect(boxOf((await items(page))[0])).toEqual([57.5, 57.5, 112.5, 92.5]);

  // It can be given another distance, and settled.
  await page.getByRole('button', { name: 'Offset', exact: true }).first().click();
  await typeInto(page, 'Outward by', '4');
  expect(boxOf(offsetOf(await items(page)))).toEqual([56, 56, 114, 94]);
  await page.getByRole('button', { name: 'Settle it' }).click();
  await rows(page, 'Rectangle').last().click();
  // The card shows the source by now, and what is typed is its.
  await expect(page.getByLabel('W', { exact: true })).toHaveValue('50.00');
  await typeInto(page, 'W', '60');
  [made, source] = await items(page);
  expect(made.shape).toMatchObject({ kind: 'rectangle', width: 58, height: 38, rx: 4 });
  expect([boxOf(made), boxOf(source)]).toEqual([
    [56, 56, 114, 94],
    [60, 60, 120, 90],
  ]);
});

test('the outline that is shown is pulled to a distance; at 0 the outline itself burns on a second layer', async ({
  page,
}) => {
  await newJob(page, 'Pulled', svg('<path d="M60 30h60v40h-60z" fill="#5B3FA0"/>'));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await page.keyboard.press('Control+a');
  const [plate] = await items(page);
  const { maxX, minY, maxY } = boundsOf(plate);
  const middle = (minY + maxY) / 2;
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '4');
  await choose(page, /^Layer/, /^Cut/);
  await expect(page.getByRole('button', { name: 'Make the offset' })).toBeEnabled();
  await page.keyboard.press('b');
  await pointAt(page, maxX + 4, middle + 12);
  await page.mouse.down();
  await pointAt(page, maxX + 9, middle + 12);
  await page.mouse.up();
  const distance = Number(await page.getByLabel('Distance', { exact: true }).inputValue());
  expect(Math.abs(distance - 9)).toBeLessThan(0.6);
  await page.getByRole('button', { name: 'Make the offset' }).click();
  const made = offsetOf(await items(page));
  expect(boundsOf(made).maxX - maxX).toBeCloseTo(distance, 2);
  await page.keyboard.press('Control+z');

  await openStage(page, 'Art');
  await rows(page, 'Path').first().click();
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '0');
  await choose(page, /^Layer/, /^Cut/);
  await page.getByRole('button', { name: 'Burn it on Cut as well' }).click();
  const all = await items(page);
  expect(all).toHaveLength(1);
  expect(all[0].also).toBe('cut');
  const burnt = await burntLengths(page);
  expect(burnt['cut outer']).toBeCloseTo(200, 1);
  expect(burnt['engrave all']).toBeGreaterThan(1000);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'Take back' }).click();
  expect((await items(page))[0].also).toBeUndefined();
});

test('nested contours inward stop where nothing is left, which is said; the source becomes a guide', async ({
  page,
}) => {
  await newJob(page, 'Contours');
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await tool(page, 'Ellipse');
  await drawTyped(page, 120, 120, '40', '40');
  await openStage(page, 'Fit');
  await choose(page, 'Way: Outward', 'Inward');
  await typeInto(page, 'Distance', '4');
  await typeInto(page, 'How many', '6');
  await typeInto(page, 'Step', '4');
  await expect(page.getByRole('status').filter({ hasText: 'Nothing is left' })).toHaveText(
    'Nothing is left 20 mm inward. Nothing is left 24 mm inward.',
  );
  await choose(page, /^Source/, /Becomes a guide/);
  await page.getByRole('button', { name: 'Make 4 offsets' }).click();
  const all = await items(page);
  expect(all.map((item) => boundsOf(item).maxX - boundsOf(item).minX)).toEqual(
    [32, 24, 16, 8, 40].map((width) => expect.closeTo(width, 3)),
  );
  expect(all.at(-1)?.pinned).toBe('guide');
  // A circle stays one: four of eight segments.
  expect([...subpathsOf(pathOf(all[0]))].map(({ segments }) => segments.length)).toEqual([8]);
  const burnt = await burntLengths(page);
  // Lit lengths are those of the chords it is burnt in.
  expect(Math.abs(burnt['cut inner'] + burnt['cut outer'] - Math.PI * (32 + 24 + 16 + 8))).toBeLessThan(0.1);
});

test('what follows a very fine outline is worked out aside, and is where it should be in the end', async ({ page }) => {
  const points = Array.from({ length: 4000 }, (_, i) => {
    const angle = (Math.PI * i) / 2000;
    const radius = 30 + Math.sin(angle * 40);
    return `${(80 + radius * Math.cos(angle)).toFixed(3)} ${(50 + radius * Math.sin(angle)).toFixed(3)}`;
  });
  await newJob(page, 'Fine', svg(`<path d="M${points.join('L')}Z" fill="none" stroke="#D0481E" stroke-width="0.1"/>`));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await page.keyboard.press('Control+a');
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '3');
  await page.getByRole('button', { name: 'Make the offset' }).click();
  await expect(page.getByRole('button', { name: /Undo: offset 3 mm/ })).toBeVisible();
  const before = offsetOf(await items(page));
  await openStage(page, 'Art');
  await rows(page, 'Path').first().click();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => {
      const now = offsetOf(await items(page));
      return [boundsOf(now).minX - boundsOf(before).minX, now.shape.kind === 'offset' && now.shape.stale];
    })
    .toEqual([expect.closeTo(2, 3), undefined]);
  // It is no step of its own: two steps take the move back.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect(boundsOf(offsetOf(await items(page))).minX).toBeCloseTo(boundsOf(before).minX, 6);
});

test('an offset of a hundred thousand nodes says how far it has got, can be stopped, and is made in the end', async ({
  page,
}) => {
  // A hundred wavy outlines of a thousand curves each.
  const at = (x: number, y: number) => `${x.toFixed(2)} ${y.toFixed(2)}`;
  const outlines = Array.from({ length: 100 }, (_, nth) => {
    const [cx, cy] = [20 + (nth % 10) * 40, 20 + Math.floor(nth / 10) * 24];
    const point = (i: number, more = 0) => {
      const angle = (2 * Math.PI * i) / 1000;
      const radius = 9 + 0.8 * Math.sin(90 * angle) + more;
      return at(cx + radius * Math.cos(angle), cy + radius * Math.sin(angle));
    };
    const legs = Array.from(
      { length: 1000 },
      (_, i) => `C${point(i + 0.33, 0.02)} ${point(i + 0.66, 0.02)} ${point(i + 1)}`,
    );
    return `M${point(0)}${legs.join('')}Z`;
  });
  await newJob(
    page,
    'Hundred thousand',
    svg(`<path d="${outlines.join('')}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`),
  );
  await page.keyboard.press('Control+a');
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '0.7');
  const bar = page.getByRole('progressbar', { name: 'Working it out' });
  await expect(bar).toBeVisible();
  await expect.poll(async () => Number(await bar.getAttribute('aria-valuenow'))).toBeGreaterThan(10);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('It was stopped. Change a value to try again.')).toBeVisible();
  await expect(bar).toBeHidden();
  await typeInto(page, 'Distance', '0.6');
  await expect(page.getByRole('button', { name: 'Make the offset' })).toBeEnabled();
  await page.getByRole('button', { name: 'Make the offset' }).click();
  const made = offsetOf(await items(page));
  expect(boundsOf(made).minX).toBeCloseTo(20 - 9.8 - 0.6, 1);
});

test('an open line: around it with flat ends, or beside it', async ({ page }) => {
  await newJob(page, 'Open');
  await tool(page, 'Line');
  await clickBed(page, 60, 60);
  await clickBed(page, 160, 60);
  await page.keyboard.press('Enter');
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '5');
  await choose(page, /^Ends/, 'Flat');
  await page.getByRole('button', { name: 'Make the offset' }).click();
  expect(boxOf(offsetOf(await items(page)))).toEqual([60, 55, 160, 65]);
  await page.keyboard.press('Control+z');
  await openStage(page, 'Art');
  await rows(page, 'Path').first().click();
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '5');
  await choose(page, /^Open lines/, 'On its left');
  await page.getByRole('button', { name: 'Make the offset' }).click();
  const beside = offsetOf(await items(page));
  expect([...subpathsOf(pathOf(beside))].map(({ closed }) => closed)).toEqual([false]);
  expect(boxOf(beside).filter((_, i) => i % 2 === 1)).toEqual([65, 65]);
});

test('a border around a name and a silhouette: one piece, a loop where it is clicked, and it follows', async ({
  page,
}) => {
  // A bird as a tracing gives it: curves, its eye a hole.
  const bird =
    '<path d="M60 90 C70 60 110 55 125 80 C140 78 150 84 158 92 C146 92 138 96 130 104 C118 122 84 124 60 90 Z M118 84 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0 Z" fill="#303236" fill-rule="evenodd"/>';
  await newJob(page, 'Pendant', svg(bird));
  await tool(page, 'Text');
  await clickBed(page, 75, 140, true);
  await page.keyboard.type('Finn');
  await finishText(page);
  await openStage(page, 'Fit');
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: /^Border/ }).click();
  await typeInto(page, 'Bridge gaps to', '0');
  await expect(page.getByText(/^It is \d+ pieces: one piece needs gaps of up to [\d.]+ mm bridged\.$/)).toBeVisible();
  await typeInto(page, 'Bridge gaps to', '30');
  await expect(page.getByText('It is one piece.')).toBeVisible();
  await page.getByLabel('with a loop to hang it by').check();
  await page.getByRole('button', { name: 'Place the loop on the bed' }).click();
  await clickBed(page, 90, 58, true);
  await expect(page.getByText('It is one piece.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the border' }).click();
  const border = (all: readonly Item[]) => all.find(({ shape }) => shape.kind === 'border') as Item;
  let all = await items(page);
  const made = border(all);
  expect(made.pinned).toBe('cut');
  // One edge, and the hole of the loop; everything lies at least 3 mm inside it.
  const rings = [...subpathsOf(pathOf(made))];
  expect(rings).toHaveLength(2);
  const inside = boundsOf(all.find(({ shape }) => shape.kind === 'path') as Item);
  expect(boundsOf(made).minX).toBeCloseTo(inside.minX - 3, 1);
  await expect(page.getByRole('button', { name: /Undo: border/ })).toBeVisible();
  // The name is made longer, and the border with it.
  await openStage(page, 'Art');
  await page.getByRole('button', { name: '“Finn”', exact: true }).click();
  await page.getByRole('button', { name: 'Change the text' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Finn the kingfisher');
  await finishText(page);
  await expect(page.getByRole('button', { name: '“Finn the kingfisher”', exact: true })).toBeVisible();
  all = await items(page);
  expect(boundsOf(border(all)).maxX).toBeGreaterThan(boundsOf(made).maxX + 5);
  expect([...subpathsOf(pathOf(border(all)))]).toHaveLength(2);
  await page.getByRole('button', { name: 'Border', exact: true }).first().click();
  await page.getByRole('button', { name: 'Remove the loop' }).click();
  expect([...subpathsOf(pathOf(border(await items(page))))]).toHaveLength(1);
});

test('a border goes around what shows of a picture', async ({ page }) => {
  // A black square of 40 pixels in a white picture of 120: at 96 to the inch, 10.58 mm in 31.75.
  const rgb = new Uint8Array(120 * 120 * 3).fill(255);
  for (let y = 30; y < 70; y++) rgb.fill(0, 3 * (120 * y + 50), 3 * (120 * y + 90));
  await newJob(page, 'Stamp');
  await bringIn(page, 'stamp.png', Buffer.from(await encodePixels({ width: 120, height: 120, rgb })));
  await page.keyboard.press('Control+a');
  await openStage(page, 'Fit');
  await page.getByRole('button', { name: /^Border/ }).click();
  await expect(page.getByText('It is one piece.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the border' }).click();
  const all = await items(page);
  const made = all.find(({ shape }) => shape.kind === 'border') as Item;
  const { minX, maxX } = boundsOf(made);
  expect(maxX - minX).toBeCloseTo((40 * 25.4) / 96 + 6, 1);
  expect(minX - boundsOf(all.find(({ shape }) => shape.kind === 'picture') as Item).minX).toBeCloseTo(
    (50 * 25.4) / 96 - 3,
    1,
  );
});

test('the outline around a text follows what it says', async ({ page }) => {
  await newJob(page, 'Name');
  await tool(page, 'Text');
  await clickBed(page, 75, 120, true);
  await page.keyboard.type('Noor');
  await finishText(page);
  await openStage(page, 'Fit');
  await typeInto(page, 'Distance', '3');
  await page.getByRole('button', { name: 'Make the offset' }).click();
  const widthOf = (item: Item) => boundsOf(item).maxX - boundsOf(item).minX;
  const isText = ({ shape }: Item) => shape.kind === 'text';
  const before = await items(page);
  expect(widthOf(offsetOf(before))).toBeCloseTo(widthOf(before.find(isText) as Item) + 6, 1);
  await openStage(page, 'Art');
  await page.getByRole('button', { name: '“Noor”', exact: true }).click();
  await page.getByRole('button', { name: 'Change the text' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Noor & Finn');
  await finishText(page);
  await expect(page.getByRole('button', { name: '“Noor & Finn”', exact: true })).toBeVisible();
  const after = await items(page);
  expect(widthOf(offsetOf(after))).toBeCloseTo(widthOf(after.find(isText) as Item) + 6, 1);
  expect(widthOf(offsetOf(after))).toBeGreaterThan(widthOf(offsetOf(before)) + 5);
});

test('a kerf is applied when it is burnt, and never in the drawing', async ({ page }) => {
  await newJob(page, 'Kerf', svg(`${rectangle(20, 20, 60, 40)}${rectangle(30, 30, 10, 10)}`));
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
  await openStage(page, 'Recipe');
  await typeInto(page, 'Kerf', '0.2');
  const burnt = await burntLengths(page);
  expect(burnt['cut outer']).toBeCloseTo(200 + 0.2 * Math.PI, 1);
  expect(burnt['cut inner']).toBeCloseTo(4 * 9.8, 1);
  const [plate] = await items(page);
  expect(boundsOf(plate).maxX - boundsOf(plate).minX).toBeCloseTo(60, 6);

  // A slot that the beam would take away whole is said, where it is.
  await typeInto(page, 'Kerf', '1.5');
  await openStage(page, 'Art');
  await page.getByTestId('file-chooser').setInputFiles({
    name: 'slot.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(svg(rectangle(50, 45, 12, 1.2))),
  });
  await takeIt(page);
  await openStage(page, 'Check');
  await expect(page.getByText('Narrower than the kerf')).toBeVisible();
  await expect(page.getByText('1 hole is no wider than the kerf of 1.5 mm, and would not be burnt.')).toBeVisible();
  await openStage(page, 'Recipe');
  await typeInto(page, 'Kerf', '0');
  await openStage(page, 'Check');
  await expect(page.getByText('Narrower than the kerf')).toBeHidden();
});
