/** Why nothing can be written to the disk now, and what to do; both go into sentences. */
export interface StorageTrouble {
  readonly code: 'disk-full' | 'read-only' | 'locked' | 'disk-failed' | 'database-damaged' | 'database-replaced';
  /** Goes on after a colon: “the disk is full”. */
  readonly what: string;
  /** A sentence. */
  readonly remedy: string;
}

/** The code of the error that says that another file lies in the database's place. */
export const databaseReplaced = 'DATABASE_REPLACED';

const kinds: readonly (StorageTrouble & { readonly signs: RegExp })[] = [
  {
    code: 'disk-full',
    signs: /^(SQLITE_FULL|ENOSPC|EDQUOT)/,
    what: 'the disk that Lambent keeps its data on is full',
    remedy: 'Make room on it; Lambent then goes on by itself.',
  },
  {
    code: 'read-only',
    signs: /^(SQLITE_READONLY|SQLITE_PERM|SQLITE_CANTOPEN|EROFS|EACCES|EPERM|ENOENT)/,
    what: 'Lambent’s data folder is lost or may not be written to',
    remedy: 'Give it back, or the right to write to it; Lambent then goes on by itself.',
  },
  {
    code: 'locked',
    signs: /^SQLITE_(BUSY|LOCKED)/,
    what: 'another program has held Lambent’s database locked for 5 seconds',
    remedy: 'Let it finish, or close it; Lambent then goes on by itself.',
  },
  {
    code: 'disk-failed',
    signs: /^(SQLITE_IOERR|EIO)/,
    what: 'the disk that Lambent keeps its data on fails',
    remedy: 'Copy the data folder to another disk and start Lambent there.',
  },
  {
    code: 'database-damaged',
    signs: /^(SQLITE_CORRUPT|SQLITE_NOTADB)/,
    what: 'Lambent’s database is damaged',
    remedy: 'End Lambent and restore the database from a backup.',
  },
  {
    code: 'database-replaced',
    signs: new RegExp(`^${databaseReplaced}`),
    what: 'another database lies in the place of the one that Lambent started with',
    remedy: 'End Lambent and start it again, so that it reads that one, or put the first one back.',
  },
];

/**
 * What kind of trouble with the disk an error is; null where it is none.
 *
 * @param error one of SQLite's or Node's, as it was thrown, wrapped by TypeORM, or come from another thread by message
 */
export function storageTrouble(error: unknown): StorageTrouble | null {
  if (!(error instanceof Error)) return null;
  const { code, driverError, message } = error as Error & { code?: string; driverError?: { code?: string } };
  const sign = driverError?.code ?? code ?? /^(E[A-Z]+|SQLITE_[A-Z_]+):/.exec(message)?.[1] ?? '';
  const kind = kinds.find(({ signs }) => signs.test(sign));
  if (!kind) return null;
  const { signs: _, ...trouble } = kind;
  return trouble;
}
