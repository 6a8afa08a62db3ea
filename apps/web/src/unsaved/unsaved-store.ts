import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** What was drawn and is not on the server yet, as it is kept in this browser. */
export interface UnsavedWork {
  /** Which open Bench it is of: a job may be open in several. */
  readonly session: string;
  readonly jobId: string;
  readonly title: string;
  /** The version that it was made from. */
  readonly base: number;
  /** The edit that led to it. */
  readonly edit: string;
  /** When, in ms since 1970. */
  readonly at: number;
  /** The body of the save. */
  readonly document: Blob;
}

interface Schema extends DBSchema {
  unsaved: { key: string; value: UnsavedWork };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

/** The browser's own database; null where it has none, or gives none to this page. */
async function database(): Promise<IDBPDatabase<Schema> | null> {
  if (typeof indexedDB === 'undefined') return null;
  opened ??= openDB<Schema>('lambent', 1, {
    upgrade: (fresh) => void fresh.createObjectStore('unsaved', { keyPath: 'session' }),
  });
  try {
    return await opened;
  } catch {
    opened = null;
    return null;
  }
}

/** Keeps work, in place of what was kept of the same Bench. */
export async function keepUnsaved(work: UnsavedWork): Promise<void> {
  await (await database())?.put('unsaved', work);
}

/** The server has it: it is not kept any longer. */
export async function dropUnsaved(session: string): Promise<void> {
  await (await database())?.delete('unsaved', session);
}

/** All that is kept, the oldest first. */
export async function allUnsaved(): Promise<UnsavedWork[]> {
  const all = (await (await database())?.getAll('unsaved')) ?? [];
  return all.toSorted((a, b) => a.at - b.at);
}
