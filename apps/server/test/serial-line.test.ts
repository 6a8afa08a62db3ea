import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { ConnectionTest, ErrorAnswer, JobAnswer, MachineState, RunAnswer } from '@lambent/contracts';
import { jobFromJson, jobToJson } from '@lambent/core/document';
import { addItems, changeSetting, setSheet } from '@lambent/core/edits';
import { type Machine, usualMachine } from '@lambent/core/machine';
import { type Material, startingMaterials } from '@lambent/core/recipes';
import { SerialMachine } from './serial-machine.ts';
import { Stack } from './stack.ts';

/** A shop with nothing in it, and a small controller at a serial port. */
const stack = new Stack(undefined, '');
let line: SerialMachine;
let machine: Machine;
let count = 0;

beforeAll(() => stack.start());
afterAll(() => stack.close());
beforeEach(() => {
  line = new SerialMachine();
});
afterEach(async () => {
  await line.close();
  if (machine) await stack.ask('PUT', `/api/machines/${machine.id}`, { ...machine, isPutAway: true });
});

const state = async () => {
  const states = await stack.ask<MachineState[]>('GET', '/api/machines/states');
  return states.body.find(({ machineId }) => machineId === machine.id) as MachineState;
};
const until = (suits: (state: MachineState) => boolean) =>
  stack.until<MachineState[]>('/api/machines/states', (states) =>
    states.some((own) => own.machineId === machine.id && suits(own)),
  );

/** Takes a machine into the shop, and waits until it answers. */
async function add(own: Machine): Promise<void> {
  const { status, body } = await stack.ask<Machine & ErrorAnswer>('POST', '/api/machines', own);
  expect({ status, ...body.error }).toEqual({ status: 201 });
  machine = body;
  await until((heard) => heard.state === 'idle');
}

/** Switches the machine on, and tells Lambent of it. */
async function connect(words: string[] = [], more: Partial<Machine> = {}): Promise<void> {
  await line.start('--factor', '4', ...words);
  const connection = { kind: 'serial' as const, path: line.port, baud: 115_200, buffer: 127 };
  const own = {
    ...usualMachine('diode'),
    name: `Sanderling ${++count}`,
    lookAhead: 16,
    moveMs: 1,
    connection,
    ...more,
  };
  await add(own);
}

