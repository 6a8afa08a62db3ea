import { spawn } from 'node:child_process';
import {
  copyFileSync,
  cpSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type {
  ErrorAnswer,
  HealthAnswer,
  JobAnswer,
  JobCard,
  MachineState,
  RunAnswer,
  StorageState,
  VersionAnswer,
} from '@lambent/contracts';
import Database from 'better-sqlite3';
import { canMakeDisks, SmallDisk } from './small-disk.ts';
import { Stack } from './stack.ts';

type Saved = { status: number; body: VersionAnswer & ErrorAnswer };

const newJob = async (stack: Stack, title: string) =>
  (await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren' })).body;
/** Saves a document that no other save has: drawn by a number. */
const save = (stack: Stack, of: JobAnswer, base: number, nth: number): Promise<Saved> =>
  stack.sendJob(
    'PUT',
    `/api/jobs/${of.id}`,
    { base: String(base), edit: `edit ${nth}` },
    {
      ...of.document,
      member: `member ${nth}`,
    },
  );

describe('many at once', () => {
  const stack = new Stack();
  beforeAll(() => stack.start());
  afterAll(() => stack.close());

  test('twenty clients saving jobs of their own get no error, and every version holds what was sent', async () => {
    const rounds = 12;
    await Promise.all(
      Array.from({ length: 20 }, async (_, client) => {
        const job = await newJob(stack, `Client ${client}`);
        for (let n = 1; n <= rounds; n++) {
          const { status, body } = await save(stack, job, n, client * 1000 + n);
          expect([status, body.error?.message ?? body.number]).toEqual([200, n + 1]);
        }
        const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${job.id}`);
        expect([body.version, body.document.member]).toEqual([rounds + 1, `member ${client * 1000 + rounds}`]);
      }),
    );
  });

  test('of fifty saves on one version exactly one wins, and the others are told so', async () => {
    const job = await newJob(stack, 'Contested');
    for (let round = 1; round <= 10; round++) {
      const all = await Promise.all(Array.from({ length: 50 }, (_, i) => save(stack, job, round, round * 100 + i)));
      const winners = all.flatMap(({ status }, i) => (status === 200 ? [i] : []));
      expect(winners).toHaveLength(1);
      expect(all.filter(({ status }) => status === 409)).toHaveLength(49);
      const { body } = await stack.ask<JobAnswer>('GET', `/api/jobs/${job.id}`);
      expect([body.version, body.document.member]).toEqual([round + 1, `member ${round * 100 + winners[0]}`]);
    }
  });

  test('a database that another program holds locked for a moment is waited for; reading goes on meanwhile', async () => {
    const job = await newJob(stack, 'Locked');
    const other = new Database(join(stack.data, 'lambent.sqlite'));
    other.exec('BEGIN EXCLUSIVE');
    const saving = save(stack, job, 1, 1);
    // What is asked after the save is answered before it.
    for (let i = 0; i < 20; i++) expect((await stack.ask('GET', `/api/jobs/${job.id}`)).status).toBe(200);
    expect(await Promise.race([saving.then(() => 'saved'), Promise.resolve('waits')])).toBe('waits');
    other.exec('ROLLBACK');
    other.close();
    expect((await saving).status).toBe(200);
  });

  test('one that is held locked too long is said, to who saves and to all who listen, until it is free again', async () => {
    const job = await newJob(stack, 'Locked for long');
    const storage: StorageState[] = [];
    const listening = (async () => {
      for await (const event of stack.events()) {
        if (event.type !== 'storage') continue;
        storage.push(event.storage);
        if (storage.length === 3) return;
      }
    })();
    await stack.until('/api/health', () => storage.length === 1);
    const other = new Database(join(stack.data, 'lambent.sqlite'));
    other.exec('BEGIN IMMEDIATE');
    const [first, second] = await Promise.all([save(stack, job, 1, 1), save(stack, job, 1, 2)]);
    for (const { status, body } of [first, second]) {
      expect([status, body.error.code]).toEqual([503, 'locked']);
      expect(body.error.message).toMatch(
        /^Not saved: another program has held .* Nothing has been saved since \d\d:\d\d UTC\. Let it finish/,
      );
    }
    // Trouble that goes on began when it was first seen.
    expect(second.body.error.details).toEqual(first.body.error.details);
    expect((await stack.ask<HealthAnswer>('GET', '/api/health')).body.storage).toMatchObject({ ok: false });
    other.exec('ROLLBACK');
    other.close();
    await listening;
    expect(storage.map(({ ok }) => ok)).toEqual([true, false, true]);
    expect((await stack.ask<HealthAnswer>('GET', '/api/health')).body.storage).toEqual({ ok: true });
    expect((await save(stack, job, 1, 3)).body.number).toBe(2);
  });

  test('the end of a run that cannot be written down at once is written down when it can', async () => {
    await stack.startStandIn('wren');
    await stack.until<MachineState[]>('/api/machines/states', (states) =>
      states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
    );
    const cards = (await stack.ask<JobCard[]>('GET', '/api/jobs')).body;
    const card = cards.find(({ title }) => title === 'Seed packet, folding');
    const job = await newJob(stack, 'Beside a run');
    const { body: run } = await stack.ask<RunAnswer>('POST', `/api/jobs/${card?.id}/runs`, { version: 1 });
    const other = new Database(join(stack.data, 'lambent.sqlite'));
    other.exec('BEGIN IMMEDIATE');
    await stack.until<MachineState[]>('/api/machines/states', (states) =>
      states.some(({ machineId, state }) => machineId === 'wren' && state === 'idle'),
    );
    // Writes are done in the order they are asked for: when the second is refused, the end of the run has been, too.
    for (const nth of [1, 2]) expect((await save(stack, job, 1, nth)).status).toBe(503);
    expect((await stack.ask<RunAnswer>('GET', `/api/runs/${run.id}`)).body.endedAt).toBeNull();
    other.exec('ROLLBACK');
    other.close();
    const { body: ended } = await stack.ask<RunAnswer>('GET', `/api/runs/${run.id}?wait=60`);
    expect(ended).toMatchObject({ status: 'done', doneLine: run.lines });
  });
});

(canMakeDisks ? describe : describe.skip)('a full disk', () => {
  let disk: SmallDisk;
  let stack: Stack;
  beforeEach(async () => {
    disk = new SmallDisk(24);
    stack = new Stack(join(disk.folder, 'data'));
    await stack.start();
  });
  afterEach(async () => {
    await stack.close();
    disk.close();
  });

  test('saves are refused with what to do, reading goes on, and once there is room what is answered is kept', async () => {
    const job = await newJob(stack, 'On a full disk');
    disk.fill();
    let version = 1;
    let refused: Saved | null = null;
    // What room the log still has takes some saves; what is answered 200 is counted on below.
    for (let n = 1; n < 3000 && !refused; n++) {
      const saved = await save(stack, job, version, n);
      if (saved.status === 200) version = saved.body.number;
      else refused = saved;
    }
    expect(refused?.status).toBe(507);
    expect(refused?.body.error.code).toBe('disk-full');
    expect(refused?.body.error.message).toMatch(/^Not saved: the disk .* is full\. .*Make room/);
    const { body: during } = await stack.ask<JobAnswer>('GET', `/api/jobs/${job.id}`);
    expect(during.version).toBe(version);
    disk.makeRoom();
    for (let n = 1; n <= 20; n++) {
      const { status, body } = await save(stack, job, version, 5000 + n);
      expect([status, body.error?.message]).toEqual([200, undefined]);
      version = body.number;
    }
    await stack.kill('server');
    await stack.start();
    const { body: after } = await stack.ask<JobAnswer>('GET', `/api/jobs/${job.id}`);
    expect([after.version, after.document.member]).toEqual([version, 'member 5020']);
  });
});

describe('a data folder that is taken away', () => {
  const home = mkdtempSync(join(tmpdir(), 'lambent-away-'));
  const [data, away] = [join(home, 'data'), join(home, 'away')];
  let stack: Stack;
  let job: JobAnswer;
  beforeEach(async () => {
    stack = new Stack(data);
    await stack.start();
    job = await newJob(stack, 'Taken away');
    expect((await save(stack, job, 1, 1)).status).toBe(200);
  });
  afterEach(async () => {
    await stack.close();
    rmSync(away, { recursive: true, force: true });
  });
  afterAll(() => rmSync(home, { recursive: true }));
  const version = async () => (await stack.ask<JobAnswer>('GET', `/api/jobs/${job.id}`)).body.version;

  test('takes no saves, is read on, and takes saves again when it is back', async () => {
    renameSync(data, away);
    const { status, body } = await save(stack, job, 2, 2);
    expect([status, body.error.code]).toEqual([507, 'read-only']);
    expect(body.error.message).toMatch(/^Not saved: Lambent’s data folder is lost .* Give it back/);
    expect(await version()).toBe(2);
    renameSync(away, data);
    expect((await save(stack, job, 2, 3)).body.number).toBe(3);
    await stack.kill('server');
    await stack.start();
    expect(await version()).toBe(3);
  });

  test('and deleted says so with every save', async () => {
    rmSync(data, { recursive: true });
    expect((await save(stack, job, 2, 2)).status).toBe(507);
    expect((await save(stack, job, 2, 3)).status).toBe(507);
  });

  test('and replaced by another one asks for a new start, and is not written to', async () => {
    renameSync(data, away);
    cpSync(away, data, { recursive: true });
    const before = readFileSync(join(data, 'lambent.sqlite'));
    const { status, body } = await save(stack, job, 2, 2);
    expect([status, body.error.code]).toEqual([507, 'database-replaced']);
    expect(body.error.message).toMatch(/End Lambent and start it again/);
    expect(readFileSync(join(data, 'lambent.sqlite')).equals(before)).toBe(true);
    await stack.kill('server');
    await stack.start();
    expect(await version()).toBe(2);
    expect((await save(stack, job, 2, 3)).status).toBe(200);
  });
});

describe('at the start', () => {
  const root = new URL('../../../', import.meta.url).pathname;
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'lambent-start-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  const file = () => join(folder, 'lambent.sqlite');
  /** Starts the built server on the folder. @returns how it ended and what it said; ends one that comes up */
  function startOn(data = folder): Promise<{ code: number | null; said: string }> {
    const child = spawn(process.execPath, [join(root, 'apps/server/dist-program/main.js')], {
      env: { ...process.env, LAMBENT_DATA: data, LAMBENT_PORT: '0', LAMBENT_DEMO: '' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    return new Promise((resolve) => {
      let said = '';
      const hear = (data: Buffer) => {
        said += data;
        if (said.includes('listening on')) child.kill('SIGKILL');
      };
      child.stdout.on('data', hear);
      child.stderr.on('data', hear);
      child.once('exit', (code) => resolve({ code, said }));
    });
  }
  const sentence = /^Lambent: [A-Z][^\n]+\.\n$/;

  test('an empty file is not taken for a new shop', async () => {
    writeFileSync(file(), '');
    const { code, said } = await startOn();
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(said).toMatch(/is empty.*[Rr]estore/);
    expect(readFileSync(file())).toHaveLength(0);
  });

  test('a file that is no database is refused and left as it is', async () => {
    writeFileSync(file(), 'Dear Ines, the drawing follows.'.repeat(200));
    const { code, said } = await startOn();
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(readFileSync(file(), 'utf8')).toMatch(/^Dear Ines/);
  });

  test('another program’s database is refused and left as it is', async () => {
    const other = new Database(file());
    other.exec('CREATE TABLE seeds (name text); INSERT INTO seeds VALUES (1)');
    other.close();
    const before = readFileSync(file());
    const { code, said } = await startOn();
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(readFileSync(file()).equals(before)).toBe(true);
  });

  test('a damaged database is refused', async () => {
    const stack = new Stack();
    await stack.start();
    await stack.kill('server');
    const checkpoint = new Database(join(stack.data, 'lambent.sqlite'));
    checkpoint.pragma('wal_checkpoint(TRUNCATE)');
    checkpoint.close();
    copyFileSync(join(stack.data, 'lambent.sqlite'), file());
    await stack.close();
    const bytes = readFileSync(file());
    bytes.fill(0xa5, 4096 * 3, 4096 * 9);
    writeFileSync(file(), bytes);
    const damaged = await startOn();
    expect([damaged.code, damaged.said]).toEqual([1, expect.stringMatching(sentence)]);
    truncateSync(file(), Math.floor(bytes.length / 2));
    const short = await startOn();
    expect([short.code, short.said]).toEqual([1, expect.stringMatching(sentence)]);
  });

  test('a database of a newer Lambent is refused and left as it is', async () => {
    expect((await startOn()).said).toContain('listening');
    const newer = new Database(file());
    newer.exec("INSERT INTO migrations (timestamp, name) VALUES (9999999999999, 'Later9999999999999')");
    newer.pragma('wal_checkpoint(TRUNCATE)');
    newer.close();
    const before = readFileSync(file());
    const { code, said } = await startOn();
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(said).toMatch(/newer/);
    expect(readFileSync(file()).equals(before)).toBe(true);
  });

  test('a second server on one folder says so and ends', async () => {
    const stack = new Stack();
    await stack.start();
    const { code, said } = await startOn(stack.data);
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(said).toMatch(/already/);
    expect((await stack.ask<JobCard[]>('GET', '/api/jobs')).status).toBe(200);
    await stack.close();
  });

  test('a folder that cannot be made is said', async () => {
    writeFileSync(join(folder, 'taken'), 'x');
    const { code, said } = await startOn(join(folder, 'taken', 'data'));
    expect([code, said]).toEqual([1, expect.stringMatching(sentence)]);
    expect(existsSync(join(folder, 'taken', 'data'))).toBe(false);
  });
});
