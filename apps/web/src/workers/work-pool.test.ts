import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { type Answered, type Asked, WorkCancelled, type WorkerPort, WorkFailed, WorkPool } from './work-pool.ts';

/** A worker that does what the test says. */
class FakeWorker implements WorkerPort {
  readonly asked: Asked[] = [];
  ended = false;
  onmessage: WorkerPort['onmessage'] = null;
  onerror: WorkerPort['onerror'] = null;
  constructor(readonly lane: string) {}
  postMessage(message: Asked): void {
    if (message.args.includes('unsendable')) throw new DOMException('could not be cloned');
    this.asked.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  say(answer: Answered): void {
    this.onmessage?.({ data: answer });
  }
  /** Answers what it was asked last. */
  done(answer: unknown): void {
    this.say({ id: this.asked.at(-1)?.id ?? 0, done: answer });
  }
}

let workers: FakeWorker[];
let pool: WorkPool<'save' | 'plan'>;
// What a test leaves under way would else be late while another one runs.
beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask'] });
});
afterEach(() => {
  jest.useRealTimers();
});
beforeEach(() => {
  workers = [];
  pool = new WorkPool((lane) => {
    workers.push(new FakeWorker(lane));
    return workers[workers.length - 1];
  });
});
const names = (worker: FakeWorker) => worker.asked.map(({ name }) => name);

describe('work', () => {
  test('is done one by one in its lane, each with its own answer; lanes do not wait for each other', async () => {
    const first = pool.run('plan', 'first', [1]);
    const second = pool.run('plan', 'second', [2]);
    const save = pool.run('save', 'write', []);
    expect(workers.map(({ lane }) => lane)).toEqual(['plan', 'save']);
    expect(names(workers[0])).toEqual(['first']);
    workers[1].done('written');
    expect(await save).toBe('written');
    workers[0].done('a');
    expect(names(workers[0])).toEqual(['first', 'second']);
    workers[0].done('b');
    expect(await Promise.all([first, second])).toEqual(['a', 'b']);
    expect(workers).toHaveLength(2);
  });

  test('says how far it is, and gives what comes ahead of its answer in order, to whoever asked for it alone', async () => {
    const [said, parts]: unknown[][] = [[], []];
    const first = pool.run('plan', 'first', [], {
      progress: (value) => said.push(value),
      part: (part) => parts.push(part),
    });
    const { id } = workers[0].asked[0];
    workers[0].say({ id, progress: 0.5 });
    workers[0].say({ id, part: 'a' });
    workers[0].say({ id, part: 'b' });
    workers[0].say({ id: id + 1, part: 'of another' });
    workers[0].done('c');
    expect(await first).toBe('c');
    expect([said, parts]).toEqual([[0.5], ['a', 'b']]);
    const plain = pool.run('plan', 'second', []);
    workers[0].say({ id: id + 1, part: 'asked for by nobody' });
    workers[0].done('d');
    expect(await plain).toBe('d');
  });

  test('that throws is an error with the worker’s words, and the next goes on with the same worker', async () => {
    const bad = pool.run('plan', 'bad', []);
    const good = pool.run('plan', 'good', []);
    workers[0].say({ id: workers[0].asked[0].id, failed: 'The file is empty.' });
    await expect(bad).rejects.toThrow('The file is empty.');
    workers[0].done(1);
    expect(await good).toBe(1);
  });

  test('says how far it is, and only to who asked', async () => {
    const told: number[] = [];
    const work = pool.run('plan', 'long', [], { progress: (share) => told.push(share) });
    const { id } = workers[0].asked[0];
    workers[0].say({ id, progress: 0.25 });
    workers[0].say({ id: id + 7, progress: 0.9 });
    workers[0].done(null);
    await work;
    workers[0].say({ id, progress: 1 });
    expect(told).toEqual([0.25]);
  });

  test('is given what the worker knows by the time of its turn; a fresh worker knows nothing', async () => {
    const tell = (job: number) =>
      pool.run('plan', 'plan', (memory) => {
        const known = memory.get('job') ?? 'nothing';
        memory.set('job', job);
        return [known, job];
      });
    const [one, two] = [tell(1), tell(2)];
    workers[0].done(0);
    workers[0].done(0);
    await Promise.all([one, two]);
    expect(workers[0].asked.map(({ args }) => args)).toEqual([
      ['nothing', 1],
      [1, 2],
    ]);
    const crashed = tell(3);
    workers[0].onerror?.({});
    await expect(crashed).rejects.toThrow(WorkFailed);
    void tell(4);
    expect(workers[1].asked[0].args).toEqual(['nothing', 4]);
  });
});

