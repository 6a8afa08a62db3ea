import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import type { RunOptions } from 'axe-core';
import { demoDrawing, newJobOnPlywood, offer, openJob, openStage, rectangle, tool } from './bench.ts';

const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What is asked of each theme: in the dark one all is as in the light one, but for its colours. */
const asked: Record<'light' | 'dark', RunOptions> = {
  light: {
    runOnly: { type: 'tag', values: rules },
    rules: { 'label-content-name-mismatch': { enabled: true } },
  },
  dark: { runOnly: { type: 'rule', values: ['color-contrast'] } },
};

/** Looks at one state of the page after another; what is wrong is gathered, with the state that it is wrong in. */
function looker(page: Page, theme: 'light' | 'dark') {
  const wrong: string[] = [];
  let states = 0;
  return {
    async look(state: string): Promise<void> {
      states += 1;
      // What moves is half through in between.
      await page.evaluate(() =>
        Promise.all(document.getAnimations().map((animation) => animation.finished.catch(() => {}))),
      );
      const { violations } = await new AxeBuilder({ page })
        // These hand the focus on at once; the menus’ package puts them where a list that is open ends.
        .exclude('[data-headlessui-focus-guard]')
        .options(asked[theme])
        .analyze();
      for (const { id, nodes } of violations) {
        wrong.push(
          ...nodes
            .slice(0, 4)
            .map(({ html, any }) => `${state}: ${id}: ${any[0]?.message ?? ''} ${html.slice(0, 160)}`),
        );
      }
    },
    found: () => ({ states, wrong }),
  };
}

