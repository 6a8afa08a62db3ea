import { api, Refusal, sentenceOf } from '../api.ts';
import type { UnsavedWork } from '../stores/browser-database.ts';
import { t } from '../words/words.ts';
import { openSessions } from './sessions.ts';
import { allUnsaved, dropUnsaved } from './unsaved-store.ts';

/** Work that could not be saved as it was to be: it is kept, and the operator says what becomes of it. */
export interface StuckWork {
  readonly work: UnsavedWork;
  /** `moved on`: another version was saved since. `gone`: the job was deleted. `refused`: it will never be taken. */
  readonly why: 'moved on' | 'gone' | 'refused' | 'waiting';
  /** In the server's words. */
  readonly sentence: string;
}

/**
 * Saves what was drawn here and did not reach the server: after a crash, a closed tab, a server that was away. What is of
 * a Bench that is open saves itself.
 *
 * @param jobId of one job alone; of all where none is given
 * @returns what could not be saved, and whether there is some of Benches that are open
 */
export async function sendUnsaved(jobId?: string): Promise<{ stuck: StuckWork[]; saving: boolean }> {
  const [all, open] = await Promise.all([allUnsaved(), openSessions()]);
  const stuck: StuckWork[] = [];
  let saving = false;
  for (const work of all) {
    if (jobId !== undefined && work.jobId !== jobId) continue;
    if (open.has(work.session)) {
      saving = true;
      continue;
    }
    const left = await send(work);
    if (left) stuck.push(left);
    else await dropUnsaved(work.session);
  }
  return { stuck, saving };
}

/** @returns null when the server has it */
async function send(work: UnsavedWork): Promise<StuckWork | null> {
  try {
    await api.saveJob(work.jobId, work.base, work.edit, work.document);
    return null;
  } catch (error) {
    const sentence = sentenceOf(error);
    if (!(error instanceof Refusal)) return { work, why: 'waiting', sentence };
    if (error.code === 'saved-elsewhere') return (await isThere(work)) ? null : { work, why: 'moved on', sentence };
    if (error.code === 'job-deleted' || error.code === 'not-found') return { work, why: 'gone', sentence };
    return { work, why: error.isFinal ? 'refused' : 'waiting', sentence };
  }
}

/** What reads documents is large, and the Desk needs it only where something could not be saved. */
const loadDocuments = () => import('@lambent/core/document');

/** Whether the server holds just that already: the save got through, and its answer did not. */
async function isThere({ jobId, document }: UnsavedWork): Promise<boolean> {
  try {
    const { document: theirs } = await api.job(jobId);
    const { jobFromJson, jobToJson } = await loadDocuments();
    const plain = (json: unknown) => JSON.stringify(jobToJson(jobFromJson(json)));
    return plain(JSON.parse(await document.text())) === plain(theirs);
  } catch {
    return false;
  }
}

/** Keeps stuck work as a job of its own. @returns the job's id */
export async function keepAsJob({ work, why }: StuckWork): Promise<string> {
  const title = t('{{title}}, unsaved copy', { title: work.title.slice(0, 100) });
  let id: string;
  if (why === 'gone') {
    const { jobFromJson } = await loadDocuments();
    const { machineId } = jobFromJson(JSON.parse(await work.document.text()));
    const fresh = await api.createJob(title, machineId);
    await api.saveJob(fresh.id, fresh.version, work.edit, work.document);
    id = fresh.id;
  } else id = (await api.copyJob(work.jobId, title, work.document)).id;
  await dropUnsaved(work.session);
  return id;
}
