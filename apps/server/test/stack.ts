import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ServerEvent } from '@lambent/contracts';
import { jobMediaType } from '@lambent/core/document';
import { expectAsDescribed } from './as-described.ts';

const root = fileURLToPath(new URL('../../../', import.meta.url));

/** The built server on a data folder of its own, and stand-ins that are started when asked. */
export class Stack {
  /**
   * @param data its data folder; one of its own, in the system's temporary folder, where none is given
   * @param demo the demo world that it begins with; empty for none
   */
  constructor(
    readonly data = mkdtempSync(join(tmpdir(), 'lambent-')),
    private readonly demo = join(root, 'demo'),
  ) {}

  private server: ChildProcess | null = null;
  private readonly standIns = new Map<string, ChildProcess>();
  private ports: Record<string, number> = {};
  url = '';

  private async choosePorts(): Promise<void> {
    if (Object.keys(this.ports).length > 0) return;
    for (const id of ['wren', 'curlew', 'dunlin']) this.ports[id] = await freePort();
  }

  /** @param env more of the server's environment */
  async start(env: Record<string, string> = {}): Promise<void> {
    await this.choosePorts();
    const machinePorts = Object.entries(this.ports).map(([id, port]) => `${id}=${port}`);
    this.server = await launch(
      'apps/server/dist-program/main.js',
      [],
      {
        LAMBENT_DATA: this.data,
        LAMBENT_DEMO: this.demo,
        LAMBENT_PORT: '0',
        LAMBENT_MACHINE_PORTS: machinePorts.join(','),
        ...env,
      },
      (said) => {
        this.url = /http:\S+/.exec(said)?.[0] ?? '';
      },
    );
  }

  /** @returns the port that it listens on */
  async startStandIn(id: string, ...more: string[]): Promise<number> {
    await this.choosePorts();
    const words = ['--name', id, '--port', String(this.ports[id]), '--factor', '200', ...more];
    this.standIns.set(id, await launch('apps/stand-in/dist/main.js', words, {}));
    return this.ports[id];
  }

  async kill(what: 'server' | string): Promise<void> {
    const child = what === 'server' ? this.server : this.standIns.get(what);
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }

  /** Asks a stand-in for its status, over a line of its own; being asked is being heard. */
  standInStatus<T extends { state: string }>(id: string): Promise<T> {
    return new Promise((resolve, reject) => {
      const socket = connect(this.ports[id], '127.0.0.1', () => socket.write(Uint8Array.of(0x05)));
      let said = '';
      socket.on('error', reject);
      socket.on('data', (data) => {
        said += data;
        if (!said.includes('\n')) return;
        socket.destroy();
        resolve(JSON.parse(said.slice('status '.length)) as T);
      });
    });
  }

  /** Stops a process where it is, or lets it go on, or tells it what it listens for. */
  signal(what: 'server' | string, signal: 'SIGSTOP' | 'SIGCONT' | 'SIGUSR2'): void {
    (what === 'server' ? this.server : this.standIns.get(what))?.kill(signal);
  }

  /** Tells the server to end, as a shell or a supervisor does. @returns its exit code */
  async end(what: 'server'): Promise<number | null> {
    const child = what === 'server' ? this.server : null;
    if (!child) return null;
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    return ended;
  }

  async close(): Promise<void> {
    for (const id of this.standIns.keys()) await this.kill(id);
    await this.kill('server');
    rmSync(this.data, { recursive: true, force: true });
  }

  /** Asks the server, and holds its answer against what the API says of itself. */
  async ask<T = unknown>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: T }> {
    const raw = body instanceof Uint8Array;
    const response = await fetch(this.url + path, {
      method,
      headers: { 'Content-Type': raw ? 'application/octet-stream' : 'application/json', ...headers },
      body: body === undefined ? undefined : raw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
    });
    const text = await response.text();
    const mediaType = response.headers.get('content-type') ?? '';
    const answer = mediaType.includes('json') && text ? JSON.parse(text) : text;
    if (path.startsWith('/api/') && !path.startsWith('/api/docs'))
      expectAsDescribed(method, path, response.status, mediaType, answer);
    return { status: response.status, body: answer as T };
  }

  /** Sends a job's document, as the page does. */
  sendJob<T>(method: 'PUT' | 'POST', path: string, words: Record<string, string>, document: unknown) {
    const bytes = new TextEncoder().encode(JSON.stringify(document));
    return this.ask<T>(method, `${path}?${new URLSearchParams(words)}`, bytes, { 'Content-Type': jobMediaType });
  }

  /** What the server says of its own accord, from now on: first how things stand. Ends when nobody listens any more. */
  async *events(): AsyncGenerator<ServerEvent> {
    const end = new AbortController();
    try {
      const { body } = await fetch(`${this.url}/api/events`, { signal: end.signal });
      const reader = body?.pipeThrough(new TextDecoderStream()).getReader();
      let said = '';
      for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
        const lines = (said + read.value).split('\n');
        said = lines.pop() ?? '';
        for (const line of lines) if (line.startsWith('data: ')) yield JSON.parse(line.slice('data: '.length));
      }
    } finally {
      end.abort();
    }
  }

  /** Asks again and again until the answer suits. */
  async until<T>(path: string, suits: (body: T) => boolean, ms = 120_000): Promise<T> {
    const end = Date.now() + ms;
    for (;;) {
      const { body } = await this.ask<T>('GET', path);
      if (suits(body)) return body;
      if (Date.now() > end) throw new Error(`${path} never came to suit; last: ${JSON.stringify(body).slice(0, 600)}`);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}

function launch(
  script: string,
  words: string[],
  env: Record<string, string>,
  heard: (said: string) => void = () => {},
): Promise<ChildProcess> {
  const child = spawn(process.execPath, [join(root, script), ...words], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  return new Promise((resolve, reject) => {
    let said = '';
    child.stderr?.on('data', (data) => {
      said += data;
    });
    child.stdout?.on('data', (data) => {
      said += data;
      if (!said.includes('listening on')) return;
      heard(said);
      resolve(child);
    });
    child.once('exit', (code) => reject(new Error(`${script} ended with ${code}: ${said}`)));
  });
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}
