import { isBeforeBurning } from '@lambent/contracts';
import { IsNull } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { stepTo } from '../desk/job-steps.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { mailWords } from '../mails/mail-words.ts';
import { mailSender, mailWorkshop } from '../mails/queue-mail.ts';
import { QuoteEntity } from './quote.entity.ts';

/*
 * Every change of quotes.
 */

/** A quote as it is made. */
export type NewQuote = Pick<
  QuoteEntity,
  'jobId' | 'lines' | 'total' | 'currency' | 'validUntil' | 'terms' | 'madeAt' | 'by'
>;

/** Offers a job for a price, in place of what it was offered for before. @throws PlainError 404 where there is no such job */
export async function makeQuote(writing: Writing, quote: NewQuote): Promise<void> {
  const { jobId, by, madeAt, total, currency, validUntil } = quote;
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (!job) throw notFound('job');
  await writing.update(QuoteEntity, { jobId, withdrawnAt: IsNull() }, { withdrawnAt: madeAt });
  await writing.insert(QuoteEntity, { ...quote, acceptedAt: null, acceptedBy: null, withdrawnAt: null });
  if (isBeforeBurning(job.state)) await stepTo(writing, jobId, 'quoted', by, madeAt);
  const [{ number }] = await writing.find(QuoteEntity, { where: { jobId }, order: { number: 'DESC' }, take: 1 });
  const price = `${currency} ${total.toFixed(2)}`;
  await mailSender(writing, jobId, mailWords.quoted(job.title, number, price, validUntil), madeAt);
}

/**
 * Accepts a quote: its job is ready to be burnt, for that price.
 * @param today by the shop's clock, such as 2026-12-24
 * @param accepter who says yes
 * @returns its job
 * @throws PlainError 404 where the job has no such quote; 409 where it was accepted already, withdrawn, or is past its day
 */
export async function acceptQuote(
  writing: Writing,
  jobId: string,
  number: number,
  today: string,
  accepter: string | null,
  now: Date,
): Promise<void> {
  const quote = await writing.findOneBy(QuoteEntity, { number, jobId });
  if (!quote) throw notFound('quote of this job');
  const { validUntil, withdrawnAt, acceptedAt } = quote;
  const fault =
    (withdrawnAt && 'was withdrawn by the workshop') ||
    (acceptedAt && 'was accepted already') ||
    (validUntil < today && `could be accepted until ${validUntil}`);
  if (fault) throw new PlainError(409, 'quote-closed', `Quote ${number} ${fault}. Look at how it stands now.`);
  await writing.update(QuoteEntity, { number }, { acceptedAt: now, acceptedBy: accepter });
  const job = await writing.findOneBy(JobEntity, { id: jobId });
  if (!job) return;
  if (isBeforeBurning(job.state)) await stepTo(writing, jobId, 'ready', accepter, now);
  await mailWorkshop(writing, jobId, mailWords.accepted(job.title, number), now);
}

/** Withdraws a quote; its job is being prepared again. @throws PlainError 404 where the job has no such quote, 409 where it was accepted */
export async function withdrawQuote(
  writing: Writing,
  jobId: string,
  number: number,
  withdrawer: string | null,
  now: Date,
): Promise<void> {
  const quote = await writing.findOneBy(QuoteEntity, { number, jobId });
  if (!quote) throw notFound('quote of this job');
  if (quote.withdrawnAt) return;
  if (quote.acceptedAt)
    throw new PlainError(
      409,
      'quote-accepted',
      `Quote ${number} was accepted: its price holds. Make another quote instead.`,
    );
  await writing.update(QuoteEntity, { number }, { withdrawnAt: now });
  const job = await writing.findOneBy(JobEntity, { id: jobId });
  if (job?.state === 'quoted') await stepTo(writing, jobId, 'being prepared', withdrawer, now);
}
