import type { MachineState, RunAnswer } from '@lambent/contracts';
import { type Machine, toldPlace } from '@lambent/core/machine';
import { expect, test } from '@playwright/test';
import { readProgram } from '../packages/core/src/fixtures/program-reader.ts';
import { openStage, saved, typeInto } from './bench.ts';
import { type OwnMachine, openJobOnCard, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

let started: OwnMachine;
test.afterEach(() => started.close());

const truth = { x: 0.997, y: 1.004, lean: 0.003 };
const side = 120;

for (const [language, unlike] of [
  ['Lambent', ['--true-x', '0.997', '--true-y', '1.004', '--lean', '0.003']],
  ['plain', []],
] as const) {
  test(`a burnt square is measured, and the axes of a machine that speaks ${language} are taken back`, async ({
    page,
  }) => {
    started = await startOwnMachine(page, language, 20, unlike);
    const { own, machine } = started;
    const id = await openJobOnCard(page, started, 'Square');
    await page.getByRole('button', { name: 'Axes True to scale, and square' }).click();
    await typeInto(page, 'Side', String(side));
    await page.getByRole('button', { name: 'Lay it on the sheet' }).click();
    await saved(page);
    const keep = page.getByRole('button', { name: 'Keep with Plover' });
    await expect(keep).toBeDisabled();
    await typeInto(page, 'Along X', '90');
    await expect(page.getByText('Sides and diagonals are not those of a square of this side.')).toBeVisible();
    // As one measures it with a rule, to a hundredth of a mm.
    const { x, y, lean } = truth;
    await typeInto(page, 'Along X', (side * x).toFixed(2));
    await typeInto(page, 'Along Y', (side * Math.hypot(y, lean)).toFixed(2));
    await typeInto(page, 'Diagonal from the front left', (side * Math.hypot(x + lean, y)).toFixed(2));
    await typeInto(page, 'The other diagonal', (side * Math.hypot(x - lean, y)).toFixed(2));
    await keep.click();
    await expect(page.getByText('The axes of Plover are kept.')).toBeVisible();
    await expect(keep).toBeDisabled();
    const [kept] = await askOwn<Machine[]>(own, page, 'machines');
    for (const name of ['x', 'y', 'lean'] as const) expect(kept.axes?.[name]).toBeCloseTo(truth[name], 3);

    // What is sent leads to where it is drawn, and the head is shown where it truly is.
    await openStage(page, 'Recipe');
    const score = page.getByRole('region', { name: 'Score', exact: true });
    await typeFigure(score.getByLabel(/^Power/), '20');
    await typeFigure(score.getByLabel('Speed', { exact: true }), '60');
    await openStage(page, 'Burn');
    await saved(page);
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    const [run] = await askOwn<RunAnswer[]>(own, page, `runs?job=${id}`);
    const program = await (await page.request.get(`${own.address}/api/runs/${run.id}/program.gcode`)).text();
    const corners = readProgram(program.trimEnd().split('\n')).map((burn) => ({ x: burn.x, y: burn.y }));
    const { matrix } = (
      await askOwn<{ document: { drawing: { items: { matrix: number[] }[] } } }>(own, page, `jobs/${id}`)
    ).document.drawing.items[0];
    const [left, front] = [matrix[4], 300 - matrix[5] - side];
    for (const [dx, dy] of [
      [0, 0],
      [side, 0],
      [side, side],
      [0, side],
    ]) {
      const told = toldPlace(kept, { x: left + dx, y: front + dy });
      const off = corners.map((corner) => Math.hypot(corner.x - told.x, corner.y - told.y));
      expect(Math.min(...off)).toBeLessThan(0.001);
    }
    const head = async () => (await askOwn<MachineState[]>(own, page, 'machines/states'))[0];
    await expect.poll(async () => (await head()).state).toBe('idle');
    await page.request.post(`${own.address}/api/machines/${machine.id}/head`, { data: { x: 100, y: 150 } });
    await expect.poll(async () => (await head()).x).toBeCloseTo(100, 2);
    await expect.poll(async () => (await head()).y).toBeCloseTo(150, 2);

    await page.goto(`${own.address}/machines/${machine.id}`);
    const axes = page.getByRole('region', { name: 'Axes' });
    await expect(axes).toContainText('mm a metre');
    await axes.getByRole('button', { name: 'Take them as true' }).click();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(axes).toBeHidden();
    await expect.poll(async () => (await askOwn<Machine[]>(own, page, 'machines'))[0].axes).toBeUndefined();
  });
}
