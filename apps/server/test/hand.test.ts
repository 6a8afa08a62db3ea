import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, MachineState, RunAnswer } from '@lambent/contracts';
import { jobFromJson, jobToJson } from '@lambent/core/document';
import { addItems, changeRun, changeSetting } from '@lambent/core/edits';
import { type Connection, type Machine, usualMachine } from '@lambent/core/machine';
import { type Material, startingMaterials } from '@lambent/core/recipes';
import { SerialMachine } from './serial-machine.ts';
import { Stack } from './stack.ts';

/** A shop with one stand-in and one small controller at a serial port; their zero is at the front left. */
const stack = new Stack(undefined, '');
const line = new SerialMachine();
let materialId = '';
const machines = new Map<string, Machine>();

async function add(name: string, connection: Connection, more: Partial<Machine> = {}): Promise<void> {
  const own = {
    ...usualMachine('co2'),
    name,
    bedWidth: 400,
    bedHeight: 300,
    origin: 'bottom-left',
    connection,
    ...more,
  };
  const { status, body } = await stack.ask<Machine & ErrorAnswer>('POST', '/api/machines', own);
  expect({ status, ...body.error }).toEqual({ status: 201 });
  machines.set(name, body);
  await until(name, ({ state }) => state === 'idle');
}

beforeAll(async () => {
  await stack.start();
  await line.start(
    '--width',
    '400',
    '--height',
    '300',
    '--top-speed',
    '500',
    '--travel-speed',
    '600',
    '--factor',
    '20',
  );
  const { name, thicknessMm, tone, sheetWidth, sheetHeight } = startingMaterials[0];
  const material = { name, thicknessMm, tone, sheetWidth, sheetHeight };
  materialId = (await stack.ask<Material>('POST', '/api/materials', { by: 'Ines', material })).body.id;
  await add(
    'Plover',
    { kind: 'stand-in', factor: 20 },
    {
      pointer: { x: 12, y: -4 },
      focus: { lowest: -5, highest: 20, speed: 10 },
      air: { levels: ['low', 'high'], mostBar: null },
    },
  );
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
const stateOf = async (name: string) => {
  const { body } = await stack.ask<MachineState[]>('GET', '/api/machines/states');
  return body.find(({ machineId }) => machineId === idOf(name)) as MachineState;
};
const ask = (name: string, what: string, body: unknown) =>
  stack.ask<MachineState & ErrorAnswer>('POST', `/api/machines/${idOf(name)}/${what}`, body);
/** Asks what is to be done; where it is refused, the test says why. */
async function done(name: string, what: string, body: unknown): Promise<void> {
  const answer = await ask(name, what, body);
  expect({ status: answer.status, ...answer.body.error }).toEqual({ status: 200 });
}
const stands = (name: string, x: number, y: number) =>
  until(name, (own) => own.errand === null && own.state === 'idle' && Math.hypot(own.x - x, own.y - y) < 0.002);
/** Sends the head somewhere, and waits until it is there. */
async function go(name: string, wish: unknown, x: number, y: number): Promise<void> {
  await done(name, 'head', wish);
  await stands(name, x, y);
}

/** A job with one square of 60 mm, 20 mm from the bed's left and top. @returns its id and version */
async function job(name: string, landing?: Parameters<typeof changeRun>[2]['landing']) {
  const { body } = await stack.ask<JobAnswer>('POST', '/api/jobs', {
    title: 'Frame',
    machineId: idOf(name),
    materialId,
  });
  let document = jobFromJson(body.document);
  document = addItems(document, [
    {
      id: 'frame',
      name: null,
      shape: { kind: 'rectangle', x: 20, y: 20, width: 60, height: 60, rx: 0, ry: 0 },
      matrix: [1, 0, 0, 1, 0, 0],
      paint: { stroke: '#D7263D', strokeWidthMm: 0.1, fill: null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: 'cut',
      hidden: false,
    } as never,
  ]);
  document = changeSetting(document, 'cut', 'powerPercent', 60);
  document = changeSetting(document, 'cut', 'speedMmPerS', 5);
  if (landing) document = changeRun(document, document.runs[0].id, { landing });
  const base = { base: String(body.version), edit: 'draw' };
  expect((await stack.sendJob('PUT', `/api/jobs/${body.id}`, base, jobToJson(document))).status).toBe(200);
  return { id: body.id, version: body.version + 1 };
}
const walk = (of: { id: string; version: number }, wish: object = {}) =>
  stack.ask<MachineState & ErrorAnswer>('POST', `/api/jobs/${of.id}/walks`, {
    version: of.version,
    shape: 'rectangle',
    speed: 200,
    spot: 'beam',
    ...wish,
  });
/** Stops a machine, and waits until it can go on with something else. */
async function stop(name: string) {
  const stopped = await ask(name, 'commands', { command: 'stop' });
  await until(name, ({ errand, runId, state }) => errand === null && runId === null && state === 'idle');
  return stopped;
}

/** How often the beam of the small controller went on so far. */
const timesLit = () => line.told.filter((text) => text === 'the beam is on').length;
let litByJob = 0;

describe.each(['Plover', 'Sanderling'])('the head of %s', (name) => {
  test('goes to a typed place and by steps, and says where it goes', async () => {
    await go(name, { x: 100, y: 50 }, 100, 50);
    await go(name, { dx: -10 }, 90, 50);
    await go(name, { dy: 0.1 }, 90, 50.1);
    await go(name, { y: 20 }, 90, 20);
    const { body } = await ask(name, 'head', { x: 300, y: 250 });
    expect(body.errand).toEqual({ kind: 'move', to: { x: 300, y: 250 }, jobId: null, title: null });
    expect(body.runId).toBeNull();
    await stands(name, 300, 250);
  });

  test('adds up steps that come while it moves', async () => {
    await go(name, { x: 0, y: 0 }, 0, 0);
    for (let i = 0; i < 5; i++) expect((await ask(name, 'head', { dx: 20, dy: 10 })).status).toBe(200);
    await stands(name, 100, 50);
  });

  test('goes to every edge and not beyond: a step ends there, a place off the bed is refused with its limits', async () => {
    for (const [dx, dy, x, y] of [
      [1000, 0, 400, 50],
      [0, 1000, 400, 300],
      [-1000, 0, 0, 300],
      [0, -1000, 0, 0],
    ]) {
      await go(name, { dx, dy }, x, y);
      const { status, body } = await ask(name, 'head', { dx, dy });
      expect({ status, code: body.error.code }).toEqual({ status: 409, code: 'bed-ends' });
    }
    for (const place of [{ x: -0.1 }, { x: 400.1 }, { y: -0.1 }, { y: 300.1 }]) {
      const { status, body } = await ask(name, 'head', place);
      expect({ status, code: body.error.code }).toEqual({ status: 400, code: 'off-bed' });
      expect(body.error.message).toContain('X goes from 0 to 400 mm, Y from 0 to 300 mm');
    }
    expect(await stateOf(name)).toMatchObject({ x: 0, y: 0, state: 'idle' });
    expect((await ask(name, 'head', {})).status).toBe(400);
  });

  test('walks the bounds again and again, unlit, until it is stopped', async () => {
    const own = await job(name);
    const { status, body } = await walk(own, { speed: 12 });
    expect({ status, ...body.error }).toEqual({ status: 200 });
    expect(body.errand).toEqual({ kind: 'walk', to: null, jobId: own.id, title: 'Frame' });
    const seen = new Set<string>();
    let laps = 0;
    let isNearStart = false;
    for await (const event of stack.events()) {
      if (event.type !== 'machine' || event.machine.machineId !== idOf(name)) continue;
      const { x, y, power, errand } = event.machine;
      expect(power).toBe(0);
      expect(errand?.kind).toBe('walk');
      // The bed is 300 mm deep and its zero at the front: the square lies at y from 220 to 280.
      if (x > 19 && y > 219) seen.add(`${x > 50 ? 'right' : 'left'} ${y > 250 ? 'back' : 'front'}`);
      const near = Math.hypot(x - 20, y - 280) < 25;
      if (near && !isNearStart) laps++;
      isNearStart = near;
      if (laps > 2) break;
    }
    expect(seen).toEqual(new Set(['left back', 'right back', 'right front', 'left front']));
    expect((await ask(name, 'head', { dx: 1 })).body.error.code).toBe('machine-busy');
    expect((await stop(name)).status).toBe(200);
    await until(name, ({ errand }) => errand === null);
    expect((await stateOf(name)).lastWalk).toMatchObject({
      jobId: own.id,
      title: 'Frame',
      shape: 'rectangle',
      runName: 'Run 1',
    });
  });

  test('does not walk where that would leave the bed, nothing burns, or it is not known where the run lands', async () => {
    const atEdge = await job(name, { kind: 'stock', u: 0, v: 0, inset: 0 });
    expect((await walk(atEdge)).status).toBe(200);
    await stop(name);
    const { body } = await walk(await job(name, { kind: 'head', u: 0.5, v: 0.5 }));
    // The head stands at a corner of the bed by now, or near it.
    expect(body.error?.code ?? 'walks').toMatch(/off-bed|walks/);
    await stop(name);
    const unknown = await walk(await job(name, { kind: 'marks', marks: [], isScaled: false }));
    expect(unknown.body.error).toMatchObject({ code: 'no-landing' });
    expect(unknown.body.error.message).toContain('Its two points were not both touched');
  });

  test('is left alone while a job burns; a job that is sent ends the walk', async () => {
    const own = await job(name);
    await walk(own);
    await until(name, ({ errand, state }) => errand?.kind === 'walk' && state === 'running');
    expect(timesLit()).toBe(0);
    const { status, body: run } = await stack.ask<RunAnswer & ErrorAnswer>('POST', `/api/jobs/${own.id}/runs`, {
      version: own.version,
    });
    expect({ status, ...run.error }).toEqual({ status: 201 });
    await until(name, ({ power }) => power > 0);
    const before = await stateOf(name);
    expect(before).toMatchObject({ errand: null, runId: run.id });
    for (const [what, wish] of [
      ['head', { dx: 1 }],
      ['head', { x: 5, y: 5 }],
    ] as const) {
      expect((await ask(name, what, wish)).body.error.code).toBe('machine-busy');
    }
    expect((await walk(own)).body.error.code).toBe('machine-busy');
    await stop(name);
    litByJob = timesLit();
  });
});

test('the beam of the small controller was never on but while a job burnt', async () => {
  await line.beam('off');
  expect(litByJob).toBeGreaterThan(0);
  expect(timesLit()).toBe(litByJob);
});

describe('what else is done by hand', () => {
  beforeEach(() => until('Plover', ({ state, errand, runId }) => state === 'idle' && !errand && !runId));

  test('the focus goes up and down within its limits', async () => {
    await done('Plover', 'focus', { dz: 3 });
    await until('Plover', ({ z, errand }) => z === 3 && errand === null);
    await ask('Plover', 'focus', { dz: -100 });
    await until('Plover', ({ z, errand }) => z === -5 && errand === null);
    const { status, body } = await ask('Plover', 'focus', { dz: -1 });
    expect({ status, code: body.error.code }).toEqual({ status: 409, code: 'focus-ends' });
    expect((await ask('Sanderling', 'focus', { dz: 1 })).body.error.message).toBe(
      'The focus of Sanderling is set by hand, at the machine.',
    );
  });

  test('air and pointer are switched, where there are any', async () => {
    for (const air of ['high', 'low', 'off']) {
      await done('Plover', 'air', { air });
      await until('Plover', (own) => own.air === air && own.errand === null);
    }
    expect((await ask('Sanderling', 'air', { air: 'high' })).body.error.code).toBe('no-air');
    await ask('Plover', 'commands', { command: 'pointer-on' });
    await until('Plover', ({ pointer }) => pointer === true);
    await ask('Plover', 'commands', { command: 'pointer-off' });
    await until('Plover', ({ pointer }) => pointer === false);
    expect((await stateOf('Sanderling')).orders).not.toContain('pointer-on');
  });

  test('the red pointer walks where it can: the head goes beside it', async () => {
    const own = await job('Plover');
    expect((await walk(own, { spot: 'pointer', speed: 50 })).status).toBe(200);
    // The pointer shines 12 mm to the right of the beam and 4 mm in front of it.
    await until('Plover', ({ x, y }) => Math.hypot(x - (20 - 12), y - (280 + 4)) < 0.5);
    await stop('Plover');
    const near = await job('Plover', { kind: 'mark', u: 0, v: 0 });
    expect((await walk(near, { spot: 'pointer' })).body.error.code).toBe('no-landing');
    const sheetCorner = await job('Plover', { kind: 'stock', u: 0, v: 0, inset: 0 });
    expect((await walk(sheetCorner, { spot: 'pointer' })).body.error.code).toBe('off-bed');
    expect((await walk(await job('Sanderling'), { spot: 'pointer' })).body.error.code).toBe('no-pointer');
  });

  test('a head may be moved with the lid open; a job may not be sent then', async () => {
    await ask('Plover', 'commands', { command: 'open-lid' });
    await go('Plover', { x: 30, y: 40 }, 30, 40);
    const own = await job('Plover');
    const { body } = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${own.id}/runs`, { version: own.version });
    expect(body.error.code).toBe('lid-open');
    await ask('Plover', 'commands', { command: 'close-lid' });
  });

  test('a run that begins where the head stands is planned from there', async () => {
    const planned = async () => {
      const own = await job('Plover');
      const { body } = await stack.ask<RunAnswer>('POST', `/api/jobs/${own.id}/runs`, { version: own.version });
      await stop('Plover');
      return body.plannedS;
    };
    await go('Plover', { x: 20, y: 280 }, 20, 280);
    const near = await planned();
    await go('Plover', { x: 400, y: 0 }, 400, 0);
    // 380 mm more to go, at 500 mm/s.
    const more = (await planned()) - near;
    expect(more).toBeGreaterThan(0.7);
    expect(more).toBeLessThan(0.85);
  });
});

describe('a stop that comes before a run has begun', () => {
  const sends = (own: { id: string; version: number }) =>
    stack.ask<RunAnswer & ErrorAnswer>('POST', `/api/jobs/${own.id}/runs`, { version: own.version });
  const endOf = async (run: RunAnswer) => {
    const runs = await stack.until<RunAnswer[]>(
      `/api/runs?job=${run.jobId}`,
      (all) => all.find(({ id }) => id === run.id)?.endedAt !== null,
    );
    return runs.find(({ id }) => id === run.id) as RunAnswer;
  };

  test.each(['Plover', 'Sanderling'])('drops a run that was sent just now: %s', async (name) => {
    const own = await job(name);
    for (let i = 0; i < 6; i++) {
      await until(name, ({ state, runId }) => state === 'idle' && runId === null);
      const { status, body: run } = await sends(own);
      expect({ status, ...run.error }).toEqual({ status: 201 });
      await stop(name);
      expect(await endOf(run)).toMatchObject({ status: 'stopped', doneLine: expect.any(Number) });
      expect((await stateOf(name)).power).toBe(0);
    }
  });

  test('drops a job that is being made ready, and says so to who sent it', async () => {
    const own = await job('Plover');
    const answer = sends(own);
    await until('Plover', ({ makingReady, runId }) => makingReady === 'Frame' || runId !== null);
    await stop('Plover');
    const { status, body } = await answer;
    // On a slow day it may have been sent already.
    if (status === 201) expect((await endOf(body)).status).toBe('stopped');
    else expect({ status, ...body.error }).toMatchObject({ status: 409, code: 'stopped' });
    await until('Plover', ({ makingReady, state }) => makingReady === null && state === 'idle');
  });
});
