import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BlockedDetails,
  BookChange,
  BurntPictureAnswer,
  ErrorAnswer,
  JobAnswer,
  JobCard,
  MachineState,
  RunAnswer,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import type { ColourKey } from '@lambent/core/colours';
import { jobFromJson } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import { prepareJob } from '@lambent/core/plan';
import { lookOf, type Material } from '@lambent/core/recipes';
import Database from 'better-sqlite3';
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
    (runs) => runs.find(({ id }) => id === run.id)?.endedAt !== null,
    50_000,
  );
  return all.find(({ id }) => id === run.id) as RunAnswer;
};
const onRecord = async (run: RunAnswer) =>
  (await stack.ask<RunAnswer[]>('GET', `/api/runs?job=${run.jobId}`)).body.find(({ id }) => id === run.id);
const command = (id: string, word: string) =>
  stack.ask<MachineState & ErrorAnswer>('POST', `/api/machines/${id}/commands`, { command: word });

test('a job is planned, sent, burnt to its last line, and stays on record', async () => {
  const run = await begin('Seed packet');
  const done = await ended(run);
  expect(done).toMatchObject({ status: 'done', reason: null, doneLine: done.lines });
  // The planner's time against that of the stand-in, whose motion is written apart.
  expect(Math.abs(done.machineS / done.plannedS - 1)).toBeLessThan(0.005);
  const { body: program } = await stack.ask<string>('GET', `/api/runs/${run.id}/program.gcode`);
  expect(createHash('sha256').update(program).digest('hex')).toBe(run.programHash);
  expect(program.trimEnd().split('\n')).toHaveLength(done.lines);
  expect((await cardOf('Seed packet')).lastRun?.status).toBe('done');
});

test('what a run would do is told without sending it, by the same plan', async () => {
  const badges = await cardOf('Volunteer badges');
  const planOf = (words = '') => stack.ask<Report>('GET', `/api/jobs/${badges.id}/plan${words}`);
  const { status, body: holder } = await planOf();
  expect(status).toBe(200);
  expect(holder.source).toMatchObject({ file: 'Volunteer badges', format: 'job', itemCount: badges.itemCount });
  expect(holder.timeS).toBeGreaterThan(0);
  // By its name or its id, another run of it, which burns other layers.
  const { body: engraved } = await planOf('?run=Badges');
  expect(engraved.timeS).not.toBe(holder.timeS);
  expect((await planOf('?run=run-2')).body).toEqual(engraved);
  expect((await planOf(`?version=${badges.version}`)).body).toEqual(holder);
  expect((await planOf('?run=No%20such%20run')).status).toBe(404);
  expect((await planOf('?version=99')).status).toBe(404);
  expect((await planOf('?version=none')).status).toBe(400);
  // A burn is asked for by the id of its run alone.
  const byName = { version: badges.version, runId: 'Badges' };
  expect((await stack.ask('POST', `/api/jobs/${badges.id}/runs`, byName)).status).toBe(404);
  // Nothing was sent.
  expect((await stack.ask<RunAnswer[]>('GET', `/api/runs?job=${badges.id}`)).body).toEqual([]);
});

