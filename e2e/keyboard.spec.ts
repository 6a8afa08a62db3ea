import { expect, type Page, test } from '@playwright/test';
import { bedPoint, finishText, items, newJob, newJobOnPlywood, placeOf, rectangle, svg } from './bench.ts';

/** Types a point for a tool that waits for one: the first digit brings its fields to hand. */
async function typePoint(page: Page, x: string, y: string): Promise<void> {
  await page.keyboard.type(x);
  await page.keyboard.press('Tab');
  await page.keyboard.type(y);
  await page.keyboard.press('Enter');
}

test('every tool places by the keys alone, and no digit leaves the stage meanwhile', async ({ page }) => {
  await newJob(page, 'By the keys');
  const from = page.getByRole('group', { name: 'Where it goes' });
  const sizes = page.getByRole('group', { name: 'What is being drawn' });

  await page.keyboard.press('e');
  await typePoint(page, '100', '50');
  await expect(sizes).toBeVisible();
  await page.keyboard.type('40');
  await page.keyboard.press('Tab');
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await items(page)).map((item) => placeOf(item))).toEqual([[100, 50, 40, 30]]);
  expect(page.url()).toMatch(/\/art$/);

  // Enter begins where the mark is, or in the middle of what is seen; Escape gives it up.
  await page.keyboard.press('Enter');
  await expect(from).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(from).toBeHidden();

  // A line: where it begins, then how long it is and where it goes; Enter with nothing typed ends it.
  await page.keyboard.press('u');
  await typePoint(page, '10', '200');
  await expect(sizes).toBeVisible();
  await typePoint(page, '50', '0');
  await page.keyboard.press('Enter');
  await expect.poll(async () => placeOf((await items(page))[1])).toEqual([10, 200, 50, 0]);

  // Words: where they stand, then what they are.
  await page.keyboard.press('p');
  await typePoint(page, '200', '300');
  await expect(page.getByLabel('Capitals', { exact: true })).toBeVisible();
  await page.keyboard.type('Noor');
  await finishText(page);
  await expect.poll(async () => (await items(page)).length).toBe(3);
  expect((await items(page))[2].shape).toMatchObject({ kind: 'text', text: { words: 'Noor' } });
  expect(page.url()).toMatch(/\/art$/);
});

test('Space moves the view whatever was clicked before; a button reached by the keys is still pressed by it', async ({
  page,
}) => {
  await newJob(page, 'Space', svg(rectangle(100, 100, 80, 60)));
  const before = await items(page);
  await page.getByRole('button', { name: 'Mirror left and right' }).click();
  await page.keyboard.press('Control+z');
  const place = await bedPoint(page, 140, 130);
  await page.mouse.move(place.x, place.y);
  await page.keyboard.down('Space');
  await page.mouse.down();
  await page.mouse.move(place.x + 60, place.y + 40, { steps: 3 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  expect((await items(page)).map((item) => placeOf(item))).toEqual(before.map((item) => placeOf(item)));
  // It is where it was on the bed, and 60 pixels further to the right on the screen.
  await page.keyboard.press('Escape');
  await page.mouse.click(place.x + 60 - 40 * place.scale, place.y + 40);
  await expect(page.getByLabel('Size and place')).toBeVisible();

  await page.getByRole('button', { name: 'Duplicate (Ctrl D)' }).focus();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Space');
  await expect.poll(async () => (await items(page)).length).toBe(2);
});

test('letters are changed and switched off', async ({ page }) => {
  await newJob(page, 'Letters', svg(rectangle(20, 20, 60, 40)));
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Keyboard' });
  await sheet.getByLabel('Rectangle').fill('R');
  await expect(sheet.getByRole('alert')).toHaveText('R is taken: Ellipse.');
  await sheet.getByLabel('Rectangle').fill('k');
  await expect(sheet.getByLabel('Rectangle')).toHaveValue('K');
  await sheet.getByRole('button', { name: 'Close' }).click();
  const rectangleTool = page.getByRole('button', { name: /^Rectangle \(/ });
  await page.keyboard.press('e');
  await expect(rectangleTool).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: 'Rectangle (K)' })).toHaveAttribute('aria-pressed', 'true');

  // They are remembered; switched off, no character alone does anything.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Rectangle (K)' })).toBeVisible();
  await page.keyboard.press('?');
  await sheet.getByLabel('Single letters, digits and signs are shortcuts').uncheck();
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
  for (const key of ['k', '4', '?', 'Control+a']) await page.keyboard.press(key);
  await expect(page.getByLabel('Size and place', { exact: true })).toBeVisible();
  await expect(page).toHaveURL(/\/art$/);
  await expect(sheet).toBeHidden();
  await expect(page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name: 'Rectangle' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await page.getByRole('button', { name: 'Keyboard', exact: true }).click();
  await sheet.getByLabel('Single letters, digits and signs are shortcuts').check();
  await sheet.getByRole('button', { name: 'Take the usual letters again' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: 'Rectangle (E)' })).toBeVisible();
});

