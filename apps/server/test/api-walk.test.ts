import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { JobAnswer, RunAnswer, VersionAnswer } from '@lambent/contracts';
import { jobFromJson } from '@lambent/core/document';
import { Stack } from './stack.ts';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const stack = new Stack();
beforeAll(async () => {
  await stack.startStandIn('wren');
  await stack.start();
  await stack.until<{ machineId: string; state: string }[]>('/api/machines/states', (states) =>
    states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
  );
});
afterAll(() => stack.close());

/** Runs the shell blocks of a page one after the other, as somebody would who follows it. */
function walk(page: string): Promise<{ code: number | null; said: string }> {
  const text = readFileSync(`${root}docs/${page}`, 'utf8');
  const script = Array.from(text.matchAll(/```sh\n([\s\S]*?)```/g), ([, block]) => block).join('\n');
  const env = { ...process.env, LAMBENT: stack.url };
  const shell = spawn('bash', ['-euo', 'pipefail', '-c', script], { cwd: root, env });
  return new Promise((resolve) => {
    let said = '';
    for (const stream of [shell.stdout, shell.stderr]) {
      stream.on('data', (data) => {
        said += data;
      });
    }
    shell.once('close', (code) => resolve({ code, said }));
  });
}

test('the walk of docs/api.md goes from a file to a burn', async () => {
  const { code, said } = await walk('api.md');
  expect(said).toMatch(/^77 items, 0 remarks\n/);
  expect(said).toMatch(/^Cut: \d+ items, \d+\.\d s$/m);
  expect(said).toMatch(/The run is done\.\n$/);
  expect(code).toBe(0);
  const [run] = (await stack.ask<RunAnswer[]>('GET', '/api/runs')).body;
  expect(run).toMatchObject({ jobTitle: 'Row markers', status: 'done', version: 2, machineId: 'wren' });
  expect(run.doneLine).toBe(run.lines);
});

const drawing = (name: string, bytes: Uint8Array, jobId: string, more = '') =>
  stack.ask<{ version: number; items: number; error: { code: string; message: string } }>(
    'POST',
    `/api/jobs/${jobId}/drawings?name=${encodeURIComponent(name)}${more}`,
    bytes,
  );
const square = (side: number) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${side}mm" height="${side}mm" viewBox="0 0 ${side} ${side}"><rect width="${side}" height="${side}" fill="none" stroke="red"/></svg>`,
  );
const newJob = async (words: object) =>
  stack.ask<JobAnswer & { error: { code: string; message: string } }>('POST', '/api/jobs', {
    title: 'By script',
    machineId: 'wren',
    ...words,
  });

test('a drawing is read into a job beside what is there, at the scale that was asked for, and its file is kept', async () => {
  const { id } = (await newJob({})).body;
  expect((await drawing('one.svg', square(10), id)).body).toMatchObject({ version: 2, items: 1, format: 'svg' });
  const second = await drawing('two.svg', square(10), id, '&base=2&scale=2.5');
  expect(second).toMatchObject({ status: 201, body: { version: 3, pageWidthMm: 10, warnings: [] } });
  const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
  const { drawing: drawn, arrivals } = jobFromJson(body.document);
  expect(drawn.items.map(({ matrix }) => matrix.slice(0, 4))).toEqual([
    [1, 0, 0, 1],
    [2.5, 0, 0, 2.5],
  ]);
  expect(arrivals.map(({ file }) => file)).toEqual(['one.svg', 'two.svg']);
  for (const [i, { originalId }] of arrivals.entries()) {
    const kept = await stack.ask<string>('GET', `/api/jobs/${id}/originals/${originalId}`);
    expect([kept.status, kept.body]).toEqual([200, new TextDecoder().decode(square(10))]);
    expect(arrivals[i].id).not.toBe(arrivals[1 - i].id);
  }
  const { body: history } = await stack.ask<VersionAnswer[]>('GET', `/api/jobs/${id}/versions`);
  expect(history.map(({ edit }) => edit)).toEqual(['Bring in two.svg', 'Bring in one.svg', 'New job']);
});

test('what cannot be read, or not on top of that version, leaves the job as it was', async () => {
  const { id } = (await newJob({})).body;
  await drawing('one.svg', square(10), id);
  const late = await drawing('late.svg', square(10), id, '&base=1');
  expect([late.status, late.body.error.code]).toEqual([409, 'saved-elsewhere']);
  const letter = await drawing('letter.txt', new TextEncoder().encode('Dear Ines'), id);
  expect([letter.status, letter.body.error.message]).toEqual([415, expect.stringMatching(/^letter\.txt: /)]);
  const broken = await drawing('broken.svg', new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"><'), id);
  expect([broken.status, broken.body.error.code]).toEqual([422, 'file-refused']);
  expect((await drawing('page.svg', square(10), id, '&page=0')).status).toBe(400);
  const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`);
  expect([body.version, jobFromJson(body.document).arrivals.length]).toEqual([2, 1]);
});

test('a job is made under the key and on the material that are named, or is refused with those that there are', async () => {
  const { body } = await newJob({ materialId: 'grey-board-2' });
  expect(body.document.sheets).toMatchObject([{ id: 'sheet-1', materialId: 'grey-board-2' }]);
  for (const [words, code, has] of [
    [{ materialId: 'marble' }, 'no-such-material', 'birch-ply-3'],
    [{ keyId: 'none' }, 'no-such-colour-key', ''],
    [{ machineId: 'robin' }, 'no-such-machine', 'wren, curlew'],
  ] as const) {
    const { status, body: refused } = await newJob(words);
    expect([status, refused.error.code]).toEqual([400, code]);
    expect(refused.error.message).toContain(`; it has `);
    expect(refused.error.message).toContain(has);
  }
});

test('a run is answered as it is, and one that is not there is said', async () => {
  const { status, body } = await stack.ask<{ error: { message: string } }>('GET', '/api/runs/none?wait=1');
  expect([status, body.error.message]).toEqual([404, expect.stringMatching(/run/)]);
  const [last] = (await stack.ask<RunAnswer[]>('GET', '/api/runs')).body;
  expect((await stack.ask<RunAnswer>('GET', `/api/runs/${last.id}`)).body).toEqual(last);
});
