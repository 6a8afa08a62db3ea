import type { MachineState, RunAnswer } from '@lambent/contracts';
import { expect, type Page, test } from '@playwright/test';
import { bedPoint, choose, rectangle, saved } from './bench.ts';
import { type OwnMachine, openOwnJob, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

let started: OwnMachine;
test.afterEach(() => started.close());

/** A job with two squares of 20 mm that are cut, 100 mm apart, on its Burn stage. */
const openJob = (page: Page) => openOwnJob(page, started, rectangle(20, 20, 20, 20) + rectangle(120, 20, 20, 20));
const pad = (page: Page) => page.getByTestId('hand-pad');
const isAt = async (page: Page, x: string, y: string) => {
  await expect(pad(page).getByLabel('X', { exact: true })).toHaveValue(x);
  await expect(pad(page).getByLabel('Y', { exact: true })).toHaveValue(y);
  await expect(page.getByTestId('machine-part')).toContainText('Idle');
};
const stateOf = async (page: Page) => (await askOwn<MachineState[]>(started.own, page, 'machines/states'))[0];

for (const language of ['Lambent', 'plain'] as const) {
  test(`a head that speaks ${language} is moved by buttons, keys and typed places, and never off its bed`, async ({
    page,
  }) => {
    started = await startOwnMachine(page, language);
    await openJob(page);
    await pad(page).getByRole('button', { name: 'Move the head right' }).click();
    await isAt(page, '10.00', '0.00');
    await pad(page).getByRole('button', { name: 'Steps of 100 mm' }).click();
    // Up on the screen is away from the zero at the front.
    await pad(page).getByRole('button', { name: 'Move the head up' }).click();
    await isAt(page, '10.00', '100.00');
    await pad(page).getByRole('button', { name: 'Steps of 1 mm' }).click();
    await pad(page).focus();
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowDown']) await page.keyboard.press(key);
    await isAt(page, '12.00', '99.00');
    await typeFigure(pad(page).getByLabel('X', { exact: true }), '395.5');
    await isAt(page, '395.50', '99.00');
    await pad(page).getByRole('button', { name: 'Steps of 10 mm' }).click();
    await pad(page).getByRole('button', { name: 'Move the head right' }).click();
    await isAt(page, '400.00', '99.00');
    await pad(page).getByRole('button', { name: 'Move the head right' }).click();
    await expect(page.getByText('The bed of Plover ends here.')).toBeVisible();
    await typeFigure(pad(page).getByLabel('Y', { exact: true }), '300.5');
    await expect(page.getByText(/Y300\.5 is off the bed of Plover/)).toBeVisible();
    await isAt(page, '400.00', '99.00');
    await pad(page).getByRole('button', { name: 'Home' }).click();
    await isAt(page, '0.00', '0.00');

    // To what burns, and the mark to there. What is drawn at the top of the bed lies far from its zero.
    await pad(page).getByRole('button', { name: 'Move the head to the run’s bottom right' }).click();
    await isAt(page, '140.00', '260.00');
    await pad(page).getByRole('button', { name: 'Set the mark here' }).click();
    await expect(page.getByRole('button', { name: /^Undo: mark where the head is/ })).toBeVisible();
    await choose(page, 'Where it burns: As it is drawn', 'At the mark');
    await page.getByRole('button', { name: 'Lands by its top left' }).click();
    await pad(page).getByRole('button', { name: 'Move the head to the run’s middle' }).click();
    await isAt(page, '200.00', '250.00');
    expect(started.line?.isLit ?? false).toBe(false);
  });

  test(`a walk of a head that speaks ${language} ends when Stop is pressed, wherever it is let go`, async ({
    page,
  }) => {
    started = await startOwnMachine(page, language);
    await openJob(page);
    for (const name of ['Stop', 'Stop walking']) {
      await page.getByRole('button', { name: 'Walk the bounds, unlit' }).click();
      await page.getByRole('button', { name, exact: true }).hover();
      await page.mouse.down();
      await expect(page.getByRole('button', { name: 'Walk the bounds, unlit' })).toBeEnabled();
      await page.mouse.move(640, 400);
      await page.mouse.up();
      expect((await stateOf(page)).errand).toBe(null);
    }
    // By a key as well.
    await page.getByRole('button', { name: 'Walk the bounds, unlit' }).press('Enter');
    await page.getByRole('button', { name: 'Stop', exact: true }).press('Enter');
    await expect(page.getByRole('button', { name: 'Walk the bounds, unlit' })).toBeEnabled();
  });

  test(`bounds are walked by a head that speaks ${language}, unlit, until it is stopped or a job is sent`, async ({
    page,
  }) => {
    started = await startOwnMachine(page, language);
    await openJob(page);
    const part = page.getByTestId('machine-part');
    for (const shape of ['rectangle', 'hull', 'outlines']) {
      if (shape !== 'rectangle') await choose(page, /^Walk its/, shape);
      await page.getByRole('button', { name: 'Walk the bounds, unlit' }).click();
      await expect(part).toContainText('Walks the bounds, unlit');
      expect((await stateOf(page)).power).toBe(0);
      await expect(pad(page).getByRole('button', { name: 'Move the head right' })).toBeDisabled();
      await page.getByRole('button', { name: 'Stop walking' }).click();
      await expect(page.getByRole('button', { name: 'Walk the bounds, unlit' })).toBeEnabled();
    }
    expect(started.line?.told.some((text) => text.startsWith('the beam')) ?? false).toBe(false);

    // The machine's own view walks the same again, and says so; the job that is sent ends that.
    await page.goto(`${started.own.address}/machines`);
    const card = page.getByRole('region', { name: 'Plover' });
    await card.getByRole('button', { name: 'Head by hand' }).click();
    await card.getByRole('button', { name: 'Walk the bounds of “Labels” again' }).click();
    await expect(card.getByText('Walks the bounds of “Labels”, unlit.')).toBeVisible();
    await page.goBack();
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
  });

  test(`a run is burnt by two points that a head touched, which speaks ${language}, to 0.01 mm`, async ({ page }) => {
    started = await startOwnMachine(page, language);
    const id = await openJob(page);
    await choose(page, 'Where it burns: As it is drawn', 'By two points');
    await expect(page.getByTestId('marks-fit')).toContainText('Choose two points');
    await expect(page.getByRole('button', { name: 'See what blocks' })).toBeVisible();
    // The squares' middles are drawn at X 30 and X 130, Y 270; they are touched 2.5° askew.
    const turn = (2.5 * Math.PI) / 180;
    const touched = [
      [100, 80],
      [100 + 100 * Math.cos(turn), 80 + 100 * Math.sin(turn)],
    ].map((place) => place.map((mm) => Math.round(mm * 1000) / 1000));
    for (const [i, [x, y]] of touched.entries()) {
      const mark = page.getByRole('group', { name: `Point ${i + 1}` });
      // What came in is selected as a whole.
      await page.keyboard.press('Escape');
      const edge = await bedPoint(page, 20 + 100 * i, 30, { width: 400, height: 300 });
      await page.mouse.click(edge.x, edge.y);
      await mark.getByRole('button', { name: 'Middle of the selection' }).click();
      await typeFigure(pad(page).getByLabel('X', { exact: true }), String(x));
      await typeFigure(pad(page).getByLabel('Y', { exact: true }), String(y));
      await isAt(page, x.toFixed(2), y.toFixed(2));
      await mark.getByRole('button', { name: 'Touched by the head' }).click();
      await expect(mark.getByLabel(`Point ${i + 1} touched at, X`)).toHaveValue(x.toFixed(2));
    }
    await expect(page.getByTestId('marks-fit')).toHaveText(/Turned by -2\.50°\. Each stays 0\.00 mm/);
    await saved(page);
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');

    const [run] = await askOwn<RunAnswer[]>(started.own, page, `runs?job=${id}`);
    const program = await (await page.request.get(`${started.own.address}/api/runs/${run.id}/program.gcode`)).text();
    const lit = litPlaces(program);
    for (const [i, [x, y]] of touched.entries()) {
      for (const [dx, dy] of [
        [-10, -10],
        [10, -10],
        [10, 10],
        [-10, 10],
      ]) {
        const corner = [x + dx * Math.cos(turn) - dy * Math.sin(turn), y + dx * Math.sin(turn) + dy * Math.cos(turn)];
        const off = Math.min(...lit.map((place) => Math.hypot(place[0] - corner[0], place[1] - corner[1])));
        expect(off, `corner ${dx} ${dy} of square ${i + 1}`).toBeLessThan(0.01);
      }
    }
  });
}

/** Where lit moves of a program go, each its end. */
function litPlaces(program: string): [number, number][] {
  const places: [number, number][] = [];
  let [x, y, power, code] = [0, 0, 0, ''];
  for (const text of program.split('\n')) {
    const words = [...text.replace(/\(.*\)/, '').matchAll(/([GXYS])(-?[\d.]+)/g)];
    for (const [, letter, digits] of words) {
      if (letter === 'G' && (digits === '0' || digits === '1')) code = digits;
      if (letter === 'X') x = Number(digits);
      if (letter === 'Y') y = Number(digits);
      if (letter === 'S') power = Number(digits);
    }
    if (code === '1' && power > 0) places.push([x, y]);
  }
  return places;
}
