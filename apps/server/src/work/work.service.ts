import type { Reading } from '@lambent/core';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import type * as worker from './worker.ts';

/** Heavy work, done in worker threads so that no request has to wait for it. */
@Injectable()
export class WorkService implements OnApplicationShutdown {
  private readonly pool = new Piscina({
    filename: new URL('./worker.js', import.meta.url).href,
    minThreads: 1,
    maxThreads: 2,
    idleTimeout: 60_000,
  });

  planToFile(task: Parameters<typeof worker.planToFile>[0]): Promise<worker.PlannedProgram> {
    return this.pool.run(task, { name: 'planToFile' });
  }

  /** @throws FileRefused's sentence as an Error when the file cannot be used */
  readDrawing(task: Parameters<typeof worker.readDrawing>[0]): Promise<Reading> {
    return this.pool.run(task, { name: 'readDrawing' });
  }

  picture(task: Parameters<typeof worker.picture>[0]): Promise<string> {
    return this.pool.run(task, { name: 'picture' });
  }

  packDocument(bytes: Uint8Array): Promise<ReturnType<typeof worker.packDocument>> {
    return this.pool.run(bytes, { name: 'packDocument' });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.pool.destroy();
  }
}
