import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DayAnswer,
  DeskPage,
  ErrorAnswer,
  JobAnswer,
  JobCard,
  JobSharing,
  JobState,
  JobStepAnswer,
  MachineState,
  RunAnswer,
  SharingGroup,
  SheetsShared,
} from '@lambent/contracts';
import type { Material } from '@lambent/core/recipes';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const card = async (title: string): Promise<JobCard> => {
  const { jobs } = (await stack.ask<DeskPage>('GET', `/api/desk?seek=${encodeURIComponent(title)}`)).body;
  return jobs[0];
};
const move = (id: string, state: JobState) => stack.ask('PUT', `/api/jobs/${id}/state`, { state });
const sharing = async (id: string) => (await stack.ask<JobSharing>('GET', `/api/jobs/${id}/sharing`)).body;
const groups = async () => (await stack.ask<SharingGroup[]>('GET', '/api/sharing')).body;

/** A tag with a hole, of so many mm, at a place that none of the others shares. */
const tag = (width: number, height: number) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width + 10}mm" height="${height + 10}mm" viewBox="0 0 ${width + 10} ${height + 10}">
       <path d="M5 5h${width}v${height}h-${width}z" fill="none" stroke="#D0481E"/>
       <circle cx="${width / 2}" cy="12" r="2" fill="none" stroke="#D0481E"/></svg>`,
  );

/** A job of a drawing that is ready to be burnt. @returns its id */
async function ready(title: string, drawing: Buffer, materialId = 'birch-ply-3', machineId = 'wren'): Promise<string> {
  const { body } = await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId, materialId });
  const { status } = await stack.ask('POST', `/api/jobs/${body.id}/drawings?name=tag.svg`, drawing);
  expect(status).toBe(201);
  await move(body.id, 'ready');
  return body.id;
}

const onBirch = (all: readonly SharingGroup[]) => all.find(({ materialId }) => materialId === 'birch-ply-3');
/** The group of what is ready for birch plywood, once it is laid out with so many jobs. */
const laidOut = async (count: number): Promise<SharingGroup> => {
  const all = await stack.until<SharingGroup[]>('/api/sharing', (found) => {
    const group = onBirch(found);
    return group?.layout !== null && group?.jobs.length === count;
  });
  return onBirch(all) as SharingGroup;
};
const layOut = (group: SharingGroup, title: string) =>
  stack.ask<SheetsShared & ErrorAnswer>('POST', '/api/sharing', {
    print: group.layout?.print ?? '',
    title,
    by: 'Ines Varga',
  });

const ids: Record<string, string> = {};

test('jobs that are ready for the same stock are laid onto sheets together; others, and a single one, are not', async () => {
  expect(await groups()).toEqual([]);
  ids.kite = await ready('Kite winder', tag(80, 60));
  expect(await groups()).toEqual([]);
  ids.shelf = await ready('Shelf edge labels', tag(120, 30));
  ids.alone = await ready('A plaque', tag(90, 40), 'birch-ply-4');
  const { body: sent } = await stack.ask<BegunSending>('POST', '/api/drop-off?name=tag.svg', tag(40, 40));
  const link = `/api/drop-off/${sent.token}`;
  const wish = { materialId: 'birch-ply-3', ownStock: '', copies: 3, widthMm: 0, page: 1, answers: [] };
  expect((await stack.ask('PUT', `${link}/wish`, wish)).status).toBe(200);
  await stack.ask('POST', `${link}/send`, { name: 'Noor Castellan', title: 'Coasters' });
  ids.coasters = (await card('Coasters')).id;
  await move(ids.coasters, 'ready');

  const group = await laidOut(3);
  expect(group.jobs.map(({ title, whose, copies }) => [title, whose, copies]).sort()).toEqual([
    ['Coasters', 'Noor Castellan', 3],
    ['Kite winder', '', 1],
    ['Shelf edge labels', '', 1],
  ]);
  expect([group.leftOut, group.trouble]).toEqual([[], null]);
  const { sheets = [], seconds = 0, blocks } = group.layout ?? {};
  expect(sheets).toHaveLength(1);
  const [{ pieces, use, widthMm, heightMm }] = sheets;
  const countOf = (id: string) => pieces.filter(({ jobId }) => jobId === id).length;
  expect([countOf(ids.coasters), countOf(ids.kite), countOf(ids.shelf)]).toEqual([3, 1, 1]);
  const hole = Math.PI * 4;
  const covered = 80 * 60 + 120 * 30 + 3 * 40 * 40 - 5 * hole;
  expect(use).toBeCloseTo(covered / (widthMm * heightMm), 3);
  expect(seconds).toBeGreaterThan(0);
  expect(blocks).toBe(0);
});

test('what a finding blocks, and what fits on no sheet, is left out and named', async () => {
  const open = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><path d="M5 5h40v40" fill="none" stroke="#12AB34"/></svg>',
  );
  const blocked = await ready('A colour without meaning', open);
  const large = await ready('Larger than any sheet', tag(1100, 30));
  const all = await stack.until<SharingGroup[]>('/api/sharing', (found) => onBirch(found)?.leftOut.length === 2);
  const why = new Map(onBirch(all)?.leftOut.map(({ jobId, why }) => [jobId, why]));
  expect(why.get(blocked)).toBe('findings');
  expect(['findings', 'sheet']).toContain(why.get(large));
  for (const id of [blocked, large]) await stack.ask('DELETE', `/api/jobs/${id}`);
});

describe('sheets that are shared', () => {
  test('are laid out as they were shown, as one job; where a job has changed meanwhile, nothing is', async () => {
    const seen = await laidOut(3);
    await move(ids.kite, 'being prepared');
    const refused = await layOut(seen, 'Too late');
    expect([refused.status, refused.body.error.code]).toEqual([409, 'sharing-changed']);
    expect((await stack.ask<DeskPage>('GET', '/api/desk?seek=too%20late')).body.jobs).toEqual([]);
    await move(ids.kite, 'ready');

    const { status, body } = await layOut(await laidOut(3), '3 jobs, birch');
    expect(status).toBe(201);
    ids.shared = body.jobId;
    const shared = await card('3 jobs, birch');
    expect([shared.state, shared.shares, shared.sharedOn, shared.itemCount]).toEqual(['ready', 3, null, 10]);
    expect((await card('Kite winder')).sharedOn).toEqual({ jobId: ids.shared, title: '3 jobs, birch' });
    expect(onBirch(await groups())).toBeUndefined();
    expect((await layOut(seen, 'Once more')).status).toBe(409);
  });

  test('each job pays its share: together they pay the price of the sheets', async () => {
    const page = await stack.until<DeskPage>('/api/desk?seek=birch', ({ jobs }) =>
      jobs.every(({ estimate }) => estimate),
    );
    const shared = page.jobs.find(({ id }) => id === ids.shared);
    const { parts } = await sharing(ids.shared);
    expect(parts.map(({ price }) => (price ?? 0) > 0)).toEqual([true, true, true]);
    const sum = parts.reduce((cents, { price }) => cents + Math.round((price ?? 0) * 100), 0);
    expect(sum).toBe(Math.round((shared?.estimate?.price ?? 0) * 100));
    const coasters = parts.find(({ jobId }) => jobId === ids.coasters);
    expect((await card('Coasters')).estimate?.price).toBe(coasters?.price);
    expect(await sharing(ids.kite)).toEqual({
      sharedJob: { jobId: ids.shared, title: '3 jobs, birch', state: 'ready' },
      parts: [],
    });
  });

  test('a job on them waits for no machine, and burns on none, alone', async () => {
    const given = await stack.ask<ErrorAnswer>('PUT', `/api/day/jobs/${ids.kite}`, { machineId: 'wren', seen: null });
    expect([given.status, given.body.error.code]).toEqual([409, 'burns-together']);
    expect(given.body.error.message).toContain('“3 jobs, birch”');
    const run = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${ids.kite}/runs`, { version: 2 });
    expect([run.status, run.body.error.code]).toEqual([409, 'burns-together']);
    expect((await stack.ask('PUT', `/api/day/jobs/${ids.shared}`, { machineId: 'wren', seen: null })).status).toBe(204);
    const { machines } = (await stack.ask<DayAnswer>('GET', '/api/day')).body;
    const titles = machines.flatMap(({ blocks }) => blocks.map(({ title }) => title));
    expect(titles).toContain('3 jobs, birch');
  });

  test('say of a job that it was changed since it was laid there', async () => {
    expect((await sharing(ids.shared)).parts.map(({ isChanged }) => isChanged)).toEqual([false, false, false]);
    await stack.ask('POST', `/api/jobs/${ids.shelf}/drawings?name=more.svg`, tag(10, 10));
    const changed = (await sharing(ids.shared)).parts.filter(({ isChanged }) => isChanged);
    expect(changed.map(({ jobId }) => jobId)).toEqual([ids.shelf]);
  });

  test('go through the shop with all that lies on them, and back where a run is stopped', async () => {
    await stack.startStandIn('wren');
    await stack.until<MachineState[]>('/api/machines/states', (states) =>
      states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
    );
    const titles = ['3 jobs, birch', 'Kite winder', 'Shelf edge labels', 'Coasters'];
    const states = () => Promise.all(titles.map(async (title) => (await card(title)).state));
    const burn = async (end?: 'stop') => {
      const { status, body } = await stack.ask<RunAnswer>('POST', `/api/jobs/${ids.shared}/runs`, { version: 1 });
      expect(status).toBe(201);
      expect(new Set(await states())).toEqual(new Set(['on a machine']));
      if (end) await stack.ask('POST', '/api/machines/wren/commands', { command: end });
      return (await stack.until<RunAnswer>(`/api/runs/${body.id}`, ({ endedAt }) => endedAt !== null)).status;
    };
    expect(await burn('stop')).toBe('stopped');
    expect(new Set(await states())).toEqual(new Set(['ready']));
    expect(await burn()).toBe('done');
    expect(new Set(await states())).toEqual(new Set(['burnt']));
    const { body: steps } = await stack.ask<JobStepAnswer[]>('GET', `/api/jobs/${ids.kite}/steps`);
    expect(steps[0]).toMatchObject({ state: 'burnt', with: { jobId: ids.shared, title: '3 jobs, birch' } });
    expect(steps.at(-1)).toMatchObject({ state: 'ready', with: null });
  });

  test('a job that is spoilt goes back alone; once the others are fetched, the sheets are put away', async () => {
    await move(ids.kite, 'ready');
    expect((await card('Kite winder')).sharedOn).toBeNull();
    const { parts } = await sharing(ids.shared);
    expect(parts.filter(({ leftAt }) => leftAt !== null).map(({ jobId }) => jobId)).toEqual([ids.kite]);
    expect((await card('Coasters')).state).toBe('burnt');
    await move(ids.coasters, 'handed over');
    expect((await stack.ask<DeskPage>('GET', '/api/desk?show=burnt&seek=jobs%20birch')).body.total).toBe(1);
    await move(ids.shelf, 'handed over');
    expect((await stack.ask<DeskPage>('GET', '/api/desk?show=put%20away&seek=jobs%20birch')).body.total).toBe(1);
    // What is to be burnt again may share sheets again.
    const again = await ready('Another winder', tag(50, 50));
    const group = await laidOut(2);
    expect(group.jobs.map(({ jobId }) => jobId).sort()).toEqual([ids.kite, again].sort());
  });

  test('free their jobs when they are deleted, and have them again when that is taken back', async () => {
    const { body } = await layOut(await laidOut(2), 'Two winders');
    await stack.ask('DELETE', `/api/jobs/${body.jobId}`);
    expect((await card('Kite winder')).sharedOn).toBeNull();
    expect((await laidOut(2)).jobs).toHaveLength(2);
    await stack.ask('POST', `/api/jobs/${body.jobId}/take-back`);
    expect((await card('Kite winder')).sharedOn).toEqual({ jobId: body.jobId, title: 'Two winders' });
  });

  test('are not taken back where one of their jobs was burnt meanwhile, or lies on other sheets', async () => {
    const first = (await card('Kite winder')).sharedOn?.jobId ?? '';
    const takeBack = async () => {
      const { status, body } = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${first}/take-back`);
      return [status, body.error?.message];
    };
    await stack.ask('DELETE', `/api/jobs/${first}`);
    await move(ids.kite, 'burnt');
    expect(await takeBack()).toEqual([409, '“Kite winder” is burnt by now: these sheets would burn it again.']);
    await move(ids.kite, 'ready');
    const { body: other } = await layOut(await laidOut(2), 'Other sheets');
    expect(await takeBack()).toEqual([
      409,
      '“Kite winder” lies on other sheets by now, those of “Other sheets”. Delete that job first.',
    ]);
    await stack.ask('DELETE', `/api/jobs/${other.jobId}`);
    expect((await takeBack())[0]).toBe(204);
    expect((await card('Kite winder')).sharedOn?.jobId).toBe(first);
  });

  test('are as many as are in stock: where none is, that is said', async () => {
    const first = (await card('Kite winder')).sharedOn?.jobId ?? '';
    await stack.ask('DELETE', `/api/jobs/${first}`);
    await laidOut(2);
    const { body: materials } = await stack.ask<Material[]>('GET', '/api/materials');
    const birch = materials.find(({ id }) => id === 'birch-ply-3');
    const stock = birch?.stock?.map((sheet) => ({ ...sheet, count: 0 }));
    const { status } = await stack.ask('PUT', '/api/materials/birch-ply-3', {
      by: 'Ines Varga',
      version: birch?.version,
      material: { ...birch, stock },
    });
    expect(status).toBe(200);
    const all = await stack.until<SharingGroup[]>('/api/sharing', (found) => onBirch(found)?.trouble !== null);
    expect(onBirch(all)?.trouble).toBe(
      'No sheet of Birch plywood 3 mm is in stock. Count what is there in the Recipe book.',
    );
  });
});
