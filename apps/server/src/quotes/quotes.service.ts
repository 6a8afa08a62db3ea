import type { MakeQuoteDto, QuoteAnswer, QuoteDraft, QuoteLineDto, QuoteState } from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { dayOf } from '../day/opening-hours.ts';
import { EstimatesService } from '../desk/estimates.service.ts';
import { EventHub } from '../events/event-hub.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { WorkService } from '../work/work.service.ts';
import { QuoteEntity } from './quote.entity.ts';

const dayMs = 86_400_000;

/** What jobs are offered for, and who says yes to it. */
@Injectable()
export class QuotesService {
  constructor(
    @InjectRepository(QuoteEntity) private readonly quotes: Repository<QuoteEntity>,
    private readonly jobs: JobsService,
    private readonly estimates: EstimatesService,
    private readonly settings: SettingsService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** What a quote of a job begins with. @throws PlainError 404 where there is no such job */
  async draft(jobId: string): Promise<QuoteDraft> {
    const { version } = await this.jobs.headOf(jobId);
    const [{ estimate }, settings] = await Promise.all([this.estimates.workOut(jobId, version), this.settings.get()]);
    const { quoteDays, quoteTerms } = settings;
    const { parts, price } = estimate;
    const lines = parts.map(({ what, amount }): QuoteLineDto => ({ what: what.slice(0, 120), amount: cents(amount) }));
    const rest = cents((price ?? 0) - totalOf(lines));
    if (rest !== 0) lines.push({ what: 'Rounding', amount: rest });
    return { lines, validUntil: dayOf(Date.now() + quoteDays * dayMs, settings), terms: quoteTerms };
  }

  /** What a job was offered for, the last first. */
  async ofJob(jobId: string): Promise<QuoteAnswer[]> {
    const [rows, today] = await Promise.all([
      this.quotes.find({ where: { jobId }, relations: { job: true }, order: { number: 'DESC' }, take: 100 }),
      this.today(),
    ]);
    return rows.map((row) => answerOf(row, today));
  }

  /** Offers a job for a price. @throws as the write `makeQuote` does; PlainError 409 where the shop has no currency */
  async make(jobId: string, { lines, validUntil, terms, by }: MakeQuoteDto): Promise<QuoteAnswer[]> {
    const { pricing } = await this.settings.get();
    if (pricing.currency === '')
      throw new PlainError(409, 'no-currency', 'The shop has no currency yet. Say on its page what it charges in.');
    const kept = lines.map(({ what, amount }) => ({ what, amount }));
    const quote = { jobId, lines: kept, total: totalOf(kept), currency: pricing.currency, validUntil, terms };
    await this.writes.do('makeQuote', { ...quote, madeAt: new Date(), by: by?.trim() || null });
    this.hub.say({ type: 'desk', jobId });
    return this.ofJob(jobId);
  }

  /** Accepts a quote. @throws as the write `acceptQuote` does */
  async accept(jobId: string, number: number, accepter: string | null): Promise<QuoteAnswer[]> {
    await this.writes.do('acceptQuote', jobId, number, await this.today(), accepter, new Date());
    this.hub.say({ type: 'desk', jobId });
    return this.ofJob(jobId);
  }

  /** Withdraws a quote. @throws as the write `withdrawQuote` does */
  async withdraw(jobId: string, number: number, withdrawer: string | null): Promise<QuoteAnswer[]> {
    await this.writes.do('withdrawQuote', jobId, number, withdrawer, new Date());
    this.hub.say({ type: 'desk', jobId });
    return this.ofJob(jobId);
  }

  /** A quote on paper, as PDF. @throws PlainError 404 where the job has no such quote */
  async pdf(jobId: string, number: number): Promise<Uint8Array> {
    const [all, { shopName }] = await Promise.all([this.ofJob(jobId), this.settings.get()]);
    const quote = all.find((known) => known.number === number);
    if (!quote) throw notFound('quote of this job');
    return this.work.quotePdf({ quote, shopName });
  }

  private async today(): Promise<string> {
    return dayOf(Date.now(), await this.settings.get());
  }
}

function answerOf(row: QuoteEntity, today: string): QuoteAnswer {
  const { number, job, lines, total, currency, validUntil, terms, madeAt, by, acceptedAt, acceptedBy } = row;
  const { title, whose } = job;
  const answer = { number, title, whose, lines, total, currency, validUntil, terms, by, acceptedBy };
  const times = { madeAt: madeAt.toISOString(), acceptedAt: acceptedAt?.toISOString() ?? null };
  return { ...answer, ...times, state: stateOf(row, today) };
}

function stateOf({ withdrawnAt, acceptedAt, validUntil }: QuoteEntity, today: string): QuoteState {
  if (withdrawnAt) return 'withdrawn';
  if (acceptedAt) return 'accepted';
  return validUntil < today ? 'expired' : 'open';
}

/** Added up in whole hundredths. */
function totalOf(lines: readonly QuoteLineDto[]): number {
  return lines.reduce((sum, { amount }) => sum + Math.round(amount * 100), 0) / 100;
}

function cents(amount: number): number {
  return Math.round(amount * 100) / 100;
}
