import type { RunAnswer } from '@lambent/contracts';
import { expect, test } from '@playwright/test';
import { readProgram } from '../packages/core/src/fixtures/program-reader.ts';
import { type OwnMachine, openOwnJob, startOwnMachine, typeFigure } from './own-machine.ts';
import { askOwn } from './own-server.ts';

let started: OwnMachine;
test.afterEach(() => started.close());

const rings = [60, 160, 260].map((x) => `<circle cx="${x}" cy="80" r="20" fill="none" stroke="#D0481E"/>`).join('');

for (const [language, unlike] of [
  ['Lambent', []],
  ['plain', ['--arcs', '0.002']],
] as const) {
  test(`circles burn as arcs, in the time that is shown, on a machine that speaks ${language} and takes them`, async ({
    page,
  }) => {
    started = await startOwnMachine(page, language, 10, unlike);
    await page.goto(`${started.own.address}/machines/${started.machine.id}`);
    const figure = page.getByLabel('Arcs made within');
    await expect(figure).toHaveAttribute('placeholder', 'takes none');
    await typeFigure(figure, '0.05');
    await expect(page.getByText('From 0.001 to 0.004 mm, or nothing.')).toBeVisible();
    await typeFigure(figure, '0.002');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();

    const id = await openOwnJob(page, started, rings);
    await page.getByRole('button', { name: 'Send to Plover' }).click();
    await expect(page.getByTestId('run-row').first()).toHaveAttribute('data-status', 'done');
    const [run] = await askOwn<RunAnswer[]>(started.own, page, `runs?job=${id}`);
    const program = await (await page.request.get(`${started.own.address}/api/runs/${run.id}/program.gcode`)).text();
    const burns = readProgram(program.trimEnd().split('\n'));
    const centres = burns.map(({ arc }) => arc && [Math.round(arc.cx), Math.round(arc.cy)].join(' '));
    // Of a bed of 300 mm, whose zero is at the front.
    expect(new Set(centres)).toEqual(new Set(['60 220', '160 220', '260 220']));
    expect(burns).toHaveLength(6);
    // The other one is timed by the clock on the wall, where it runs ten times as fast.
    if (language === 'Lambent') expect(Math.abs(run.machineS / run.plannedS - 1)).toBeLessThan(0.001);
  });
}
