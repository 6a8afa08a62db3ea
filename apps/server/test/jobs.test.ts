import { request } from 'node:http';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { DeletedJob, ErrorAnswer, JobAnswer, JobCard, VersionAnswer } from '@lambent/contracts';
import Database from 'better-sqlite3';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const jobs = async () => (await stack.ask<JobCard[]>('GET', '/api/jobs')).body;
const job = async (title: string) => {
  const card = (await jobs()).find((one) => one.title.startsWith(title));
  return (await stack.ask<JobAnswer>('GET', `/api/jobs/${card?.id}`)).body;
};
const newJob = async (title: string) =>
  (await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren' })).body;
const save = (of: JobAnswer, base: number, edit: string, document: unknown = of.document) =>
  stack.sendJob<VersionAnswer & ErrorAnswer>('PUT', `/api/jobs/${of.id}`, { base: String(base), edit }, document);

test('an empty data folder is filled with the demo world', async () => {
  expect((await jobs()).map(({ title, itemCount }) => [title, itemCount >= 20])).toEqual([
    ['Row markers, spring batch', true],
    ['Seed packet, folding', true],
    ['Volunteer badges', true],
    ['Estuary relief', true],
    ['Bench plaque', false],
    ['Kingfisher window piece', false],
    ['Drawer for packets', false],
  ]);
  const { body } = await stack.ask<{ id: string; recipes: unknown[] }[]>('GET', '/api/materials');
  expect(body.find(({ id }) => id === 'birch-ply-3')?.recipes).toHaveLength(9);
});

test('a card’s picture is an SVG of its artwork in its operations’ colours', async () => {
  const [{ id, version }] = await jobs();
  const { status, body } = await stack.ask<string>('GET', `/api/jobs/${id}/picture.svg?version=${version}`);
  expect(status).toBe(200);
  expect(body).toMatch(/^<svg .*stroke="#D0481E"/s);
});

describe('saving', () => {
  test('makes a version each time, and every version can be opened again', async () => {
    const made = await newJob('Versions');
    const inches = { ...made.document, unit: 'in' };
    expect((await save(made, 1, 'lengths in in', inches)).body).toMatchObject({ number: 2, edit: 'lengths in in' });
    const { body: history } = await stack.ask<VersionAnswer[]>('GET', `/api/jobs/${made.id}/versions`);
    expect(history.map(({ number, edit }) => [number, edit])).toEqual([
      [2, 'lengths in in'],
      [1, 'New job'],
    ]);
    const first = await stack.ask<JobAnswer>('GET', `/api/jobs/${made.id}/versions/1`);
    expect(first.body.document.unit).toBe('mm');
    expect((await stack.ask<JobAnswer>('GET', `/api/jobs/${made.id}`)).body.document.unit).toBe('in');
  });

  test('from two windows loses nothing: the second is told, and can keep both', async () => {
    const made = await newJob('Two windows');
    const [mine, theirs] = await Promise.all([
      save(made, 1, 'mine', { ...made.document, unit: 'cm' }),
      save(made, 1, 'theirs', { ...made.document, unit: 'in' }),
    ]);
    expect([mine.status, theirs.status].sort()).toEqual([200, 409]);
    const lost = mine.status === 409 ? mine : theirs;
    expect(lost.body.error).toMatchObject({ code: 'saved-elsewhere', details: { latest: 2 } });
    const copy = await stack.sendJob<JobAnswer>(
      'POST',
      `/api/jobs/${made.id}/copies`,
      { title: 'Two windows, second copy' },
      { ...made.document, unit: 'in' },
    );
    expect(copy.body).toMatchObject({ version: 1, document: { unit: 'in' } });
    expect((await jobs()).filter(({ title }) => title.startsWith('Two windows'))).toHaveLength(2);
  });

  test.each([
    ['a drawing that is none', { drawing: { items: [{}], groups: [] } }, 'item 0: paint is missing'],
    [
      'a sheet without size',
      { sheets: [{ id: 's', materialId: 'm', x: 0, y: 0, width: 0, height: 1, margin: 0 }] },
      'sheet 0',
    ],
    ['no drawing', { drawing: null }, 'drawing is missing'],
  ])('%s is refused with a sentence, and nothing is changed', async (_, change, sentence) => {
    const made = await newJob('Bad');
    const { status, body } = await save(made, 1, 'bad', { ...made.document, ...change });
    expect(status).toBe(400);
    expect(body.error.message).toContain(sentence);
    expect((await stack.ask<JobAnswer>('GET', `/api/jobs/${made.id}`)).body.version).toBe(1);
  });

  test('a server killed while it saves loses nothing that was saved', async () => {
    const relief = await job('Estuary relief');
    let saved = relief.version;
    let someSaved = () => {};
    const some = new Promise<void>((resolve) => {
      someSaved = resolve;
    });
    const saving = (async () => {
      for (;;) {
        const { body } = await save(relief, saved, `edit ${saved}`);
        saved = body.number;
        if (saved > relief.version + 3) someSaved();
      }
    })();
    await some;
    await stack.kill('server');
    await expect(saving).rejects.toThrow();
    await stack.start();
    const again = await job('Estuary relief');
    // The one under way may have come to its end without its answer getting through.
    expect(saved).toBeGreaterThan(relief.version);
    expect([saved, saved + 1]).toContain(again.version);
    expect(again.document).toEqual(relief.document);
    const { body } = await stack.ask<VersionAnswer[]>('GET', `/api/jobs/${relief.id}/versions`);
    expect(body.map(({ number }) => number)).toEqual(
      Array.from({ length: again.version }, (__, i) => again.version - i),
    );
  });
});

test('a card tells the job’s place: machine, material, project and its last burn', async () => {
  const demo = (await jobs()).find(({ title }) => title === 'Volunteer badges');
  expect(demo).toMatchObject({ project: 'Heronbrook Seed Library', machineId: 'wren', lastRun: null });
  const made = await newJob('Card');
  expect((await jobs())[0]).toMatchObject({ id: made.id, version: 1, itemCount: 0, materialId: null, lastRun: null });
  await stack.kill('server');
  const database = new Database(join(stack.data, 'lambent.sqlite'));
  const burnt = database.prepare(
    `INSERT INTO runs (id, sequence, jobId, version, jobRunId, jobRunName, machineId, status, startedAt, endedAt,
       programHash, lines, doneLine, plannedS, machineS, taken)
     VALUES (?, ?, ?, 1, 'first', 'Run 1', 'wren', ?, '2026-10-14 09:00:00.000', ?, 'none', 1, 1, 1, 1, '[]')`,
  );
  burnt.run('a', 1, made.id, 'stopped', null);
  burnt.run('b', 2, made.id, 'done', '2026-10-14 09:30:00.000');
  database.close();
  await stack.start();
  const card = async () => (await jobs()).find(({ id }) => id === made.id);
  expect((await card())?.lastRun).toEqual({ status: 'done', endedAt: '2026-10-14T09:30:00.000Z' });
  expect(Date.parse((await card())?.updatedAt ?? '')).toBeGreaterThan(Date.now() - 3_600_000);
});

test('what is not there is said, and what belongs to another job is not given', async () => {
  const [made, other] = [await newJob('There'), await newJob('Another')];
  const svg = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>');
  const kept = await stack.ask<{ id: number }>('POST', `/api/jobs/${made.id}/originals?name=a.svg`, svg);
  expect((await stack.ask('GET', `/api/jobs/${made.id}/originals/${kept.body.id}`)).status).toBe(200);
  const asks: [string, string, unknown, string][] = [
    [
      'GET',
      `/api/jobs/${made.id}/versions/2`,
      undefined,
      'There is no such version of this job. It may have been deleted.',
    ],
    [
      'GET',
      `/api/jobs/${other.id}/originals/${kept.body.id}`,
      undefined,
      'There is no such file of this job. It may have been deleted.',
    ],
    [
      'GET',
      `/api/jobs/${made.id}/originals/999`,
      undefined,
      'There is no such file of this job. It may have been deleted.',
    ],
    ['GET', '/api/jobs/nobody/versions', undefined, 'There is no such job. It may have been deleted.'],
    ['PATCH', '/api/jobs/nobody', { title: 'x' }, 'There is no such job. It may have been deleted.'],
    ['POST', '/api/jobs/nobody/take-back', undefined, 'There is no such deleted job. It may have been deleted.'],
  ];
  for (const [method, path, body, message] of asks) {
    const answer = await stack.ask<ErrorAnswer>(method, path, body);
    expect([path, answer.status, answer.body.error?.message]).toEqual([path, 404, message]);
  }
  const gone = await stack.sendJob('POST', '/api/jobs/nobody/copies', { title: 'x' }, made.document);
  expect(gone.status).toBe(404);
  expect((await save({ ...made, id: 'nobody' }, 1, 'x')).status).toBe(404);
});

test('a job is given another title, and stays where it was', async () => {
  const [made, later] = [await newJob('Old title'), await newJob('Later')];
  expect((await stack.ask('PATCH', `/api/jobs/${made.id}`, { title: 'New title' })).status).toBe(204);
  expect((await jobs()).slice(0, 2).map(({ id, title }) => [id, title])).toEqual([
    [later.id, 'Later'],
    [made.id, 'New title'],
  ]);
});

test('versions with the same drawing keep it once', async () => {
  const made = await newJob('Same drawing');
  const counted = (table: string) => {
    const database = new Database(join(stack.data, 'lambent.sqlite'), { readonly: true });
    const { count } = database.prepare(`SELECT count(*) AS count FROM ${table}`).get() as { count: number };
    database.close();
    return count;
  };
  const [drawings, versions] = [counted('drawings'), counted('versions')];
  await save(made, 1, 'lengths in in', { ...made.document, unit: 'in' });
  expect([counted('drawings') - drawings, counted('versions') - versions]).toEqual([0, 1]);
});

describe('deleting', () => {
  test('takes a job off the Desk until it is taken back; a save of it meanwhile is told, and can be kept', async () => {
    const made = await newJob('Deleted');
    expect((await stack.ask('DELETE', `/api/jobs/${made.id}`)).status).toBe(204);
    expect((await jobs()).some(({ id }) => id === made.id)).toBe(false);
    const late = await save(made, 1, 'late');
    expect([late.status, late.body.error.code]).toEqual([409, 'job-deleted']);
    const { body: gone } = await stack.ask<DeletedJob[]>('GET', '/api/jobs/deleted');
    expect(gone).toEqual([
      { id: made.id, title: 'Deleted', deletedAt: expect.any(String), goneAt: expect.any(String) },
    ]);
    expect(Date.parse(gone[0].goneAt) - Date.parse(gone[0].deletedAt)).toBe(30 * 86_400_000);
    expect((await stack.ask('POST', `/api/jobs/${made.id}/take-back`)).status).toBe(204);
    expect((await jobs())[0].id).toBe(made.id);
    expect((await stack.ask('GET', '/api/jobs/deleted')).body).toEqual([]);
    expect((await save(made, 1, 'late')).status).toBe(200);
    expect((await stack.ask('POST', `/api/jobs/${made.id}/take-back`)).status).toBe(404);
    expect((await stack.ask('DELETE', '/api/jobs/nobody')).status).toBe(404);
  });
});

test('the last change comes first, also when the clock has been set back since', async () => {
  const [first, second] = [await newJob('First'), await newJob('Second')];
  await stack.kill('server');
  const database = new Database(join(stack.data, 'lambent.sqlite'));
  database.prepare("UPDATE jobs SET updatedAt = '2099-01-01 00:00:00.000' WHERE id = ?").run(second.id);
  database.close();
  await stack.start();
  expect((await jobs())[0].id).toBe(second.id);
  await save(first, 1, 'now');
  expect((await jobs()).slice(0, 2).map(({ id }) => id)).toEqual([first.id, second.id]);
});

describe('originals', () => {
  const send = (id: string, name: string, bytes: Buffer) =>
    stack.ask<ErrorAnswer & { sha256: string }>(
      'POST',
      `/api/jobs/${id}/originals?name=${name}`,
      new Uint8Array(bytes),
    );

  test('are kept byte for byte', async () => {
    const { id } = await newJob('Original');
    const { status, body } = await send(id, 'a.svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'));
    expect(status).toBe(201);
    expect(body.sha256).toMatch(/^[0-9a-f]{64}$/);
  });

  test('are looked at, not trusted by name; empty and huge ones are refused', async () => {
    const { id } = await newJob('Not originals');
    const picture = await send(id, 'picture.svg', Buffer.from('Dear Ines, the drawing follows.'));
    expect(picture.status).toBe(415);
    expect(picture.body.error.message).toMatch(/^picture.svg: The file is none of the formats/);
    expect((await send(id, 'empty.svg', Buffer.alloc(0))).status).toBe(400);
    expect((await send(id, 'huge.svg', Buffer.alloc(50 * 1024 * 1024, 32))).body.error.code).toBe('too-large');
    expect((await send('nobody', 'a.svg', Buffer.from('<svg/>'))).status).toBe(404);
  });
});

