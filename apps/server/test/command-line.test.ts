import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { JobAnswer, JobCard, RunAnswer } from '@lambent/contracts';
import { Stack } from './stack.ts';

/*
 * The command line against a running server, as a script uses them: from a file to a finished burn.
 */

const root = fileURLToPath(new URL('../../../', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'lambent-command-'));
const stack = new Stack();

beforeAll(async () => {
  await stack.startStandIn('wren');
  await stack.start();
});

afterAll(async () => {
  await stack.close();
  rmSync(folder, { recursive: true });
});

/** Runs `lambent`, with what comes in on standard input. */
function lambent(words: readonly string[], input = '', env: Record<string, string> = {}) {
  const child = spawn(process.execPath, [join(root, 'packages/cli/bin/lambent.js'), ...words], {
    env: { ...process.env, LAMBENT_SERVER: stack.url, ...env },
  });
  let [stdout, stderr] = ['', ''];
  child.stdout.on('data', (data) => {
    stdout += data;
  });
  child.stderr.on('data', (data) => {
    stderr += data;
  });
  child.stdin.end(input);
  return new Promise<{ status: number | null; stdout: string; stderr: string }>((resolve) => {
    child.once('close', (status) => resolve({ status, stdout, stderr }));
  });
}

const drawing = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">${body}</svg>`;
const square = '<rect x="20" y="20" width="30" height="40" fill="none" stroke="#D0481E" stroke-width="0.1"/>';
const stray = '<path d="M1 1H9" stroke="#123456" fill="none"/>';

test('jobs lists the Desk', async () => {
  const { body: cards } = await stack.ask<JobCard[]>('GET', '/api/jobs');
  const { status, stdout } = await lambent(['jobs']);
  expect(status).toBe(0);
  const lines = stdout.trim().split('\n');
  expect(lines).toHaveLength(cards.length);
  lines.forEach((line, i) => {
    expect(line).toContain(`${cards[i].id}  ${cards[i].title}: ${cards[i].itemCount} items on `);
  });
  expect(JSON.parse((await lambent(['--json', 'jobs'])).stdout)).toEqual(cards);
});

