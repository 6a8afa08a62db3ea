import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import type { Machine } from '@lambent/core/machine';
import { standInWords } from '@lambent/machines';
import { Injectable, Logger } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';

/** A stand-in that died is switched on again after so long, as a machine would be. */
const againMs = 1000;

interface StandIn {
  child: ChildProcess;
  port: number;
  ended: boolean;
}

/** The stand-ins that Lambent makes, starts and stops itself. They end with it. */
@Injectable()
export class StandIns {
  private readonly log = new Logger('Stand-ins');
  private readonly running = new Map<string, StandIn>();

  /**
   * Starts a stand-in of a machine.
   * @param factor how much faster than a real machine's its time passes
   * @returns the port of this computer on which it listens
   * @throws PlainError 503 where it cannot be started
   */
  async start(machine: Machine, factor: number): Promise<number> {
    this.stop(machine.id);
    const standIn: StandIn = { child: null as never, port: 0, ended: false };
    this.running.set(machine.id, standIn);
    standIn.port = await this.launch(standIn, machine, factor);
    return standIn.port;
  }

  stop(machineId: string): void {
    const standIn = this.running.get(machineId);
    if (!standIn) return;
    standIn.ended = true;
    this.running.delete(machineId);
    standIn.child?.kill('SIGTERM');
  }

  stopAll(): void {
    for (const id of [...this.running.keys()]) this.stop(id);
  }

  private launch(standIn: StandIn, machine: Machine, factor: number): Promise<number> {
    // It ends when its standard input does: also where this process is killed.
    const words = [...standInWords(machine, standIn.port, factor), '--ends-with-input'];
    const child = spawn(process.execPath, [config.standInProgram, ...words], { stdio: ['pipe', 'pipe', 'pipe'] });
    standIn.child = child;
    child.stdin?.on('error', () => {});
    createInterface({ input: child.stderr }).on('line', (line) => this.log.warn(line));
    return new Promise((resolve, reject) => {
      const failed = () =>
        reject(new PlainError(503, 'no-stand-in', 'The stand-in could not be started. The log says more.'));
      createInterface({ input: child.stdout }).on('line', (line) => {
        const [, port] = /:(\d+)$/.exec(line) ?? [];
        if (port) resolve(Number(port));
      });
      child.once('error', failed);
      child.once('exit', () => {
        failed();
        // One that never came up would not the next time.
        if (standIn.ended || standIn.port === 0) return;
        setTimeout(() => {
          if (!standIn.ended) this.launch(standIn, machine, factor).catch((error) => this.log.error(error.message));
        }, againMs);
      });
    });
  }
}
