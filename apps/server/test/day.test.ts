import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DayAnswer,
  DayBlock,
  DayMachine,
  DeskPage,
  ErrorAnswer,
  JobAnswer,
  JobStepAnswer,
  MachineState,
  NextRunAnswer,
  RunAnswer,
  SendingAnswer,
  VersionAnswer,
} from '@lambent/contracts';
import { Stack } from './stack.ts';

const stack = new Stack();
const minute = 60_000;

beforeAll(async () => {
  await stack.start();
  // Open day and night: what waits begins at once, whenever the test is run.
  await stack.ask('PUT', '/api/settings', {
    opensAt: '00:00',
    closesAt: '00:00',
    openDays: [1, 2, 3, 4, 5, 6, 7],
    setUpMinutes: 10,
    timeZone: 'Europe/Lisbon',
  });
  for (const machine of (await stack.ask<DayAnswer>('GET', '/api/day')).body.machines)
    for (const { jobId, seen } of machine.blocks) await takeOff(jobId, seen);
});
afterAll(() => stack.close());

const day = async (words = '') => (await stack.ask<DayAnswer>('GET', `/api/day${words}`)).body;
const machineOf = ({ machines }: DayAnswer, id: string): DayMachine => {
  const found = machines.find(({ machineId }) => machineId === id);
  if (!found) throw new Error(`There is no ${id}`);
  return found;
};
const titlesOn = async (id: string) => machineOf(await day(), id).blocks.map(({ title }) => title);
const jobs = async () => (await stack.ask<DeskPage>('GET', '/api/desk?size=500')).body.jobs;
const idOf = async (title: string) => {
  const job = (await jobs()).find((known) => known.title === title);
  if (!job) throw new Error(`There is no ${title}`);
  return job.id;
};
const blockOf = async (title: string): Promise<DayBlock & { machineId: string }> => {
  for (const { machineId, blocks } of (await day()).machines) {
    const block = blocks.find((known) => known.title === title);
    if (block) return { ...block, machineId };
  }
  throw new Error(`${title} is on no machine`);
};
const give = (jobId: string, body: Record<string, unknown>) =>
  stack.ask<ErrorAnswer>('PUT', `/api/day/jobs/${jobId}`, { machineId: 'wren', seen: null, ...body });
const takeOff = (jobId: string, seen: number) =>
  stack.ask<ErrorAnswer>('DELETE', `/api/day/jobs/${jobId}?seen=${seen}`);
const untilTimed = () =>
  stack.until<DayAnswer>('/api/day', ({ machines }) =>
    machines.every(({ blocks }) => blocks.every(({ seconds }) => seconds !== null)),
  );
const span = ({ from, until }: { from: string; until: string }) => Date.parse(until) - Date.parse(from);

