import { IsNull } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { sendingOf } from '../drop-off/sending-of.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { mailWords } from '../mails/mail-words.ts';
import { mailSender, mailWorkshop } from '../mails/queue-mail.ts';
import { MessageEntity } from './message.entity.ts';

/*
 * Every change of what the workshop and senders write to each other.
 */

/** A message as it is written. */
export type NewMessage = Pick<MessageEntity, 'jobId' | 'at' | 'by' | 'kind' | 'text'>;

/** The workshop writes to a job's sender. @throws PlainError 404 where there is no such job, 409 where nobody would read it */
export async function writeToSender(writing: Writing, message: NewMessage): Promise<void> {
  const { jobId, text } = message;
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (!job) throw notFound('job');
  if (!(await sendingOf(writing, jobId)))
    throw new PlainError(
      409,
      'no-sender',
      'Nobody would read it: this job was not sent in at the drop-off, or its sender has withdrawn it.',
    );
  await writing.insert(MessageEntity, { ...message, from: 'workshop' });
  await writing.update(JobEntity, { id: jobId }, { awaits: 'sender' });
  await mailSender(writing, jobId, mailWords.fromWorkshop(job.title, text), message.at);
}

/** So many messages may wait for the workshop to answer. */
const mostUnanswered = 20;

/** A job's sender writes to the workshop. @throws PlainError 409 where they wrote many that wait for an answer */
export async function writeToWorkshop(writing: Writing, message: NewMessage): Promise<void> {
  const { jobId, by, kind, text } = message;
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (!job) throw notFound('job');
  const last = await writing.find(MessageEntity, { where: { jobId }, order: { id: 'DESC' }, take: mostUnanswered });
  if (last.length === mostUnanswered && last.every(({ from }) => from === 'sender'))
    throw new PlainError(409, 'too-many', 'You have written a lot. Wait for an answer before you write more.');
  await writing.insert(MessageEntity, { ...message, from: 'sender' });
  await writing.update(JobEntity, { id: jobId }, { awaits: 'workshop' });
  await mailWorkshop(
    writing,
    jobId,
    (kind === 'file-sent' ? mailWords.newFile : mailWords.fromSender)(job.title, by ?? '', text),
    message.at,
  );
}

/** A job waits for nobody's answer any more. @throws PlainError 404 where there is no such job */
export async function endAwaiting(writing: Writing, jobId: string): Promise<void> {
  if (!(await writing.existsBy(JobEntity, { id: jobId, deletedAt: IsNull() }))) throw notFound('job');
  await writing.update(JobEntity, { id: jobId }, { awaits: null });
}
