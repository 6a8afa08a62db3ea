import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, MachineState, RunAnswer } from '@lambent/contracts';
import { jobFromJson, jobToJson } from '@lambent/core/document';
import { addItems, changeSetting } from '@lambent/core/edits';
import { type Connection, type Machine, usualMachine } from '@lambent/core/machine';
import type { RunBasis } from '@lambent/core/plan';
import { type Material, startingMaterials } from '@lambent/core/recipes';
import { readProgram } from '../../../packages/core/src/fixtures/program-reader.ts';
import { SerialMachine } from './serial-machine.ts';
import { Stack } from './stack.ts';

/** A shop with one stand-in and one small controller at a serial port. */
const stack = new Stack(undefined, '');
const line = new SerialMachine();
let materialId = '';
const machines = new Map<string, Machine>();

async function add(name: string, connection: Connection): Promise<void> {
  const { status, body } = await stack.ask<Machine & ErrorAnswer>('POST', '/api/machines', {
    ...usualMachine('co2'),
    name,
    bedWidth: 400,
    bedHeight: 300,
    connection,
  });
  expect({ status, ...body.error }).toEqual({ status: 201 });
  machines.set(name, body);
  await until(name, ({ state }) => state === 'idle');
}
beforeAll(async () => {
  await stack.start();
  await line.start('--width', '400', '--height', '300', '--top-speed', '500', '--travel-speed', '600', '--factor', '5');
  const { name, thicknessMm, tone, sheetWidth, sheetHeight } = startingMaterials[0];
  const material = { name, thicknessMm, tone, sheetWidth, sheetHeight };
  materialId = (await stack.ask<Material>('POST', '/api/materials', { by: 'Ines', material })).body.id;
  await add('Plover', { kind: 'stand-in', factor: 5 });
  await add('Sanderling', { kind: 'serial', path: line.port, baud: 115_200, buffer: 127 });
});
afterAll(async () => {
  await stack.close();
  await line.close();
});

const idOf = (name: string) => machines.get(name)?.id ?? '';
const until = (name: string, suits: (state: MachineState) => boolean) =>
  stack.until<MachineState[]>('/api/machines/states', (states) =>
    states.some((own) => own.machineId === idOf(name) && suits(own)),
  );
const post = <T = RunAnswer>(path: string, body: unknown) => stack.ask<T & ErrorAnswer>('POST', path, body);
const command = (name: string, word: string) => post(`/api/machines/${idOf(name)}/commands`, { command: word });
const ended = async (id: string) => (await stack.ask<RunAnswer>('GET', `/api/runs/${id}?wait=60`)).body;
const programOf = async ({ id }: RunAnswer) =>
  (await stack.ask<string>('GET', `/api/runs/${id}/program.gcode`)).body.trimEnd().split('\n');
/** Puts a machine that stands after a stop, or in alarm, right again. */
async function ready(name: string): Promise<void> {
  await until(name, ({ state, runId }) => runId === null && (state === 'idle' || state === 'alarm'));
  await command(name, 'clear');
  await until(name, ({ state }) => state === 'idle');
}

/** A job of three frames, one after the other. @returns its id and version */
async function job(name: string, layer = 'cut') {
  const { body } = await stack.ask<JobAnswer>('POST', '/api/jobs', {
    title: 'Frames',
    machineId: idOf(name),
    materialId,
  });
  let document = jobFromJson(body.document);
  for (const x of [20, 60, 100]) {
    document = addItems(document, [
      {
        id: `frame-${x}`,
        name: null,
        shape: { kind: 'rectangle', x, y: 20, width: 30, height: 30, rx: 0, ry: 0 },
        matrix: [1, 0, 0, 1, 0, 0],
        paint: { stroke: '#D7263D', strokeWidthMm: 0.1, fill: null },
        fillRule: 'nonzero',
        groupId: null,
        pinned: layer,
        hidden: false,
      } as never,
    ]);
  }
  document = changeSetting(
    changeSetting(document, layer, 'powerPercent', 60),
    layer,
    'speedMmPerS',
    layer === 'cut' ? 20 : 300,
  );
  if (layer === 'engrave') document = changeSetting(document, layer, 'lineSpacingMm', 3);
  const base = { base: String(body.version), edit: 'draw' };
  expect((await stack.sendJob('PUT', `/api/jobs/${body.id}`, base, jobToJson(document))).status).toBe(200);
  return { id: body.id, version: body.version + 1, document };
}
async function begun(of: { id: string; version: number }): Promise<RunAnswer> {
  const { status, body } = await post(`/api/jobs/${of.id}/runs`, { version: of.version, by: 'Ines Varga' });
  expect({ status, ...body.error }).toEqual({ status: 201 });
  return body;
}
/** What is burnt, each stretch with its power, speed and floor. */
const burnt = (lines: readonly string[]) => readProgram(lines).map(({ title: _, ...burn }) => JSON.stringify(burn));

