import type { JobState, QuoteLineDto } from '@lambent/contracts';
import { writeCsv } from '@lambent/core/rows';
import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { isoOf, keptTime } from '../common/stored-time.ts';
import { dayOf, spanOfDay } from '../day/opening-hours.ts';
import { SettingsService } from '../settings/settings.service.ts';

const columns = ['job', 'title', 'project', 'for', 'burnt', 'stands', 'quote', 'line', 'amount', 'currency'];

interface Row {
  id: string;
  title: string;
  project: string;
  whose: string;
  state: JobState;
  burntAt: string;
  quote: number | null;
  /** As JSON. */
  lines: string | null;
  quoteCurrency: string | null;
  share: number | null;
  price: number | null;
}

/** A job that was burnt. */
export interface BurntJob {
  readonly row: Pick<Row, 'id' | 'title' | 'project' | 'whose' | 'state' | 'quote'>;
  /** On which it was burnt for the first time, by the shop's clock. */
  readonly day: string;
  readonly currency: string;
  /** What it comes to; an amount is null where that is not known. */
  readonly lines: readonly { readonly what: string; readonly amount: number | null }[];
}

/** What was burnt, as a table that a program for invoices reads. */
@Injectable()
export class InvoicesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly settings: SettingsService,
  ) {}

  /**
   * What was burnt for the first time within some days, the first one first, as comma-separated values. What was agreed is told
   * line by line, else the share of what it was burnt with, else what was worked out. Shared jobs are left out: their parts pay.
   *
   * @param from the first day, by the shop's clock, such as 2026-12-01
   * @param until the last day
   */
  async csv(from: string, until: string): Promise<string> {
    const table = (await this.burnt(from, until)).flatMap(({ row, day, currency, lines }) => {
      const { id, title, project, whose, state, quote } = row;
      const head = [id, title, project, whose, day, state, quote === null ? '' : String(quote)];
      return lines.map(({ what, amount }) => [...head, what, amount === null ? '' : amount.toFixed(2), currency]);
    });
    return writeCsv([columns, ...table]);
  }

  /** What was burnt for the first time within some days, the first one first, with the lines of what it comes to. */
  async burnt(from: string, until: string): Promise<BurntJob[]> {
    const settings = await this.settings.get();
    const rows: Row[] = await this.database.query(
      `SELECT jobs.id, jobs.title, jobs.project, jobs.whose, jobs.state, min(step.at) AS burntAt, agreed.number AS quote,
         agreed.lines, agreed.currency AS quoteCurrency, part.price AS share, estimates.price
       FROM jobs
       JOIN job_steps AS step ON step.jobId = jobs.id AND step.state = 'burnt'
       LEFT JOIN quotes AS agreed
         ON agreed.jobId = jobs.id AND agreed.acceptedAt IS NOT NULL AND agreed.withdrawnAt IS NULL
       LEFT JOIN parts_in_place AS part ON part.jobId = jobs.id
       LEFT JOIN estimates ON estimates.jobId = jobs.id
       WHERE jobs.deletedAt IS NULL AND jobs.id NOT IN (SELECT sharedJobId FROM shared_parts)
       GROUP BY jobs.id HAVING burntAt >= ? AND burntAt < ? ORDER BY burntAt`,
      [keptTime(spanOfDay(from, settings).from), keptTime(spanOfDay(until, settings).until)],
    );
    return rows.map((row) => ({
      row,
      day: dayOf(Date.parse(isoOf(row.burntAt)), settings),
      currency: row.quoteCurrency ?? settings.pricing.currency,
      lines: linesOf(row),
    }));
  }
}

function linesOf({ lines, share, price }: Row): { what: string; amount: number | null }[] {
  if (lines !== null) return JSON.parse(lines) as QuoteLineDto[];
  if (share !== null) return [{ what: 'Burnt together with others', amount: share }];
  return [{ what: 'As worked out', amount: price }];
}
