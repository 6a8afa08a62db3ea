import type { JobDocument } from '@lambent/core/document';
import { type History, lastSteps } from '@lambent/core/edits';
import { browserDatabase, type KeptHistory } from '../../stores/browser-database.ts';

/** Of larger jobs nothing is kept: the page would stand still for it. */
const mostItems = 10_000;
/** Steps that weigh more than this together are not kept. */
const mostWeight = 50_000;
/** So many items are listed in all steps together at most: each step lists those of its state. */
const mostListed = 200_000;
/** The histories of so many jobs are kept, those that were worked on last. */
const mostJobs = 20;

/** This program: the address of a packed file changes with all that it is made from. */
const program = import.meta.url;

/** Keeps what can be undone in a job, as of a version that the server has. */
export async function keepHistory(kept: Omit<KeptHistory, 'at' | 'program'>): Promise<void> {
  const { length } = kept.history.present.drawing.items;
  if (length > mostItems) return;
  const steps = Math.floor(mostListed / Math.max(1, length));
  const database = await browserDatabase();
  if (!database) return;
  const changes = database.transaction('history', 'readwrite');
  await changes.store.put({ ...kept, program, history: lastSteps(kept.history, mostWeight, steps), at: Date.now() });
  const jobs = await changes.store.index('at').getAllKeys();
  for (const jobId of jobs.slice(0, -mostJobs)) await changes.store.delete(jobId);
  await changes.done;
}

/** What can be undone in a job as of a version; null where this browser knows nothing of it. */
export async function keptHistory(
  jobId: string,
  version: number,
  savedAt: string,
): Promise<History<JobDocument> | null> {
  const kept = await (await browserDatabase())?.get('history', jobId).catch(() => undefined);
  if (!kept || kept.program !== program) return null;
  return kept.version === version && kept.savedAt === savedAt ? kept.history : null;
}