/** How a run comes to its end before its time, by machine. */
const ends: readonly (readonly [string, string, () => Promise<unknown>, RunAnswer['status']])[] = [
  ['Plover', 'stopped by hand', () => command('Plover', 'stop'), 'stopped'],
  ['Sanderling', 'stopped by hand', () => command('Sanderling', 'stop'), 'stopped'],
  ['Sanderling', 'ended by an alarm', () => line.do('alarm'), 'refused'],
  ['Sanderling', 'broken off by a restart of the machine', () => line.do('restart'), 'broken off'],
];

describe('a run that goes on', () => {
  test.each(ends)(
    'on %s, after it was %s, burns what is left, and every stretch once',
    async (name, _, end, status) => {
      const run = await begun(await job(name));
      // The first frame is cut, and the second begun.
      await until(name, ({ line: done, power }) => done >= 13 && power > 0);
      await end();
      const first = await ended(run.id);
      expect(first.status).toBe(status);
      const program = await programOf(first);
      // From the line that was under way when it ended: what of it was burnt burns twice, and nothing is left out.
      const fromLine = first.doneLine + 1;
      expect(fromLine).toBeGreaterThan(13);
      expect(fromLine).toBeLessThan(program.length);
      await ready(name);
      const { status: answered, body: rest } = await post(`/api/runs/${run.id}/go-on`, { fromLine, by: 'Rui Costa' });
      expect({ status: answered, ...rest.error }).toEqual({ status: 201 });
      expect(rest).toMatchObject({ afterRunId: run.id, fromLine, by: 'Rui Costa', version: run.version });
      expect((await ended(rest.id)).status).toBe('done');
      const restProgram = await programOf(rest);
      expect([...burnt(program.slice(0, fromLine - 1)), ...burnt(restProgram)]).toEqual(burnt(program));
      // What the small controller took is counted here, ten times a second, in time that passes five times as fast.
      if (name !== 'Plover') return;
      expect(Math.abs((await ended(rest.id)).machineS - rest.plannedS)).toBeLessThan(0.03 * rest.plannedS + 1);
    },
  );

  test('is refused where it has no such line, has not ended, or is for another machine by now', async () => {
    const own = await job('Plover');
    const run = await begun(own);
    const busy = await post(`/api/runs/${run.id}/go-on`, { fromLine: 5 });
    expect(busy.body.error.code).toBe('run-goes-on');
    await ended(run.id);
    const beyond = await post(`/api/runs/${run.id}/go-on`, { fromLine: run.lines + 1 });
    expect([beyond.status, beyond.body.error.message]).toEqual([
      400,
      `The program of this run has ${run.lines} lines: it cannot go on from line ${run.lines + 1}.`,
    ]);
    expect((await post(`/api/runs/${run.id}/go-on`, { fromLine: 0 })).status).toBe(400);
    const machine = machines.get('Plover') as Machine;
    await stack.ask('PUT', `/api/machines/${machine.id}`, { ...machine, powerScale: 255 });
    await until('Plover', ({ state }) => state === 'idle');
    const other = await post(`/api/runs/${run.id}/go-on`, { fromLine: 5 });
    expect(other.body.error.code).toBe('other-machine');
    const again = await post(`/api/runs/${run.id}/again`, { asItWas: true });
    expect(again.body.error.details).toMatchObject({ mayBurn: false });
    await stack.ask('PUT', `/api/machines/${machine.id}`, machine);
    await until('Plover', ({ state }) => state === 'idle');
  });
});

