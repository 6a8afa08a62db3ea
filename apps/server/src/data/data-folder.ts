import { accessSync, constants, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { migrations } from './migrations/index.ts';
import { storageTrouble } from './storage-trouble.ts';

/** The data folder cannot be used; the message is a sentence that says why, and what to do. */
export class DataFolderRefused extends Error {
  override readonly name = 'DataFolderRefused';

  /** @param asksForBackup whether a backup would put it right */
  constructor(
    message: string,
    readonly asksForBackup = false,
  ) {
    super(message);
  }
}

/** In the header of each of our databases since this number was given: “Lamb” in ASCII. */
const applicationId = 0x4c616d62;
/** Larger ones are not read through at the start: that would take more than two seconds. */
const largestChecked = 400 * 1024 * 1024;

/**
 * Takes a data folder for this server alone and looks whether its database can be used. A folder without one gets an
 * empty one, under its name only once it is marked as ours: a file of no bytes is never one of ours.
 *
 * @param folder where `lambent.sqlite` lies, or is to lie
 * @returns what ends the hold on the folder; the system ends it too when the process ends, however that happens
 * @throws DataFolderRefused
 */
export function takeDataFolder(folder: string): () => void {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.R_OK | constants.W_OK);
  } catch (error) {
    throw new DataFolderRefused(
      `The data folder ${folder} cannot be written to (${codeOf(error)}). Give this user the right to, or set LAMBENT_DATA to another folder.`,
    );
  }
  const release = lockDataFolder(folder);
  try {
    const file = join(folder, 'lambent.sqlite');
    if (existsSync(file)) expectOurs(file);
    else createDatabase(file);
  } catch (error) {
    release();
    throw error;
  }
  return release;
}

/** The locks that this process has: one that nothing refers to would be collected, and end. */
const holds = new Set<Database.Database>();

/**
 * A lock that goes with the process: an exclusive transaction on a file of its own.
 *
 * @returns what ends it
 * @throws DataFolderRefused where another process has it
 */
export function lockDataFolder(folder: string): () => void {
  let held: Database.Database;
  try {
    held = new Database(join(folder, 'lambent.lock'), { timeout: 200 });
    held.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    if (!codeOf(error).startsWith('SQLITE_BUSY')) throw refusedBy(error, folder);
    throw new DataFolderRefused(
      `Another Lambent is already running on the data folder ${folder}. Use that one, end it first, or set LAMBENT_DATA to another folder.`,
    );
  }
  holds.add(held);
  return () => {
    holds.delete(held);
    held.close();
  };
}

function createDatabase(file: string): void {
  const draft = `${file}.new`;
  try {
    for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${draft}${end}`, { force: true });
    const database = new Database(draft);
    database.pragma(`application_id = ${applicationId}`);
    database.close();
    renameSync(draft, file);
  } catch (error) {
    throw refusedBy(error, file);
  }
}

/** Looks whether a database can be used. @throws DataFolderRefused where it is empty, damaged, another program's or a later Lambent's; it stays as it is */
export function expectOurs(file: string): void {
  const { size } = statSync(file);
  if (size === 0) {
    throw new DataFolderRefused(
      `The database ${file} is empty: what it held is lost. Restore it from a backup, or move the file away to start a new shop.`,
      true,
    );
  }
  let database: Database.Database | null = null;
  try {
    database = new Database(file, { fileMustExist: true, timeout: 1500 });
    const tables = new Set(
      database
        .prepare("SELECT name FROM sqlite_master WHERE type = 'table'")
        .all()
        .map((row) => (row as { name: string }).name),
    );
    const ours = database.pragma('application_id', { simple: true }) === applicationId;
    if (!ours && !(tables.has('migrations') && tables.has('jobs') && tables.has('versions'))) {
      throw new DataFolderRefused(
        `The database ${file} is not Lambent’s. Move it away, or set LAMBENT_DATA to another folder; it was left as it is.`,
      );
    }
    if (tables.has('migrations')) expectKnownForm(database, file);
    if (size <= largestChecked) expectWhole(database, file);
    if (!ours) database.pragma(`application_id = ${applicationId}`);
  } catch (error) {
    throw error instanceof DataFolderRefused ? error : refusedBy(error, file);
  } finally {
    database?.close();
  }
}

function expectKnownForm(database: Database.Database, file: string): void {
  const known = new Set(migrations.map(({ name }) => name));
  const done = database.prepare('SELECT name FROM migrations ORDER BY timestamp').all() as { name: string }[];
  if (done.every(({ name }) => known.has(name))) return;
  throw new DataFolderRefused(
    `The database ${file} was written by a newer Lambent than this one. Start that newer one, or restore a backup from before; the file was left as it is.`,
  );
}

function expectWhole(database: Database.Database, file: string): void {
  const said = database.pragma('quick_check(1)', { simple: true });
  if (said !== 'ok') throw damaged(file);
}

function damaged(file: string): DataFolderRefused {
  return new DataFolderRefused(
    `The database ${file} is damaged. Restore it from a backup; it was left as it is, so that what can still be read can be saved.`,
    true,
  );
}

function refusedBy(error: unknown, file: string): DataFolderRefused {
  const code = codeOf(error);
  if (/^SQLITE_CORRUPT/.test(code)) return damaged(file);
  if (code === 'SQLITE_NOTADB') {
    return new DataFolderRefused(
      `The file ${file} is no database. Restore it from a backup, or move it away to start a new shop; it was left as it is.`,
      true,
    );
  }
  if (/^SQLITE_(BUSY|LOCKED)/.test(code)) {
    return new DataFolderRefused(`Another program holds the database ${file} locked. End it, and start again.`);
  }
  const trouble = storageTrouble(error);
  const why = trouble ? trouble.what : `it cannot be opened (${code || (error as Error).message})`;
  return new DataFolderRefused(
    `Lambent cannot use ${file}: ${why}. ${trouble?.remedy ?? 'See to it, and start again.'}`,
  );
}

function codeOf(error: unknown): string {
  return (error as { code?: string }).code ?? '';
}
