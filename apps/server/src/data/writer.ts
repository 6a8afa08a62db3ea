import { Injectable } from '@nestjs/common';
import { Piscina } from 'piscina';
import { config } from '../config.ts';
import type { WriteAnswer } from './write-thread.ts';

/** The thread that writes (write-thread.ts), as the others see it: it does one write at a time, in the order they are asked. */
@Injectable()
export class Writer {
  private readonly thread: Piscina;

  constructor() {
    this.thread = Writer.threadOn(config.dataFolder);
  }

  /** A thread that writes to the database of a folder; the file must be there. */
  static threadOn(folder: string): Piscina {
    return new Piscina({
      filename: new URL('./write-thread.js', import.meta.url).href,
      minThreads: 1,
      maxThreads: 1,
      // Else what waits is put behind what came after it.
      stricterFIFO: true,
      workerData: { folder },
    });
  }

  /** @param actor the id of the person whose write it is; null for nobody's @throws what went wrong inside: neither a refusal nor the disk */
  async write(name: string, args: readonly unknown[], actor: string | null): Promise<WriteAnswer> {
    return await this.thread.run({ name, args, actor }, { name: 'write' });
  }

  /** Closes the database and ends the thread. */
  async close(): Promise<void> {
    await this.thread.run(undefined, { name: 'close' }).catch(() => {});
    await this.thread.destroy();
  }
}