describe('what is given to a machine', () => {
  test('burns one after the other, as long as it takes, each set up before', async () => {
    const [packet, drawer] = [await idOf('Seed packet, folding'), await idOf('Drawer for packets')];
    for (const id of [packet, drawer]) expect((await give(id, {})).status).toBe(204);
    const shown = await untilTimed();
    const { blocks, freeAt } = machineOf(shown, 'wren');
    expect(blocks.map(({ title }) => title)).toEqual(['Seed packet, folding', 'Drawer for packets']);
    expect(Date.parse(blocks[0].from) - Date.parse(shown.now)).toBe(10 * minute);
    expect(Date.parse(blocks[1].from) - Date.parse(blocks[0].until)).toBe(10 * minute);
    expect(freeAt).toBe(blocks[1].until);
    const cards = await jobs();
    for (const block of blocks) {
      const seconds = cards.find(({ id }) => id === block.jobId)?.estimate?.seconds ?? 0;
      expect(block.seconds).toBeCloseTo(seconds, 6);
      expect(span(block)).toBe(Math.round(seconds * 1000));
    }
  });

  test('is put before another one, and not before a time', async () => {
    const plaque = await idOf('Bench plaque');
    await give(plaque, { beforeJobId: await idOf('Drawer for packets') });
    expect(await titlesOn('wren')).toEqual(['Seed packet, folding', 'Bench plaque', 'Drawer for packets']);
    const { seen } = await blockOf('Bench plaque');
    const notBefore = new Date(Date.now() + 20 * 60 * minute).toISOString();
    await give(plaque, { seen, notBefore });
    expect(await titlesOn('wren')).toEqual(['Seed packet, folding', 'Drawer for packets', 'Bench plaque']);
    expect(await blockOf('Bench plaque')).toMatchObject({ from: notBefore, notBefore, seen: 2 });
    await takeOff(plaque, 2);
    expect(await titlesOn('wren')).toEqual(['Seed packet, folding', 'Drawer for packets']);
  });

  test('of two who move it at once one does, and the other is told', async () => {
    const packet = await idOf('Seed packet, folding');
    const { seen } = await blockOf('Seed packet, folding');
    const answers = await Promise.all([give(packet, { seen }), give(packet, { seen, machineId: 'curlew' })]);
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 409]);
    const refused = answers.find(({ status }) => status === 409)?.body.error;
    expect(refused?.code).toBe('moved-elsewhere');
    expect(refused?.message).toMatch(
      /^“Seed packet, folding” was moved by somebody else meanwhile\. Nothing was changed/,
    );
    const block = await blockOf('Seed packet, folding');
    expect(block.seen).toBe(seen + 1);
    expect((await takeOff(packet, seen)).status).toBe(409);
    await give(packet, { seen: block.seen });
    expect((await takeOff(packet, block.seen + 1)).status).toBe(204);
    const gone = await give(packet, { seen: block.seen + 1 });
    expect(gone.body.error.message).toContain('was taken off the day by somebody else meanwhile');
  });

  test('and was made for another machine gets a version for this one, and its time there', async () => {
    const drawer = await idOf('Drawer for packets');
    const { seen, seconds } = await blockOf('Drawer for packets');
    const before = (await stack.ask<JobAnswer>('GET', `/api/jobs/${drawer}`)).body;
    await give(drawer, { machineId: 'curlew', seen });
    const { body: after } = await stack.ask<JobAnswer>('GET', `/api/jobs/${drawer}`);
    expect([after.version, after.document.machineId]).toEqual([before.version + 1, 'curlew']);
    expect(after.document.drawing).toEqual(before.document.drawing);
    const { body: versions } = await stack.ask<VersionAnswer[]>('GET', `/api/jobs/${drawer}/versions`);
    expect(versions[0]).toMatchObject({ number: after.version, edit: 'Change machine' });
    await untilTimed();
    const moved = await blockOf('Drawer for packets');
    expect(moved.machineId).toBe('curlew');
    expect(moved.seconds).not.toBeCloseTo(seconds ?? 0, 1);
    await give(drawer, { machineId: 'wren', seen: moved.seen });
    await untilTimed();
  });

  test('is late where it ends after its day', async () => {
    const drawer = await idOf('Drawer for packets');
    const { today } = await day();
    const tomorrow = new Date(Date.parse(today) + 24 * 60 * minute).toISOString().slice(0, 10);
    await stack.ask('PATCH', `/api/jobs/${drawer}`, { wantedBy: tomorrow });
    expect(await blockOf('Drawer for packets')).toMatchObject({ wantedBy: tomorrow, isLate: false });
    const { seen } = await blockOf('Drawer for packets');
    await give(drawer, { seen, notBefore: new Date(Date.parse(today) + 72 * 60 * minute).toISOString() });
    expect((await blockOf('Drawer for packets')).isLate).toBe(true);
    await give(drawer, { seen: seen + 1 });
  });

  test('is refused where there is no such job or machine, or it is burnt', async () => {
    const drawer = await idOf('Drawer for packets');
    const { seen } = await blockOf('Drawer for packets');
    expect((await give('nowhere', {})).status).toBe(404);
    expect((await give(drawer, { seen, machineId: 'nowhere' })).status).toBe(404);
    expect((await give(drawer, { seen: 'once' })).status).toBe(400);
    expect((await give(drawer, { seen, notBefore: 'soon' })).status).toBe(400);
    expect((await stack.ask('GET', '/api/day?day=monday')).status).toBe(400);
    await stack.ask('PUT', `/api/jobs/${drawer}/state`, { state: 'burnt' });
    expect(await titlesOn('wren')).not.toContain('Drawer for packets');
    const { status, body } = await give(drawer, {});
    expect([status, body.error.message]).toEqual([
      409,
      '“Drawer for packets” is burnt. Make it ready first to burn it again.',
    ]);
    await stack.ask('PUT', `/api/jobs/${drawer}/state`, { state: 'ready' });
  });
});

