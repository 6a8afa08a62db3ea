import { expect, type Page, test } from '@playwright/test';
import {
  bringIn,
  choose,
  clickBed,
  doubleClickBed,
  finishText,
  newJobOnPlywood,
  openJob,
  openStage,
  placeOf,
  rectangle,
  storedJob,
  svg,
  tool,
  typeInto,
} from './bench.ts';
import { burn } from './burning.ts';

const names = [
  ['Ines', 'workshop'],
  ['Tobiah', 'workshop'],
  ['Wilhelmina Strand of the Seed Library', 'seed library'],
  ['Pavel', 'seed library'],
  ['Noor', ''],
  ...Array.from({ length: 18 }, (_, i) => [`Guest ${i + 1}`, 'welcome']),
  ['Pavel', 'workshop'],
];

const fit = (page: Page) => page.getByRole('region', { name: 'Fit' });

/** A badge of 60 × 30 mm on the bed, with a text for the name in a frame of 50 mm. */
async function badge(page: Page, title: string): Promise<void> {
  await newJobOnPlywood(page, title, rectangle(20, 20, 60, 30));
  await page.keyboard.press('Escape');
  await tool(page, 'Text');
  await clickBed(page, 25, 38);
  const card = page.getByRole('region', { name: 'Text', exact: true });
  await card.getByLabel('Words').fill('{name}');
  await typeInto(page, 'Widest (0: free)', '50');
  await choose(page, 'Longer texts', 'are set smaller');
  await typeInto(page, 'Capitals at least', '3');
  await finishText(page);
  await page.keyboard.press('Control+a');
}

test('a list of names: one too long, one twice; laid, burnt, and the one that broke burnt again', async ({ page }) => {
  await badge(page, 'Names');
  await openStage(page, 'Fit');
  await fit(page).getByRole('button', { name: /^List/ }).click();
  await fit(page)
    .getByLabel('Rows', { exact: true })
    .fill(`name\twhat\n${names.map((row) => row.join('\t')).join('\n')}`);
  await fit(page).getByRole('button', { name: 'Make the list' }).click();
  await expect(page.getByTestId('list-rows')).toHaveText('24 rows: name, what');
  const unmeant = fit(page).getByRole('list', { name: 'What may not be meant' });
  await expect(unmeant).toContainText('Row 5, what: the cell is empty.');
  await expect(unmeant).toContainText('Row 24 is called “Pavel”, as row 4 is.');

  await fit(page).getByRole('button', { name: 'Take the selection as the design' }).click();
  await expect(page.getByTestId('row-shown')).toHaveText('Row 1 of 24: Ines');
  await expect(fit(page).getByRole('img', { name: 'The design for Ines' })).toBeVisible();
  await fit(page).getByRole('button', { name: 'Row before' }).click();
  await expect(page.getByTestId('row-shown')).toHaveText('Row 24 of 24: Pavel');
  const long = fit(page).getByRole('list', { name: 'Does not come out' }).getByRole('button');
  await expect(long).toHaveText(/^Row 3, “Wilhelmina Strand of the Seed Library”: .* mm too large for its place\.$/);
  await long.click();
  await expect(fit(page).getByRole('img', { name: /^The design for Wilhelmina/ })).toBeVisible();

  await expect(page.getByTestId('rows-take')).toHaveText('24 rows on 1 sheet');
  await fit(page).getByRole('button', { name: 'Lay 24 rows' }).click();
  await expect(page.getByRole('button', { name: 'Undo: lay 24 rows' })).toBeVisible();
  const { document } = await storedJob(page);
  expect(document.drawing.groups.flatMap(({ name, row }) => (row ? [name] : []))).toEqual(names.map(([name]) => name));
  // The design stays beside the bed.
  expect(document.drawing.items.filter(({ parked }) => parked)).toHaveLength(2);
  await openStage(page, 'Art');
  await expect(page.getByRole('region', { name: 'Art' })).toContainText('Guest 7');

  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-text-over-frame')).toContainText('(row 3)');
  await openStage(page, 'Burn');
  await burn(page, 1);
  await page.getByLabel('Find a row by its name').fill('noor');
  await page.getByRole('button', { name: 'Burn Noor again' }).click();
  await expect(page.getByRole('button', { name: 'Runs: Noor again' })).toBeVisible();
  const again = await burn(page, 2);
  expect(again.jobRunName).toBe('Noor again');
  const now = (await storedJob(page)).document;
  const run = now.runs.find(({ name }) => name === 'Noor again');
  const group = now.drawing.groups.find(({ name }) => name === 'Noor');
  expect(run?.only).toEqual(now.drawing.items.flatMap(({ id, groupId }) => (groupId === group?.id ? [id] : [])));
});

