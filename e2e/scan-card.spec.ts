import type { RunAnswer } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { expect, test } from '@playwright/test';
import { readMoves } from '../packages/core/src/fixtures/program-reader.ts';
import { choose, openStage, saved } from './bench.ts';
import { type OwnMachine, openJobOnCard, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

let started: OwnMachine;
test.afterEach(() => started.close());

for (const language of ['Lambent', 'plain'] as const) {
  test(`a scan card is laid, burnt on a machine that speaks ${language}, and read into its table`, async ({ page }) => {
    started = await startOwnMachine(page, language, 20, language === 'Lambent' ? ['--lag-ms', '0.5'] : []);
    const { own, machine } = started;
    const id = await openJobOnCard(page, started, 'Scan card');
    await page.getByRole('button', { name: 'Scan offset How far lines burn apart' }).click();
    await typeFigure(page.getByLabel('Speeds', { exact: true }), '2');
    await typeFigure(page.getByLabel('To', { exact: true }), '0.5');
    await typeFigure(page.getByLabel('Each', { exact: true }), '0.1');
    await page.getByRole('button', { name: 'Lay it on the sheet' }).click();
    await saved(page);
    await openStage(page, 'Burn');
    await page.getByRole('button', { name: 'Send Scan card' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    const [run] = await askOwn<RunAnswer[]>(own, page, `runs?job=${id}`);
    const program = await (await page.request.get(`${own.address}/api/runs/${run.id}/program.gcode`)).text();
    // Of 6 bars at 2 speeds, each half 20 lines, there or back, and never both.
    const moves = [...readMoves(program.split('\n'))];
    const engraved = moves.flatMap(({ lit, x, y }, i) => (lit && y === moves[i - 1].y ? [x - moves[i - 1].x] : []));
    const bars = engraved.filter((dx) => Math.abs(Math.abs(dx) - 0.4) < 0.0015);
    expect([bars.filter((dx) => dx > 0).length, bars.filter((dx) => dx < 0).length]).toEqual([240, 240]);

    // What its halves say is read, and kept with the machine.
    await openStage(page, 'Fit');
    const keep = page.getByRole('button', { name: 'Keep with Plover' });
    await expect(keep).toBeDisabled();
    await choose(page, 'Meets at 200 mm/s', 'At 200 mm/s: 0.2 mm');
    await choose(page, 'Meets at 400 mm/s', 'At 400 mm/s: 0.4 mm');
    await keep.click();
    await expect(page.getByText('The scan offsets of Plover are kept.')).toBeVisible();
    await expect(keep).toBeDisabled();
    const [kept] = await askOwn<Machine[]>(own, page, 'machines');
    expect(kept.scanOffsets).toEqual([
      { axis: 'x', speed: 200, mm: 0.2 },
      { axis: 'x', speed: 400, mm: 0.4 },
    ]);
    await openStage(page, 'Check');
    await expect(page.getByTestId('finding-scan-offset').first()).toContainText(
      'is taken back, half there and half back',
    );
    await page.goto(`${own.address}/machines/${machine.id}`);
    await expect(page.getByLabel('Offset 2', { exact: true })).toHaveValue('0.4');
  });
}
