import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from '@jest/globals';
import { freePort } from './lib.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const demo = join(root, 'scripts/demo.mjs');
const closing = join(root, 'scripts/closing-line.mjs');

describe('what stands in the way of a start is said in a sentence', () => {
  const sentences = (words, env = {}) => {
    const { status, stderr } = spawnSync(process.execPath, words, {
      encoding: 'utf8',
      env: { ...process.env, ...env },
    });
    expect(status).toBe(1);
    expect(stderr).not.toMatch(/\n\s+at /);
    return stderr.trim();
  };

  test('a word it does not know', () => {
    expect(sentences([demo, '--frehs'])).toMatch(/^npm run demo does not know --frehs; it takes --fresh/);
  });

  test('a folder that may not be written to', () => {
    expect(sentences([demo], { LAMBENT_DATA: '/dev/null/lambent' })).toMatch(
      /^Lambent may not write to \/dev\/null\/lambent\./,
    );
  });

  test('a Node that is too old', () => {
    const pretend = `Object.defineProperty(process.versions, 'node', { value: '18.20.0' }); await import('${demo}');`;
    expect(sentences(['--input-type=module', '-e', pretend])).toBe(
      'Lambent needs Node 20.19 or later; this is 18.20.0. Install a later Node and start again.',
    );
  });
});

test('a busy port is passed over for the next free one', async () => {
  const taken = createServer();
  await new Promise((resolve) => taken.listen(0, '127.0.0.1', resolve));
  const { port } = taken.address();
  expect(await freePort(port)).toBeGreaterThan(port);
  await new Promise((resolve) => taken.close(resolve));
  expect(await freePort(port)).toBe(port);
});

test('the closing line adds up both runners, and fails when one of them said nothing', () => {
  const folder = mkdtempSync(join(tmpdir(), 'lambent-log-'));
  const sum = (text) => {
    const file = join(folder, 'log');
    spawnSync('tee', [file], { input: text, stdio: ['pipe', 'ignore', 'ignore'] });
    const { status, stdout } = spawnSync(process.execPath, [closing, file], { encoding: 'utf8' });
    return [status, stdout.trim()];
  };
  const jest = 'Tests:       1 skipped, 40 passed, 41 total\n';
  expect(sum(`${jest}== Browser tests\n  12 passed (3m)\n`)).toEqual([0, '52 passed, 0 failed, 1 skipped']);
  expect(sum(jest)).toEqual([1, '']);
  expect(sum('== Browser tests\n  12 passed\n')).toEqual([1, '']);
  rmSync(folder, { recursive: true });
});

test('the demo says its address, and stops everything when it is told to', async () => {
  const dataFolder = mkdtempSync(join(tmpdir(), 'lambent-start-'));
  const script = `
    const { startStack } = await import('${join(root, 'scripts/lib.mjs')}');
    const stack = await startStack({ dataFolder: '${dataFolder}', port: 7900 });
    console.log('at', stack.address, [...stack.children.values()].map((child) => child.pid).join(','));
    process.once('SIGTERM', stack.stop);`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', script], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const said = await new Promise((resolve) => {
    let text = '';
    child.stdout.on('data', (data) => {
      text += data;
      if (/at http\S+ [\d,]+/.test(text)) resolve(text);
    });
  });
  const [, address, pids] = /at (http\S+) ([\d,]+)/.exec(said);
  expect((await fetch(`${address}/api/jobs`)).status).toBe(200);
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
  const alive = pids.split(',').filter((pid) => spawnSync('kill', ['-0', pid]).status === 0);
  expect(alive).toEqual([]);
  rmSync(dataFolder, { recursive: true });
});
