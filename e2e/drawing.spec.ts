import { boundsOf, type Item, pathOf } from '@lambent/core/document';
import { subpathsOf } from '@lambent/core/geometry';
import { expect, type Page, test } from '@playwright/test';
import {
  bedPoint,
  burntLengths,
  choose,
  clickBed,
  doubleClickBed,
  drawTyped,
  finishText,
  items,
  newJob,
  openStage,
  placeOf,
  pointAt,
  rectangle,
  rows,
  saved,
  storedJob,
  svg,
  tool,
  typeInto,
} from './bench.ts';

/** A job with a sheet of 3 mm birch plywood, as an operator begins one. */
async function onPlywood(page: Page, title: string): Promise<void> {
  await newJob(page, title);
  await choose(page, 'Material of the sheet', /Birch plywood.*3 mm/);
}

const closeTo = (value: number, digits = 2) => expect.closeTo(value, digits);
const nodes = (item: Item) => [...subpathsOf(pathOf(item))].map(({ segments, closed }) => [segments.length, closed]);

test('a key tag, 54 × 27 mm, with round corners, a hole and an engraved name', async ({ page }) => {
  await onPlywood(page, 'Key tag');
  await tool(page, 'Rectangle');
  await drawTyped(page, 60, 60, '54', '27');
  await typeInto(page, 'Corners', '6.5');
  await tool(page, 'Ellipse');
  await drawTyped(page, 140, 140, '4.4', '4.4');
  await page.getByRole('button', { name: 'centre', exact: true }).click();
  await typeInto(page, 'X', '60 + 6.5');
  await typeInto(page, 'Y', '60 + 27/2');
  await tool(page, 'Text');
  await clickBed(page, 75, 120, true);
  await page.keyboard.type('Noor');
  await typeInto(page, 'Capitals', '7');
  await finishText(page);
  await expect(page.getByRole('button', { name: '“Noor”', exact: true })).toBeVisible();
  // The name is put in the middle of the tag, which stays where it is.
  await page.keyboard.press('Escape');
  await rows(page, 'Rectangle').first().click();
  await page.getByRole('button', { name: '“Noor”', exact: true }).click({ modifiers: ['Shift'] });
  await choose(page, /^Aligned to/, /Rectangle/);
  await page.getByRole('button', { name: 'Middles across' }).click();
  await page.getByRole('button', { name: 'Middles up and down' }).click();

  const [tag, hole, name] = await items(page);
  expect(tag.shape).toMatchObject({ kind: 'rectangle', width: 54, height: 27, rx: 6.5, ry: 6.5 });
  expect(placeOf(tag)).toEqual([60, 60, 54, 27]);
  expect(placeOf(hole)).toEqual([64.3, 71.3, 4.4, 4.4]);
  const box = boundsOf(name);
  expect([(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]).toEqual([closeTo(87, 4), closeTo(73.5, 4)]);
  expect(name.shape).toMatchObject({ kind: 'text', text: { words: 'Noor', height: 7 } });
  const burnt = await burntLengths(page);
  expect(burnt['cut outer']).toBeCloseTo(2 * (41 + 14) + 2 * Math.PI * 6.5, 1);
  expect(burnt['cut inner']).toBeCloseTo(Math.PI * 4.4, 1);
  expect(burnt['engrave all']).toBeGreaterThan(100);
});

test('a drawer runner: a hole opened to the edge by trimming, corners rounded, five in a row', async ({ page }) => {
  await onPlywood(page, 'Runner');
  await tool(page, 'Rectangle');
  await drawTyped(page, 30, 40, '70', '20');
  await tool(page, 'Ellipse');
  await drawTyped(page, 150, 150, '6', '6');
  await page.getByRole('button', { name: 'centre', exact: true }).click();
  await typeInto(page, 'X', '45');
  await typeInto(page, 'Y', '50');
  await tool(page, 'Ellipse');
  await drawTyped(page, 150, 150, '6', '6');
  await page.getByRole('button', { name: 'centre', exact: true }).click();
  await typeInto(page, 'X', '85');
  await typeInto(page, 'Y', '60');
  // Near enough to see what is trimmed.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await tool(page, 'Trim');
  await clickBed(page, 85, 60);
  await clickBed(page, 85, 63);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Join ends' }).click();
  await expect(page.getByText('2 gaps closed')).toBeVisible();
  await tool(page, 'Round or cut corners');
  await typeInto(page, 'Radius', '3');
  for (const [x, y] of [
    [30, 40],
    [100, 40],
    [100, 60],
    [30, 60],
  ]) {
    await clickBed(page, x, y);
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await page.getByRole('textbox', { name: 'Columns' }).fill('5');
  await page.getByRole('textbox', { name: 'Columns' }).press('Enter');
  await typeInto(page, 'Gap across', '3.5');
  await page.getByRole('button', { name: 'Make 4 copies' }).click();

  const all = await items(page);
  expect(all).toHaveLength(10);
  const runners = all.filter(({ shape }) => shape.kind === 'path').sort((a, b) => placeOf(a)[0] - placeOf(b)[0]);
  expect(runners.map((one) => placeOf(one)[0])).toEqual([30, 103.5, 177, 250.5, 324]);
  expect(placeOf(runners[0])).toEqual([30, 40, 70, 20]);
  const edge = 2 * (70 + 20) - 6 + 3 * Math.PI - 4 * (6 - (Math.PI * 3) / 2);
  const burnt = await burntLengths(page);
  expect(burnt['cut outer']).toBeCloseTo(5 * edge, 0);
  expect(burnt['cut inner']).toBeCloseTo(5 * 6 * Math.PI, 0);
});

test('a seed-jar stand: two plates, one with a round opening, and the disc that drops into it', async ({ page }) => {
  await onPlywood(page, 'Jar stand');
  await tool(page, 'Rectangle');
  await drawTyped(page, 30, 30, '90', '60');
  await page.keyboard.press('Control+d');
  await typeInto(page, 'X', '130');
  await typeInto(page, 'Y', '30');
  await tool(page, 'Ellipse');
  await drawTyped(page, 60, 150, '44', '44');
  await page.keyboard.press('Escape');
  // The disc stays; its copy becomes the opening of the second plate.
  await page.keyboard.press('Control+d');
  await typeInto(page, 'Diameter', '44.4');
  await rows(page, 'Rectangle')
    .nth(1)
    .click({ modifiers: ['Shift'] });
  await choose(page, /^Aligned to/, /Rectangle/);
  await page.getByRole('button', { name: 'Middles across' }).click();
  await page.getByRole('button', { name: 'Middles up and down' }).click();
  await page.getByRole('button', { name: 'Subtract those in front' }).click();

  const all = await items(page);
  const plate = all.find(({ shape }) => shape.kind === 'combined') as Item;
  expect(placeOf(plate)).toEqual([130, 30, 90, 60]);
  expect(nodes(plate)).toEqual([
    [4, true],
    [8, true],
  ]);
  const [disc] = all.filter(({ shape }) => shape.kind === 'ellipse');
  expect(placeOf(disc).slice(2)).toEqual([44, 44]);
  const burnt = await burntLengths(page);
  expect(burnt['cut inner']).toBeCloseTo(44.4 * Math.PI, 1);
  expect(burnt['cut outer']).toBeCloseTo(600 + 44 * Math.PI, 1);
  // Its parts are still there to be changed.
  await page.getByRole('button', { name: /^Take apart/ }).click();
  expect(await items(page)).toHaveLength(4);
});

test('a seed packet’s net: folds scored, glue tabs at an angle', async ({ page }) => {
  await onPlywood(page, 'Net');
  // The outline: a front and a back of 60 × 90, a flap at the foot, a tab along the side.
  await tool(page, 'Line');
  await clickBed(page, 50, 60, true);
  await pointAt(page, 80, 60);
  for (const [length, angle] of [
    ['120', '0'],
    ['15', '-36.86989765'],
    ['72', '-90'],
    ['15', '-143.13010235'],
    ['60', '180'],
    ['12', '-100'],
    ['55.83244', '180'],
    ['12', '100'],
  ]) {
    await page.keyboard.type(length);
    await page.keyboard.press('Tab');
    await page.keyboard.type(angle);
    await page.keyboard.press('Enter');
  }
  // A click on the first point closes it.
  await clickBed(page, 50, 60);
  await choose(page, /^Drawn to be/, /Score/);
  for (const [x1, y1, x2, y2] of [
    [110, 60, 110, 150],
    [170, 60, 170, 150],
    [50, 150, 110, 150],
  ]) {
    await clickBed(page, x1, y1);
    await clickBed(page, x2, y2);
    await page.keyboard.press('Enter');
  }
  const [net, ...folds] = await items(page);
  expect(nodes(net)).toEqual([[9, true]]);
  expect(folds.map((fold) => placeOf(fold))).toEqual([
    [110, 60, 0, 90],
    [170, 60, 0, 90],
    [50, 150, 60, 0],
  ]);
  const burnt = await burntLengths(page);
  expect(burnt['score all']).toBeCloseTo(240, 1);
  expect(burnt['cut outer'] ?? burnt['cut all']).toBeCloseTo(120 + 2 * 15 + 72 + 60 + 24 + 55.832 + 90, 0);
});

test('cross-halved dividers: notches as wide as the stock is thick', async ({ page }) => {
  await onPlywood(page, 'Dividers');
  await tool(page, 'Rectangle');
  await drawTyped(page, 40, 40, '120', '36');
  await tool(page, 'Rectangle');
  await drawTyped(page, 200, 200, '3', '36/2');
  await page.getByRole('button', { name: 'top', exact: true }).click();
  await typeInto(page, 'X', '40 + 120/2');
  await typeInto(page, 'Y', '40');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Subtract those in front' }).click();
  await page.keyboard.press('Control+d');
  await page.getByRole('button', { name: 'Mirror up and down' }).click();
  await page.getByRole('button', { name: 'top left' }).click();
  await typeInto(page, 'X', '40');
  await typeInto(page, 'Y', '80');

  const [first, second] = await items(page);
  expect([placeOf(first), placeOf(second)]).toEqual([
    [40, 40, 120, 36],
    [40, 80, 120, 36],
  ]);
  // A notch of 3 × 18 mm from the top of the one, from the foot of the other.
  const points = (item: Item) =>
    [...subpathsOf(pathOf(item))][0].segments.map(([x, y]) => [
      Math.round(x * 1000) / 1000,
      Math.round(y * 1000) / 1000,
    ]);
  for (const corner of [
    [98.5, 58],
    [101.5, 58],
  ]) {
    expect(points(first)).toContainEqual(corner);
    expect(points(second)).toContainEqual([corner[0], 98]);
  }
  const burnt = await burntLengths(page);
  expect(burnt['cut outer'] ?? burnt['cut all']).toBeCloseTo(2 * (2 * 156 + 2 * 18), 1);
  await openStage(page, 'Check');
  await expect(page.getByRole('button', { name: /^Send to/ })).toBeVisible();
});

test('placed from the mark, copied by a distance and an angle, laid out by a guide line', async ({ page }) => {
  await onPlywood(page, 'Placed');
  await tool(page, 'Rectangle');
  await drawTyped(page, 50, 50, '100', '60');
  await tool(page, 'Ellipse');
  await drawTyped(page, 200, 200, '8', '8');
  await page.keyboard.press('Escape');
  await rows(page, 'Circle').click();
  // The corner of the plate is marked: the pointer is caught by it only while a tool draws.
  await tool(page, 'Line');
  await pointAt(page, 51, 51);
  await page.keyboard.press('m');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'centre', exact: true }).click();
  await typeInto(page, 'Δx', '12.5');
  await typeInto(page, 'Δy', '10');
  await page.getByRole('button', { name: /^Place its anchor/ }).click();
  expect(placeOf((await items(page))[1])).toEqual([58.5, 56, 8, 8]);
  await choose(page, /^Given by/, 'Distance and angle');
  await typeInto(page, 'Distance', '50');
  await typeInto(page, 'Direction', '-36.86989765');
  await page.getByRole('button', { name: 'Copy by' }).click();
  expect(placeOf((await items(page))[2])).toEqual([98.5, 86, 8, 8]);
  await page.getByRole('button', { name: 'Upright at the mark' }).click();
  expect((await storedJob(page)).document.guides).toMatchObject([{ axis: 'x', at: 50 }]);
  await page.getByRole('button', { name: 'Take all away' }).click();
  await page.keyboard.press('Control+z');
  expect((await storedJob(page)).document.guides).toHaveLength(1);
});