/** Sends a frame that takes some seconds to burn. */
async function burn(speedMmPerS: number, passes = 1): Promise<{ status: number; body: RunAnswer & ErrorAnswer }> {
  const materials = await stack.ask<Material[]>('GET', '/api/materials');
  let [material] = materials.body;
  if (!material) {
    const { name, thicknessMm, tone, sheetWidth, sheetHeight } = startingMaterials[0];
    const fresh = { name, thicknessMm, tone, sheetWidth, sheetHeight };
    material = (await stack.ask<Material>('POST', '/api/materials', { by: 'Ines', material: fresh })).body;
  }
  const words = { title: 'Frame', machineId: machine.id, materialId: material.id };
  const { body: job } = await stack.ask<JobAnswer>('POST', '/api/jobs', words);
  let document = jobFromJson(job.document);
  document = setSheet(document, { ...document.sheets[0], x: 0, y: 0, width: 300, height: 300 });
  const shape = { kind: 'rectangle' as const, x: 40, y: 240, width: 60, height: 40, rx: 0, ry: 0 };
  document = addItems(document, [
    {
      id: 'frame',
      name: null,
      shape,
      matrix: [1, 0, 0, 1, 0, 0],
      paint: { stroke: '#D7263D', strokeWidthMm: 0.1, fill: null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: 'cut',
      hidden: false,
    } as never,
  ]);
  document = changeSetting(document, 'cut', 'powerPercent', 60);
  document = changeSetting(document, 'cut', 'speedMmPerS', speedMmPerS);
  document = changeSetting(document, 'cut', 'passes', passes);
  document = changeSetting(document, 'cut', 'pierceS', 0.3);
  const base = { base: String(job.version), edit: 'draw' };
  const kept = await stack.sendJob<JobAnswer>('PUT', `/api/jobs/${job.id}`, base, jobToJson(document));
  expect(kept.status).toBe(200);
  return stack.ask<RunAnswer & ErrorAnswer>('POST', `/api/jobs/${job.id}/runs`, {
    version: job.version + 1,
  });
}
/** The same, of a run that is expected to start. */
async function begin(speedMmPerS: number, passes = 1): Promise<RunAnswer> {
  const { status, body } = await burn(speedMmPerS, passes);
  expect({ status, ...body.error }).toEqual({ status: 201 });
  return body;
}
const ended = async ({ id }: RunAnswer) => {
  const { body } = await stack.ask<RunAnswer>('GET', `/api/runs/${id}?wait=60`);
  return body;
};
/** Begins a run that takes half a minute, and waits until it burns. */
async function underway(words: string[] = [], more: Partial<Machine> = {}): Promise<RunAnswer> {
  await connect(words, more);
  const run = await begin(2, 3);
  await line.beam('on');
  return run;
}

test('a job is burnt over a serial line, to its last line, and its time is counted', async () => {
  await connect(['--factor', '1']);
  expect(await state()).toMatchObject({
    lid: null,
    watches: false,
    orders: ['hold', 'resume', 'stop', 'home', 'clear'],
  });
  const run = await begin(80);
  const done = await ended(run);
  expect(done).toMatchObject({ status: 'done', reason: null, doneLine: done.lines, hasPicture: false });
  // Counted here, of a machine that keeps real time: a computer that is busy makes both longer.
  expect(done.machineS).toBeGreaterThan(done.plannedS * 0.7);
  expect(done.machineS).toBeLessThanOrEqual((Date.parse(done.endedAt ?? '') - Date.parse(done.startedAt)) / 1000);
  expect(line.told.filter((text) => text === 'the beam is on').length).toBeGreaterThan(0);
  expect(line.isLit).toBe(false);
  expect(await state()).toMatchObject({ state: 'idle', power: 0, runId: null });
});

test('it is held, goes on, and is stopped by hand; it goes home, and takes the next run', async () => {
  const run = await underway();
  const order = (command: string) =>
    stack.ask<ErrorAnswer>('POST', `/api/machines/${machine.id}/commands`, { command });
  expect((await order('hold')).status).toBe(200);
  await until((heard) => heard.state === 'held');
  await line.beam('off');
  await order('resume');
  await line.beam('on');
  expect((await order('open-lid')).body.error.message).toBe('This machine cannot be told that.');
  expect((await order('stop')).status).toBe(200);
  expect(await ended(run)).toMatchObject({ status: 'stopped', reason: 'stopped by hand' });
  expect(line.isLit).toBe(false);
  expect((await order('home')).status).toBe(200);
  await until((heard) => heard.state === 'idle' && heard.x === 0 && heard.y === 0);
  expect(await ended(await begin(90))).toMatchObject({ status: 'done' });
});

test('the same language is spoken over the network', async () => {
  const port = await line.listen('--factor', '10');
  const connection = { kind: 'network' as const, host: '127.0.0.1', port, language: 'plain' as const, buffer: 127 };
  await add({ ...usualMachine('diode'), name: 'Turnstone', connection });
  expect(await state()).toMatchObject({ lid: null, watches: false });
  expect(await ended(await begin(90))).toMatchObject({ status: 'done', hasPicture: false });
  expect([line.told.includes('the beam is on'), line.isLit]).toEqual([true, false]);
});

describe('each fault of the line ends with the beam off, a record and a sentence', () => {
  test.each([
    ['alarm', 'refused', /^a switch at the end of an axis was touched; home it$/],
    ['restart', 'broken off', /^the machine was restarted while it ran$/],
    ['babble', 'broken off', /^the line is disturbed: “.*” came over it; see to its cable$/],
    // Another baud, all at once: nothing makes sense any more, either way.
    ['noise', 'broken off', /^the line is disturbed|^the line to the machine broke/],
  ])('%s', async (what, status, reason) => {
    const run = await underway();
    await line.do(what);
    expect(await ended(run)).toMatchObject({ status, reason: expect.stringMatching(reason) });
    await line.beam('off');
    // Garbled orders do not reach it; what it had burns out.
    if (what === 'noise') await line.do('quiet');
    await until(({ state: heard, runId }) => (heard === 'idle' || heard === 'alarm') && runId === null);
    expect(line.isLit).toBe(false);
  });

  test('the cable pulled out', async () => {
    const run = await underway();
    await line.unplug();
    const reason =
      /^the line to the machine broke(: the port is gone)?; it had at most 2 s still to burn; see that it stands$/;
    expect(await ended(run)).toMatchObject({ status: 'broken off', reason: expect.stringMatching(reason) });
    await line.beam('off');
    // Once it was tried to open the port again, it is said what is wrong with it.
    await until(({ state: heard, reason: why }) => heard === 'away' && /^there is no port/.test(why ?? ''));
    const again = await burn(50);
    expect([again.status, again.body.error.code]).toEqual([409, 'machine-away']);
    expect(again.body.error.message).toMatch(/^The machine does not answer: there is no port .*: plug the machine in/);
  });

  test('a buffer that is smaller than was said, and not told of', async () => {
    // Characters that do not fit are lost: a line with none of its end, or two lines in one.
    await connect(['--buffer', '40', '--tells-no-room', '--line-ms', '200']);
    const end = await ended(await begin(2, 3));
    expect(end).toMatchObject({ status: expect.stringMatching(/^(refused|broken off)$/) });
    expect(end.reason).toMatch(/\(error \d+\), at “|has not answered “/);
    await line.beam('off');
  });

  test('the server killed in a run: the machine burns out what it has, and the next server says so', async () => {
    const run = await underway();
    await stack.kill('server');
    await line.beam('off');
    await stack.start();
    const end = await ended(run);
    expect(end).toMatchObject({
      status: 'broken off',
      reason: expect.stringMatching(/the machine cannot say how far/),
    });
    expect(line.isLit).toBe(false);
    await until((heard) => heard.state === 'idle');
  });
});

describe('the connection is tested step by step', () => {
  const tested = (connection: object, id = 'new') =>
    stack.ask<ConnectionTest & ErrorAnswer>('POST', '/api/machines/connection-test', {
      ...usualMachine('diode'),
      id,
      name: 'Sanderling',
      connection,
    });
  const serial = (path = line.port) => ({ kind: 'serial' as const, path, baud: 115_200, buffer: 127 });

  test('before the machine is kept, and after', async () => {
    await line.start('--acceleration-y', '700');
    const { body } = await tested(serial());
    expect(body.steps.map(({ level, message }) => `${level}: ${message}`)).toEqual([
      'good: The line is open, and it answers in the plain language.',
      'good: It is idle.',
      'good: It takes 127 characters and 17 moves.',
      'good: Its laser mode is on: the power follows the speed.',
    ]);
    const figures = { powerScale: 1000, travelSpeed: 120, acceleration: 1000, accelerationY: 700 };
    expect(body.figures).toEqual({ ...figures, bedWidth: 400, bedHeight: 400, lookAhead: 16 });
    const own = { ...usualMachine('diode'), name: 'Sanderling', connection: serial() };
    await add(own);
    expect((await tested(machine.connection as object, machine.id)).body).toEqual(body);
    // Its port is not for another.
    const other = await tested(serial());
    expect(other.body.steps).toEqual([
      { level: 'fails', message: `Sanderling is at ${line.port}. Two machines cannot share a port.` },
    ]);
    const second = await stack.ask<ErrorAnswer>('POST', '/api/machines', { ...own, name: 'Second' });
    expect([second.status, second.body.error.code]).toEqual([409, 'port-taken']);
  });

  test('also where nothing answers, or what answers makes no sense', async () => {
    await line.start();
    await line.do('noise');
    const steps = async (connection: object) => (await tested(connection)).body.steps;
    expect(await steps(serial())).toEqual([
      { level: 'fails', message: 'Nothing answers. Is the machine on, and the speed (baud) right?' },
    ]);
    expect(await steps(serial('/dev/ttyNowhere'))).toEqual([
      { level: 'fails', message: 'There is no port /dev/ttyNowhere: plug the machine in, or choose another.' },
    ]);
    const network = { kind: 'network', host: '127.0.0.1', port: 1, buffer: 127 };
    expect(await steps({ ...network, language: 'plain' })).toEqual([
      { level: 'fails', message: 'Nothing listens at port 1 of 127.0.0.1.' },
    ]);
    const lambent = await steps({ ...network, language: 'lambent' });
    expect(lambent).toEqual([{ level: 'fails', message: 'Nothing listens at port 1 of 127.0.0.1.' }]);
    const { body } = await stack.ask<ErrorAnswer>('POST', '/api/machines/connection-test', usualMachine('co2'));
    expect(body.error.message).toContain('name must have 1 to 60 characters');
  });

  test('ports are listed with the machines that are at them', async () => {
    const { status, body } = await stack.ask<{ path: string }[] & ErrorAnswer>('GET', '/api/machines/ports');
    if (status === 503)
      expect(body.error.message).toBe('Serial ports cannot be listed on this computer. Type the name of the port.');
    else expect(body).toEqual(expect.any(Array));
  });
});
