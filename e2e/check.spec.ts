import { expect, test } from '@playwright/test';
import {
  choose,
  clickBed,
  finishText,
  newJob,
  newJobOnPlywood,
  offer,
  openStage,
  rectangle,
  saved,
  storedJob,
  svg,
  takeIt,
  tool,
  typeInto,
} from './bench.ts';

test('findings are mended by a press: seen before, one or all, and undone', async ({ page }) => {
  const open = '<path d="M100 60 H130 V80 H100 V60.2" fill="none" stroke="#D0481E" stroke-width="0.1"/>';
  const drawing = [rectangle(1, 20, 30, 30), rectangle(50, 20, 30, 30), rectangle(50, 20, 30, 30), open].join('');
  await newJob(page, 'To be mended', svg(drawing));
  await openStage(page, 'Check');
  const margin = page.getByTestId('finding-into-margin');
  const doubled = page.getByTestId('finding-line-drawn-twice');
  const gap = page.getByTestId('finding-open-cut');
  await expect(margin).toContainText('1 item comes within');

  // What would change is seen on the bed while the pointer is on the button.
  const bed = page.getByTestId('bed');
  const move = margin.getByRole('button', { name: 'Move out of the margin' });
  await expect(move).toBeEnabled();
  const plain = await bed.screenshot();
  await move.hover();
  await expect.poll(async () => (await bed.screenshot()).equals(plain)).toBe(false);

  await move.click();
  await expect(margin).toBeHidden();
  await saved(page);
  const left = async () => (await storedJob(page)).document.drawing.items[0].matrix[4];
  const moved = await left();
  expect(moved).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Undo: move out of the margin' }).click();
  await expect(margin).toBeVisible();

  await page.getByRole('button', { name: 'Mend all 3 that are safe' }).click();
  for (const card of [margin, doubled, gap]) await expect(card).toBeHidden();
  await saved(page);
  expect((await storedJob(page)).document.drawing.items).toHaveLength(3);
  expect(await left()).toBe(moved);
  await page.getByRole('button', { name: 'Undo: mend 3 findings' }).click();
  for (const card of [margin, doubled, gap]) await expect(card).toBeVisible();

  // What changes the meaning is offered, and done only by its own button.
  await gap.getByRole('button', { name: 'Score it' }).click();
  await expect(gap).toBeHidden();
});

test('what is fine as it is is accepted with a reason, stays listed, and comes back when it changes', async ({
  page,
}) => {
  await newJob(page, 'To be accepted', svg(rectangle(1, 20, 30, 30) + rectangle(60, 60, 30, 30)));
  await openStage(page, 'Check');
  const margin = page.getByTestId('finding-into-margin');
  await margin.getByRole('button', { name: 'Accept…' }).click();
  const reason = margin.getByLabel('Why it is fine');
  await expect(reason).toBeFocused();
  await expect(margin.getByRole('button', { name: 'Accept', exact: true })).toBeDisabled();
  await reason.fill('The stop is taken off');
  await reason.press('Enter');
  await expect(margin).toBeHidden();
  const accepted = page.getByTestId('accepted-into-margin');
  await expect(accepted).toContainText('The stop is taken off');

  // It is told again before the job is sent.
  await openStage(page, 'Burn');
  await expect(page.getByTestId('before-send')).toContainText('The stop is taken off');
  await openStage(page, 'Check');
  await accepted.getByRole('button', { name: 'Take back: Into the margin' }).click();
  await expect(margin).toBeVisible();
  await page.getByRole('button', { name: 'Undo: take back what was accepted' }).click();
  await expect(accepted).toBeVisible();

  // Elsewhere in the margin it is another finding.
  await saved(page);
  const [item] = (await storedJob(page)).document.drawing.items;
  await openStage(page, 'Art');
  await page.getByTestId('bed').press('Control+a');
  await page.getByTestId('bed').press('ArrowDown');
  await openStage(page, 'Check');
  await expect(margin).toBeVisible();
  await expect(accepted).toBeHidden();
  await saved(page);
  expect((await storedJob(page)).document.drawing.items[0].matrix[5]).toBeGreaterThan(item.matrix[5]);
});

