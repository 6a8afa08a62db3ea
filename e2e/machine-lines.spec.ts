import type { RunAnswer } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { expect, test } from '@playwright/test';
import { choose, rectangle } from './bench.ts';
import { openOwnJob, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

test('programs begin and end with lines of the shop’s own, and the head rests where it was told to', async ({
  page,
}) => {
  const started = await startOwnMachine(page, 'Lambent', 100);
  const { own, machine } = started;
  try {
    await page.goto(`${own.address}/machines/${machine.id}`);
    const first = page.getByLabel('At the start');
    await first.fill('M7\nM3 S200');
    await expect(page.getByRole('alert')).toHaveText('“M3 S200” cannot be sent: it would light the beam.');
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
    await first.fill('M7\n\nG4 P0.5\n');
    await page.getByLabel('At the end').fill('M9');
    await choose(page, 'Rests after a run: At its zero', 'Back right');
    await typeFigure(page.getByLabel('Focus rests at'), '25');
    await expect(page.getByRole('alert')).toContainText('it cannot rest at 25 mm');
    await typeFigure(page.getByLabel('Focus rests at'), '15');
    // An offset that stands there twice is not kept.
    await page.getByRole('button', { name: 'An offset' }).click();
    await typeFigure(page.getByLabel('Offset 1', { exact: true }), '0.12');
    await page.getByRole('button', { name: 'Another offset' }).click();
    await typeFigure(page.getByLabel('Speed of offset 2'), '100');
    await expect(page.getByRole('alert')).toContainText('X at 100 mm/s stands there twice.');
    await choose(page, 'Axis of offset 2: along X', 'along Y');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText('Plover is saved.')).toBeVisible();
    const [saved] = await askOwn<Machine[]>(own, page, 'machines');
    expect(saved).toMatchObject({
      startLines: ['M7', 'G4 P0.5'],
      endLines: ['M9'],
      rest: { x: 400, y: 300 },
      restFocus: 15,
      scanOffsets: [
        { axis: 'x', speed: 100, mm: 0.12 },
        { axis: 'y', speed: 100, mm: 0 },
      ],
    });

    const id = await openOwnJob(page, started, rectangle(20, 20, 40, 40));
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    const [run] = await askOwn<RunAnswer[]>(own, page, `runs?job=${id}`);
    const program = await (await page.request.get(`${own.address}/api/runs/${run.id}/program.gcode`)).text();
    const lines = program.trimEnd().split('\n');
    expect(lines.slice(2, 6)).toEqual(['G21', 'G90', 'M7', 'G4 P0.5']);
    expect(lines.slice(-4)).toEqual(['M5', 'G0Z15', 'G0X400Y300', 'M9']);
    const [state] = await askOwn<{ x: number; y: number; z: number; air: string }[]>(own, page, 'machines/states');
    expect(state).toMatchObject({ x: 400, y: 300, z: 15, air: 'off' });
    // The name of the program tells it from others.
    await expect(page.getByText(/^Named Labels run \d\.gcode$/)).toBeVisible();
  } finally {
    await started.close();
  }
});
