import { type CDPSession, expect, type Page, test } from '@playwright/test';
import { bedPoint, items, newJob, openJob, openStage, placeOf, rectangle, storedJob, svg, tool } from './bench.ts';

test.use({ hasTouch: true });

/** Fingers on the screen, as the system tells of them. */
class Fingers {
  private readonly down = new Map<number, { x: number; y: number }>();

  constructor(
    private readonly page: Page,
    private readonly input: CDPSession,
  ) {}

  static async on(page: Page): Promise<Fingers> {
    return new Fingers(page, await page.context().newCDPSession(page));
  }

  /** Puts a finger down at a place of the bed, in mm. */
  async put(id: number, x: number, y: number): Promise<void> {
    this.down.set(id, await bedPoint(this.page, x, y));
    await this.tell('touchStart');
  }

  async move(id: number, x: number, y: number): Promise<void> {
    const to = await bedPoint(this.page, x, y);
    const from = this.down.get(id) ?? to;
    for (let i = 1; i <= 4; i++) {
      this.down.set(id, { x: from.x + ((to.x - from.x) * i) / 4, y: from.y + ((to.y - from.y) * i) / 4 });
      await this.tell('touchMove');
    }
  }

  async lift(id: number): Promise<void> {
    this.down.delete(id);
    await this.tell('touchEnd');
  }

  private async tell(type: 'touchStart' | 'touchMove' | 'touchEnd'): Promise<void> {
    const touchPoints = [...this.down].map(([id, { x, y }]) => ({ id, x, y }));
    await this.input.send('Input.dispatchTouchEvent', { type, touchPoints });
  }
}

const zoomOf = async (page: Page) =>
  Number(/(\d+) %/.exec((await page.getByText(/^mm \d+ %$/).textContent()) ?? '')?.[1]);

test('one finger selects, drags and pulls a handle', async ({ page }) => {
  await newJob(page, 'Touched', svg(rectangle(100, 100, 80, 60)));
  const [before] = await items(page);
  const [x, y] = placeOf(before);
  const fingers = await Fingers.on(page);
  // A tap beside everything, then one near the edge: a finger is less exact than a mouse.
  await fingers.put(1, 500, 250);
  await fingers.lift(1);
  await expect(page.getByLabel('Size and place')).toBeHidden();
  await fingers.put(1, x + 6, y + 30);
  await fingers.lift(1);
  await expect(page.getByLabel('Size and place')).toBeVisible();
  await fingers.put(1, x + 20, y + 25);
  await fingers.move(1, x + 120, y + 125);
  await fingers.lift(1);
  const [moved] = await items(page);
  expect(placeOf(moved)[0]).toBeGreaterThan(x + 90);
  expect(placeOf(moved)[1]).toBeGreaterThan(y + 90);
  expect(placeOf(moved).slice(2)).toEqual(placeOf(before).slice(2));

  const [left, top, width, height] = placeOf(moved);
  await fingers.put(1, left + width + 2, top + height + 2);
  await fingers.move(1, left + width + 42, top + height + 32);
  await fingers.lift(1);
  await expect.poll(async () => placeOf((await items(page))[0])[2]).toBeGreaterThan(width + 20);
  expect(placeOf((await items(page))[0]).slice(0, 2)).toEqual([expect.closeTo(left, 1), expect.closeTo(top, 1)]);
});

test('one finger draws; two move and zoom the bed, and leave what is drawn as it is', async ({ page }) => {
  await newJob(page, 'Drawn by touch');
  const fingers = await Fingers.on(page);
  await tool(page, 'Rectangle');
  await fingers.put(1, 100, 100);
  await fingers.move(1, 180, 160);
  await fingers.lift(1);
  const [drawn] = await items(page);
  expect(placeOf(drawn)).toEqual([100, 100, 80, 60].map((mm) => expect.closeTo(mm, -1)));

  const whole = await zoomOf(page);
  await fingers.put(1, 250, 200);
  await fingers.put(2, 350, 200);
  await fingers.move(1, 200, 200);
  await fingers.move(2, 400, 200);
  await fingers.lift(1);
  await fingers.lift(2);
  // Twice as far apart, twice as large: and the page itself is as it was.
  expect((await zoomOf(page)) / whole).toBeCloseTo(2, 1);
  expect(await page.evaluate(() => window.visualViewport?.scale)).toBe(1);
  expect((await storedJob(page)).document.drawing.items).toHaveLength(1);
});

test('a finger that is held opens the menu, which does what it says', async ({ page }) => {
  await newJob(page, 'Held', svg(rectangle(100, 100, 80, 60)));
  const [before] = await items(page);
  const [x, y] = placeOf(before);
  const fingers = await Fingers.on(page);
  await page.keyboard.press('Escape');
  await fingers.put(1, x, y + 30);
  const menu = page.getByTestId('context-menu');
  await expect(menu).toBeVisible();
  await fingers.lift(1);
  await menu.getByRole('menuitem', { name: 'Duplicate' }).tap();
  expect(await items(page)).toHaveLength(2);
});

test.describe('where a finger points', () => {
  test.use({ isMobile: true, viewport: { width: 1024, height: 700 } });

  test('everything that is pressed is 44 px large', async ({ page }) => {
    await openJob(page, 'Row markers');
    for (const stage of ['Bed', 'Art', 'Colours', 'Fit', 'Recipe', 'Check', 'Burn']) {
      await openStage(page, stage);
      await expect(page.getByRole('heading', { name: stage, exact: true, level: 1 })).toBeVisible();
      if (stage === 'Art') await page.keyboard.press('Control+a');
      expect([stage, await tooSmall(page)]).toEqual([stage, []]);
    }
  });
});

/** What can be pressed and is smaller than a finger; a box to tick is as large as its words, a link as its sentence. */
function tooSmall(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const pressed = 'button, a, input, summary, [role=button], [role=slider]';
    return Array.from(document.querySelectorAll<HTMLElement>(pressed)).flatMap((element) => {
      const target = element.matches('[type=checkbox], [type=radio]') ? (element.closest('label') ?? element) : element;
      const { width, height } = target.getBoundingClientRect();
      const isSeen = element.checkVisibility() && width > 1;
      if (!isSeen || element.closest('p') || (width > 43.5 && height > 43.5)) return [];
      return [`${element.getAttribute('aria-label') ?? element.textContent}: ${width} × ${height}`];
    });
  });
}
