import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { BlockedDetails, ErrorAnswer, JobAnswer, JobCard } from '@lambent/contracts';
import { encodePixels } from '@lambent/core/formats';
import Database from 'better-sqlite3';
import { Stack } from './stack.ts';

/*
 * What ill will, damage and accident send: the server says what is wrong, and goes on answering everybody else.
 */

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const jobs = async () => (await stack.ask<JobCard[]>('GET', '/api/jobs')).body;
const newJob = async (title: string) =>
  (await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren' })).body;
const endless = readFileSync(new URL('./fixtures/endless-font.woff', import.meta.url));

/** Asks for something light again and again until `work` has ended. @returns the longest that an answer took, in ms */
async function meanwhile(work: Promise<unknown>): Promise<{ asked: number }> {
  let over = false;
  let asked = 0;
  const ended = work.finally(() => {
    over = true;
  });
  while (!over) {
    expect((await stack.ask('GET', '/api/machines/states')).status).toBe(200);
    asked++;
  }
  await ended;
  return { asked };
}

test('a font whose reading does not end is refused within its time, and everything else is answered meanwhile', async () => {
  const loading = stack.ask<ErrorAnswer>('POST', '/api/fonts', new Uint8Array(endless));
  expect((await meanwhile(loading)).asked).toBeGreaterThan(20);
  const { status, body } = await loading;
  expect(status).toBe(422);
  expect(body.error.message).toMatch(/^The font takes longer than 5 s/);
});

describe('a job that nobody can draw', () => {
  test('is refused when it is sent: an arc of ten thousand million turns, a billion passes, passes below none', async () => {
    const job = await newJob('Poison');
    const arc = {
      id: 'a',
      name: null,
      shape: { kind: 'arc', cx: 0, cy: 0, radius: 9, from: 0, sweep: 1e12 },
      matrix: [1, 0, 0, 1, 0, 0],
      paint: { stroke: '#FF0000', strokeWidthMm: 0.1, fill: null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    };
    for (const [change, sentence] of [
      [{ drawing: { items: [arc], groups: [] } }, 'item 0: sweep must lie between'],
      [{ settings: { cut: { passes: 1e9 } } }, 'settings of cut: passes must lie between'],
      [{ settings: { cut: { passes: -1 } } }, 'settings of cut: passes must lie between'],
    ] as const) {
      const { status, body } = await stack.sendJob<ErrorAnswer>(
        'PUT',
        `/api/jobs/${job.id}`,
        { base: '1', edit: 'poison' },
        { ...job.document, ...change },
      );
      expect([status, body.error.message]).toEqual([400, expect.stringContaining(sentence)]);
    }
  });

  test('and is stored from before: the Desk opens, it has no picture, and it can be deleted', async () => {
    const relief = (await jobs()).find(({ title }) => title.startsWith('Estuary')) as JobCard;
    await stack.kill('server');
    const database = new Database(join(stack.data, 'lambent.sqlite'));
    const { drawingHash } = database
      .prepare('SELECT drawingHash FROM versions WHERE jobId = ? AND number = ?')
      .get(relief.id, relief.version) as { drawingHash: string };
    const { json } = database.prepare('SELECT json FROM drawings WHERE hash = ?').get(drawingHash) as { json: Buffer };
    const drawing = JSON.parse(gunzipSync(json).toString());
    drawing.items[0].shape = { kind: 'arc', cx: 0, cy: 0, radius: 9, from: 0, sweep: 1e12 };
    database.prepare('UPDATE drawings SET json = ? WHERE hash = ?').run(gzipSync(JSON.stringify(drawing)), drawingHash);
    database.close();
    await stack.start();
    expect((await jobs()).map(({ id }) => id)).toContain(relief.id);
    const picture = await stack.ask<ErrorAnswer>('GET', `/api/jobs/${relief.id}/picture.svg?version=${relief.version}`);
    expect([picture.status, picture.body.error.code]).toEqual([400, 'not-a-job']);
    const run = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${relief.id}/runs`, { version: relief.version });
    expect(run.status).toBeGreaterThanOrEqual(400);
    expect((await stack.ask('DELETE', `/api/jobs/${relief.id}`)).status).toBe(204);
  });
});

test('a job in which nothing is drawn starts no run', async () => {
  await stack.startStandIn('wren');
  await stack.until<{ machineId: string; state: string }[]>('/api/machines/states', (states) =>
    states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
  );
  const packet = (await jobs()).find(({ title }) => title.startsWith('Seed')) as JobCard;
  const { document } = (await stack.ask<JobAnswer>('GET', `/api/jobs/${packet.id}`)).body;
  const bare = { ...document, drawing: { items: [], groups: [] } };
  const { body: job } = await stack.sendJob<JobAnswer>(
    'POST',
    `/api/jobs/${packet.id}/copies`,
    { title: 'Bare' },
    bare,
  );
  const { status, body } = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${job.id}/runs`, { version: 1 });
  expect(status).toBe(422);
  expect((body.error.details as BlockedDetails).findings[0].code).toBe('nothing-to-burn');
  expect((await stack.ask<unknown[]>('GET', `/api/runs?job=${job.id}`)).body).toEqual([]);
});

test('JSON that is nested without end is refused with a sentence', async () => {
  const deep = `${'{"a":'.repeat(15_000)}1${'}'.repeat(15_000)}`;
  const post = (path: string, type: string, body: string) =>
    fetch(`${stack.url}${path}`, { method: 'POST', headers: { 'Content-Type': type }, body });
  const settings = await post('/api/colour-keys', 'application/json', deep);
  expect([settings.status, ((await settings.json()) as ErrorAnswer).error.code]).toEqual([400, 'too-deep']);
  const { id } = await newJob('Deep');
  const copy = await post(`/api/jobs/${id}/copies?title=x`, 'application/vnd.lambent.job+json', deep);
  expect([copy.status, ((await copy.json()) as ErrorAnswer).error.message]).toEqual([
    400,
    'What was sent is not a job: it is nested too deep.',
  ]);
});

test('a picture is kept under its own hash, and under no other', async () => {
  const png = await encodePixels({ width: 4, height: 4, rgb: new Uint8Array(48) });
  const wrong = await stack.ask<ErrorAnswer>('PUT', `/api/pictures/${'0'.repeat(64)}`, png);
  expect([wrong.status, wrong.body.error.code]).toEqual([400, 'not-its-hash']);
  expect((await stack.ask('GET', `/api/pictures/${'0'.repeat(64)}`)).status).toBe(404);
  const id = createHash('sha256').update(png).digest('hex');
  expect((await stack.ask('PUT', `/api/pictures/${id}`, png)).status).toBe(204);
  expect((await stack.ask('GET', `/api/pictures/${id}`)).status).toBe(200);
  const text = new TextEncoder().encode('Dear Ines');
  expect((await stack.ask<ErrorAnswer>('PUT', `/api/pictures/${id}`, text)).status).toBe(415);
});

test('other sites get nowhere, however they spell the path', async () => {
  const before = await stack.ask('GET', '/api/settings');
  for (const path of ['/API/settings', '/Api/settings', '/api/settings']) {
    for (const headers of [{ Origin: 'http://elsewhere.test' }, { 'Sec-Fetch-Site': 'same-site' }]) {
      const { status } = await stack.ask('PUT', path, { fileNames: 'x', speedUnit: 'in/s' }, headers as never);
      expect([path, status]).toEqual([path, 403]);
    }
  }
  expect((await stack.ask('GET', '/api/settings')).body).toEqual(before.body);
});

test('a connection that rests is kept for longer than anyone who polls leaves it, so that no request meets its end', async () => {
  const response = await fetch(`${stack.url}/api/machines/states`);
  const [, seconds] = /timeout=(\d+)/.exec(response.headers.get('keep-alive') ?? '') ?? [];
  expect(Number(seconds)).toBeGreaterThanOrEqual(60);
});
