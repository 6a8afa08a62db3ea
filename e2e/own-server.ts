import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { Machine } from '@lambent/core/machine';
import { expect, type Page } from '@playwright/test';

/** A Lambent of a test's own, on a data folder that is empty to begin with. */
export interface OwnServer {
  readonly data: string;
  readonly address: string;
  /** Ends it without a word, and starts it anew where it was. */
  powerCut(): Promise<void>;
  close(): Promise<void>;
}

export async function startOwnServer(): Promise<OwnServer> {
  const data = mkdtempSync(join(tmpdir(), 'lambent-own-'));
  let { server, address } = await startOn(data, '0');
  const end = async (signal: 'SIGTERM' | 'SIGKILL') => {
    server.removeAllListeners('exit');
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill(signal);
    await ended;
  };
  return {
    data,
    address,
    powerCut: async () => {
      await end('SIGKILL');
      ({ server, address } = await startOn(data, new URL(address).port));
    },
    close: async () => {
      await end('SIGTERM');
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** Starts a server on a data folder. @returns when it listens at a port; 0 is any that is free */
async function startOn(data: string, port: string): Promise<{ server: ChildProcess; address: string }> {
  const server = spawn(process.execPath, [join(import.meta.dirname, '../apps/server/dist-program/main.js')], {
    env: { ...process.env, LAMBENT_DATA: data, LAMBENT_PORT: port, LAMBENT_DEMO: '', LAMBENT_MACHINE_PORTS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise<string>((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    createInterface({ input: server.stdout }).on('line', (line) => {
      const [url] = /http:\S+/.exec(line) ?? [];
      if (url) resolve(url);
    });
  });
  return { server, address };
}

/** What the server answers at a path of its API. */
export async function askOwn<T>({ address }: OwnServer, page: Page, path: string): Promise<T> {
  return (await (await page.request.get(`${address}/api/${path}`)).json()) as T;
}

/** Adds a machine on its own page, on a stand-in, and waits until it answers. */
export async function addStandIn(own: OwnServer, page: Page, name: string): Promise<Machine> {
  await page.goto(`${own.address}/machines/new`);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('radio', { name: 'Stand-in' }).click();
  await page.getByRole('button', { name: 'Add the machine' }).click();
  await expect(page.getByRole('region', { name: 'Connection' }).getByText('It answers.')).toBeVisible();
  const machine = (await askOwn<Machine[]>(own, page, 'machines')).find((known) => known.name === name);
  if (!machine) throw new Error(`${name} was not added`);
  return machine;
}
