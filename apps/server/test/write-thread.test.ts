import { copyFileSync, existsSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import Database from 'better-sqlite3';
import { WritingBench } from './writing.ts';

let bench: WritingBench;
beforeEach(async () => {
  bench = new WritingBench();
  await bench.open();
});
afterEach(() => bench.close());

const settle = (value: string) => bench.write('settle', [{ name: 'fileNames', value }]);
const stored = () => bench.rows<{ value: string }>("SELECT value FROM settings WHERE name = 'fileNames'")[0]?.value;
/** Whether another program could write now. */
function isFree(): boolean {
  const other = new Database(bench.file, { timeout: 0 });
  try {
    other.exec('BEGIN IMMEDIATE; ROLLBACK');
    return true;
  } catch {
    return false;
  } finally {
    other.close();
  }
}

describe('what is answered', () => {
  test('as done is committed by then, write after write in the order they were asked for', async () => {
    const order: number[] = [];
    await Promise.all(Array.from({ length: 30 }, (_, i) => settle(`pattern ${i}`).then(() => order.push(i))));
    expect(order).toEqual(Array.from({ length: 30 }, (_, i) => i));
    expect(stored()).toBe('pattern 29');
    expect(isFree()).toBe(true);
  });

  test('as refused changed nothing, and leaves nothing open', async () => {
    await settle('before');
    const answer = await bench.write('deleteJob', 'nowhere');
    expect(answer).toMatchObject({ refused: { status: 404 } });
    expect([stored(), isFree()]).toEqual(['before', true]);
    expect(await settle('after')).toEqual({ done: undefined });
    expect(stored()).toBe('after');
  });

  test('where something goes wrong inside, it is thrown, and the next write is done all the same', async () => {
    await expect(bench.write('no such write')).rejects.toThrow(/not a function/);
    expect(isFree()).toBe(true);
    expect(await settle('after')).toEqual({ done: undefined });
    expect(stored()).toBe('after');
  });
});

describe('a database', () => {
  test('that is another file than at the start is not written to; put back, it is', async () => {
    await settle('ours');
    const { folder, file } = bench;
    const aside = `${folder}-aside`;
    renameSync(folder, aside);
    try {
      expect(await settle('lost')).toMatchObject({ trouble: { code: 'read-only' } });
      expect(existsSync(folder)).toBe(false);
    } finally {
      renameSync(aside, folder);
    }
    expect(stored()).toBe('ours');
    expect(await settle('again')).toEqual({ done: undefined });
    const other = join(folder, 'other');
    renameSync(file, other);
    copyFileSync(other, file);
    expect(await settle('lost')).toMatchObject({ trouble: { code: 'database-replaced' } });
    renameSync(other, file);
    expect(stored()).toBe('again');
    expect(await settle('once more')).toEqual({ done: undefined });
  });

  test('is whole in one file once the thread has closed it', async () => {
    await settle('written');
    expect(statSync(`${bench.file}-wal`).size).toBeGreaterThan(0);
    await bench.closeDatabase();
    expect(existsSync(`${bench.file}-wal`)).toBe(false);
    expect(stored()).toBe('written');
    // What is asked after that opens it again.
    expect(await settle('again')).toEqual({ done: undefined });
  });
});