describe('cancelling', () => {
  test('ends that one alone: one that waits is not begun, and the one under way goes on', async () => {
    const stop = new AbortController();
    const first = pool.run('plan', 'first', []);
    const second = pool.run('plan', 'second', [], { signal: stop.signal });
    const third = pool.run('plan', 'third', []);
    stop.abort();
    await expect(second).rejects.toThrow(WorkCancelled);
    expect(workers[0].ended).toBe(false);
    workers[0].done('a');
    workers[0].done('c');
    expect(await Promise.all([first, third])).toEqual(['a', 'c']);
    expect(names(workers[0])).toEqual(['first', 'third']);
  });

  test('of the one under way ends its worker; what waits goes on with a fresh one, and a late answer is nobody’s', async () => {
    const stop = new AbortController();
    const first = pool.run('plan', 'first', [], { signal: stop.signal });
    const second = pool.run('plan', 'second', []);
    const other = pool.run('save', 'write', []);
    stop.abort();
    await expect(first).rejects.toThrow(WorkCancelled);
    expect(workers.map(({ lane, ended }) => [lane, ended])).toEqual([
      ['plan', true],
      ['save', false],
      ['plan', false],
    ]);
    workers[0].say({ id: workers[2].asked[0].id, done: 'late' });
    workers[2].done('b');
    workers[1].done('w');
    expect(await Promise.all([second, other])).toEqual(['b', 'w']);
  });

  test('before it is asked is never asked; after its answer it is nothing', async () => {
    const stop = new AbortController();
    stop.abort();
    await expect(pool.run('plan', 'never', [], { signal: stop.signal })).rejects.toThrow(WorkCancelled);
    expect(workers).toHaveLength(0);
    const again = new AbortController();
    const work = pool.run('plan', 'x', [], { signal: again.signal });
    workers[0].done(1);
    await work;
    again.abort();
    expect(workers[0].ended).toBe(false);
  });
});

describe('a worker', () => {
  test('that dies answers its task with a sentence, and is replaced for what waits', async () => {
    const first = pool.run('plan', 'first', []);
    const second = pool.run('plan', 'second', []);
    workers[0].onerror?.({ message: 'out of memory' });
    await expect(first).rejects.toThrow('The browser ended it');
    workers[1].done(2);
    expect(await second).toBe(2);
  });

  test('that dies while it has nothing to do is replaced at the next task', async () => {
    const first = pool.run('plan', 'first', []);
    workers[0].done(1);
    await first;
    workers[0].onerror?.({});
    const second = pool.run('plan', 'second', []);
    workers[1].done(2);
    expect(await second).toBe(2);
  });

  test('that takes too long is ended, and that is said; waiting does not count', async () => {
    const first = pool.run('plan', 'first', [], { limitMs: 5000 });
    const second = pool.run('plan', 'second', [], { limitMs: 5000 });
    const late = expect(first).rejects.toThrow('It took longer than 5 s and was ended.');
    jest.advanceTimersByTime(5000);
    await late;
    jest.advanceTimersByTime(4999);
    expect(workers[1].ended).toBe(false);
    workers[1].done(2);
    expect(await second).toBe(2);
    jest.advanceTimersByTime(60_000);
    expect(workers[1].ended).toBe(false);
  });

  test('to which something cannot be sent is replaced, since what it knows is not sure; what waits goes on', async () => {
    const bad = pool.run('plan', 'bad', ['unsendable']);
    const good = pool.run('plan', 'good', []);
    await expect(bad).rejects.toThrow('could not be cloned');
    workers.at(-1)?.done(1);
    expect(await good).toBe(1);
  });
});
