import { describe, expect, test } from '@jest/globals';
import { databaseReplaced, storageTrouble } from './storage-trouble.ts';

const failing = (code: string, message = 'went wrong') => Object.assign(new Error(message), { code });

describe('what kind of trouble an error is:', () => {
  test.each([
    ['SQLITE_FULL', 'disk-full'],
    ['ENOSPC', 'disk-full'],
    ['EDQUOT', 'disk-full'],
    ['SQLITE_READONLY_DBMOVED', 'read-only'],
    ['SQLITE_PERM', 'read-only'],
    ['SQLITE_CANTOPEN', 'read-only'],
    ['EROFS', 'read-only'],
    ['EACCES', 'read-only'],
    ['EPERM', 'read-only'],
    ['ENOENT', 'read-only'],
    ['SQLITE_BUSY', 'locked'],
    ['SQLITE_BUSY_SNAPSHOT', 'locked'],
    ['SQLITE_LOCKED', 'locked'],
    ['SQLITE_IOERR_WRITE', 'disk-failed'],
    ['EIO', 'disk-failed'],
    ['SQLITE_CORRUPT', 'database-damaged'],
    ['SQLITE_NOTADB', 'database-damaged'],
    [databaseReplaced, 'database-replaced'],
  ])('%s is %s', (code, kind) => {
    expect(storageTrouble(failing(code))).toMatchObject({ code: kind });
  });

  test('as TypeORM wraps it', () => {
    const wrapped = Object.assign(new Error('QueryFailedError'), {
      code: 'OTHER',
      driverError: { code: 'SQLITE_FULL' },
    });
    expect(storageTrouble(wrapped)).toMatchObject({ code: 'disk-full' });
  });

  test('as it comes from another thread, by its message alone', () => {
    expect(storageTrouble(new Error('ENOSPC: no space left on device, write'))).toMatchObject({ code: 'disk-full' });
    expect(storageTrouble(new Error('SQLITE_BUSY: database is locked'))).toMatchObject({ code: 'locked' });
    expect(storageTrouble(new Error('It said ENOSPC: no'))).toBeNull();
  });

  test('what it says goes into a sentence, and nothing of how it was found', () => {
    expect(storageTrouble(failing('ENOSPC'))).toEqual({
      code: 'disk-full',
      what: 'the disk that Lambent keeps its data on is full',
      remedy: 'Make room on it; Lambent then goes on by itself.',
    });
  });

  test('others are none', () => {
    expect(storageTrouble(failing('ECONNRESET'))).toBeNull();
    expect(storageTrouble(failing('SQLITE_CONSTRAINT'))).toBeNull();
    expect(storageTrouble(new Error('no code'))).toBeNull();
    for (const other of [null, undefined, 'ENOSPC', { code: 'ENOSPC' }]) expect(storageTrouble(other)).toBeNull();
  });
});
