import type { JobDocument } from '@lambent/core/document';
import type { History } from '@lambent/core/edits';
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

/** What can be undone and redone in a job, as it is kept in this browser. */
export interface KeptHistory {
  readonly jobId: string;
  /** The program that kept it: documents in memory are of its own form, which another may not know. */
  readonly program: string;
  /** The version that its present is, and when the server saved that. */
  readonly version: number;
  readonly savedAt: string;
  /** When it was kept, in ms since 1970. */
  readonly at: number;
  readonly history: History<JobDocument>;
}

interface Schema extends DBSchema {
  unsaved: { key: string; value: UnsavedWork };
  history: { key: string; value: KeptHistory; indexes: { at: number } };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

/** The browser's own database; null where it has none, or gives none to this page. */
export async function browserDatabase(): Promise<IDBPDatabase<Schema> | null> {
  if (typeof indexedDB === 'undefined') return null;
  opened ??= openDB<Schema>('lambent', 2, {
    upgrade(database, version) {
      if (version < 1) database.createObjectStore('unsaved', { keyPath: 'session' });
      if (version < 2) database.createObjectStore('history', { keyPath: 'jobId' }).createIndex('at', 'at');
    },
    // A page of a newer Lambent waits until this one lets go.
    blocking(_current, _blocked, event) {
      opened = null;
      (event.target as IDBDatabase).close();
    },
  });
  try {
    return await opened;
  } catch {
    opened = null;
    return null;
  }
}