describe('at the door', () => {
  test('errors have one shape and a sentence', async () => {
    for (const [method, path, body, status] of [
      ['GET', '/api/jobs/nobody', undefined, 404],
      ['GET', '/api/nothing', undefined, 404],
      ['POST', '/api/jobs', { title: '', machineId: 'wren' }, 400],
      ['POST', '/api/jobs', { title: 'x', machineId: 'no-such' }, 400],
      ['POST', '/api/jobs/nobody/runs', { version: 1 }, 404],
      ['POST', '/api/machines/wren/commands', { command: 'explode' }, 400],
    ] as const) {
      const answer = await stack.ask<ErrorAnswer>(method, path, body);
      expect([path, answer.status]).toEqual([path, status]);
      expect(answer.body.error.message).toMatch(/\w/);
      expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at .*\.js:/);
    }
  });

  test('what is not JSON is said to be none', async () => {
    const response = await fetch(`${stack.url}/api/jobs`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"title":',
    });
    expect(response.status).toBe(400);
    expect(((await response.json()) as ErrorAnswer).error.message).toBe('What was sent is not JSON.');
  });

  test('another site’s page is turned away, and nothing may be loaded from outside', async () => {
    const foreign = await stack.ask<ErrorAnswer>(
      'POST',
      '/api/jobs',
      { title: 'x', machineId: 'wren' },
      { Origin: 'http://elsewhere.test' },
    );
    expect([foreign.status, foreign.body.error.code]).toEqual([403, 'other-origin']);
    const own = await stack.ask('GET', '/api/jobs', undefined, { Origin: stack.url });
    expect(own.status).toBe(200);
    const { headers } = await fetch(`${stack.url}/api/jobs`);
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('content-security-policy')).not.toMatch(/https?:|\*/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('another name that points to this machine is turned away', async () => {
    const { hostname, port } = new URL(stack.url);
    const status = (host: string) =>
      new Promise((resolve, reject) => {
        const asked = request({ hostname, port, path: '/api/jobs', headers: { Host: host } }, (answer) => {
          answer.resume();
          resolve(answer.statusCode);
        });
        asked.on('error', reject).end();
      });
    expect(await status(`elsewhere.test:${port}`)).toBe(403);
    expect(await status(`localhost:${port}`)).toBe(200);
  });

  test('the API describes itself', async () => {
    const { body } = await stack.ask<{ paths: Record<string, unknown>; components: { schemas: object } }>(
      'GET',
      '/api/docs-json',
    );
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining(['/api/jobs', '/api/machines', '/api/runs', '/api/colour-keys']),
    );
    expect(body.components.schemas).toHaveProperty('SaveJobDto.properties.base');
  });
});
