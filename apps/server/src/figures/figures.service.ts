import type { FiguresAnswer, FigureTable } from '@lambent/contracts';
import { writeCsv } from '@lambent/core/rows';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { And, IsNull, LessThan, MoreThanOrEqual, Not, Repository } from 'typeorm';
import { PlainError } from '../common/plain-error.ts';
import { dayOf, spanOfDay } from '../day/opening-hours.ts';
import { type BurntJob, InvoicesService } from '../quotes/invoices.service.ts';
import { RunEntity } from '../runs/run.entities.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { figureRows } from './figure-rows.ts';
import { daysAfter, type PaidJob, shopFigures } from './shop-figures.ts';

/** Figures are told of so many days at most. */
const mostDays = 1100;

/** What the shop did within some days. */
@Injectable()
export class FiguresService {
  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    private readonly invoices: InvoicesService,
    private readonly settings: SettingsService,
    private readonly shop: ShopService,
  ) {}

  /** @throws PlainError 400 where the last day is before the first, or so much is not told at once */
  async get(from: string, until: string): Promise<FiguresAnswer> {
    if (until < from) throw new PlainError(400, 'days', 'The last day is before the first one. Turn them around.');
    if (daysAfter(from, mostDays) < until)
      throw new PlainError(400, 'days', `Figures are told of ${mostDays} days at most. Choose fewer.`);
    const settings = await this.settings.get();
    const [runs, burnt, { materials }] = await Promise.all([
      this.runs.find({
        select: { id: true, startedAt: true, machineId: true, machineS: true, by: true, taken: true },
        where: {
          endedAt: Not(IsNull()),
          startedAt: And(
            MoreThanOrEqual(new Date(spanOfDay(from, settings).from)),
            LessThan(new Date(spanOfDay(until, settings).until)),
          ),
        },
      }),
      this.invoices.burnt(from, until),
      this.shop.everything(),
    ]);
    const { currency } = settings.pricing;
    return shopFigures({
      from,
      until,
      currency,
      runs: runs.map(({ startedAt, machineId, machineS: seconds, by: sender, taken }) => {
        return { day: dayOf(startedAt.getTime(), settings), machineId, seconds, by: sender ?? '', taken };
      }),
      jobs: burnt.map((job) => paid(job, currency)),
      stock: materials
        .filter(({ archived }) => !archived)
        .map(({ id: materialId, stock }) => ({ materialId, stock: stock ?? null })),
    });
  }

  /** One of the tables, as comma-separated values. @throws as `get` does */
  async csv(table: FigureTable, from: string, until: string): Promise<string> {
    const [figures, { machines, materials }] = await Promise.all([this.get(from, until), this.shop.everything()]);
    return writeCsv(figureRows(table, figures, { machines, materials }));
  }
}

/** What a job comes to, where all of it is known in the shop's currency. */
function paid({ row, day, currency, lines }: BurntJob, shopCurrency: string): PaidJob {
  const isKnown = currency === shopCurrency && lines.every(({ amount }) => amount !== null);
  const amount = isKnown ? lines.reduce((sum, line) => sum + (line.amount ?? 0), 0) : null;
  return { day, whose: row.whose, amount };
}