test('points are dragged, added and deleted; sizes that make no sense are refused where they are typed', async ({
  page,
}) => {
  await onPlywood(page, 'Points');
  await tool(page, 'Rectangle');
  await clickBed(page, 60, 60, true);
  await pointAt(page, 90, 90);
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('A size is more than 0.');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('80');
  await page.keyboard.press('Tab');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  await tool(page, 'Points (W)');
  await clickBed(page, 140, 100);
  await typeInto(page, 'X', '150');
  await typeInto(page, 'Y', '110');
  const [first] = await items(page);
  expect(placeOf(first)).toEqual([60, 60, 90, 50]);
  await page.keyboard.press('Escape');
  // A double click on an edge adds a point, Del takes it away.
  const at = 80;
  await doubleClickBed(page, at, 60);
  await expect(page.getByRole('button', { name: 'Undo: add a point (Ctrl Z)' })).toBeVisible();
  expect(nodes((await items(page))[0])).toEqual([[5, true]]);
  await page.keyboard.press('Delete');
  expect(nodes((await items(page))[0])).toEqual([[4, true]]);
});

test('every other shape, by pointer and by number', async ({ page }) => {
  await onPlywood(page, 'Shapes');
  await tool(page, 'Slot');
  await typeInto(page, 'Width', '6');
  await drawTyped(page, 40, 40, '30', '0');
  await tool(page, 'Polygon or star');
  await drawTyped(page, 120, 60, '15', '90');
  const sides = page.getByRole('region', { name: 'Size and place' }).getByLabel('Sides');
  await sides.fill('8');
  await sides.press('Enter');
  await tool(page, 'Arc');
  await clickBed(page, 200, 60, true);
  await clickBed(page, 240, 60, true);
  await pointAt(page, 220, 40);
  await page.keyboard.type('25');
  await page.keyboard.press('Enter');
  // Another by how far it rises.
  await clickBed(page, 300, 60, true);
  await clickBed(page, 340, 60, true);
  await pointAt(page, 320, 40);
  await page.keyboard.press('Tab');
  await page.keyboard.type('20');
  await page.keyboard.press('Enter');
  await tool(page, 'Freehand');
  await pointAt(page, 40, 200);
  await page.mouse.down();
  for (let i = 1; i <= 12; i++) await pointAt(page, 40 + i * 8, 200 + 10 * Math.sin(i / 2));
  await page.mouse.up();
  await tool(page, 'Rectangle');
  // A drag, held square by Shift.
  await page.keyboard.down('Alt');
  await pointAt(page, 200, 150);
  await page.mouse.down();
  await page.keyboard.down('Shift');
  await pointAt(page, 250, 180);
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await page.keyboard.up('Alt');

  const [slot, octagon, arc, half, pen, square] = await items(page);
  expect(slot.shape).toMatchObject({ kind: 'slot', width: 6 });
  expect(placeOf(slot).slice(2)).toEqual([30, 6]);
  expect(octagon.shape).toMatchObject({ kind: 'polygon', sides: 8, radius: 15, inner: null });
  expect(arc.shape).toMatchObject({ kind: 'arc', radius: closeTo(25, 6) });
  expect(placeOf(arc)[2]).toBeCloseTo(40, 3);
  // Up from its ends, by what an arc of 25 mm over 40 mm rises.
  expect(placeOf(arc)[3]).toBeCloseTo(10, 3);
  expect(half.shape).toMatchObject({ kind: 'arc', radius: closeTo(20, 6), sweep: closeTo(180, 6) });
  expect(pen.shape.kind).toBe('path');
  expect(placeOf(pen)[2]).toBeGreaterThan(90);
  expect(placeOf(square)[2]).toBe(placeOf(square)[3]);
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  expect(await items(page)).toHaveLength(0);
});