test('what lies beside the bed is parked by a press: faint, counted, and not burnt', async ({ page }) => {
  await newJob(page, 'With spare parts', svg(rectangle(20, 20, 30, 30)));
  await offer(page, 'spare.svg', svg(rectangle(700, 20, 30, 30)));
  await choose(page, /^Place: /, 'As in the file');
  await takeIt(page);
  await openStage(page, 'Check');
  const off = page.getByTestId('finding-off-bed');
  await expect(off).toContainText('1 item lies off');
  await off.getByRole('button', { name: 'Park beside the bed' }).click();
  await expect(off).toBeHidden();
  const parked = page.getByTestId('finding-parked');
  await expect(parked).toContainText('1 item is parked beside the bed');
  await openStage(page, 'Burn');
  await expect(page.getByTestId('before-send')).toContainText('1 part is parked beside the bed and does not burn.');
  await openStage(page, 'Check');
  await parked.getByRole('button', { name: 'Move onto the bed' }).click();
  await expect(parked).toBeHidden();
});

test('what was decided where a file did not say waits until it is accepted', async ({ page }) => {
  const text = '<text x="20" y="60" font-family="No Such Font" font-size="20" fill="#5B3FA0">Sow</text>';
  const shaded = '<pattern id="g" width="4" height="4"><rect width="2" height="2" fill="red"/></pattern>';
  const filled = '<rect x="20" y="80" width="20" height="20" fill="url(#g)"/>';
  await newJob(page, 'With decisions', svg(`${shaded}${text}${filled}`));
  await openStage(page, 'Check');
  const decided = page.getByTestId('decided');
  await expect(decided).toHaveCount(2);
  await expect(decided.first()).toContainText('“No Such Font” is not here');
  await openStage(page, 'Burn');
  await expect(page.getByTestId('before-send')).toContainText('2 things were decided for you');
  await page.getByRole('link', { name: 'See them' }).click();
  await decided
    .first()
    .getByRole('button', { name: /^Accept: / })
    .click();
  await expect(decided).toHaveCount(1);
  await expect(page.getByTestId('accepted-decided')).toHaveCount(1);
  await saved(page);
  // A version that was saved has them still.
  await page.reload();
  await expect(decided).toHaveCount(1);
  await expect(page.getByTestId('accepted-decided')).toHaveCount(1);
});