test('after Enter in a field the bed has the keys, and Tab goes on from the field', async ({ page }) => {
  await newJob(page, 'Enter', svg(rectangle(20, 20, 60, 40)));
  const x = page.getByLabel('X', { exact: true });
  await x.fill('33');
  await x.press('Enter');
  await expect(page.locator('#bed')).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(x).toHaveValue('34.00');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Y', { exact: true })).toBeFocused();
  // What cannot be taken keeps the field.
  await page.keyboard.type('wide');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Y', { exact: true })).toBeFocused();
  // Escape goes back a step: what was typed, then the field.
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Y', { exact: true })).toHaveValue('20.00');
  await expect(page.getByLabel('Y', { exact: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.locator('#bed')).toBeFocused();
  await page.keyboard.press('Delete');
  await expect.poll(() => items(page)).toEqual([]);
});

test('what is typed at once after a copy is made goes to the copy', async ({ page }) => {
  const disc = '<circle cx="60" cy="60" r="22" fill="none" stroke="#D0481E"/>';
  await newJob(page, 'At once', svg(disc));
  await expect(page.getByLabel('Diameter', { exact: true })).toBeVisible();
  await page.evaluate(async () => {
    const named = (name: string) =>
      Array.from(document.querySelectorAll('label')).find(({ textContent }) => textContent === name)
        ?.control as HTMLInputElement;
    const press = (target: Element, key: string, ctrlKey = false) =>
      target.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey, bubbles: true, cancelable: true }));
    const bed = document.querySelector('#bed') as HTMLElement;
    bed.focus();
    press(bed, 'd', true);
    // What the copy changes of the page that cannot wait is done by the next microtask; nothing later is.
    await Promise.resolve();
    const field = named('Diameter');
    field.focus();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, '44.4');
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await new Promise((settle) => setTimeout(settle));
    press(named('Diameter'), 'Enter');
  });
  const widths = () => items(page).then((all) => all.map((item) => placeOf(item)[2]));
  await expect.poll(widths).toHaveLength(2);
  expect(await widths()).toEqual([44, 44.4]);
});

test('Escape in a field gives no keys back that another field has by then', async ({ page }) => {
  await newJob(page, 'Escape', svg(rectangle(20, 20, 60, 40)));
  const [x, y] = [page.getByLabel('X', { exact: true }), page.getByLabel('Y', { exact: true })];
  await x.fill('33');
  await y.evaluate(async (other) => {
    const key = new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(key);
    other.focus();
    await new Promise((settle) => requestAnimationFrame(() => requestAnimationFrame(settle)));
  });
  await expect(y).toBeFocused();
});