test('a day has its own runs; while one burns, what waits begins after it', async () => {
  await stack.startStandIn('wren');
  await stack.until<MachineState[]>('/api/machines/states', (states) =>
    states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
  );
  const [markers, drawer] = [await idOf('Row markers, spring batch'), await idOf('Drawer for packets')];
  for (const id of [markers, drawer]) await give(id, {});
  const next = (await stack.ask<NextRunAnswer>('GET', `/api/jobs/${markers}/next-run`)).body;
  expect(next).toMatchObject({ version: 1, stock: 'fresh' });
  expect(next.sheets).toMatchObject([{ name: 'Birch plywood 3 mm', pieces: 1 }]);
  await untilTimed();
  const { body: run } = await stack.ask<RunAnswer>('POST', `/api/jobs/${markers}/runs`, {
    version: next.version,
    runId: next.runId,
  });
  await stack.ask('POST', '/api/machines/wren/commands', { command: 'hold' });
  const shown = await day();
  const { running, blocks, runs } = machineOf(shown, 'wren');
  expect(running).toMatchObject({ runId: run.id, title: 'Row markers, spring batch' });
  expect(runs.map(({ runId }) => runId)).toEqual([run.id]);
  // The job that burns is its run, and waits no more.
  expect(blocks.map(({ title }) => title)).toEqual(['Drawer for packets']);
  expect(Date.parse(blocks[0].from)).toBe(Date.parse(running?.until ?? '') + 10 * minute);
  expect(span({ from: shown.now, until: running?.until ?? '' })).toBeLessThanOrEqual(Math.ceil(run.plannedS * 1000));
  await stack.ask('POST', '/api/machines/wren/commands', { command: 'resume' });
  await stack.until<RunAnswer>(`/api/runs/${run.id}`, ({ endedAt }) => endedAt !== null);
  const after = machineOf(await day(), 'wren');
  expect([after.running, after.runs[0].status, after.runs[0].runId]).toEqual([null, 'done', run.id]);
  const { body: steps } = await stack.ask<JobStepAnswer[]>('GET', `/api/jobs/${markers}/steps`);
  expect(steps[0].state).toBe('burnt');
  const yesterday = new Date(Date.parse(shown.today) - 24 * 60 * minute).toISOString().slice(0, 10);
  expect(machineOf(await day(`?day=${yesterday}`), 'wren').runs).toEqual([]);
});

test('who sends a drawing is told when it could be ready, by what waits; once it is given to a machine, by its place there', async () => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h50v30h-50z" fill="none" stroke="#D0481E"/></svg>';
  const { body: begun } = await stack.ask<BegunSending>('POST', '/api/drop-off?name=tag.svg', Buffer.from(svg));
  const link = `/api/drop-off/${begun.token}`;
  const { machineId, seconds } = begun.look;
  const end = machineOf(await day(), machineId).freeAt;
  const promised = Date.parse(begun.readyAt ?? '');
  const takes = 10 * minute + Math.round((seconds ?? 0) * 1000);
  expect(takes).toBeGreaterThan(10 * minute);
  expect(Math.abs(promised - Date.parse(end) - takes)).toBeLessThan(minute);

  await stack.ask('POST', `${link}/send`, { name: 'Noor Castellan', title: 'A tag that waits' });
  const job = await idOf('A tag that waits');
  const notBefore = new Date(Date.now() + 30 * 60 * minute).toISOString();
  await give(job, { machineId, notBefore });
  await untilTimed();
  const given = await blockOf('A tag that waits');
  expect((await stack.ask<SendingAnswer>('GET', link)).body.readyAt).toBe(given.until);
  await stack.ask('PUT', `/api/jobs/${job}/state`, { state: 'burnt' });
  expect((await stack.ask<SendingAnswer>('GET', link)).body.readyAt).toBeNull();
});
