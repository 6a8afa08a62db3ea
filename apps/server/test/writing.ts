import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Piscina } from 'piscina';
import { Writer } from '../dist/data/writer.js';
import { migrate } from '../src/data/database.ts';

/** The thread that writes, as it is built, on a database of its own. */
export class WritingBench {
  readonly folder = mkdtempSync(join(tmpdir(), 'lambent-writing-'));
  readonly file = join(this.folder, 'lambent.sqlite');
  private thread: Piscina | null = null;

  async open(): Promise<void> {
    await migrate(this.folder);
    this.thread = Writer.threadOn(this.folder);
  }

  /** Does a write. @returns what became of it */
  // biome-ignore lint/suspicious/noExplicitAny: what is done differs by write
  async write(name: string, ...args: unknown[]): Promise<any> {
    return await this.thread?.run({ name, args }, { name: 'write' });
  }

  /** Closes the database; what is written next opens it again. */
  async closeDatabase(): Promise<void> {
    await this.thread?.run(undefined, { name: 'close' });
  }

  /** What another connection reads at once. */
  rows<Row>(text: string, ...values: unknown[]): Row[] {
    const other = new Database(this.file, { readonly: true });
    try {
      return other.prepare(text).all(...values) as Row[];
    } finally {
      other.close();
    }
  }

  async close(): Promise<void> {
    await this.closeDatabase();
    await this.thread?.destroy();
    rmSync(this.folder, { recursive: true });
  }
}
