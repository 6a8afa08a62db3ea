import { existsSync } from 'node:fs';
import { copyFile, link, mkdir, mkdtemp, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import Database from 'better-sqlite3';
import { expectOurs, lockDataFolder } from '../data/data-folder.ts';
import { storageTrouble } from '../data/storage-trouble.ts';
import { programsIn } from '../runs/stored-program.ts';
import { type Manifest, readArchive, writeArchive } from './archive.ts';
import { BackupRefused } from './backup-refused.ts';

/** What a backup came to. */
export interface BackupFigures {
  readonly jobs: number;
  readonly programs: number;
  readonly bytes: number;
  readonly madeAt: string;
}

const databaseName = 'lambent.sqlite';

/**
 * Copies a shop into one file, also while its Lambent runs: the database as it is at one moment, the programs, checked by
 * being read again. Nothing stands under the file's name before it is whole.
 *
 * @throws BackupRefused.
 */
export async function backUp(dataFolder: string, file: string): Promise<BackupFigures> {
  const database = join(dataFolder, databaseName);
  if (!existsSync(database))
    throw new BackupRefused(`There is no shop in ${dataFolder}: set LAMBENT_DATA to its data folder.`);
  if (existsSync(file)) throw new BackupRefused(`There is a file ${file} already: name another, or move it away.`);
  const draft = `${resolve(file)}.part`;
  let copy: string | null = null;
  try {
    await mkdir(dirname(draft), { recursive: true });
    await rm(draft, { force: true });
    copy = await mkdtemp(join(dataFolder, 'backup-'));
    const jobs = await copyDatabase(database, join(copy, databaseName));
    const programs = await copyPrograms(dataFolder, copy);
    const manifest = await writeArchive(draft, copy, [databaseName, ...programs], new Date());
    await readArchive(draft, null);
    await rename(draft, file);
    return figuresOf(manifest, jobs, (await stat(file)).size);
  } catch (error) {
    await rm(draft, { force: true }).catch(() => undefined);
    throw refusalFor(error, `The backup ${file} was not made`);
  } finally {
    if (copy) await rm(copy, { recursive: true, force: true });
  }
}

/** So many pages are copied at once: all of them. In steps, each write of the running server would begin the copy anew. */
const allPages = 0x7fffffff;

/** Copies a database as it is at one moment (SQLite's online backup). @returns how many jobs there are in it */
async function copyDatabase(from: string, to: string): Promise<number> {
  const source = new Database(from, { readonly: true, timeout: 5000 });
  try {
    await source.backup(to, { progress: () => allPages });
  } finally {
    source.close();
  }
  const copy = new Database(to);
  try {
    // The copy stands for itself, without a log beside it.
    copy.pragma('journal_mode = DELETE');
    const said = copy.pragma('integrity_check(1)', { simple: true });
    if (said !== 'ok') {
      throw new BackupRefused(
        `The database ${from} is damaged (${said}): no backup was made of it. Restore an earlier one.`,
      );
    }
    return jobsIn(copy);
  } finally {
    copy.close();
  }
}

function jobsIn(database: Database.Database): number {
  const { count } = database.prepare('SELECT count(*) AS count FROM jobs').get() as { count: number };
  return count;
}

/** Programs as they lie there now: links hold them, should one be thinned out meanwhile. @returns their paths */
async function copyPrograms(dataFolder: string, copy: string): Promise<string[]> {
  const names = await readdir(programsIn(dataFolder)).catch(() => []);
  await mkdir(programsIn(copy));
  const paths: string[] = [];
  for (const name of names.filter((entry) => /^[0-9a-f]{64}\.(gcode|times)$/.test(entry)).sort()) {
    const [from, to] = [dataFolder, copy].map((folder) => join(programsIn(folder), name));
    try {
      await link(from, to).catch(() => copyFile(from, to));
      paths.push(`programs/${name}`);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
  }
  return paths;
}

function figuresOf({ files, madeAt }: Manifest, jobs: number, bytes: number): BackupFigures {
  return { jobs, programs: files.filter(({ path }) => path.endsWith('.gcode')).length, bytes, madeAt };
}

/** What came back, and where what was there before is kept; null where there was nothing. */
export interface RestoreFigures extends BackupFigures {
  readonly keptIn: string | null;
}

/**
 * Puts a backup in the place of what a data folder holds, which is kept beside it. The backup is read through and checked
 * before anything is touched.
 *
 * @throws BackupRefused; DataFolderRefused where a Lambent runs on the folder, or the database is of a later one.
 */
export async function restore(file: string, dataFolder: string): Promise<RestoreFigures> {
  await mkdir(dataFolder, { recursive: true });
  const release = lockDataFolder(dataFolder);
  let fresh: string | null = null;
  try {
    fresh = await mkdtemp(join(dataFolder, 'restore-'));
    const manifest = await readArchive(file, fresh);
    const database = join(fresh, databaseName);
    if (!existsSync(database)) throw new BackupRefused(`${file} holds no database. Nothing was changed.`);
    expectOurs(database);
    const copy = new Database(database, { readonly: true });
    const jobs = jobsIn(copy);
    copy.close();
    await mkdir(programsIn(fresh), { recursive: true });
    const keptIn = await putAside(dataFolder);
    await rename(programsIn(fresh), programsIn(dataFolder));
    // Last, so that a shop is there only when all of it is.
    await rename(database, join(dataFolder, databaseName));
    return { ...figuresOf(manifest, jobs, (await stat(file)).size), keptIn };
  } catch (error) {
    throw refusalFor(error, `${file} was not restored`);
  } finally {
    if (fresh) await rm(fresh, { recursive: true, force: true });
    release();
  }
}

/** Moves what a data folder holds into a folder of its own in it. @returns that folder; null where there was nothing */
async function putAside(dataFolder: string): Promise<string | null> {
  const names = ['', '-wal', '-shm', '-journal'].map((end) => `${databaseName}${end}`).concat('programs');
  const there = names.filter((name) => existsSync(join(dataFolder, name)));
  if (there.length === 0) return null;
  const kept = join(dataFolder, `before-restore-${new Date().toISOString().replaceAll(':', '-').slice(0, 19)}`);
  await mkdir(kept);
  for (const name of there) await rename(join(dataFolder, name), join(kept, name));
  return kept;
}

function refusalFor(error: unknown, what: string): unknown {
  const trouble = error instanceof Error && !error.name.endsWith('Refused') ? storageTrouble(error) : null;
  return trouble ? new BackupRefused(`${what}: ${trouble.what}. ${trouble.remedy}`) : error;
}
