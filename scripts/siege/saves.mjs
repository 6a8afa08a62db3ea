import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { canMakeDisks, SmallDisk } from '../../apps/server/test/small-disk.ts';
import { Stack } from '../../apps/server/test/stack.ts';
import { percentile, randomFrom, wait } from '../random.mjs';

/** A saver of a job of its own, which keeps what it was answered. */
class Saver {
  /** The last version that was acknowledged, and what it holds. */
  version = 1;
  member = '';
  /** What was refused, and so must not be there. */
  refused = new Set();
  /** What had no answer: it may be there or not. */
  unanswered = null;
  sent = 0;
  errors = 0;
  times = [];

  constructor(stack, job, name) {
    Object.assign(this, { stack, job, name });
  }

  async save() {
    const member = `${this.name} ${this.sent++}`;
    const began = performance.now();
    let answer;
    try {
      answer = await this.stack.sendJob(
        'PUT',
        `/api/jobs/${this.job.id}`,
        { base: String(this.version), edit: member },
        { ...this.job.document, member },
      );
    } catch {
      this.unanswered = member;
      return false;
    }
    this.times.push(performance.now() - began);
    if (answer.status === 200) {
      this.version = answer.body.number;
      this.member = member;
    } else {
      this.refused.add(member);
      if (answer.status === 500) this.errors++;
    }
    return true;
  }

  /** Asks what the server holds, and takes it as where to go on. */
  async look() {
    const { status, body } = await this.stack.ask('GET', `/api/jobs/${this.job.id}`);
    const found = { lost: 0, untrue: 0, half: 0 };
    if (status !== 200 || !body.document?.drawing) found.half++;
    else if (body.version < this.version) found.lost++;
    else if (body.version === this.version) {
      if (this.member && body.document.member !== this.member) found.lost++;
    } else if (body.document.member !== this.unanswered || body.version > this.version + 1) found.untrue++;
    if (this.refused.has(body.document?.member)) found.untrue++;
    this.version = body.version;
    this.member = body.document?.member ?? '';
    this.unanswered = null;
    return found;
  }
}

async function jobsOf(stack, count, name) {
  const jobs = [];
  for (let i = 0; i < count; i++) {
    const { body } = await stack.ask('POST', '/api/jobs', { title: `${name} ${i}`, machineId: 'wren' });
    jobs.push(new Saver(stack, body, `${name} ${i}`));
  }
  return jobs;
}

/** How long the main thread of the server worked without a break, over all its starts. */
class LongestTurn {
  longestMs = 0;
  folder = mkdtempSync(join(tmpdir(), 'lambent-turns-'));
  file = join(this.folder, 'longest');

  /** Servers that are started from now on measure themselves. */
  constructor() {
    const preloaded = fileURLToPath(new URL('./longest-turn.mjs', import.meta.url));
    process.env.NODE_OPTIONS = `${process.env.NODE_OPTIONS ?? ''} --import ${preloaded}`;
    process.env.LONGEST_TURN_FILE = this.file;
  }

  begin(stack) {
    rmSync(this.file, { force: true });
    stack.signal('server', 'SIGUSR2');
  }

  note() {
    try {
      this.longestMs = Math.max(this.longestMs, Number(readFileSync(this.file, 'utf8')));
    } catch {
      // Killed before it had written anything.
    }
  }

  close() {
    rmSync(this.folder, { recursive: true });
    delete process.env.LONGEST_TURN_FILE;
  }
}