test('how it came out is kept with the run: what its recipes cut is cut through, and nothing else', async () => {
  await idle('wren');
  const done = await ended(await begin('Seed packet'));
  expect(done.hasPicture).toBe(true);
  const { body } = await stack.ask<BurntPictureAnswer>('GET', `/api/runs/${done.id}/picture`);
  const picture = { ...body, codes: new Uint8Array(gunzipSync(Buffer.from(body.codes, 'base64'))) };
  expect(picture.codes).toHaveLength(body.width * body.height);
  const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${done.jobId}`);
  const { body: materials } = await stack.ask<Material[]>('GET', '/api/materials');
  const { body: machines } = await stack.ask<Machine[]>('GET', '/api/machines');
  const { body: keys } = await stack.ask<ColourKey[]>('GET', '/api/colour-keys');
  const prepared = prepareJob(jobFromJson(job.document), { materials, machines, keys });
  const shares = prepared.layers
    .filter(({ burns }) => burns)
    .flatMap(({ layer, placed }) =>
      placed.map(({ item }) => ({ operation: layer.operation, ...lookOf(picture, item, layer.operation) })),
    );
  expect(shares.map(({ operation }) => operation)).toEqual(expect.arrayContaining(['cut', 'score']));
  for (const { operation, through, dark } of shares) {
    if (operation === 'cut') expect(through).toBeGreaterThan(0.98);
    else {
      // Where a score meets a cut, the cut is seen.
      expect(through).toBeLessThan(0.1);
      expect(dark).toBeGreaterThan(0.2);
    }
  }
});

describe('stock', () => {
  const inStock = async () => {
    const { body } = await stack.ask<Material[]>('GET', '/api/materials');
    return body.find(({ id }) => id === 'cotton-card-05') as Material;
  };
  const counts = async () =>
    (await inStock()).stock?.map(({ width, count, offcut }) => [width, count, offcut ?? false]);
  /** A copy of the seed packet in two runs, on a sheet from stock. */
  const twoRuns = async () => {
    const card = await inStock();
    const sizes = { width: card.sheetWidth, height: card.sheetHeight };
    const stock = [{ id: 'large', ...sizes, count: 3, price: 2.5 }];
    const { version } = card;
    const changed = await stack.ask('PUT', `/api/materials/${card.id}`, {
      by: 'Ines Varga',
      version,
      material: { ...card, stock },
    });
    expect(changed.status).toBe(200);
    const { id } = await cardOf('Seed packet');
    const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
    const [run] = job.document.runs ?? [];
    const [sheet] = job.document.sheets;
    const document = {
      ...job.document,
      sheets: [{ ...sheet, ...sizes }],
      runs: [run, { ...run, id: 'again', name: 'Again' }],
    };
    const copy = await stack.sendJob<JobAnswer>('POST', `/api/jobs/${id}/copies`, { title: 'Twice' }, document);
    return copy.body.id;
  };
  const burn = async (jobId: string, runId: string, again = false) => {
    await idle('wren');
    const { body } = await stack.ask<RunAnswer>('POST', `/api/jobs/${jobId}/runs`, { version: 1, runId, again });
    return ended(body);
  };

  test('is taken once a sheet, however many runs burn on it; can be put back, and what is left of it kept', async () => {
    const jobId = await twoRuns();
    const first = await burn(jobId, 'run-1');
    expect(first.taken).toMatchObject([{ materialId: 'cotton-card-05', stockId: 'large', price: 2.5 }]);
    const width = first.taken[0].width;
    expect(await counts()).toEqual([[width, 2, false]]);
    expect((await burn(jobId, 'again')).taken).toEqual([]);
    // The same run once more is on another sheet.
    const second = await burn(jobId, 'run-1', true);
    expect(await counts()).toEqual([[width, 1, false]]);

    const { sheetId } = second.taken[0];
    const by = 'Tobiah Okonjo';
    const back = () => stack.ask<RunAnswer>('POST', `/api/runs/${second.id}/stock/put-back`, { by, sheetId });
    expect((await back()).body.taken[0].putBack).toBe(true);
    expect(await counts()).toEqual([[width, 2, false]]);
    expect((await back()).status).toBe(409);

    const keep = (size: object) =>
      stack.ask<RunAnswer & ErrorAnswer>('POST', `/api/runs/${first.id}/stock/offcuts`, { by, sheetId, ...size });
    expect((await keep({ width: 5000, height: 10 })).body.error.message).toContain('no larger than the sheet');
    expect((await keep({ width: 100, height: 0 })).status).toBe(400);
    expect((await keep({ width: 100, height: 80 })).body.taken[0].keptOffcuts).toEqual([{ width: 100, height: 80 }]);
    expect(await counts()).toEqual([
      [width, 2, false],
      [100, 1, true],
    ]);
    const { body: history } = await stack.ask<BookChange[]>('GET', '/api/materials/cotton-card-05/history');
    expect(history[0]).toMatchObject({ by, what: expect.stringContaining('1 of 100 × 80 mm (offcut)') });
    expect(history.some((change) => change.by === 'the run of “Twice”')).toBe(true);
  });
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
    expect(stopped).toMatchObject({ status: 'stopped', reason: 'stopped by hand', hasPicture: true });
    // The sheet that it burnt on is taken from stock, stopped or not.
    expect(stopped.taken).toMatchObject([{ materialId: 'birch-ply-3', offcut: false }]);
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

  test('a machine that dies shows as away, and its run is over once it is back and does not have it any more', async () => {
    const run = await begin('Row markers');
    await wait('wren', 'running');
    await stack.until<MachineState[]>('/api/machines/states', (states) => (stateOf(states, 'wren')?.line ?? 0) > 50);
    await stack.kill('wren');
    await wait('wren', 'away');
    expect(await onRecord(run)).toMatchObject({ status: 'running', endedAt: null });
    expect((await start('Row markers')).body.error).toMatchObject({ code: 'machine-away' });
    await stack.startStandIn('wren', '--factor', '400');
    const broken = await ended(run);
    expect(broken).toMatchObject({ status: 'broken off', reason: 'the machine was restarted while it ran' });
    expect(broken.doneLine).toBeGreaterThan(50);
    await idle('wren');
  });

  test('a machine that is gone for good is given up by saying stop twice', async () => {
    const run = await begin('Row markers');
    await wait('wren', 'running');
    await stack.kill('wren');
    await wait('wren', 'away');
    const first = await command('wren', 'stop');
    expect([first.status, first.body.error.code]).toEqual([409, 'no-answer']);
    expect((await command('wren', 'stop')).status).toBe(200);
    expect(await ended(run)).toMatchObject({ status: 'broken off' });
    await stack.startStandIn('wren', '--factor', '400');
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

test('of two starts at once one is refused, and is told which run is there; so is one while it is held', async () => {
  await idle('wren');
  const both = await Promise.all([start('Row markers'), start('Row markers')]);
  expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
  const refused = both.find(({ status }) => status === 409)?.body.error;
  expect(refused?.message).toBe('The machine is not free: it has “Row markers, spring batch” (being made ready).');
  await wait('wren', 'running');
  await command('wren', 'hold');
  await wait('wren', 'held');
  const held = (await start('Seed packet')).body.error;
  expect(held.message).toBe('The machine is not free: it has “Row markers, spring batch” (held, held by hand).');
  const run = both.find(({ status }) => status === 201)?.body as RunAnswer;
  await command('wren', 'stop');
  await ended(run);
});

describe('a server that goes down in a run', () => {
  test('killed, finds it again: the machine has held it by itself, and it goes on where it was', async () => {
    await idle('wren');
    const run = await begin('Row markers');
    await wait('wren', 'running');
    await stack.kill('server');
    // The machine holds when it hears nothing for 2 s: it is asked no more often than that, however soon a server could be back.
    do await new Promise((resolve) => setTimeout(resolve, 2500));
    while ((await stack.standInStatus('wren')).state !== 'held');
    await stack.start();
    const [held] = await stack.until<RunAnswer[]>('/api/runs', ([last]) => last.status === 'held', 20_000);
    expect(held).toMatchObject({ id: run.id, reason: 'nothing was heard for 2 s', endedAt: null });
    const wren = stateOf((await stack.ask<MachineState[]>('GET', '/api/machines/states')).body, 'wren');
    expect(wren).toMatchObject({ state: 'held', power: 0, runId: run.id, line: held.doneLine });
    await command('wren', 'resume');
    const done = await ended(run);
    expect(done).toMatchObject({ status: 'done', doneLine: done.lines, hasPicture: true });
    // Nothing was burnt twice, and nothing left out: the machine took the time it was to take.
    expect(Math.abs(done.machineS / done.plannedS - 1)).toBeLessThan(0.005);
  });

  test('told to end with a page open, holds it, puts that on record and ends; a second start offers to go on', async () => {
    await idle('wren');
    const run = await begin('Row markers');
    await wait('wren', 'running');
    const page = await fetch(`${stack.url}/api/events`);
    expect(await stack.end('server')).toBe(0);
    await page.body?.cancel().catch(() => {});
    const database = new Database(join(stack.data, 'lambent.sqlite'));
    const row = database.prepare('SELECT status, reason, doneLine FROM runs WHERE id = ?').get(run.id);
    database.close();
    expect(row).toMatchObject({ status: 'held', reason: 'Lambent was ended', doneLine: expect.any(Number) });
    await stack.start();
    await wait('wren', 'held');
    await command('wren', 'resume');
    expect(await ended(run)).toMatchObject({ status: 'done' });
  });

  test('stops a machine that still has a run which was given up, and is on record as ended', async () => {
    await idle('wren');
    const run = await begin('Row markers');
    await wait('wren', 'running');
    // Frozen, it does not hear; what it has it keeps.
    stack.signal('wren', 'SIGSTOP');
    await wait('wren', 'away');
    expect((await command('wren', 'stop')).status).toBe(409);
    expect((await command('wren', 'stop')).status).toBe(200);
    const given = await ended(run);
    expect(given).toMatchObject({ status: 'broken off', reason: 'the machine went away, and was given up by hand' });
    await stack.kill('server');
    stack.signal('wren', 'SIGCONT');
    await stack.start();
    await idle('wren');
    const { run: left } = await stack.standInStatus<{ state: string; run: { id: string; dropped: boolean } }>('wren');
    expect(left).toMatchObject({ id: run.id, dropped: true });
    expect(await onRecord(run)).toMatchObject({
      status: 'broken off',
      doneLine: given.doneLine,
      endedAt: given.endedAt,
    });
  });

  test('and whose machine was switched off meanwhile, says so', async () => {
    await idle('wren');
    const run = await begin('Row markers');
    await wait('wren', 'running');
    await stack.kill('server');
    await stack.kill('wren');
    await stack.start();
    await stack.startStandIn('wren', '--factor', '400');
    const broken = await ended(run);
    expect(broken).toMatchObject({ status: 'broken off', reason: 'the machine does not have the run any more' });
  });
});