test('what catches points is chosen, with a grid; arrow keys have a step of their own', async ({ page }) => {
  await onPlywood(page, 'Catching');
  await page.getByRole('button', { name: 'What catches points' }).click();
  await page.getByLabel('Sheets and bed').uncheck();
  await typeInto(page, 'Grid (0: none)', '25');
  await typeInto(page, 'Arrow keys', '0.25');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await tool(page, 'Rectangle');
  await clickBed(page, 77, 52);
  await clickBed(page, 148, 123);
  expect(placeOf((await items(page))[0])).toEqual([75, 50, 75, 75]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  expect(placeOf((await items(page))[0])).toEqual([75.25, 52.5, 75, 75]);
});

test('a shape that was just drawn is dragged by its line, and a new one begins at its corner', async ({ page }) => {
  await onPlywood(page, 'Dragged');
  await tool(page, 'Rectangle');
  await drawTyped(page, 40, 40, '60', '30');
  const from = await bedPoint(page, 55, 40);
  const to = await bedPoint(page, 55, 100);
  await page.keyboard.down('Shift');
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  const [moved] = await items(page);
  expect(placeOf(moved)).toEqual([40, expect.closeTo(100, 0), 60, 30]);
  await clickBed(page, 100, 130);
  await clickBed(page, 130, 160, true);
  const [, next] = await items(page);
  expect(placeOf(next).slice(0, 2)).toEqual([100, placeOf(moved)[1] + 30]);
});

test('a double click opens a group, and Escape closes it', async ({ page }) => {
  await newJob(page, 'Opened', svg(`<g id="Pair">${rectangle(20, 20, 60, 40)}${rectangle(30, 30, 20, 10)}</g>`));
  await page.keyboard.press('Escape');
  await doubleClickBed(page, 30, 35);
  await expect(page.getByText('Pair is open')).toBeVisible();
  await clickBed(page, 20, 50);
  await expect(page.getByRole('region', { name: 'Size and place' })).toContainText('1 item');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Pair is open')).toBeHidden();
  await expect(page.getByRole('region', { name: 'Size and place' })).toContainText('2 items');
});

test('a drawn line of a thickness is engraved as an area; another takes its paint by a click on it', async ({
  page,
}) => {
  await onPlywood(page, 'Thick');
  // A key by which lines from 0.5 mm on are areas.
  await openStage(page, 'Colours');
  await choose(page, /^Colour key/, 'Slipway, by line width');
  await openStage(page, 'Art');
  await tool(page, 'Line');
  await drawTyped(page, 40, 60, '80', '0');
  await page.keyboard.press('Enter');
  await drawTyped(page, 40, 100, '80', '0');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await clickBed(page, 70, 60);
  await choose(page, /^Layer of the selection/, /^Engrave/);
  await page.getByRole('button', { name: 'Lines 2 mm thick' }).click();
  await expect(page.getByLabel('Line thickness', { exact: true })).toHaveValue('2');
  await typeInto(page, 'Line thickness', '3');
  await saved(page);
  const [thick] = await items(page);
  expect(thick).toMatchObject({ paint: { strokeWidthMm: 3 }, pinned: 'engrave' });
  // Rows 3 mm high in all, as long as the line.
  const { engrave } = Object.fromEntries(
    Object.entries(await burntLengths(page)).map(([step, mm]) => [step.split(' ')[0], mm]),
  );
  expect(engrave).toBeGreaterThan(80 * 10);

  await clickBed(page, 70, 100);
  await page.getByRole('button', { name: 'As another item' }).click();
  await clickBed(page, 90, 60);
  await expect(page.getByRole('button', { name: 'Undo: take a paint (Ctrl Z)' })).toBeVisible();
  const [first, second] = await items(page);
  expect([second.paint, second.pinned]).toEqual([first.paint, first.pinned]);
});

test('a colour of the legend paints what is selected, and else is what is drawn next', async ({ page }) => {
  await onPlywood(page, 'Legend');
  const legend = page.getByRole('complementary', { name: 'Colours of the key' });
  await legend.getByRole('button', { name: 'Score, lines of #00806A' }).click();
  await tool(page, 'Rectangle');
  await drawTyped(page, 30, 30, '40', '20');
  await expect.poll(async () => (await items(page))[0]?.paint.stroke).toBe('#00806A');
  await legend.getByRole('button', { name: 'Cut, lines of #D0481E' }).click();
  await expect.poll(async () => (await items(page))[0].paint).toMatchObject({ stroke: '#D0481E', fill: null });
  await legend.getByRole('button', { name: 'Engrave, areas of #5B3FA0' }).click();
  await expect.poll(async () => (await items(page))[0].paint).toMatchObject({ stroke: null, fill: '#5B3FA0' });
  await page.getByRole('button', { name: 'Undo: paint as Engrave' }).click();
  expect((await items(page))[0].paint.stroke).toBe('#D0481E');
  // Elsewhere it selects what is on its layer.
  await page.keyboard.press('Escape');
  await openStage(page, 'Colours');
  await legend.getByRole('button', { name: 'Cut, lines of #D0481E' }).click();
  await expect(page.getByTestId('bed-twin')).toHaveText(/^Rectangle selected, in mm: 40 × 20 at 30, 30\.$/);
});
