import { randomUUID } from 'node:crypto';
import type { OffcutDto, TakenSheet } from '@lambent/contracts';
import { addOffcut, type Material, putSheetBack, type Run, type Sheet, stockOf, takeSheet } from '@lambent/core';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { RunEntity } from '../data/entities.ts';
import { BookService } from '../materials/book.service.ts';

/** Takes the sheets that runs use from the stock in the book; all of it can be put right afterwards. */
@Injectable()
export class StockBooking {
  private readonly log = new Logger('Stock');

  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    private readonly book: BookService,
  ) {}

  /**
   * Takes the sheets of a run that has just ended. A sheet that an earlier run of the job took still lies there, until
   * this very run has been burnt on it. A run is on record whether or not its stock could be taken.
   */
  async take(
    run: RunEntity,
    { stock }: Pick<Run, 'stock'>,
    sheets: readonly Sheet[],
    materials: readonly Material[],
    title: string,
  ): Promise<TakenSheet[]> {
    if (stock !== 'fresh' || (run.status !== 'done' && run.doneLine === 0)) return [];
    const earlier = await this.runs.find({ where: { jobId: run.jobId }, order: { startedAt: 'ASC' } });
    const taken: TakenSheet[] = [];
    for (const sheet of sheets) {
      const from = stockOf(materials.find(({ id }) => id === sheet.materialId)?.stock, sheet);
      if (!from || stillLies(earlier, run, sheet)) continue;
      try {
        const { id: stockId, width, height, price, offcut = false } = from;
        await this.book.changeStock(sheet.materialId, `the run of “${title}”`, (all) => takeSheet(all, stockId));
        taken.push({ sheetId: sheet.id, materialId: sheet.materialId, stockId, width, height, price, offcut });
      } catch (error) {
        this.log.warn(`A sheet of ${sheet.materialId} was not taken from stock: ${(error as Error).message}`);
      }
    }
    return taken;
  }

  /** A sheet was not used up after all. @throws PlainError 404 where the run took none, 409 where it is back already */
  async putBack(runId: string, sheetId: string, by: string): Promise<RunEntity> {
    return this.change(runId, sheetId, async (sheet) => {
      if (sheet.putBack) throw new PlainError(409, 'put-back', 'That sheet was put back already.');
      const { stockId, width, height, price, offcut } = sheet;
      const one = { id: stockId, width, height, price, count: 1, ...(offcut ? { offcut } : {}) };
      await this.book.changeStock(sheet.materialId, by, (all) => putSheetBack(all, one));
      return { ...sheet, putBack: true };
    });
  }

  /** Keeps what is left of a sheet. @throws PlainError 400 where it is larger than that, 404 where the run took none */
  async keepOffcut(runId: string, { sheetId, width, height, by }: OffcutDto): Promise<RunEntity> {
    return this.change(runId, sheetId, async (sheet) => {
      const fits = (w: number, h: number) => w <= sheet.width && h <= sheet.height;
      if (!fits(width, height) && !fits(height, width)) {
        throw new PlainError(
          400,
          'offcut-too-large',
          `An offcut is no larger than the sheet, ${sheet.width} × ${sheet.height} mm.`,
        );
      }
      await this.book.changeStock(sheet.materialId, by, (all) => addOffcut(all, { id: randomUUID(), width, height }));
      return { ...sheet, keptOffcut: { width, height } };
    });
  }

  private async change(
    runId: string,
    sheetId: string,
    change: (sheet: TakenSheet) => Promise<TakenSheet>,
  ): Promise<RunEntity> {
    const run = await this.runs.findOne({ where: { id: runId }, relations: { job: true } });
    const sheet = run?.taken.find((one) => one.sheetId === sheetId);
    if (!run || !sheet) throw notFound('sheet of this run');
    const changed = await change(sheet);
    run.taken = run.taken.map((one) => (one === sheet ? changed : one));
    await this.runs.update({ id: runId }, { taken: run.taken });
    return run;
  }
}

/** Whether a sheet that an earlier run took still lies on the bed for this one. */
function stillLies(earlier: readonly RunEntity[], run: RunEntity, { id, materialId }: Sheet): boolean {
  const last = earlier.findLastIndex(({ taken }) =>
    taken.some((one) => one.sheetId === id && one.materialId === materialId && !one.putBack),
  );
  if (last < 0) return false;
  return earlier.slice(last).every((one) => one.id === run.id || one.jobRunId !== run.jobRunId);
}
