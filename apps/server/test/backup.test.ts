import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { BackupFile, JobAnswer, RunAnswer } from '@lambent/contracts';
import Database from 'better-sqlite3';
import { backUp, restore } from '../src/backup/backup.ts';
import { Stack } from './stack.ts';

const folder = mkdtempSync(join(tmpdir(), 'lambent-backup-'));
afterAll(() => rmSync(folder, { recursive: true }));
const inFolder = (name: string) => join(folder, name);

/** All rows of all tables of a shop. */
function rowsOf(data: string): Record<string, unknown[]> {
  const database = new Database(join(data, 'lambent.sqlite'), { readonly: true });
  const tables = database.prepare("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name").all() as {
    name: string;
  }[];
  const rows = tables.map(({ name }) => [name, database.prepare(`SELECT * FROM "${name}"`).all()] as const);
  database.close();
  return Object.fromEntries(rows);
}

describe('a shop', () => {
  const stack = new Stack();
  beforeAll(async () => {
    await stack.start();
    await stack.startStandIn('wren');
  });
  afterAll(() => stack.close());

  test('is backed up while twenty clients save, and what comes back holds whole versions that were saved', async () => {
    const made = await Promise.all(
      Array.from({ length: 20 }, async (_, i) => {
        const { body } = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: `Client ${i}`, machineId: 'wren' });
        return body;
      }),
    );
    let isOver = false;
    const saving = made.map(async (job, client) => {
      for (let n = 1; !isOver || n < 4; n++) {
        const document = { ...job.document, member: `member ${client} ${n}` };
        const words = { base: String(n), edit: `edit ${n}` };
        expect((await stack.sendJob('PUT', `/api/jobs/${job.id}`, words, document)).status).toBe(200);
      }
    });
    const figures = await backUp(stack.data, inFolder('busy.tar.gz'));
    isOver = true;
    await Promise.all(saving);
    expect(figures.jobs).toBeGreaterThanOrEqual(20);
    expect(readdirSync(stack.data).filter((name) => name.startsWith('backup-'))).toEqual([]);

    const data = inFolder('busy');
    await restore(inFolder('busy.tar.gz'), data);
    const [was, is] = [rowsOf(stack.data), rowsOf(data)];
    // Versions are never changed: each that came back is, to the byte, one that is there still.
    const written = new Set(was.versions.map((row) => JSON.stringify(row)));
    expect(is.versions.length).toBeGreaterThanOrEqual(20);
    for (const row of is.versions) expect(written.has(JSON.stringify(row))).toBe(true);
    const drawings = new Set(was.drawings.map((row) => JSON.stringify(row)));
    for (const row of is.drawings) expect(drawings.has(JSON.stringify(row))).toBe(true);
  });

  test('comes back as it was, with the programs of its runs, and another Lambent opens it', async () => {
    const jobs = await stack.ask<{ id: string; title: string }[]>('GET', '/api/jobs');
    const job = jobs.body.find(({ title }) => title.startsWith('Row markers'));
    const run = await stack.ask<RunAnswer>('POST', `/api/jobs/${job?.id}/runs`, { version: 1 });
    expect(run.status).toBe(201);
    const isOver = (runs: RunAnswer[]) => runs.every(({ endedAt }) => endedAt !== null);
    await stack.until<RunAnswer[]>(`/api/runs?job=${job?.id}`, isOver);
    expect(await stack.end('server')).toBe(0);
    const before = rowsOf(stack.data);
    const { programs } = await backUp(stack.data, inFolder('whole.tar.gz'));
    expect(programs).toBeGreaterThanOrEqual(1);
    const data = inFolder('whole');
    expect((await restore(inFolder('whole.tar.gz'), data)).keptIn).toBeNull();
    expect(rowsOf(data)).toEqual(before);
    const names = readdirSync(join(stack.data, 'programs')).sort();
    expect(readdirSync(join(data, 'programs')).sort()).toEqual(names);
    for (const name of names) {
      expect(readFileSync(join(data, 'programs', name)).equals(readFileSync(join(stack.data, 'programs', name)))).toBe(
        true,
      );
    }
    const other = new Stack(data);
    await other.start();
    expect((await other.ask<JobAnswer>('GET', `/api/jobs/${job?.id}`)).body.title).toBe(job?.title);
    await expect(restore(inFolder('whole.tar.gz'), data)).rejects.toThrow('Another Lambent is already running');
    await other.close();
  });
});

