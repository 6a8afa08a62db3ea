import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';

let data: string;
beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'lambent-kept-'));
});
afterEach(() => rmSync(data, { recursive: true }));

const { isBackupName, keptBackups, lastGoodBackup, nightName, outOfDate } = await import('./kept-backups.ts');

test('backups are listed by when they were made, and nothing else in the folder is', () => {
  expect(keptBackups(data)).toEqual([]);
  mkdirSync(join(data, 'backups'));
  for (const [name, time] of [
    ['night-2026-11-26.tar.gz', 20],
    ['shop-2026.tar.gz', 30],
    ['night-2026-11-25.tar.gz', 10],
    ['half.tar.gz.part', 40],
  ] as const) {
    writeFileSync(join(data, 'backups', name), 'x'.repeat(time));
    utimesSync(join(data, 'backups', name), time, time);
  }
  expect(keptBackups(data)).toEqual([
    { name: 'shop-2026.tar.gz', madeAt: new Date(30_000), bytes: 30 },
    { name: 'night-2026-11-26.tar.gz', madeAt: new Date(20_000), bytes: 20 },
    { name: 'night-2026-11-25.tar.gz', madeAt: new Date(10_000), bytes: 10 },
  ]);
});

test('no name leads out of the folder', () => {
  for (const name of ['../lambent.sqlite', 'a/b.tar.gz', '.tar.gz', 'a.tar', 'a.tar.gz/', 'a\\b.tar.gz'])
    expect(isBackupName(name)).toBe(false);
  expect(isBackupName(nightName(new Date(2026, 0, 5)))).toBe(true);
});

test('nights are kept for so many days; what was made by hand stays', () => {
  const nights = [24, 25, 26, 27].map((day) => nightName(new Date(2026, 10, day)));
  expect(nights[0]).toBe('night-2026-11-24.tar.gz');
  const today = new Date(2026, 10, 27, 23, 59);
  const names = [...nights, 'shop-2020-01-01.tar.gz', 'night-2026-11-24.tar'];
  expect(outOfDate(names, 1, today)).toEqual(nights.slice(0, 3));
  expect(outOfDate(names, 2, today)).toEqual(nights.slice(0, 2));
  expect(outOfDate(names, 4, today)).toEqual([]);
  // Over the end of a month.
  expect(outOfDate([nightName(new Date(2026, 9, 31))], 2, new Date(2026, 10, 1))).toEqual([]);
  expect(outOfDate([nightName(new Date(2026, 9, 30))], 2, new Date(2026, 10, 1))).toHaveLength(1);
});

test('a backup that cannot be read whole is not offered', async () => {
  mkdirSync(join(data, 'backups'));
  writeFileSync(join(data, 'backups', 'shop-1.tar.gz'), 'no archive');
  expect(await lastGoodBackup(data)).toBeNull();
});

test('the copy of a night is made once, from two in the morning on, and old ones go after that', async () => {
  jest.unstable_mockModule('../config.ts', () => ({ config: { dataFolder: data } }));
  const { BackupsService } = await import('./backups.service.ts');
  const settings = { backupDays: 2, isDemo: false };
  const service = new BackupsService({ get: async () => settings } as never);
  const made: string[] = [];
  const folder = join(data, 'backups');
  mkdirSync(folder);
  let fails = false;
  Object.assign(service, {
    makeFile: async (name: string) => {
      if (fails) throw new Error('the disk is full');
      made.push(name);
      writeFileSync(join(folder, name), '');
    },
  });
  const on = (day: number, hour: number) => service.makeIfDue(new Date(2026, 10, day, hour, 5));
  await on(24, 1);
  expect(made).toEqual([]);
  await on(24, 2);
  await on(24, 9);
  await on(25, 1);
  await on(25, 23);
  expect(made).toEqual(['night-2026-11-24.tar.gz', 'night-2026-11-25.tar.gz']);
  // Where a new one fails, the old ones stay.
  fails = true;
  await expect(on(28, 3)).rejects.toThrow('the disk is full');
  expect(readdirSync(folder).sort()).toEqual(made);
  fails = false;
  await on(28, 3);
  expect(readdirSync(folder)).toEqual(['night-2026-11-28.tar.gz']);
  settings.backupDays = 0;
  await on(29, 3);
  Object.assign(settings, { backupDays: 2, isDemo: true });
  await on(29, 3);
  expect(made).toHaveLength(3);
});
