import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ErrorAnswer, SessionAnswer } from '@lambent/contracts';
import { Stack } from './stack.ts';

const program = fileURLToPath(new URL('../dist-program/main.js', import.meta.url));

/** Starts a server on an empty data folder, and ends it as soon as it listens. @returns what it said, and its exit code */
async function started(env: Record<string, string>): Promise<{ said: string; code: number | null }> {
  const data = mkdtempSync(join(tmpdir(), 'lambent-enter-'));
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, LAMBENT_DATA: data, LAMBENT_PORT: '0', LAMBENT_DEMO: '', ...env },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (more) => {
      said += more;
      if (said.includes('listening on')) child.kill('SIGTERM');
    });
  const code = await new Promise<number | null>((resolve) => child.once('exit', resolve));
  rmSync(data, { recursive: true, force: true });
  return { said, code };
}

describe('where others can reach it, the server', () => {
  const open = { LAMBENT_HOST: '0.0.0.0' };
  const refused =
    /^Lambent: LAMBENT_HOST is 0\.0\.0\.0: others could reach it, and this shop has no manager who signs in\./;

  test('does not start without a manager, with a token neither', async () => {
    for (const env of [open, { ...open, LAMBENT_TOKEN: 'a-secret-of-16-and-more' }]) {
      const { said, code } = await started(env);
      expect(said).toMatch(refused);
      expect(code).toBe(1);
    }
  });

  test('does not start as the demo, whose manager has no password', async () => {
    const { said, code } = await started({ ...open, LAMBENT_DEMO: join(import.meta.dirname, '../../../demo') });
    expect(said).toMatch(refused);
    expect(code).toBe(1);
  });

  test('starts with the manager that it is told to make', async () => {
    const manager = { LAMBENT_MANAGER: 'Ines Varga', LAMBENT_MANAGER_PASSWORD: 'a heron on the slip' };
    const { said, code } = await started({ ...open, ...manager });
    expect(said).toMatch(/^Lambent: listening on http:\/\/0\.0\.0\.0:\d+/);
    expect(said).not.toContain(manager.LAMBENT_MANAGER_PASSWORD);
    expect(code).toBe(0);
  });
});

describe('in the demo', () => {
  const stack = new Stack();
  beforeAll(() => stack.start());
  afterAll(() => stack.close());
  const ask = (method: string, path: string, body?: unknown, cookie = '') =>
    fetch(stack.url + path, {
      method,
      headers: { 'Content-Type': 'application/json', ...(cookie ? { Cookie: cookie } : {}) },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  const session = async (cookie = '') =>
    (await (await ask('GET', '/api/session', undefined, cookie)).json()) as SessionAnswer;
  /** Signs in as somebody by their name. @returns the cookie */
  const be = async (name: string) => {
    const person = (await session()).demo.find((known) => known.name === name);
    const response = await ask('POST', '/api/session/demo', { personId: person?.id });
    expect(response.status).toBe(201);
    return response.headers.getSetCookie()[0].split(';')[0];
  };

  test('everybody is its manager at first, and anybody else by one call', async () => {
    const { person, demo } = await session();
    expect(person).toMatchObject({ name: 'Ines Varga', role: 'manager' });
    expect(demo.map(({ name, role }) => [name, role])).toEqual([
      ['Ines Varga', 'manager'],
      ['Tobiah Okonjo', 'operator'],
      ['Noor Castellan', 'member'],
      ['Pavel Anders', 'member'],
      ['Wilhelmina Strand', 'member'],
    ]);
    const cookie = await be('Wilhelmina Strand');
    expect((await session(cookie)).person).toMatchObject({ name: 'Wilhelmina Strand', role: 'member' });
    expect((await ask('GET', '/api/backups', undefined, cookie)).status).toBe(403);
    expect((await ask('POST', '/api/session/demo', { personId: 'nobody' })).status).toBe(404);
  });

  test('its people have no password: none signs in by one, and none can be changed', async () => {
    for (const password of ['', ' ', 'a heron on the slip']) {
      const response = await ask('POST', '/api/session', { name: 'Ines Varga', password });
      expect(response.status).toBeGreaterThanOrEqual(400);
    }
    const response = await ask('PUT', '/api/session/password', { current: ' ', next: 'a heron on the weir' });
    expect([response.status, ((await response.json()) as ErrorAnswer).error.code]).toEqual([409, 'no-password']);
  });

  test('what happens is no longer told to who has signed out, or lost the right to hear it', async () => {
    for (const end of [
      (cookie: string) => ask('DELETE', '/api/session/everywhere', undefined, cookie),
      async (cookie: string) => {
        const { person } = await session(cookie);
        await ask('PATCH', `/api/people/${person?.id}`, { role: 'member' });
        return ask('GET', '/api/session');
      },
    ]) {
      const cookie = await be('Tobiah Okonjo');
      const { body } = await fetch(`${stack.url}/api/events`, { headers: { Cookie: cookie } });
      const reader = body?.getReader();
      await reader?.read();
      const ended = (async () => {
        for (;;) if ((await reader?.read())?.done !== false) return true;
      })();
      expect((await end(cookie)).ok).toBe(true);
      expect(await ended).toBe(true);
    }
  });
});
