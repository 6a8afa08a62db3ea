import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { DockerfileParser } from 'dockerfile-ast';
import { validate } from 'dockerfile-utils';
import { root } from './lib.mjs';

const text = readFileSync(join(root, 'Dockerfile'), 'utf8');
const file = DockerfileParser.parse(text);
const instructions = file.getInstructions().map((line) => `${line.getKeyword()} ${line.getArgumentsContent() ?? ''}`);

test('the Dockerfile is without a fault', () => {
  expect(validate(text)).toEqual([]);
  expect(validate('FROM node:20\nRUNN x')).not.toEqual([]);
});

test('it builds in one stage, runs in another, as a user without rights, on data in a volume', () => {
  const stages = instructions.filter((line) => line.startsWith('FROM'));
  expect(stages).toHaveLength(2);
  const last = instructions.slice(instructions.lastIndexOf(stages[1]));
  expect(last).toContain('USER node');
  expect(last.indexOf('USER node')).toBeLessThan(last.findIndex((line) => line.startsWith('CMD')));
  expect(last).toContain('VOLUME /data');
  expect(last.find((line) => line.startsWith('ENV'))).toContain('LAMBENT_DATA=/data');
});

test('what its lines run is there', () => {
  const scripts = [...text.matchAll(/(?:scripts|apps)\/[\w/.-]+\.m?js/g)].map(([path]) => path);
  expect(scripts).toEqual(['scripts/build.mjs', 'scripts/health.mjs', 'apps/server/dist-program/main.js']);
  for (const path of scripts.filter((one) => one.startsWith('scripts')))
    expect(existsSync(join(root, path))).toBe(true);
});

test('the health check asks with the token, and fails where nobody answers', async () => {
  const data = mkdtempSync(join(tmpdir(), 'lambent-health-'));
  const token = 'a-secret-of-one’s-own'.replace('’', '');
  const server = spawn(process.execPath, [join(root, 'apps/server/dist-program/main.js')], {
    env: { ...process.env, LAMBENT_DATA: data, LAMBENT_PORT: '0', LAMBENT_TOKEN: token, LAMBENT_DEMO: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const port = await new Promise((resolve) => {
    server.stdout.on('data', (said) => {
      const [, number] = /listening on http:\/\/[^:]+:(\d+)/.exec(String(said)) ?? [];
      if (number) resolve(number);
    });
  });
  const health = (env) =>
    spawnSync(process.execPath, [join(root, 'scripts/health.mjs')], {
      env: { ...process.env, ...env },
      encoding: 'utf8',
    });
  expect(health({ LAMBENT_PORT: port, LAMBENT_TOKEN: token }).status).toBe(0);
  const [wrong, away] = [
    health({ LAMBENT_PORT: port, LAMBENT_TOKEN: 'another-secret-1234' }),
    health({ LAMBENT_PORT: '1' }),
  ];
  expect([wrong.status, away.status]).toEqual([1, 1]);
  expect(wrong.stderr).toMatch(/^Lambent is not well: /);
  const ended = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  await ended;
  rmSync(data, { recursive: true, force: true });
});
