import type { SendingLook, SendingWishDto } from '@lambent/contracts';
import { IsNull, LessThan } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { stepTo } from '../desk/job-steps.ts';
import { JobEntity, OriginalEntity, VersionEntity } from '../jobs/job.entities.ts';
import { addJob, type Original } from '../jobs/jobs.writes.ts';
import type { PackedVersion } from '../jobs/pack.ts';
import { mailWords } from '../mails/mail-words.ts';
import { mailSender, mailWorkshop } from '../mails/queue-mail.ts';
import { SendingEntity, type SentWords } from './sending.entity.ts';

/*
 * Every change of what is left at the drop-off.
 */

/** What was made of a file, by how it is wished. */
export interface Looked {
  readonly wish: SendingWishDto;
  readonly look: SendingLook;
  readonly picture: string;
  readonly difference: SendingEntity['difference'];
  readonly differencePicture: string | null;
}

/** A sending begins. */
export async function beginSending(
  writing: Writing,
  begun: Pick<SendingEntity, 'id' | 'tokenHash' | 'file' | 'personId' | 'startedAt' | 'replacesId'> &
    Looked & { readonly bytes: Uint8Array },
): Promise<void> {
  const draft = { looks: 1, sentAt: null, words: null, jobId: null, originalId: null };
  await writing.insert(SendingEntity, { ...begun, ...draft, bytes: Buffer.from(begun.bytes) });
}

/** Keeps a sending as it is wished now. @throws PlainError 404 where there is none, 409 where it was sent in */
export async function wishSending(writing: Writing, id: string, looked: Looked): Promise<void> {
  const sending = await draftOf(writing, id);
  await writing.update(SendingEntity, { id }, { ...looked, looks: sending.looks + 1 });
}

/** What a sending comes to when it is sent in. */
export interface SentIn {
  readonly jobId: string;
  readonly version: PackedVersion;
  readonly original: Original;
  readonly words: SentWords;
  /** The link that it is followed by, for the mail that tells it. */
  readonly link: string;
}

/** Sends a sending in: it is a job of the shop from then on. @throws PlainError 404 where there is none, 409 where it was sent in */
export async function sendIn(
  writing: Writing,
  id: string,
  { jobId, version, original, words, link }: SentIn,
  now: Date,
): Promise<void> {
  await draftOf(writing, id);
  const { title, name, wantedBy } = words;
  await addJob(writing, { id: jobId, title, project: '' }, version, `Sent in by ${name}`.slice(0, 120), [original]);
  const originalId = await nameOriginal(writing, jobId, version);
  await writing.update(JobEntity, { id: jobId }, { wantedBy });
  await stepTo(writing, jobId, 'came in', name, now);
  await writing.update(SendingEntity, { id }, { sentAt: now, words, jobId, originalId, bytes: null });
  await mailSender(writing, jobId, mailWords.cameIn(title, link), now);
  await mailWorkshop(writing, jobId, mailWords.newSending(title, name), now);
}

/** Says in a job of one file which of its originals that is. @returns that */
async function nameOriginal(writing: Writing, jobId: string, { settings }: PackedVersion): Promise<number> {
  const [{ id: originalId }] = await writing.find(OriginalEntity, { select: { id: true }, where: { jobId } });
  const arrivals = settings.arrivals.map((arrival) => ({ ...arrival, originalId }));
  await writing.update(VersionEntity, { jobId, number: 1 }, { settings: { ...settings, arrivals } });
  return originalId;
}

/**
 * Withdraws a sending: its link leads nowhere any more, and its job is put away unless somebody has begun with it.
 * @returns the job that was put away; null where none was
 */
export async function withdrawSending(writing: Writing, id: string, now: Date): Promise<string | null> {
  const sending = await writing.findOneBy(SendingEntity, { id });
  if (!sending) throw notFound('sending');
  if (sending.sentAt === null) {
    await writing.delete(SendingEntity, { id });
    return null;
  }
  await writing.update(SendingEntity, { id }, { tokenHash: null });
  await writing.delete(SendingEntity, { replacesId: id });
  if (sending.jobId === null) return null;
  // Nobody is left who could answer.
  await writing.update(JobEntity, { id: sending.jobId, awaits: 'sender' }, { awaits: null });
  const job = await writing.findOneBy(JobEntity, { id: sending.jobId });
  if (job?.state !== 'came in') return null;
  await stepTo(writing, job.id, 'put away', sending.words?.name ?? null, now);
  return job.id;
}

/** So long a sending that was begun is kept. */
const draftMs = 86_400_000;

/** Drops what was begun and not sent in. @returns how many went */
export async function dropDrafts(writing: Writing, now: Date): Promise<number> {
  const before = new Date(now.getTime() - draftMs);
  const { affected } = await writing.delete(SendingEntity, { sentAt: IsNull(), startedAt: LessThan(before) });
  return affected ?? 0;
}

async function draftOf(writing: Writing, id: string): Promise<SendingEntity> {
  const sending = await writing.findOneBy(SendingEntity, { id });
  if (!sending) throw notFound('sending');
  if (sending.sentAt)
    throw new PlainError(409, 'sent-in', 'This was sent in already. What else there is, tell the workshop.');
  return sending;
}
