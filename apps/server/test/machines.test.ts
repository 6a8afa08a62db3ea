import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer, JobAnswer, MachineState, MachineUses } from '@lambent/contracts';
import { type Machine, machineFigures, usualMachine } from '@lambent/core/machine';
import { Stack } from './stack.ts';

/** A shop with nothing in it. */
const stack = new Stack(undefined, '');
beforeAll(() => stack.start());
afterAll(() => stack.close());

const path = '/api/machines';
const machines = async () => (await stack.ask<Machine[]>('GET', path)).body;
const add = (machine: object) => stack.ask<Machine & ErrorAnswer>('POST', path, machine);
const change = (machine: Machine) => stack.ask<Machine & ErrorAnswer>('PUT', `${path}/${machine.id}`, machine);
const state = async (id: string) =>
  (await stack.ask<MachineState[]>('GET', `${path}/states`)).body.find(({ machineId }) => machineId === id);
const until = (id: string, suits: (state: MachineState) => boolean) =>
  stack.until<MachineState[]>(`${path}/states`, (states) => states.some((own) => own.machineId === id && suits(own)));
const sandpiper: Machine = { ...usualMachine('diode'), name: 'Sandpiper' };

/** The processes of stand-ins of a machine. */
function standInsOf(name: string): number[] {
  const pids = readdirSync('/proc').filter((entry) => /^\d+$/.test(entry));
  return pids.map(Number).filter((pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--name=${name}\0`);
    } catch {
      return false;
    }
  });
}

async function expectNone(name: string): Promise<void> {
  while (standInsOf(name).length > 0) await new Promise((resolve) => setTimeout(resolve, 20));
}

test('a shop of one’s own begins without a machine; one is added, changed, and not connected until that is said', async () => {
  expect(await machines()).toEqual([]);
  const { status, body } = await add(sandpiper);
  expect(status).toBe(201);
  expect(body).toEqual({ ...sandpiper, id: body.id });
  expect(body.id).not.toBe('new');
  expect(await state(body.id)).toMatchObject({ state: 'away', reason: 'not connected', runId: null });
  const told = await stack.ask<ErrorAnswer>('POST', `${path}/${body.id}/commands`, { command: 'home' });
  expect(told.status).toBe(409);
  expect(told.body.error.message).toBe(
    'Sandpiper is not connected. Say under Machines how it is reached, or choose another.',
  );
  const wider = { ...body, bedWidth: 430, bedHeight: 390 };
  expect((await change(wider)).body).toEqual(wider);
  expect(await machines()).toEqual([wider]);
  expect((await change({ ...wider, id: 'nowhere', name: 'Other' })).status).toBe(404);
});

test.each(Object.entries(machineFigures))(
  '%s beyond what can be is refused by its name',
  async (figure, { name, most }) => {
    const before = await machines();
    for (const wrong of [most + 1, -1, 'x', null]) {
      if (wrong === null && figure === 'measuredW') continue;
      const answer = await add({ ...sandpiper, name: 'Wrong', [figure]: wrong });
      expect(answer.status).toBe(400);
      expect(answer.body.error).toMatchObject({
        code: 'not-a-machine',
        message: expect.stringContaining(`This is not a machine: “${name}” must`),
      });
    }
    expect(await machines()).toEqual(before);
  },
);

test('two machines of one name are refused, whatever their letters', async () => {
  const { status, body } = await add({ ...sandpiper, name: 'SANDPIPER' });
  expect([status, body.error.code]).toEqual([409, 'machine-name-taken']);
  expect(body.error.message).toBe('There is a machine “Sandpiper” already. Give this one another name.');
});

test('a stand-in of a machine is made, follows its figures, and is stopped with the line to it', async () => {
  const { body: knot } = await add({
    ...sandpiper,
    name: 'Knot',
    origin: 'centre',
    connection: { kind: 'stand-in', factor: 50 },
  });
  await until(knot.id, ({ state: is }) => is === 'idle');
  expect(standInsOf('Knot')).toHaveLength(1);
  // A margin is no matter of the machine: the line stays.
  await change({ ...knot, margin: 7 });
  expect(await state(knot.id)).toMatchObject({ state: 'idle' });
  // Its bed is: the stand-in is made anew.
  await change({ ...knot, bedWidth: 300 });
  await until(knot.id, ({ state: is }) => is === 'idle');
  expect(standInsOf('Knot')).toHaveLength(1);
  await change({ ...knot, connection: null });
  expect(await state(knot.id)).toMatchObject({ state: 'away', reason: 'not connected' });
  await expectNone('Knot');
});

test('what goes by a machine is named; put away, it is not spoken to, and its jobs open', async () => {
  const { body: dunnock } = await add({ ...sandpiper, name: 'Dunnock', connection: { kind: 'stand-in', factor: 50 } });
  await until(dunnock.id, ({ state: is }) => is === 'idle');
  const uses = () => stack.ask<MachineUses>('GET', `${path}/${dunnock.id}/uses`);
  expect((await uses()).body).toEqual({ jobs: [], recipes: [] });
  const job = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: 'Coasters', machineId: dunnock.id });
  expect(job.status).toBe(201);
  const gone = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: 'Gone', machineId: dunnock.id });
  await stack.ask('DELETE', `/api/jobs/${gone.body.id}`);
  expect((await uses()).body.jobs).toEqual([{ id: job.body.id, title: 'Coasters' }]);
  await change({ ...dunnock, isPutAway: true });
  await expectNone('Dunnock');
  const told = await stack.ask<ErrorAnswer>('POST', `${path}/${dunnock.id}/commands`, { command: 'home' });
  expect([told.status, told.body.error.message]).toEqual([
    409,
    'Dunnock is put away. Take it back under Machines, or choose another.',
  ]);
  expect((await stack.ask<JobAnswer>('GET', `/api/jobs/${job.body.id}`)).body.document.machineId).toBe(dunnock.id);
  expect((await add({ ...sandpiper, name: 'dunnock' })).body.error.message).toContain('It is put away');
  const { isPutAway: _, ...back } = { ...dunnock, isPutAway: true };
  await change(back);
  await until(dunnock.id, ({ state: is }) => is === 'idle');
  expect((await stack.ask('GET', `${path}/nowhere/uses`)).status).toBe(404);
});

test('a stand-in that dies is switched on again, and none is left when the server is killed', async () => {
  const { body: plover } = await add({ ...sandpiper, name: 'Plover', connection: { kind: 'stand-in', factor: 50 } });
  await until(plover.id, ({ state: is }) => is === 'idle');
  const events = stack.events();
  for (const pid of standInsOf('Plover')) process.kill(pid, 'SIGKILL');
  let sawAway = false;
  for await (const event of events) {
    if (event.type !== 'machine' || event.machine.machineId !== plover.id) continue;
    if (event.machine.state === 'away') sawAway = true;
    else if (sawAway) break;
  }
  // The one that was killed may still be on its way out.
  while (standInsOf('Plover').length > 1) await new Promise((resolve) => setImmediate(resolve));
  expect(standInsOf('Plover')).toHaveLength(1);
  await stack.kill('server');
  await expectNone('Plover');
  await stack.start();
  await until(plover.id, ({ state: is }) => is === 'idle');
});
