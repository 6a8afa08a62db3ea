import { join } from 'node:path';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataSource, type DataSourceOptions } from 'typeorm';
import { config } from '../config.ts';
import { entities } from './entities.ts';
import { migrations } from './migrations/index.ts';

type Pragmas = Record<string, string | number>;

/** One SQLite file in the data folder: write-ahead log, foreign keys on. */
function source(folder: string, pragmas: Pragmas): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    database: join(folder, 'lambent.sqlite'),
    enableWAL: true,
    prepareDatabase: (database: { pragma: (text: string) => void }) => {
      for (const [name, value] of Object.entries(pragmas)) database.pragma(`${name} = ${value}`);
    },
    entities,
    synchronize: false,
    logging: false,
  };
}

/**
 * The connection that requests read by. It cannot write: every write goes through the queue (write-queue.ts). Readers of
 * a write-ahead log wait for nobody, so it waits hardly at all.
 */
export function databaseModule() {
  return TypeOrmModule.forRoot({ ...source(config.dataFolder, { busy_timeout: 50, query_only: 1 }), retryAttempts: 0 });
}

/** The one connection that writes. What it commits is on the disk; a locked database is waited for. */
export function writingSource(folder: string): DataSource {
  return new DataSource(source(folder, { busy_timeout: 5000, synchronous: 'FULL' }));
}

/** Brings the database up to date, in one transaction: all of it, or it stays as it was. */
export async function migrate(folder: string): Promise<void> {
  const fresh = new DataSource({ ...source(folder, { busy_timeout: 5000, synchronous: 'FULL' }), migrations });
  await fresh.initialize();
  try {
    await fresh.runMigrations({ transaction: 'all' });
  } finally {
    await fresh.destroy();
  }
}
