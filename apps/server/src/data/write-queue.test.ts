import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { ServerEvent, StorageState } from '@lambent/contracts';
import { EventHub } from '../events/event-hub.ts';
import { type StorageTrouble, storageTrouble } from './storage-trouble.ts';
import { StorageError, WriteQueue } from './write-queue.ts';
import type { WriteAnswer } from './write-thread.ts';

const troubled = (code: string): WriteAnswer => ({
  trouble: storageTrouble(Object.assign(new Error(code), { code })) as StorageTrouble,
});
const [full, locked, done] = [troubled('SQLITE_FULL'), troubled('SQLITE_BUSY'), { done: undefined }];

/** A queue whose writer answers as it is told; in the end, that all is done. */
function queueWith(...answers: readonly WriteAnswer[]) {
  const asked: string[] = [];
  const left = [...answers];
  const writer = {
    write: async (name: string) => {
      asked.push(name);
      return left.shift() ?? done;
    },
    close: async () => void asked.push('close'),
  };
  const hub = new EventHub();
  const said: StorageState[] = [];
  hub.heard().subscribe((event: ServerEvent) => {
    if (event.type === 'storage') said.push(event.storage);
  });
  const queue = new WriteQueue(hub, writer as never);
  const logged: string[] = [];
  const log = { error: (text: string) => logged.push(text), warn: (text: string) => logged.push(text) };
  Object.assign(queue, { log });
  return { queue, asked, said, logged };
}
/** A write of any kind; what it takes is the writer's business. */
const write = (queue: WriteQueue) => queue.do('probe', new Date(0));

beforeEach(() => void jest.useFakeTimers({ now: new Date('2026-03-01T09:30:00Z') }));
afterEach(() => void jest.useRealTimers());

describe('a write', () => {
  test('gives what it came to, throws what it refused, and says nothing of the disk', async () => {
    const refused = { status: 409, code: 'saved-elsewhere', message: 'It was changed.', details: { latest: 7 } };
    const { queue, said } = queueWith({ done: 42 }, { refused });
    await expect(write(queue)).resolves.toBe(42);
    await expect(write(queue)).rejects.toMatchObject(refused);
    expect([queue.state, said]).toEqual([{ ok: true }, []]);
  });

  test('that the disk does not take is refused with since when and what to do; it is said once, until it is well', async () => {
    const { queue, said, logged } = queueWith(full, full, done);
    const message = `Not saved: the disk that Lambent keeps its data on is full. Nothing has been saved since 09:30 UTC. Make room on it; Lambent then goes on by itself.`;
    const since = '2026-03-01T09:30:00.000Z';
    await expect(write(queue)).rejects.toMatchObject({ status: 507, code: 'disk-full', message, details: { since } });
    jest.setSystemTime(new Date('2026-03-01T09:31:00Z'));
    await expect(write(queue)).rejects.toMatchObject({ details: { since } });
    expect(queue.state).toEqual({ ok: false, since, message });
    expect([said, logged]).toEqual([[queue.state], [message]]);
    await write(queue);
    expect(queue.state).toEqual({ ok: true });
    expect([said.slice(1), logged.slice(1)]).toEqual([[{ ok: true }], ['What is sent is saved again.']]);
    await write(queue);
    expect(said).toHaveLength(2);
  });

  test('that meets another trouble says that one; it began when the first did', async () => {
    const { queue, said } = queueWith(full, locked);
    await expect(write(queue)).rejects.toMatchObject({ status: 507 });
    jest.setSystemTime(new Date('2026-03-01T09:31:00Z'));
    const details = { since: '2026-03-01T09:30:00.000Z' };
    await expect(write(queue)).rejects.toMatchObject({ status: 503, code: 'locked', details });
    expect(said.map((state) => state.ok || state.message.slice(0, 30))).toEqual([
      'Not saved: the disk that Lambe',
      'Not saved: another program has',
    ]);
  });
});

describe('a disk in trouble', () => {
  test('is tried every two seconds until it takes a write again, and no longer', async () => {
    const { queue, asked } = queueWith(full, full);
    await expect(write(queue)).rejects.toThrow(StorageError);
    await jest.advanceTimersByTimeAsync(1900);
    expect(asked).toHaveLength(1);
    await jest.advanceTimersByTimeAsync(100);
    expect([asked.length, queue.state.ok]).toEqual([2, false]);
    await jest.advanceTimersByTimeAsync(2000);
    expect([asked.length, queue.state.ok]).toEqual([3, true]);
    await jest.advanceTimersByTimeAsync(60_000);
    expect(asked).toHaveLength(3);
  });

  test('that is in trouble again is tried again', async () => {
    const { queue, asked } = queueWith(full, done, full);
    await expect(write(queue)).rejects.toThrow(StorageError);
    await write(queue);
    await expect(write(queue)).rejects.toThrow(StorageError);
    await jest.advanceTimersByTimeAsync(2000);
    expect([asked.length, queue.state.ok]).toEqual([4, true]);
  });

  test('is not tried any more once the server ends', async () => {
    const { queue, asked } = queueWith(full, full, full);
    await expect(write(queue)).rejects.toThrow(StorageError);
    await queue.onApplicationShutdown();
    expect(asked).toEqual(['probe', 'close']);
    await jest.advanceTimersByTimeAsync(10_000);
    expect(asked).toEqual(['probe', 'close']);
  });
});

describe('what is insisted on', () => {
  test('is asked for every two seconds until it is done', async () => {
    const { queue, asked } = queueWith(locked, locked, { done: 7 });
    // Its own tries are counted, not the disk's.
    jest.spyOn(global, 'setInterval').mockReturnValue(0 as never);
    const end = queue.insist('probe', new Date(0));
    await jest.advanceTimersByTimeAsync(1900);
    expect(asked).toHaveLength(1);
    await jest.advanceTimersByTimeAsync(2100);
    expect(asked).toHaveLength(3);
    await expect(end).resolves.toBe(7);
  });

  test('is not asked for again where it was refused, or the server ends', async () => {
    const refusing = queueWith({ refused: { status: 404, code: 'unknown-run', message: 'There is none.' } });
    await expect(refusing.queue.insist('probe', new Date(0))).rejects.toMatchObject({ code: 'unknown-run' });
    expect(refusing.asked).toHaveLength(1);
    const ending = queueWith(full, full);
    await ending.queue.onApplicationShutdown();
    await expect(ending.queue.insist('probe', new Date(0))).rejects.toThrow(StorageError);
  });
});
