import 'reflect-metadata';
import { statSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { DataSource } from 'typeorm';
import { type Refusal, refusalOf } from '../common/refusals.ts';
import { writingSource } from './database.ts';
import { noted } from './deeds.ts';
import { signedWriting } from './owned.ts';
import { databaseReplaced, type StorageTrouble, storageTrouble } from './storage-trouble.ts';
import { writes } from './writes.ts';

/*
 * The thread that writes: one connection, one transaction at a time. What it answers as done is committed.
 */

/** What became of a write: done, refused by a rule of ours, or not possible for now. */
export type WriteAnswer =
  | { readonly done: unknown }
  | { readonly refused: Refusal }
  | { readonly trouble: StorageTrouble };

interface RawConnection {
  readonly inTransaction: boolean;
  exec(text: string): void;
}

const { folder } = workerData as { folder: string };
const file = join(folder, 'lambent.sqlite');
const fileAtStart = fileAt(statSync(file));
let source: DataSource | null = null;

async function open(): Promise<DataSource> {
  if (!source) {
    await expectFile();
    source = await writingSource(folder).initialize();
  }
  return source;
}

/** @throws where the database is not the file any more that it was when the server started. */
async function expectFile(): Promise<void> {
  if (fileAt(await stat(file)) === fileAtStart) return;
  throw Object.assign(new Error('The database was replaced'), { code: databaseReplaced });
}

function fileAt({ dev, ino }: { dev: number; ino: number }): string {
  return `${dev} ${ino}`;
}

function rawOf({ driver }: DataSource): RawConnection {
  return (driver as unknown as { databaseConnection: RawConnection }).databaseConnection;
}

/** Gives the connection up; the next write opens it anew. What it had not committed is gone with it. */
async function giveUp(): Promise<void> {
  const lost = source;
  source = null;
  await lost?.destroy().catch(() => {});
}

/** A write, by its name, and whose it is; null for nobody's. */
interface AskedWrite {
  readonly name: string;
  readonly args: unknown[];
  readonly actor: string | null;
}

/** Does one write in a transaction of its own. */
export async function write({ name, args, actor }: AskedWrite): Promise<WriteAnswer> {
  try {
    const connection = await open();
    const raw = rawOf(connection);
    raw.exec('BEGIN IMMEDIATE');
    const work = (writes as Record<string, (...args: unknown[]) => Promise<unknown>>)[name];
    const writing = actor === null ? connection.manager : signedWriting(connection.manager, actor);
    const done = actor === null ? await work(writing, ...args) : await noted(writing, name, args, work);
    // What a folder that was taken away takes in is kept by nobody, whatever SQLite says.
    await expectFile();
    raw.exec('COMMIT');
    return { done };
  } catch (error) {
    await rollBack();
    const refused = refusalOf(error);
    if (refused) return { refused };
    const trouble = storageTrouble(error);
    if (trouble) return { trouble };
    throw error;
  }
}

/** Leaves no transaction open. Whether one is, SQLite says itself. */
async function rollBack(): Promise<void> {
  if (!source) return;
  const raw = rawOf(source);
  try {
    if (raw.inTransaction) raw.exec('ROLLBACK');
  } catch {
    // Told by what is asked next.
  }
  if (raw.inTransaction) await giveUp();
}

/** Closes the database, so that its log is written back into it. */
export async function close(): Promise<void> {
  await giveUp();
}