test('twelve mends show what they would change, do it by a press, and are undone', async ({ page }) => {
  test.slow();
  const cut = (d: string) => `<path d="${d}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
  const score = (d: string) => `<path d="${d}" fill="none" stroke="#00806A" stroke-width="0.1"/>`;
  const fill = (x: number, y: number, width: number, height: number, colour = '#5B3FA0') =>
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${colour}"/>`;
  const ring = (r: number) => `<circle cx="50" cy="140" r="${r}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
  // The middle arm of an E, thinner than scan lines are apart, and between two of them.
  const letter = '<path d="M210 110h4v1h-3v1.45h3v0.07h-3v1.45h3v1h-4z" fill="#5B3FA0"/>';
  const mends: [finding: string, words: RegExp, drawn: string][] = [
    ['into-margin', /^Move out of the margin$/, rectangle(2, 20, 30, 30)],
    ['line-drawn-twice', /^Remove 1 double$/, rectangle(50, 20, 30, 30) + rectangle(50, 20, 30, 30)],
    ['open-cut', /^Join ends within 0.20 mm$/, cut('M100 20H130V50H100V20.2')],
    ['left-over', /^Remove it$/, score('M145 30h0.02v0.02h-0.02z')],
    ['cuts-cross', /^Take the smaller out/, rectangle(150, 20, 40, 40) + rectangle(185, 30, 15, 6)],
    ['white-over', /^Make it a hole$/, fill(210, 20, 30, 30) + fill(218, 28, 8, 8, '#FFFFFF')],
    ['cut-in-two', /^Score it$/, rectangle(260, 20, 40, 40) + cut('M260 40H300')],
    ['fine-detail', /^Thicken by/, fill(320, 20, 20, 0.12)],
    ['loose-middle', /^Bridge it, 1 mm wide$/, rectangle(20, 110, 60, 60) + ring(20) + ring(12)],
    ['drops', /^Hold it by 2 tabs$/, rectangle(100, 110, 4, 4)],
    ['missed-by-beam', /^A line through it$/, letter],
    ['tiny-gap', /^Join ends within 0.10 mm$/, score('M150 110H170') + score('M170.1 110H190')],
  ];
  await newJobOnPlywood(page, 'Twelve mends', mends.map(([, , drawn]) => drawn).join(''));
  await openStage(page, 'Check');
  const bed = page.getByTestId('bed');
  for (const [finding, words] of mends) {
    const card = page.getByTestId(`finding-${finding}`);
    const button = card.getByRole('button', { name: words });
    await expect(button).toBeEnabled();
    await button.scrollIntoViewIfNeeded();
    await page.mouse.move(700, 5);
    const plain = await bed.screenshot();
    await button.focus();
    // A line through thin parts changes how the layer burns, and nothing that is drawn.
    if (finding !== 'missed-by-beam') {
      await expect.poll(async () => (await bed.screenshot()).equals(plain)).toBe(false);
    }
    // What comes out, and how long the run takes, with what it is more or less.
    const said =
      finding === 'line-drawn-twice' ? /^\d+ pieces · \d+:\d\d \(−0:0\d\)$/ : /^\d+ pieces( \(.\d+\))? · \d+:\d\d/;
    await expect(card.getByRole('status')).toHaveText(said);
    await button.press('Enter');
    await expect(card.getByRole('button', { name: words })).toBeHidden();
    await page.getByRole('button', { name: /^Undo: / }).click();
    await expect(button).toBeEnabled();
  }
  // Outlines that cross part each other: what comes of that is listed by size.
  await openStage(page, 'Burn');
  await page.getByRole('button', { name: /more sizes/ }).click();
  const sizes = page.getByRole('list', { name: 'Pieces by size' });
  for (const part of [/^1 piece10.00 × 6.00 mm$/, /^1 scrap5.00 × 6.00 mm$/])
    await expect(sizes.getByRole('listitem').filter({ hasText: part })).toHaveCount(1);
});

test('a text with a field, or with letters too small, is opened from its finding', async ({ page }) => {
  await newJobOnPlywood(page, 'Letters', rectangle(20, 20, 120, 60));
  await tool(page, 'Text');
  await clickBed(page, 40, 50, true);
  await page.keyboard.type('For {name}');
  await typeInto(page, 'Capitals', '1');
  await finishText(page);
  await openStage(page, 'Check');
  const field = page.getByTestId('finding-field-unfilled');
  await expect(field).toContainText('{name} would be burnt as it is written');
  await field.getByRole('button', { name: 'Write it…' }).click();
  await page.getByLabel('Words').fill('For Noor');
  await finishText(page);
  await expect(field).toBeHidden();
  const small = page.getByTestId('finding-small-letters');
  await small.getByRole('button', { name: 'Another face…' }).click();
  await choose(page, /^Family/, /^Single line$/);
  await finishText(page);
  await saved(page);
  const shapes = (await storedJob(page)).document.drawing.items.map(({ shape }) => shape);
  expect(shapes.at(-1)).toMatchObject({ kind: 'text', text: { words: 'For Noor', family: 'Single line' } });
});

test('a colour without meaning leads to the Colours stage, and what was never burnt to a test card', async ({
  page,
}) => {
  const odd = '<path d="M60 60H90" fill="none" stroke="#9ACD00" stroke-width="0.1"/>';
  await newJobOnPlywood(page, 'Ways on', rectangle(20, 20, 30, 30) + odd);
  await openStage(page, 'Check');
  await page.getByTestId('finding-colour-without-meaning').getByRole('button', { name: 'Say what it means' }).click();
  await expect(page.getByRole('region', { name: 'Colours' })).toBeVisible();
  await choose(page, 'Machine: Wren', /Dunlin/);
  await choose(page, 'Material of the sheet', /Cast acrylic, clear/);
  await openStage(page, 'Check');
  await page.getByTestId('finding-worked-out').getByRole('button', { name: 'Make a test card' }).click();
  await expect(page.getByRole('region', { name: 'New test card' })).toBeVisible();
});