test('Enter opens a list; Escape in a field of what is open takes back what was typed, then closes it', async ({
  page,
}) => {
  await newJobOnPlywood(page, 'Steps back', rectangle(20, 20, 60, 40));
  await page.getByRole('button', { name: /^Machine: / }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^Dunlin/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option', { name: /^Dunlin/ })).toBeHidden();
  await page.getByTestId('step-cut-outer').getByRole('button').first().click();
  const speed = page.getByRole('dialog').or(page.locator('[data-headlessui-state=open]')).getByLabel('Speed').first();
  const before = await speed.inputValue();
  await speed.fill('3');
  await page.keyboard.press('Escape');
  await expect(speed).toHaveValue(before);
  await page.keyboard.press('Escape');
  await expect(speed).toBeHidden();
});

test('the first stops of Tab lead to the bed, the tools, the drawer and the burn order', async ({ page }) => {
  await newJob(page, 'Skipped', svg(rectangle(20, 20, 60, 40)));
  const skip = page.getByRole('navigation', { name: 'Skip to' });
  await skip.getByRole('button', { name: 'To the tools' }).focus();
  await expect(skip.getByRole('button', { name: 'To the tools' })).toBeInViewport();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pick and move (Q)' })).toBeFocused();
  // The tools are one stop: arrows go from one to the next.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: 'Rectangle (E)' })).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('toolbar', { name: 'View' }).getByRole('button').first()).toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(page.getByRole('button', { name: 'Rectangle (E)' })).toBeFocused();
  await skip.getByRole('button', { name: 'To the bed' }).press('Enter');
  await expect(page.locator('#bed')).toBeFocused();
});

test('things are named in the list and on the size card; those called alike say their size and place', async ({
  page,
}) => {
  await newJob(page, 'Names', svg(rectangle(20, 20, 60, 40) + rectangle(100, 20, 60, 40)));
  const twins = page.getByRole('button', { name: /^Rectangle ?60 × 40 at/ });
  await expect(twins).toHaveText([/60 × 40 at 20, 20$/, /60 × 40 at 100, 20$/]);
  await twins.first().dblclick();
  await page.keyboard.type('Front');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Front', exact: true })).toBeVisible();
  expect((await items(page))[0].name).toBe('Front');
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Back');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await items(page)).map(({ name }) => name)).toEqual(['Front', 'Back']);
  await expect(page.getByTestId('bed-twin')).toHaveText('Back selected, in mm: 60 × 40 at 100, 20.');
  await page.getByRole('button', { name: 'Undo: name it Back' }).click();
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('');
});

/** Goes on by the Tab key until what has the focus is called so. */
async function tabTo(page: Page, name: RegExp, within: number): Promise<void> {
  const here = () =>
    page.evaluate(() => {
      const { activeElement: at } = document;
      return at?.getAttribute('aria-label') ?? at?.textContent ?? '';
    });
  const met: string[] = [];
  for (let i = 0; i <= within; i++) {
    met.push((await here()).slice(0, 40));
    if (name.test(met.at(-1) ?? '')) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`No ${name} within ${within} stops of the Tab key, but ${met.join(' | ')}`);
}

test('a job goes by the keys alone from the Desk to its finished burn, drawn and all', async ({ page }) => {
  await page.goto('/?show=all&seek=Row%20markers');
  await expect(page.getByRole('link', { name: /Row markers/ }).first()).toBeVisible();
  await tabTo(page, /^New job/, 20);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Title')).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('By keys');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Art', exact: true })).toBeVisible();

  await page.keyboard.press('e');
  await typePoint(page, '40', '40');
  await expect(page.getByRole('group', { name: 'What is being drawn' })).toBeVisible();
  await page.keyboard.type('30');
  await page.keyboard.press('Tab');
  await page.keyboard.type('20');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await items(page)).map((item) => placeOf(item))).toEqual([[40, 40, 30, 20]]);
  await page.keyboard.press('Escape');

  // What lies on the bed: the list opens by Enter, and is gone through by its first letters.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await tabTo(page, /^Material of the sheet/, 30);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listbox')).toBeVisible();
  await page.keyboard.type('Birch');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Material of the sheet: Birch plywood/ })).toBeFocused();

  await page.keyboard.press('6');
  await expect(page.getByRole('heading', { name: 'Check', exact: true }).first()).toBeVisible();
  await expect(page.getByText(/nothing found|^\d+ notes?$|Nothing stands in the way/).first()).toBeVisible();
  await page.keyboard.press('7');
  await expect(page.getByRole('heading', { name: 'Burn', exact: true }).first()).toBeVisible();
  await tabTo(page, /^Send to Wren/, 30);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('run-row')).toHaveAttribute('data-status', 'done');
});