test('tags with numbers and a code, packed; the code says its own row', async ({ page }) => {
  await newJobOnPlywood(page, 'Numbered tags', rectangle(20, 20, 40, 40));
  await openStage(page, 'Fit');
  await fit(page).getByRole('button', { name: /^Code/ }).click();
  await fit(page).getByLabel('It says').fill('tag {number} of {row}');
  await choose(page, 'Kind', 'Data Matrix');
  await fit(page).getByRole('button', { name: 'Draw the code' }).click();
  await expect(page.getByRole('button', { name: 'Undo: add a code' })).toBeVisible();
  // Onto the tag, whose middle is at 40, 40.
  await openStage(page, 'Art');
  await page.getByRole('button', { name: 'centre', exact: true }).click();
  await typeInto(page, 'X', '40');
  await typeInto(page, 'Y', '40');
  // Changed where it is selected.
  await openStage(page, 'Fit');
  await choose(page, 'Kind', 'QR code');
  await fit(page).getByRole('button', { name: 'Change the code' }).click();
  await expect(page.getByRole('button', { name: 'Undo: change a code' })).toBeVisible();
  await page.keyboard.press('Control+a');

  await fit(page).getByRole('button', { name: /^List/ }).click();
  await choose(page, 'The rows are', 'Numbers from one to another');
  await typeInto(page, 'From', '8');
  await typeInto(page, 'To', '12');
  await fit(page).getByRole('button', { name: 'Make the list' }).click();
  await expect(page.getByTestId('list-rows')).toHaveText('5 rows: number');
  await fit(page).getByRole('button', { name: 'Take the selection as the design' }).click();
  await expect(page.getByTestId('row-shown')).toHaveText('Row 1 of 5: 08');
  await choose(page, 'Arranged', 'Packed, with little waste');
  await fit(page).getByRole('button', { name: 'Look for a packing' }).click();
  await expect(page.getByTestId('packing')).toContainText('5 pieces on 1 sheet');
  await fit(page).getByRole('button', { name: 'Lay them like this' }).click();
  await expect(page.getByRole('button', { name: 'Undo: lay 5 rows' })).toBeVisible();
  const { drawing } = (await storedJob(page)).document;
  const said = drawing.items.flatMap(({ shape, parked }) =>
    shape.kind === 'code' && !parked ? [shape.code.words] : [],
  );
  expect(said).toEqual(['tag 08 of 1', 'tag 09 of 2', 'tag 10 of 3', 'tag 11 of 4', 'tag 12 of 5']);
  await page.keyboard.press('Control+z');
  expect((await storedJob(page)).document.drawing.items).toHaveLength(2);
});

test('a broken badge of a holder that is filled again and again is burnt by itself', async ({ page }) => {
  await openJob(page, 'Volunteer badges');
  await openStage(page, 'Burn');
  await page.getByLabel('Find a row by its name').fill('guest 3');
  await page.getByRole('button', { name: 'Burn Guest 3 again' }).click();
  await expect(page.getByRole('button', { name: 'Runs: Guest 3 again' })).toBeVisible();
  // It lies in the second filling, in the second place, and nothing but it burns.
  const { document } = await storedJob(page);
  const run = document.runs.find(({ name }) => name === 'Guest 3 again');
  expect(run).toMatchObject({ off: ['cut', 'score'], stock: 'in place' });
  const lying = document.drawing.items.filter(({ id }) => run?.only?.includes(id));
  expect(lying.map(({ name }) => name)).toEqual(['Badge', 'Name', 'What']);
  expect(placeOf(lying.slice(0, 1)).map(Math.round)).toEqual([113, 52, 64, 30]);
  await page.getByLabel('Find a row by its name').fill('nobody');
  await expect(page.getByText('No row is called so.')).toBeVisible();
});

test('a part of the design is the file that a column names', async ({ page }) => {
  await newJobOnPlywood(page, 'Birds', rectangle(20, 20, 60, 30) + rectangle(30, 25, 20, 20, '#00806A'));
  await openStage(page, 'Fit');
  await fit(page).getByRole('button', { name: /^List/ }).click();
  await fit(page).getByLabel('Rows', { exact: true }).fill('name\tbird\nInes\theron.svg\nNoor\trobin');
  await fit(page).getByRole('button', { name: 'Make the list' }).click();
  await page.keyboard.press('Control+a');
  await fit(page).getByRole('button', { name: 'Take the selection as the design' }).click();
  await openStage(page, 'Art');
  await bringIn(page, 'heron.svg', svg('<circle cx="20" cy="20" r="20" fill="#5B3FA0"/>'));
  await page.keyboard.press('Escape');
  await doubleClickBed(page, 80, 40);
  await clickBed(page, 50, 40);
  await openStage(page, 'Fit');
  await choose(page, 'The selected part is', 'the file named in bird');
  await expect(fit(page).getByRole('list', { name: 'Does not come out' })).toHaveText(
    'Row 2, “Noor”: no file “robin” was brought in. Its place stays empty.',
  );
  await fit(page).getByRole('button', { name: 'Lay 2 rows' }).click();
  await expect(page.getByRole('button', { name: 'Undo: lay 2 rows' })).toBeVisible();
  const { drawing } = (await storedJob(page)).document;
  const pieceOf = (name: string) => {
    const group = drawing.groups.find((known) => known.name === name && known.row);
    return drawing.items.filter(({ groupId }) => groupId === group?.id);
  };
  const [edge, heron] = pieceOf('Ines').map((item) => placeOf(item));
  expect([heron[0] - edge[0], heron[1] - edge[1], heron[2], heron[3]]).toEqual([10, 5, 20, 20]);
  expect(pieceOf('Noor')).toHaveLength(1);
});
