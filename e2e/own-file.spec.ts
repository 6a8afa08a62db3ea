import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { choose, newJob, openStage, rectangle, storedJob, svg } from './bench.ts';

const drawing = svg(
  `${rectangle(20, 20, 90, 50, '#1D6FD1')}<circle cx="40" cy="45" r="8" fill="none" stroke="#1D6FD1" stroke-width="0.1"/>` +
    '<path d="M60 30h40" fill="none" stroke="#118833" stroke-width="0.1"/><text x="60" y="60">Kale</text>',
);

test('an own drawing goes from a new job to G-code and to a finished burn', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  // What the server would refuse is said beside its field, and nothing is sent.
  const title = page.getByLabel('Title');
  await expect(title).toHaveValue('Untitled job');
  await title.fill('  ');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByText('A title has 1 to 120 characters.')).toBeVisible();
  await expect(title).toHaveAttribute('aria-invalid', 'true');
  await title.fill(' Shelf label ');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByRole('heading', { name: 'Art', exact: true })).toBeVisible();
  await expect(page.getByLabel('Title of the job')).toHaveValue('Shelf label');
  await page.getByTestId('bed').evaluate((bed, text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], 'label.svg', { type: 'image/svg+xml' }));
    for (const type of ['dragover', 'drop']) {
      bed.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));
    }
  }, drawing);
  await expect(page.getByTestId('arrival-count')).toHaveText('4 items · SVG');
  await expect(page.getByTestId('note-text-as-outlines')).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();

  await page.getByRole('button', { name: 'See what blocks' }).click();
  await expect(page.getByTestId('finding-colour-without-meaning')).toHaveCount(3);
  await openStage(page, 'Colours');
  await choose(page, 'What #1D6FD1 means', 'Cut');
  await choose(page, 'What #118833 means', 'Score');
  await choose(page, 'What fill #000000 means', 'Engrave');
  await openStage(page, 'Check');
  await expect(page.getByTestId('finding-no-recipe')).toHaveCount(3);
  await openStage(page, 'Bed');
  await choose(page, 'Material', /Cork/);
  await openStage(page, 'Check');
  await expect(page.getByText('Nothing stands in the way')).toBeVisible();

  await openStage(page, 'Burn');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save G-code' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Shelf label Cork 3 mm run 1.gcode');
  const program = await readFile(await download.path(), 'utf8');
  expect(program).toMatch(/^\(Lambent: Shelf label\)\n\(Wren, 600 x 400 mm\)\nG21\nG90\nM4S0\nM9\nG0Z0\n\(Engrave\)\n/);
  expect(program).toMatch(/\(Score\)\nG0X(60|100)Y30\nG1X(60|100)F6600S90\n/);
  // The circle, which lies in the rectangle, comes before it.
  expect(program.indexOf('(Cut - inside)')).toBeLessThan(program.indexOf('(Cut - outside)'));
  expect(program).toMatch(/^(G1)?X110(?!\d)/m);

  await choose(page, 'Format: G-code', 'SVG');
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ]);
  expect(await readFile(await saved.path(), 'utf8')).toContain('width="600mm" height="400mm"');

  await page.getByRole('button', { name: 'Send to Wren' }).click();
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  const { version } = await storedJob(page);
  await expect(page.getByTestId('run-row').first()).toContainText(`version ${version}`);
});

test('what a colour means can be handed back to the key', async ({ page }) => {
  await newJob(page, 'Handed back', svg(rectangle(20, 20, 30, 30)));
  await openStage(page, 'Colours');
  await choose(page, 'What #D0481E means: Cut', 'Note, not burnt');
  await expect(page.getByText('· by hand')).toBeVisible();
  await choose(page, /What #D0481E means: Note/, 'As the key has it');
  await expect(page.getByRole('button', { name: 'What #D0481E means: Cut' })).toBeVisible();
});
