import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  type DeskPage,
  type ErrorAnswer,
  type JobAnswer,
  type JobCard,
  type JobStepAnswer,
  jobStates,
  type MachineState,
  type RunAnswer,
  type Settings,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const desk = async (words: Record<string, string | number | boolean> = {}) => {
  const query = new URLSearchParams(Object.entries(words).map(([name, value]) => [name, String(value)]));
  const { status, body } = await stack.ask<DeskPage>('GET', `/api/desk?${query}`);
  expect(status).toBe(200);
  return body;
};
const titles = ({ jobs }: DeskPage) => jobs.map(({ title }) => title);
const card = async (title: string) => {
  const found = (await desk({ seek: title, size: 500 })).jobs.find((job) => job.title === title);
  if (!found) throw new Error(`There is no ${title}`);
  return found;
};
const move = (id: string, state: string, by?: string) => stack.ask('PUT', `/api/jobs/${id}/state`, { state, by });
const newJob = async (title: string) =>
  (await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren', materialId: 'birch-ply-3' })).body;

test('the Desk of the demo: whose jobs are, on what, and what wants an operator', async () => {
  const { jobs, total, counts } = await desk();
  expect(total).toBe(7);
  expect(counts).toMatchObject({ all: 7, 'wants you': 7, 'being prepared': 7, burnt: 0, 'put away': 0 });
  expect(jobs[0]).toMatchObject({
    title: 'Row markers, spring batch',
    whose: 'Noor Castellan',
    machineId: 'wren',
    materialId: 'birch-ply-3',
    state: 'being prepared',
    wantedBy: null,
  });
});

describe('what is sought', () => {
  test.each([
    ['part of a title, however it is written', 'PACKET, fold', ['Seed packet, folding']],
    ['whose it is', 'pavel', ['Bench plaque', 'Estuary relief']],
    ['what it is made of', 'grey board', ['Estuary relief', 'Volunteer badges']],
    ['a file that it came from', 'heron-at-dusk.png', ['Bench plaque']],
    ['words of several of these', 'grey castellan', ['Volunteer badges']],
    ['nothing that is there', 'zeppelin', []],
    ['a sign of the database', '%', []],
  ])('%s', async (_, seek, found) => {
    const page = await desk({ seek, sort: 'title' });
    expect(titles(page)).toEqual(found);
    expect([page.total, page.counts.all]).toEqual([found.length, found.length]);
  });

  test('with its accents or without, and by its new words once it was described', async () => {
    const { id } = await newJob('Türschild für die Küche');
    expect(titles(await desk({ seek: 'turschild kuche' }))).toEqual(['Türschild für die Küche']);
    expect(titles(await desk({ seek: 'KÜCHE' }))).toEqual(['Türschild für die Küche']);
    await stack.ask('PATCH', `/api/jobs/${id}`, { title: 'Door plate', project: 'Sluice house' });
    expect(titles(await desk({ seek: 'kuche' }))).toEqual([]);
    expect(titles(await desk({ seek: 'sluice door' }))).toEqual(['Door plate']);
    await stack.ask('DELETE', `/api/jobs/${id}`);
    expect(titles(await desk({ seek: 'sluice' }))).toEqual([]);
  });
});

test('the Desk is sorted either way, comes in pages, and refuses what it does not know', async () => {
  const up = titles(await desk({ sort: 'title' }));
  expect(up).toEqual(up.toSorted((a, b) => a.localeCompare(b)));
  expect(titles(await desk({ sort: 'title', down: true }))).toEqual(up.toReversed());
  const pages = [1, 2, 3, 4].map((page) => desk({ sort: 'title', page, size: 3 }));
  expect((await Promise.all(pages)).map(titles)).toEqual([up.slice(0, 3), up.slice(3, 6), up.slice(6), []]);
  const materials = (await desk({ sort: 'material' })).jobs.map(({ materialId }) => materialId);
  expect(materials.slice(0, 3)).toEqual(['birch-ply-3', 'birch-ply-4', 'acrylic-clear-3']);
  for (const wrong of ['show=lost', 'sort=weather', 'page=0', 'size=501'])
    expect([wrong, (await stack.ask('GET', `/api/desk?${wrong}`)).status]).toEqual([wrong, 400]);
});

test('scripts get all jobs at once, up to five hundred, where the Desk has pages', async () => {
  const made: string[] = [];
  for (let i = 0; i < 50; i++) made.push((await newJob(`One of many ${i}`)).id);
  const { body: all } = await stack.ask<JobCard[]>('GET', '/api/jobs');
  expect(all.map(({ title }) => title)).toContain('Drawer for packets');
  expect((await stack.ask<JobCard[]>('GET', '/api/jobs?size=3')).body).toHaveLength(3);
  expect((await desk()).jobs).toHaveLength(50);
  for (const id of made) await stack.ask('DELETE', `/api/jobs/${id}`);
});

describe('what a job takes', () => {
  const estimated = (title: string, suits: (job: JobCard) => boolean = ({ estimate }) => estimate !== null) =>
    stack.until<DeskPage>(`/api/desk?seek=${encodeURIComponent(title)}`, ({ jobs }) => suits(jobs[0]));

  const reportOf = async (id: string, runId: string) =>
    (await stack.ask<Report>('GET', `/api/jobs/${id}/plan?version=1&run=${runId}`)).body;

  test('is worked out once the Desk was opened, as its report has it', async () => {
    const { jobs } = await estimated('Seed packet');
    const [{ id, estimate }] = jobs;
    const report = await reportOf(id, 'run-1');
    expect(estimate?.seconds).toBeCloseTo(report.timeS, 3);
    expect(estimate?.price).toBeGreaterThan(0);
    expect(estimate?.blocks).toBe(report.findings.filter(({ level }) => level === 'blocks').length);
  });

  test('counts all of its runs', async () => {
    const [{ id, estimate }] = (await estimated('Volunteer badges')).jobs;
    const times: number[] = [];
    for (const run of ['Holder', 'Badges', 'Badges 2']) times.push((await reportOf(id, encodeURIComponent(run))).timeS);
    expect(Math.min(...times)).toBeGreaterThan(0);
    expect(estimate?.seconds).toBeCloseTo(times[0] + times[1] + times[2], 3);
  });

  test('is not told of an earlier version, or by prices that do not hold any more', async () => {
    const [before] = (await estimated('Seed packet')).jobs;
    const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${before.id}`);
    await stack.sendJob('PUT', `/api/jobs/${before.id}`, { base: '1', edit: 'Nothing' }, job.document);
    expect((await card('Seed packet, folding')).estimate).toBeNull();
    await estimated('Seed packet');

    const { body: settings } = await stack.ask<Settings>('GET', '/api/settings');
    const { pricing } = settings;
    const price = before.estimate?.price ?? 0;
    await stack.ask('PUT', '/api/settings', { pricing: { ...pricing, setUp: pricing.setUp + 40 } });
    const [after] = (await estimated('Seed packet', ({ estimate }) => (estimate?.price ?? 0) > price)).jobs;
    expect(after.estimate?.price).toBeCloseTo(price + 40, 6);
  });
});

describe('where a job stands', () => {
  test('is said by somebody, with its time; each step is kept', async () => {
    const { id } = await newJob('Steps of a job');
    expect((await move(id, 'quoted', 'Tobiah Okonjo')).status).toBe(204);
    expect((await move(id, 'ready')).status).toBe(204);
    expect((await move(id, 'ready')).status).toBe(204);
    const { body: steps } = await stack.ask<JobStepAnswer[]>('GET', `/api/jobs/${id}/steps`);
    expect(steps.map(({ state, by }) => [state, by])).toEqual([
      ['ready', null],
      ['quoted', 'Tobiah Okonjo'],
    ]);
    const { state, stateSince } = await card('Steps of a job');
    expect([state, stateSince]).toEqual(['ready', steps[0].at]);
    const wrong = await stack.ask<ErrorAnswer>('PUT', `/api/jobs/${id}/state`, { state: 'lost' });
    expect([wrong.status, wrong.body.error.message]).toEqual([400, `A job is ${jobStates.join(', ')}.`]);
    expect((await move('nowhere', 'ready')).status).toBe(404);
  });

  test('shows and counts it there alone; what was put away is not among all', async () => {
    const { id } = await newJob('Put away soon');
    const before = (await desk()).counts;
    await move(id, 'put away');
    const { counts } = await desk();
    expect([counts.all, counts['wants you'], counts['put away']]).toEqual([
      before.all - 1,
      before['wants you'] - 1,
      before['put away'] + 1,
    ]);
    expect(titles(await desk({ show: 'put away' }))).toContain('Put away soon');
    expect(titles(await desk({ show: 'being prepared', size: 500 }))).not.toContain('Put away soon');
  });

  test('goes with its runs: burnt once each of them was done, and back where it was when one was stopped', async () => {
    await stack.startStandIn('wren');
    await stack.until<MachineState[]>('/api/machines/states', (states) =>
      states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
    );
    const { id } = await card('Volunteer badges');
    await move(id, 'ready');
    const burn = async (runId: string, end?: 'stop') => {
      const { status, body } = await stack.ask<RunAnswer>('POST', `/api/jobs/${id}/runs`, { version: 1, runId });
      expect(status).toBe(201);
      expect((await card('Volunteer badges')).state).toBe('on a machine');
      if (end) await stack.ask('POST', '/api/machines/wren/commands', { command: end });
      const ended = await stack.until<RunAnswer>(`/api/runs/${body.id}`, ({ endedAt }) => endedAt !== null);
      return [ended.status, (await card('Volunteer badges')).state];
    };
    expect(await burn('run-1', 'stop')).toEqual(['stopped', 'ready']);
    expect(await burn('run-1')).toEqual(['done', 'ready']);
    expect(await burn('run-2')).toEqual(['done', 'ready']);
    // The third one lays the other badges into the holder.
    expect(await burn('demo.row.37')).toEqual(['done', 'burnt']);
  });
});

describe('a job', () => {
  test('is wanted by a day, or by none; a day that is none is refused', async () => {
    const { id } = await newJob('Wanted by a day');
    await stack.ask('PATCH', `/api/jobs/${id}`, { wantedBy: '2026-12-24' });
    expect((await card('Wanted by a day')).wantedBy).toBe('2026-12-24');
    expect((await stack.ask('PATCH', `/api/jobs/${id}`, { wantedBy: 'Christmas' })).status).toBe(400);
    await stack.ask('PATCH', `/api/jobs/${id}`, { project: 'Only the project' });
    expect(await card('Wanted by a day')).toMatchObject({ wantedBy: '2026-12-24', project: 'Only the project' });
    await stack.ask('PATCH', `/api/jobs/${id}`, { wantedBy: '' });
    expect((await card('Wanted by a day')).wantedBy).toBeNull();
  });

  test('is duplicated with its drawing and its files; each goes its own way from then on', async () => {
    const { id, version } = await card('Estuary relief');
    await move(id, 'burnt');
    const { status, body: copy } = await stack.ask<JobAnswer>('POST', `/api/jobs/${id}/duplicate`, {
      title: 'Relief again',
    });
    expect(status).toBe(201);
    const { body: original } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
    expect(copy.document.drawing).toEqual(original.document.drawing);
    expect(copy).toMatchObject({ title: 'Relief again', version: 1, project: original.project });
    expect(await card('Relief again')).toMatchObject({ state: 'being prepared', whose: 'Pavel Anders' });
    expect(titles(await desk({ seek: 'estuary-relief.svg', sort: 'title' }))).toEqual([
      'Estuary relief',
      'Relief again',
    ]);
    await stack.sendJob(
      'PUT',
      `/api/jobs/${copy.id}`,
      { base: '1', edit: 'Empty it' },
      {
        ...copy.document,
        drawing: { items: [], groups: [] },
      },
    );
    expect((await card('Estuary relief')).version).toBe(version);
    expect((await card('Estuary relief')).itemCount).toBeGreaterThan(0);
    expect((await stack.ask('POST', '/api/jobs/nowhere/duplicate', { title: 'x' })).status).toBe(404);
  });
});