/** Kills under load, some of them on a full disk or while another program holds the database locked. */
export async function siegeOfSaves({ seed, kills, savers: count }) {
  const random = randomFrom(seed);
  const disk = canMakeDisks ? new SmallDisk(96) : null;
  const stack = new Stack(...(disk ? [join(disk.folder, 'data')] : []));
  const turns = new LongestTurn();
  await stack.start();
  turns.begin(stack);
  const savers = await jobsOf(stack, count, 'Saver');
  const found = { lost: 0, untrue: 0, half: 0 };
  let acknowledged = 0;
  let full = 0;
  let longestStallMs = 0;
  const noteStall = async () => {
    turns.note();
    const { body } = await stack.ask('GET', '/api/health');
    longestStallMs = Math.max(longestStallMs, body.longestStallMs);
  };
  let locked = 0;
  for (let kill = 0; kill < kills; kill++) {
    const kind = kill % 10;
    let killed = false;
    const versions = savers.map(({ version }) => version);
    const saving = savers.map(async (saver) => {
      while (!killed && (await saver.save()));
    });
    let other = null;
    while (savers.every(({ version }, i) => version === versions[i])) await wait(5);
    await wait(random() * 500);
    if (kind === 3 && disk) {
      full++;
      disk.fill();
      await wait(200 + random() * 300);
      if (random() < 0.5) {
        disk.makeRoom();
        await wait(random() * 300);
      }
    } else if (kind === 7) {
      locked++;
      other = new Database(join(stack.data, 'lambent.sqlite'));
      other.exec('BEGIN EXCLUSIVE');
      await wait(random() * 300);
      if (random() < 0.5) other.exec('ROLLBACK');
    }
    await wait(random() * 300);
    await noteStall();
    await stack.kill('server');
    killed = true;
    await Promise.all(saving);
    other?.close();
    disk?.makeRoom();
    acknowledged += savers.reduce((sum, { version }, i) => sum + version - versions[i], 0);
    await stack.start();
    // What it takes to come up is no stall of one that is up.
    await stack.ask('GET', '/api/health');
    turns.begin(stack);
    for (const saver of savers) {
      const seen = await saver.look();
      for (const name of Object.keys(found)) found[name] += seen[name];
    }
    if ((kill + 1) % 25 === 0) console.log(`   ${kill + 1} kills, ${acknowledged} saves acknowledged`);
  }

  const many = await jobsOf(stack, 20, 'Client');
  await Promise.all(
    many.map(async (client) => {
      for (let i = 0; i < 50; i++) await client.save();
    }),
  );
  await noteStall();
  const times = many.flatMap(({ times }) => times);
  const refusals = many.reduce((sum, { refused }) => sum + refused.size, 0);

  const [contested] = await jobsOf(stack, 1, 'Contested');
  const rounds = Math.min(100, kills);
  let uneven = 0;
  for (let round = 0; round < rounds; round++) {
    const all = await Promise.all(
      Array.from({ length: 50 }, (_, i) =>
        stack.sendJob(
          'PUT',
          `/api/jobs/${contested.job.id}`,
          { base: String(contested.version), edit: 'contested' },
          { ...contested.job.document, member: `${round} ${i}` },
        ),
      ),
    );
    if (all.filter(({ status }) => status === 200).length !== 1) uneven++;
    contested.version++;
  }
  await noteStall();
  await stack.close();
  turns.close();
  disk?.close();
  return [
    { what: `kills under ${count} savers (${full} on full disks, ${locked} under locks)`, found: kills, most: null },
    { what: 'saves acknowledged', found: acknowledged, most: null },
    { what: 'acknowledged saves lost', found: found.lost, most: 0 },
    { what: 'untrue refusals: saved all the same', found: found.untrue, most: 0 },
    { what: 'half versions', found: found.half, most: 0 },
    { what: '20 clients × 50 saves: refused or failed', found: refusals, most: 0 },
    { what: 'the same: 95th percentile, ms', found: Math.round(percentile(times, 95)), most: 250 },
    {
      what: 'longest that the server’s main thread worked without a break, ms',
      found: Math.round(turns.longestMs),
      most: 50,
    },
    { what: 'longest that it had no turn, with the load on the same two cores, ms', found: longestStallMs, most: null },
    { what: `50 on one base, ${rounds} rounds: not exactly one winner`, found: uneven, most: 0 },
  ];
}
