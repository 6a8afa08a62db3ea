import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

const program = fileURLToPath(new URL('../../plain-stand-in/dist/main.js', import.meta.url));

/** The plain stand-in at the far end of a cable: a pair of pseudo-terminals that socat links. */
export class SerialMachine {
  private readonly folder = mkdtempSync(join(tmpdir(), 'lambent-line-'));
  /** The port that Lambent opens. */
  readonly port = join(this.folder, 'ttyLambent');
  private cable: ChildProcess | null = null;
  private machine: ChildProcess | null = null;
  /** What the machine has told of itself: that its beam is on, or off. */
  readonly told: string[] = [];
  private readonly waiting = new Set<() => void>();

  /** Plugs it in and switches it on. @param words with which the stand-in is started */
  async start(...words: string[]): Promise<void> {
    const far = join(this.folder, 'ttyMachine');
    const ends = [this.port, far].map((link) => `pty,raw,echo=0,link=${link}`);
    this.cable = await launch('socat', ['-d', '-d', ...ends], 'starting data transfer loop');
    await this.switchOn(`at ${far}`, '--device', far, ...words);
  }

  /** Switches it on where it listens on the network instead. @returns at which port */
  async listen(...words: string[]): Promise<number> {
    await this.switchOn('listening on', ...words);
    return Number(
      this.told
        .find((text) => text.startsWith('listening'))
        ?.split(':')
        .at(-1),
    );
  }

  private async switchOn(ready: string, ...words: string[]): Promise<void> {
    this.machine = await launch(process.execPath, [program, ...words], ready, (line) => {
      this.told.push(line.replace(/^plain stand-in: /, ''));
      for (const look of this.waiting) look();
    });
  }

  /** Does something at the machine itself: `alarm`, `hold`, `restart`, `noise`, `quiet` or `babble`. */
  do(what: string): Promise<void> {
    this.machine?.stdin?.write(`${what}\n`);
    return this.until(() => this.told.includes(`did ${what}`));
  }

  /** Whether its beam is on, as it told last. */
  get isLit(): boolean {
    return this.told.findLast((text) => text.startsWith('the beam')) === 'the beam is on';
  }

  /** Waits until its beam is on, or off. */
  beam(is: 'on' | 'off'): Promise<void> {
    return this.until(() => this.isLit === (is === 'on'));
  }

  private until(holds: () => boolean): Promise<void> {
    return new Promise((resolve) => {
      const look = () => {
        if (!holds()) return;
        this.waiting.delete(look);
        resolve();
      };
      this.waiting.add(look);
      look();
    });
  }

  /** Pulls the cable out. */
  async unplug(): Promise<void> {
    await end(this.cable);
  }

  async close(): Promise<void> {
    await end(this.machine);
    await end(this.cable);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Starts a program. @returns when it has said a text */
function launch(
  command: string,
  words: readonly string[],
  ready: string,
  heard: (line: string) => void = () => {},
): Promise<ChildProcess> {
  const child = spawn(command, words, { stdio: ['pipe', 'pipe', 'pipe'] });
  return new Promise((resolve, reject) => {
    for (const stream of [child.stdout, child.stderr]) {
      createInterface({ input: stream }).on('line', (line) => {
        heard(line);
        if (line.includes(ready)) resolve(child);
      });
    }
    child.once('error', reject);
    child.once('exit', (code) => reject(new Error(`${command} ended with ${code}`)));
  });
}

async function end(child: ChildProcess | null): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await ended;
}
