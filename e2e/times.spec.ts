import type { Machine } from '@lambent/core/machine';
import { expect, type Page, test } from '@playwright/test';
import { rectangle } from './bench.ts';
import { type OwnMachine, openOwnJob, startOwnMachine } from './own-machine.ts';
import { askOwn } from './own-server.ts';

let started: OwnMachine;
test.afterEach(() => started.close());

const times = (page: Page) => page.getByRole('region', { name: 'Its times' });
const openMachine = (page: Page) => page.goto(`${started.own.address}/machines/${started.machine.id}`);
const stands = async (page: Page) => (await askOwn<Machine[]>(started.own, page, 'machines'))[0];

test('runs that take longer than planned are charted and told, and one press corrects', async ({ page }) => {
  // It speeds up far more slowly than is said of it.
  started = await startOwnMachine(page, 'Lambent', 40, ['--acceleration', '100']);
  await openOwnJob(page, started, [20, 80, 140, 200].map((x) => rectangle(x, 20, 30, 40)).join(''));
  for (let burnt = 1; burnt <= 3; burnt++) {
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row')).toHaveCount(burnt);
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    if (burnt === 1) {
      await openMachine(page);
      await expect(times(page)).toContainText('So far one run says how its times hold.');
      await page.goBack();
    }
  }
  await openMachine(page);
  await expect(times(page).getByRole('img', { name: /^What 3 runs took, against what was planned/ })).toBeVisible();
  const told = times(page).getByText(/Its last 3 runs took [\d.]+ % longer than was planned\./);
  const percent = Number(/([\d.]+) %/.exec((await told.textContent()) ?? '')?.[1]);
  expect(percent).toBeGreaterThan(3);
  await times(page).getByRole('button', { name: 'Correct its times' }).click();
  await expect(told).toBeHidden();
  await expect(page.getByLabel('Times corrected to')).toHaveValue(String(100 + percent));
  expect((await stands(page)).timeShare).toBeCloseTo(100 + percent, 6);
  // The next run takes what is planned by now.
  await page.goBack();
  await page.getByRole('button', { name: 'Send to Plover' }).click();
  await expect(page.getByTestId('run-row')).toHaveCount(4);
  await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  const [last] = await askOwn<{ plannedS: number; machineS: number }[]>(started.own, page, 'runs');
  expect(Math.abs(last.machineS / last.plannedS - 1)).toBeLessThan(0.02);
});

for (const [language, factor, unlike] of [
  ['Lambent', 20, ['--acceleration', '2000', '--jerk', '50000', '--look-ahead', '16']],
  ['plain', 1, ['--acceleration', '2000', '--acceleration-y', '1200', '--look-ahead', '16']],
] as const) {
  test(`a machine that speaks ${language} runs its timing card, and its figures are taken by one press`, async ({
    page,
  }) => {
    // By the clock on the wall the card takes more than a minute, and working it out some time on a busy computer.
    test.setTimeout(500_000);
    started = await startOwnMachine(page, language, factor, unlike);
    await openMachine(page);
    await expect(times(page)).toContainText('is shown here after the first one');
    await times(page).getByRole('button', { name: 'Run the timing card' }).click();
    await expect(times(page).getByRole('progressbar', { name: 'Timing card' })).toBeVisible();
    if (language === 'Lambent') {
      // Stopped, it says so, and can be run again.
      await times(page).getByRole('button', { name: 'Stop' }).click();
      await expect(times(page)).toContainText('The timing card was not run to its end (stopped');
      await times(page).getByRole('button', { name: 'Run the timing card' }).click();
    }
    const take = times(page).getByRole('button', { name: 'Take these figures' });
    await expect(take).toBeVisible({ timeout: 400_000 });
    await expect(times(page).getByRole('row', { name: /^Acceleration 3000 .*mm\/s² ±/ })).toBeVisible();
    await take.click();
    await expect(times(page)).toContainText('These figures stand with the machine.');
    const { acceleration, jerk } = await stands(page);
    // The clock of the small controller is the one on the wall: on a busy computer it is slower, and never quicker.
    if (language === 'plain') expect(acceleration).toBeLessThan(2100);
    else {
      expect(Math.abs(acceleration / 2000 - 1)).toBeLessThan(0.02);
      expect(Math.abs((jerk ?? 0) / 50_000 - 1)).toBeLessThan(0.02);
    }
  });
}
