import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
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

describe('the shop’s own Lambent', () => {
  const folders = [];
  const folder = () => {
    folders.push(mkdtempSync(join(tmpdir(), 'lambent-own-')));
    return folders[folders.length - 1];
  };
  afterAll(() => {
    for (const made of folders) rmSync(made, { recursive: true });
  });

  /** Starts what `npm start` starts once all is built, and waits for its address. */
  async function started(dataFolder, port = 0) {
    const child = spawn(process.execPath, [join(root, 'apps/server/dist-program/main.js')], {
      env: { ...process.env, LAMBENT_DATA: dataFolder, LAMBENT_PORT: String(port) },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let said = '';
    const address = await new Promise((resolve, reject) => {
      child.stderr.on('data', (data) => {
        said += data;
      });
      child.stdout.on('data', (data) => {
        const [, found] = /listening on (http:\S+)/.exec(String(data)) ?? [];
        if (found) resolve(found);
      });
      child.once('exit', () => reject(new Error(said)));
    });
    return { child, address };
  }

  test('begins empty on its own data folder, and ends cleanly when it is told to', async () => {
    const data = folder();
    const { child, address } = await started(data);
    const get = async (path) => (await fetch(`${address}/api/${path}`)).json();
    expect([await get('jobs'), await get('machines'), await get('materials')]).toEqual([[], [], []]);
    const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve([code, signal])));
    child.kill('SIGTERM');
    expect(await ended).toEqual([0, null]);
    expect(readdirSync(data)).toContain('lambent.sqlite');
    expect(readdirSync(data)).not.toContain('lambent.sqlite-wal');
  });

  test('says what to do where its port is taken, and what it does not know', async () => {
    const taken = createServer();
    await new Promise((resolve) => taken.listen(0, '127.0.0.1', resolve));
    const { port } = taken.address();
    await expect(started(folder(), port)).rejects.toThrow(
      `Lambent: Port ${port} is taken: another Lambent, or another program, listens there. End it, or set LAMBENT_PORT to another port.`,
    );
    await new Promise((resolve) => taken.close(resolve));
    const { stderr } = spawnSync(process.execPath, [join(root, 'scripts/start.mjs'), '--demo'], { encoding: 'utf8' });
    expect(stderr).toContain('npm start does not know --demo');
  });
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