describe('a restore', () => {
  const data = inFolder('mine');
  const file = inFolder('mine.tar.gz');
  const list = () =>
    readdirSync(data)
      .filter((name) => !name.startsWith('lambent.lock'))
      .sort();
  beforeAll(async () => {
    const stack = new Stack(inFolder('source'));
    await stack.start();
    await stack.end('server');
    await backUp(stack.data, file);
    await restore(file, data);
  });

  test('keeps what was there', async () => {
    writeFileSync(join(data, 'lambent.sqlite'), 'what was there');
    const { keptIn, jobs } = await restore(file, data);
    expect(jobs).toBe(7);
    expect(readFileSync(join(String(keptIn), 'lambent.sqlite'), 'utf8')).toBe('what was there');
    expect(list()).toEqual([String(keptIn).split('/').at(-1), 'lambent.sqlite', 'programs']);
    rmSync(String(keptIn), { recursive: true });
  });

  test.each<[string, (path: string) => void, string]>([
    ['cut off', (path) => truncateSync(path, readFileSync(path).length - 200), 'is damaged or cut off'],
    [
      'changed in one bit',
      (path) => {
        const bytes = readFileSync(path);
        bytes[bytes.length >> 1] ^= 1;
        writeFileSync(path, bytes);
      },
      'is damaged or cut off',
    ],
    ['something else', (path) => writeFileSync(path, 'no archive'), 'is no backup of Lambent'],
    ['an empty archive', (path) => writeFileSync(path, gzipSync(Buffer.alloc(1024))), 'is no backup of Lambent'],
    ['not there', (path) => rmSync(path), 'There is no file'],
  ])('from a file that is %s says so, and changes nothing', async (_, harm, said) => {
    const path = inFolder('harmed.tar.gz');
    writeFileSync(path, readFileSync(file));
    harm(path);
    const before = readFileSync(join(data, 'lambent.sqlite'));
    const names = list();
    await expect(restore(path, data)).rejects.toThrow(said);
    expect(list()).toEqual(names);
    expect(readFileSync(join(data, 'lambent.sqlite')).equals(before)).toBe(true);
  });

  test('is asked for by a script, as is a backup; each says in a sentence what it cannot do', () => {
    const script = (name: string, ...words: string[]) =>
      spawnSync(process.execPath, [join(import.meta.dirname, '../../../scripts', name), ...words], {
        encoding: 'utf8',
        env: { ...process.env, LAMBENT_DATA: data },
      });
    expect(script('backup.mjs').stderr).toContain('Say where the backup is to go');
    expect(script('restore.mjs', 'one', 'two').stderr).toContain('Say which backup is to come back');
  });
});

describe('a backup', () => {
  test('takes no file’s place, and is not made of a folder without a shop', async () => {
    writeFileSync(inFolder('there'), '');
    await expect(backUp(inFolder('mine'), inFolder('there'))).rejects.toThrow('There is a file');
    await expect(backUp(inFolder('nowhere'), inFolder('new'))).rejects.toThrow('There is no shop in');
  });

  test('of a damaged database is not made, and leaves nothing behind', async () => {
    const data = inFolder('harmed-shop');
    await restore(inFolder('mine.tar.gz'), data);
    const path = join(data, 'lambent.sqlite');
    const bytes = readFileSync(path);
    bytes.fill(0xa5, 4096 * 3, 4096 * 8);
    writeFileSync(path, bytes);
    await expect(backUp(data, inFolder('harmed-backup.tar.gz'))).rejects.toThrow(/damaged/);
    expect(existsSync(inFolder('harmed-backup.tar.gz'))).toBe(false);
    expect(readdirSync(data).filter((name) => name.startsWith('backup-'))).toEqual([]);
  });
});

describe('over the API', () => {
  const stack = new Stack(undefined, '');
  beforeAll(() => stack.start());
  afterAll(() => stack.close());

  test('a backup is made, listed, taken out and restored; a name that leads elsewhere leads nowhere', async () => {
    expect((await stack.ask('GET', '/api/backups')).body).toEqual([]);
    await stack.ask('PUT', '/api/settings', { shopName: 'Quay' });
    const made = await stack.ask<BackupFile>('POST', '/api/backups');
    expect(made.status).toBe(201);
    expect((await stack.ask('GET', '/api/backups')).body).toEqual([made.body]);
    const answer = await fetch(`${stack.url}/api/backups/${made.body.name}`);
    const bytes = Buffer.from(await answer.arrayBuffer());
    expect(bytes.equals(readFileSync(join(stack.data, 'backups', made.body.name)))).toBe(true);
    expect(bytes.length).toBe(made.body.bytes);
    const taken = inFolder('taken.tar.gz');
    writeFileSync(taken, bytes);
    const data = mkdtempSync(join(folder, 'elsewhere-'));
    await restore(taken, data);
    expect(rowsOf(data)).toEqual(rowsOf(stack.data));
    for (const name of ['nothing.tar.gz', '..%2Flambent.sqlite', 'lambent.sqlite'])
      expect((await fetch(`${stack.url}/api/backups/${name}`)).status).toBe(404);
  });

  test('a database that is damaged names the last good backup at the start, and is left as it is', async () => {
    const [good] = (await stack.ask<BackupFile[]>('GET', '/api/backups')).body;
    await stack.kill('server');
    writeFileSync(join(stack.data, 'backups', 'shop-later.tar.gz'), 'cut off');
    const file = join(stack.data, 'lambent.sqlite');
    for (const end of ['-wal', '-shm']) rmSync(`${file}${end}`, { force: true });
    writeFileSync(file, 'no database at all, though once it was one');
    const { status, stderr } = spawnSync(process.execPath, ['apps/server/dist-program/main.js'], {
      env: { ...process.env, LAMBENT_DATA: stack.data, LAMBENT_PORT: '0' },
      encoding: 'utf8',
    });
    expect(status).toBe(1);
    const path = join(stack.data, 'backups', good.name);
    expect(stderr).toContain(
      `The last good backup is ${path}; “LAMBENT_DATA=${stack.data} npm run restore -- ${path}” goes back to it.`,
    );
    expect(readFileSync(file, 'utf8')).toMatch(/^no database at all/);
    rmSync(path);
    const { stderr: none } = spawnSync(process.execPath, ['apps/server/dist-program/main.js'], {
      env: { ...process.env, LAMBENT_DATA: stack.data, LAMBENT_PORT: '0' },
      encoding: 'utf8',
    });
    expect(none).toContain(`There is no backup in ${stack.data}/backups.`);
  });
});