for (const theme of ['light', 'dark'] as const) {
  test.describe(theme, () => {
    test.use({ colorScheme: theme });

    test('every place is accessible', async ({ page }) => {
      const { look, found } = looker(page, theme);
      await page.goto('/?show=all&seek=Heronbrook');
      await expect(page.getByRole('link', { name: /Row markers/ })).toBeVisible();
      await look('Desk');
      await page.getByRole('button', { name: /^Row markers, spring batch: / }).click();
      await expect(page.getByRole('menuitem', { name: 'Ready' })).toBeVisible();
      await look('Desk, where a job stands');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'More of Row markers, spring batch' }).click();
      await expect(page.getByRole('form', { name: /^About Row markers/ })).toBeVisible();
      await look('Desk, about a job');
      await page.getByRole('button', { name: 'Make a quote' }).click();
      await expect(page.getByRole('button', { name: 'Offer it' })).toBeVisible();
      await look('Desk, a quote that is made');
      await page.keyboard.press('Escape');
      await page
        .getByRole('region', { name: 'The day' })
        .getByRole('button', { name: /^Row markers/ })
        .click();
      await expect(page.getByLabel('It lies on Wren')).toBeVisible();
      await look('Desk, a job on the day');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'New job' }).click();
      await expect(page.getByLabel('Title')).toBeVisible();
      await look('Desk, new job');
      await page.keyboard.press('Escape');
      await page.getByLabel('Find a job').fill('zeppelin');
      await look('Desk, nothing found');
      await page.goto('/drop-off');
      await expect(page.getByRole('heading', { name: 'Leave a drawing to be cut or engraved' })).toBeVisible();
      await look('Drop-off');
      await page.goto('/how-to-draw');
      await expect(page.getByRole('heading', { name: 'A page to draw on' })).toBeVisible();
      await look('How to draw for us');
      const places: readonly [path: string, heading: RegExp][] = [
        ['/record', /Record/],
        ['/figures', /Figures/],
        ['/machines', /Machines/],
        ['/machines/wren', /Wren/],
        ['/machines/new', /A new machine/],
        ['/book', /Recipe book|Birch/],
        ['/keys', /Colour keys|key/],
        ['/shop', /Shop/],
        ['/guide/cut-a-name-tag', /Cut a name tag/],
        ['/nowhere', /nothing|not/i],
      ];
      for (const [path, heading] of places) {
        await page.goto(path);
        await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible();
        await look(path);
      }
      await page.goto('/guide');
      await expect(page.getByRole('navigation', { name: 'Pages of the guide' })).toBeVisible();
      await look('the guide');
      await page.goto('/machines');
      await page.getByRole('button', { name: 'Head by hand' }).first().click();
      await look('a head by hand');
      await page.goto('/shop');
      await page.getByRole('button', { name: /^Language at this screen/ }).click();
      await expect(page.getByRole('option', { name: 'Deutsch' })).toBeVisible();
      await look('a list of choices');
      const { states, wrong } = found();
      expect(wrong).toEqual([]);
      expect(states).toBe(22);
    });

    test('the Bench is accessible on every stage, with what is open on it', async ({ page }) => {
      const { look, found } = looker(page, theme);
      await openJob(page, 'Row markers');
      for (const stage of ['Bed', 'Art', 'Colours', 'Fit', 'Recipe', 'Check', 'Burn']) {
        await openStage(page, stage);
        await expect(page.getByRole('heading', { name: stage, exact: true }).first()).toBeVisible();
        await look(stage);
      }
      await page.getByTestId('step-cut-outer').getByRole('button').first().click();
      await look('a layer’s settings');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Play the preview' }).click();
      await page.getByRole('button', { name: 'Pause the preview' }).click();
      await look('the preview');
      await openStage(page, 'Art');
      await page.keyboard.press('Control+a');
      await look('all selected');
      await page.keyboard.press('?');
      await expect(page.getByRole('heading', { name: 'Keyboard' })).toBeVisible();
      await look('the keys');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Parts from numbers…' }).click();
      await expect(page.getByRole('heading', { name: /numbers/ }).first()).toBeVisible();
      await look('parts from numbers');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: /^Material of the sheet/ }).click();
      await expect(page.getByRole('option', { name: /Grey board/ })).toBeVisible();
      await look('the materials');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: /^Runs: / }).click();
      await expect(page.getByRole('button', { name: 'Another run' })).toBeVisible();
      await look('the runs');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'saved' }).click();
      await expect(page.getByText(/^\d\d:\d\d:\d\d$/).first()).toBeVisible();
      await look('the versions');
      await page.keyboard.press('Escape');
      const { states, wrong } = found();
      expect(wrong).toEqual([]);
      expect(states).toBe(15);
    });

    test('the Bench is accessible while something is drawn, brought in or wrong', async ({ page }) => {
      const { look, found } = looker(page, theme);
      await newJobOnPlywood(page, 'Looked at', rectangle(0, 0, 60, 40) + rectangle(100, 20, 60, 40, '#123456'));
      await look('two outlines, one without a meaning');
      await page.locator('#bed').click({ button: 'right', position: { x: 300, y: 300 } });
      await expect(page.getByRole('menu')).toBeVisible();
      await look('a context menu');
      await page.keyboard.press('Escape');
      for (const name of ['Rectangle', 'Text', 'Points (W)', 'Corner']) {
        await tool(page, name);
        await look(`the tool ${name}`);
      }
      await page.keyboard.press('Escape');
      await openStage(page, 'Check');
      await expect(page.getByTestId(/^finding-/).first()).toBeVisible();
      await look('findings');
      await openStage(page, 'Art');
      await offer(page, 'row.svg', demoDrawing('row-markers.svg'));
      await expect(page.getByRole('button', { name: 'Take it' })).toBeVisible();
      await look('a file on its card');
      await page.keyboard.press('Escape');
      await openStage(page, 'Fit');
      for (const part of ['Border', 'Test pieces']) {
        await page.getByRole('button', { name: part }).click();
        await look(`Fit, ${part}`);
      }
      await openStage(page, 'Recipe');
      await page.getByRole('button', { name: 'New test card' }).click();
      await expect(page.getByText('What it tries')).toBeVisible();
      await look('a test card');
      const { states, wrong } = found();
      expect(wrong).toEqual([]);
      expect(states).toBe(11);
    });
  });
}