describe('the record', () => {
  test('is searched by job, material, machine and day', async () => {
    const on = async (query: Record<string, string>) => {
      const { status, body } = await stack.ask<RunAnswer[]>('GET', `/api/runs?${new URLSearchParams(query)}`);
      expect(status).toBe(200);
      return body;
    };
    const all = await on({});
    expect(all.length).toBeGreaterThan(3);
    expect(all.map(({ startedAt }) => startedAt)).toEqual(
      all
        .map(({ startedAt }) => startedAt)
        .toSorted()
        .reverse(),
    );
    const ids = (runs: RunAnswer[]) => runs.map(({ id }) => id);
    const [plover] = [machines.get('Plover') as Machine];
    const onPlover = await on({ machine: plover.id });
    expect(ids(onPlover)).toEqual(ids(all.filter(({ machineId }) => machineId === plover.id)));
    expect(onPlover.length).toBeLessThan(all.length);
    expect(ids(await on({ title: 'FRAM' }))).toEqual(ids(all));
    expect(await on({ title: 'fr%s' })).toEqual([]);
    const onPly = await on({ material: 'birch' });
    expect(ids(onPly)).toEqual(ids(all.filter(({ materials }) => materials.some((name) => /birch/i.test(name)))));
    expect(onPly.length).toBeGreaterThan(0);
    expect(await on({ material: 'slate' })).toEqual([]);
    // From one moment on, and before another.
    const [newest, second] = all;
    expect(ids(await on({ from: newest.startedAt }))).toEqual([newest.id]);
    expect(ids(await on({ until: newest.startedAt }))).toEqual(ids(all.slice(1)));
    expect(
      ids(await on({ from: second.startedAt, until: newest.startedAt, title: 'frames', machine: second.machineId })),
    ).toEqual([second.id]);
    expect((await stack.ask('GET', '/api/runs?from=yesterday')).status).toBe(400);
  });
});

describe('a run that is burnt again', () => {
  test('has the very program, and stands on record with who sent it and what it burnt by', async () => {
    const own = await job('Plover');
    const first = await begun(own);
    await ended(first.id);
    // The name of the job and a later version of it change nothing of what was burnt.
    await stack.ask('PATCH', `/api/jobs/${own.id}`, { title: 'Frames of March' });
    const { status, body: second } = await post(`/api/runs/${first.id}/again`, { by: 'Rui Costa' });
    expect({ status, ...second.error }).toEqual({ status: 201 });
    expect(second.programHash).toBe(first.programHash);
    expect([first.by, second.by]).toEqual(['Ines Varga', 'Rui Costa']);
    expect(second.materials).toEqual([expect.stringMatching(/^Birch plywood/)]);
    expect((await ended(second.id)).status).toBe('done');
    const basis = (await stack.ask<RunBasis>('GET', `/api/runs/${second.id}/basis`)).body;
    expect(basis.layers).toMatchObject([{ name: 'Cut', settings: { powerPercent: 60, speedMmPerS: 20 } }]);
    expect(basis.steps.map(({ title }) => title)).toEqual(['Cut · outside']);
    expect((await stack.ask('GET', `/api/runs/${own.id}/basis`)).status).toBe(404);
  });

  test('is refused with what has changed since, and burnt as it was where that is said', async () => {
    // How far the head runs up to scan lines hangs on its acceleration.
    const own = await job('Plover', 'engrave');
    const first = await begun(own);
    await ended(first.id);
    const machine = machines.get('Plover') as Machine;
    await stack.ask('PUT', `/api/machines/${machine.id}`, { ...machine, acceleration: 3333 });
    await until('Plover', ({ state }) => state === 'idle');
    const { status, body } = await post(`/api/runs/${first.id}/again`, {});
    expect({ status, code: body.error.code }).toEqual({ status: 409, code: 'changed-since' });
    expect(body.error.details).toEqual({
      changes: [`The machine: acceleration ${machine.acceleration} mm/s² → 3333 mm/s².`],
      mayBurn: true,
    });
    const { body: second } = await post(`/api/runs/${first.id}/again`, { asItWas: true });
    expect(second.programHash).toBe(first.programHash);
    await ended(second.id);
    await stack.ask('PUT', `/api/machines/${machine.id}`, machine);
    await until('Plover', ({ state }) => state === 'idle');
  });
});
