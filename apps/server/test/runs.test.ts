import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { BlockedDetails, ErrorAnswer, JobAnswer, JobCard, MachineState, RunAnswer } from '@lambent/contracts';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(async () => {
  await stack.start();
  await stack.startStandIn('wren', '--factor', '400');
  await idle('wren');
});
afterAll(() => stack.close());

const stateOf = (states: MachineState[], id: string) => states.find(({ machineId }) => machineId === id);
const wait = (id: string, state: MachineState['state']) =>
  stack.until<MachineState[]>('/api/machines/states', (states) => stateOf(states, id)?.state === state);
const idle = (id: string) => wait(id, 'idle');
const cardOf = async (title: string) =>
  (await stack.ask<JobCard[]>('GET', '/api/jobs')).body.find((job) => job.title.startsWith(title)) as JobCard;
const start = async (title: string) => {
  const { id, version } = await cardOf(title);
  return stack.ask<RunAnswer & ErrorAnswer>('POST', `/api/jobs/${id}/runs`, { version });
};
/** Starts a run that is expected to start. */
const begin = async (title: string) => {
  const { status, body } = await start(title);
  expect({ status, ...body.error }).toEqual({ status: 201 });
  return body;
};
const ended = async (run: RunAnswer) => {
  const all = await stack.until<RunAnswer[]>(
    `/api/runs?job=${run.jobId}`,
    (runs) => runs.find(({ id }) => id === run.id)?.status !== 'running',
    50_000,
  );
  return all.find(({ id }) => id === run.id) as RunAnswer;
};
const command = (id: string, word: string) =>
  stack.ask<MachineState & ErrorAnswer>('POST', `/api/machines/${id}/commands`, { command: word });

test('a job is planned, sent, burnt to its last line, and stays on record', async () => {
  const run = await begin('Seed packet');
  const done = await ended(run);
  expect(done).toMatchObject({ status: 'done', reason: null, doneLine: done.lines });
  // The planner's time against that of the stand-in, whose motion is written apart.
  expect(Math.abs(done.machineS / done.plannedS - 1)).toBeLessThan(0.02);
  const { body: program } = await stack.ask<string>('GET', `/api/runs/${run.id}/program.gcode`);
  expect(createHash('sha256').update(program).digest('hex')).toBe(run.programHash);
  expect(program.trimEnd().split('\n')).toHaveLength(done.lines);
  expect((await cardOf('Seed packet')).lastRun?.status).toBe('done');
});

describe('while it runs', () => {
  test('hold, the lid, resume and stop act, and the record says where it was stopped', async () => {
    await idle('wren');
    const run = await begin('Row markers');
    await wait('wren', 'running');
    expect((await start('Seed packet')).body.error.code).toBe('machine-busy');
    await command('wren', 'hold');
    await wait('wren', 'held');
    await command('wren', 'resume');
    await wait('wren', 'running');
    await command('wren', 'open-lid');
    await wait('wren', 'held');
    await command('wren', 'resume');
    const [held] = await stack.until<MachineState[]>(
      '/api/machines/states',
      (states) => stateOf(states, 'wren')?.lid === 'open',
    );
    expect(held).toMatchObject({ state: 'held', power: 0, reason: 'the lid is open' });
    await command('wren', 'close-lid');
    await command('wren', 'stop');
    const stopped = await ended(run);
    expect(stopped).toMatchObject({ status: 'stopped', reason: 'stopped by hand' });
    expect(stopped.doneLine).toBeLessThan(stopped.lines);
    await idle('wren');
  });

  test('the page hears of it as it happens', async () => {
    const response = await fetch(`${stack.url}/api/events`);
    const reader = response.body?.getReader();
    const run = await begin('Seed packet');
    let heard = '';
    while (reader && !(heard.includes('"state":"running"') && heard.includes(`"id":"${run.id}"`))) {
      heard += new TextDecoder().decode((await reader.read()).value);
    }
    await reader?.cancel();
    expect(heard).toMatch(/data: \{"type":"machine","machine":\{"machineId":"wren"/);
    await command('wren', 'stop');
    await ended(run);
    await idle('wren');
  });

  test('a machine that dies breaks the run off, shows as away, and comes back by itself', async () => {
    const run = await begin('Row markers');
    await wait('wren', 'running');
    await stack.until<MachineState[]>('/api/machines/states', (states) => (stateOf(states, 'wren')?.line ?? 0) > 50);
    await stack.kill('wren');
    await wait('wren', 'away');
    const broken = await ended(run);
    expect(broken).toMatchObject({ status: 'broken off', reason: 'the machine went away' });
    expect(broken.doneLine).toBeGreaterThan(50);
    expect((await start('Row markers')).body.error).toMatchObject({ code: 'machine-away' });
    await stack.startStandIn('wren');
    await idle('wren');
  });

  test('a line that the machine refuses ends the run, and says which and why', async () => {
    // This stand-in's bed is smaller than the shop says.
    await stack.startStandIn('dunlin', '--width', '50', '--height', '50', '--origin', 'bottom-left');
    await idle('dunlin');
    const { id } = await cardOf('Seed packet');
    const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
    const document = { ...job.document, machineId: 'dunlin' };
    const { body: copy } = await stack.sendJob<JobAnswer>(
      'POST',
      `/api/jobs/${id}/copies`,
      { title: 'On Dunlin' },
      document,
    );
    const { body: run } = await stack.ask<RunAnswer>('POST', `/api/jobs/${copy.id}/runs`, { version: 1 });
    const refused = await ended(run);
    expect(refused.status).toBe('refused');
    expect(refused.reason).toMatch(/is off the bed/);
    await wait('dunlin', 'alarm');
    await command('dunlin', 'clear');
    await idle('dunlin');
  });
});

test('what the checks block is not sent, and the findings come with the refusal', async () => {
  const { id } = await cardOf('Seed packet');
  const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
  const [sheet] = job.document.sheets;
  const document = { ...job.document, sheets: [{ ...sheet, materialId: 'pvc-sheet' }] };
  const { body: copy } = await stack.sendJob<JobAnswer>(
    'POST',
    `/api/jobs/${id}/copies`,
    { title: 'In PVC' },
    document,
  );
  const { status, body } = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${copy.id}/runs`, { version: 1 });
  expect([status, body.error.code]).toEqual([422, 'blocked']);
  expect((body.error.details as BlockedDetails).findings[0].code).toBe('forbidden-stock');
});

test('a server that goes down in a run marks it as broken off when it comes back', async () => {
  const run = await begin('Row markers');
  await wait('wren', 'running');
  await stack.kill('server');
  await stack.start();
  expect(await ended(run)).toMatchObject({ status: 'broken off', reason: 'the server went down while it ran' });
});
