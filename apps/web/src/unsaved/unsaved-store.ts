import { browserDatabase, type UnsavedWork } from '../stores/browser-database.ts';

/** Keeps work, in place of what was kept of the same Bench. */
export async function keepUnsaved(work: UnsavedWork): Promise<void> {
  await (await browserDatabase())?.put('unsaved', work);
}

/** The server has it: it is not kept any longer. */
export async function dropUnsaved(session: string): Promise<void> {
  await (await browserDatabase())?.delete('unsaved', session);
}

/** All that is kept, the oldest first. */
export async function allUnsaved(): Promise<UnsavedWork[]> {
  const all = (await (await browserDatabase())?.getAll('unsaved')) ?? [];
  return all.toSorted((a, b) => a.at - b.at);
}