describe('send', () => {
  test('puts a drawing on the Desk, burns it, and waits until it is burnt', async () => {
    const file = join(folder, 'square.svg');
    writeFileSync(file, drawing(square));
    const { status, stdout, stderr } = await lambent(['send', file, '--title', 'From a script', '--wait']);
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toContain('not named, so the shop’s first: --machine wren --key house --material ');
    expect(stdout).toMatch(/From a script: sent to wren as run \S+, planned for /);
    expect(stdout).toMatch(/ {2}done after /);
    const { body: cards } = await stack.ask<JobCard[]>('GET', '/api/jobs');
    expect(cards[0]).toMatchObject({ title: 'From a script', itemCount: 1, lastRun: { status: 'done' } });

    // The job that is on the Desk by now, by its id: its run is on record as burnt.
    const again = await lambent(['send', cards[0].id, '--again', '--wait', '--json']);
    expect(again.status).toBe(0);
    expect(JSON.parse(again.stdout) as RunAnswer).toMatchObject({ jobId: cards[0].id, status: 'done' });
  });

  test('says what blocks, and keeps the drawing on the Desk', async () => {
    const { status, stdout } = await lambent(['send', '-', '--machine', 'wren', '--key', 'house'], drawing(stray));
    expect(status).toBe(1);
    const [, id] = /standard input: not sent\. It is on the Desk as (\S+)\./.exec(stdout) ?? [];
    expect(stdout).toContain('  blocks: ');
    expect((await stack.ask<JobAnswer>('GET', `/api/jobs/${id}`)).body).toMatchObject({ title: 'standard input' });
    const { stdout: json } = await lambent(['send', id, '--json']);
    expect(JSON.parse(json)).toMatchObject({
      jobId: id,
      findings: expect.arrayContaining([expect.objectContaining({ level: 'blocks' })]),
    });
  });

  test('takes a stored job from a file, with its runs', async () => {
    const { body: cards } = await stack.ask<JobCard[]>('GET', '/api/jobs');
    const badges = cards.find(({ title }) => title.includes('adges')) as JobCard;
    const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${badges.id}`);
    const file = join(folder, 'badges.json');
    writeFileSync(file, JSON.stringify(body));
    const { status, stderr } = await lambent(['send', file, '--run', 'no such run', '--title', 'Not to be']);
    expect(status).toBe(2);
    expect(stderr).toContain('There is no run “no such run”; there is “');
    // Nothing was put on the Desk for it.
    expect((await stack.ask<JobCard[]>('GET', '/api/jobs')).body).toEqual(cards);
  });

  test.each<[string, string[], Record<string, string>, RegExp]>([
    ['a job that is not there', ['00000000-0000-4000-8000-000000000000'], {}, /job/i],
    ['a server that is away', ['-'], { LAMBENT_SERVER: 'http://127.0.0.1:1' }, /^No Lambent answers at http:\/\/127/],
    ['an address that is none', ['-'], { LAMBENT_SERVER: 'lambent' }, /^--server must be an address such as/],
    ['a machine that the shop does not have', ['-', '--machine', 'heron'], {}, /^The shop has no machine “heron”/],
    ['nothing on standard input', ['-'], {}, /^standard input: The file is empty/],
    ['a word that there is not', ['-', '--sideways'], {}, /unknown option '--sideways'/],
  ])('%s is said in one sentence, as JSON where that is asked for', async (_, words, env, sentence) => {
    const { status, stdout, stderr } = await lambent(['--json', 'send', ...words], '', env);
    expect([status, stdout]).toEqual([2, '']);
    expect((JSON.parse(stderr) as { error: { message: string } }).error.message).toMatch(sentence);
  });
});

describe('standard input and output', () => {
  test('a plan’s program alone goes out, and what is said beside it', async () => {
    const { status, stdout, stderr } = await lambent(['plan', '-', '--out', '-'], drawing(square));
    expect(status).toBe(0);
    expect(stdout).toMatch(/^\(Lambent: standard input\)\n/);
    expect(stdout.split('\n').filter((line) => /^(G1)?[XY]/.test(line)).length).toBeGreaterThan(3);
    expect(stdout).not.toContain('items on');
    expect(stderr).toContain('standard input: 1 items on Wren');
    const two = await lambent(['plan', '-', '--out', '-', '--report', '-'], drawing(square));
    expect([two.status, two.stdout]).toEqual([2, '']);
    expect(two.stderr).toContain('Standard output takes one file');
  });

  test('a drawing is converted on the way through', async () => {
    const dxf = await lambent(['convert', '-', '-', '--as', 'dxf'], drawing(square));
    expect(dxf.stderr).toContain('1 items written to standard output');
    const back = await lambent(['convert', '-', '-', '--as', 'svg'], dxf.stdout);
    expect(back.status).toBe(0);
    expect(back.stdout).toContain('<svg');
    const unsaid = await lambent(['convert', '-', '-'], drawing(square));
    expect([unsaid.status, unsaid.stderr]).toEqual([
      2,
      'lambent: Say with --as whether it is to be svg, dxf or pdf.\n',
    ]);
  });

  test('a reader that has had enough ends it without a word', async () => {
    const child = spawn(process.execPath, [join(root, 'packages/cli/bin/lambent.js'), 'plan', '-', '--out', '-']);
    let stderr = '';
    child.stderr.on('data', (data) => {
      stderr += data;
    });
    child.stdout.destroy();
    child.stdin.end(drawing(square));
    const status = await new Promise((resolve) => child.once('close', resolve));
    expect([status, stderr]).toEqual([0, '']);
  });

  test('a stored job comes by standard input, too', async () => {
    const job = readFileSync(join(folder, 'badges.json'), 'utf8');
    const { stdout } = await lambent(['plan', '-'], job);
    expect(stdout).toMatch(/^standard input: \d+ items on /);
    expect(stdout).not.toContain('not named');
  });
});
