import { isBeforeBurning, type JobState, type VersionAnswer } from '@lambent/contracts';
import { IsNull, Not } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { stepTo } from '../desk/job-steps.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { keepOriginal, type Original, saveVersion } from '../jobs/jobs.writes.ts';
import type { PackedVersion } from '../jobs/pack.ts';
import { mailWords } from '../mails/mail-words.ts';
import { mailSender } from '../mails/queue-mail.ts';
import { MessageEntity } from '../messages/message.entity.ts';
import { writeToWorkshop } from '../messages/messages.writes.ts';
import { QuoteEntity } from '../quotes/quote.entity.ts';
import { sharedPlaceOf } from '../sharing/parts-in-place.ts';
import type { Looked } from './drop-off.writes.ts';
import { SendingEntity } from './sending.entity.ts';

/*
 * Every change of new files that senders send for what they have sent in.
 */

/**
 * Sends a new file: the workshop is asked to take it in the place of the one before.
 *
 * @returns the job that it is for.
 * @throws PlainError 404 where there is no such draft of a new file, 409 where its job is burnt, or burns
 */
export async function sendNewFile(writing: Writing, id: string, now: Date): Promise<string> {
  const draft = await writing.findOneBy(SendingEntity, { id, sentAt: IsNull() });
  const { replacesId, file } = draft ?? {};
  const sending = replacesId && (await writing.findOneBy(SendingEntity, { id: replacesId, tokenHash: Not(IsNull()) }));
  if (!sending || !file || sending.jobId === null) throw notFound('new file that was begun under this link');
  const { jobId, words } = sending;
  await expectStillOpen(writing, jobId);
  // The last one counts.
  await writing.delete(SendingEntity, { replacesId, sentAt: Not(IsNull()) });
  await writing.update(SendingEntity, { id }, { sentAt: now, tokenHash: null });
  await writeToWorkshop(writing, { jobId, text: file, kind: 'file-sent', by: words?.name ?? null, at: now });
  return jobId;
}

/** A new file as the workshop takes it. */
export interface TakenFile {
  readonly jobId: string;
  /** Of the new file. */
  readonly id: string;
  /** The version of the job that it goes on top of. */
  readonly base: number;
  readonly version: PackedVersion;
  readonly original: Original;
  readonly looked: Looked;
  /** Who takes it. */
  readonly by: string | null;
}

/**
 * Takes a new file: it is the job's next version. An open quote was for the drawing before, and is withdrawn; an accepted one holds.
 * @throws PlainError 409 where it was sent anew or withdrawn meanwhile, the job was changed, burns, or lies on shared sheets
 */
export async function takeNewFile(writing: Writing, taken: TakenFile, now: Date): Promise<VersionAnswer> {
  const { jobId, id, base, version, original, looked, by } = taken;
  const { sending, next } = await waitingFile(writing, jobId, id);
  const state = await expectStillOpen(writing, jobId);
  const place = await sharedPlaceOf(writing, jobId);
  if (place) {
    const words = `It lies on the sheets of “${place.title}” as it was. Delete that job first, then take the new file.`;
    throw new PlainError(409, 'shares-sheets', words);
  }
  const originalId = await keepOriginal(writing, jobId, original);
  const arrivals = version.settings.arrivals.map((arrival) => ({ ...arrival, originalId }));
  const settings = { ...version.settings, arrivals };
  const saved = await saveVersion(writing, jobId, base, `New file: ${next.file}`.slice(0, 120), {
    ...version,
    settings,
  });
  const looks = sending.looks + 1;
  await writing.update(SendingEntity, { id: sending.id }, { ...looked, file: next.file, originalId, looks });
  await writing.delete(SendingEntity, { id });
  await writing.update(QuoteEntity, { jobId, withdrawnAt: IsNull(), acceptedAt: IsNull() }, { withdrawnAt: now });
  if (state === 'quoted' || state === 'ready') await stepTo(writing, jobId, 'being prepared', by, now);
  await answerSender(writing, { jobId, file: next.file, kind: 'file-taken', by }, now);
  return saved;
}

/** Leaves a new file out: the one before holds. @throws PlainError 409 where it was sent anew or withdrawn meanwhile */
export async function leaveNewFileOut(
  writing: Writing,
  jobId: string,
  id: string,
  author: string | null,
  now: Date,
): Promise<void> {
  const { next } = await waitingFile(writing, jobId, id);
  await writing.delete(SendingEntity, { id });
  await answerSender(writing, { jobId, file: next.file, kind: 'file-left-out', by: author }, now);
}

/** A new file that waits for the workshop, and what it is to replace. */
async function waitingFile(
  writing: Writing,
  jobId: string,
  id: string,
): Promise<{ sending: SendingEntity; next: SendingEntity }> {
  const sending = await writing.findOneBy(SendingEntity, { jobId, tokenHash: Not(IsNull()) });
  const next =
    sending && (await writing.findOneBy(SendingEntity, { id, replacesId: sending.id, sentAt: Not(IsNull()) }));
  if (next) return { sending, next };
  throw new PlainError(
    409,
    'file-changed',
    'That file does not wait any more: it was taken, sent again or withdrawn meanwhile. Look at the job again.',
  );
}

interface Decided {
  readonly jobId: string;
  readonly file: string;
  readonly kind: 'file-taken' | 'file-left-out';
  readonly by: string | null;
}

async function answerSender(writing: Writing, { jobId, file, kind, by }: Decided, now: Date): Promise<void> {
  await writing.insert(MessageEntity, { jobId, at: now, from: 'workshop', by, text: file, kind });
  const job = await writing.findOneBy(JobEntity, { id: jobId });
  if (!job) return;
  await writing.update(JobEntity, { id: jobId }, { awaits: null });
  const words = kind === 'file-taken' ? mailWords.fileTaken : mailWords.fileLeftOut;
  await mailSender(writing, jobId, words(job.title, file), now);
}

/** @returns where the job stands @throws PlainError 409 where it is burnt, burns, or is gone */
async function expectStillOpen(writing: Writing, jobId: string): Promise<JobState> {
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (job && isBeforeBurning(job.state)) return job.state;
  throw new PlainError(
    409,
    'no-new-file',
    'It is burnt, on a machine or put away: a new file comes too late. Send it in as another drawing.',
  );
}
