import { randomUUID } from 'node:crypto';
import { mkdir } from 'node:fs/promises';
import type {
  BlockedDetails,
  NextRunAnswer,
  PlanWishDto,
  RunAnswer,
  StartRunDto,
  StockToLay,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import { findRun, type Run, runBefore, sheetsInRun } from '@lambent/core/document';
import { stockOf } from '@lambent/core/recipes';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { jobWithoutDrawing } from '../jobs/pack.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import { RunRecord } from './run-record.ts';
import { RunSender } from './run-sender.ts';
import { programsIn } from './stored-program.ts';

/** Plans runs of jobs, and has them sent to their machines. */
@Injectable()
export class RunsService implements OnModuleInit {
  private readonly folder = programsIn(config.dataFolder);

  constructor(
    private readonly record: RunRecord,
    private readonly sender: RunSender,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly work: WorkService,
    private readonly pictures: PicturesService,
  ) {}

  /** The file of a picture that a plan burns. */
  private readonly picture = async (id: string) => (await this.pictures.get(id)).bytes;

  async onModuleInit(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
  }

  /**
   * What a run of a job would do: its layers, times and findings.
   * @param wanted the last version and the first run where none is named
   * @param signal ends the planning where nobody waits for it any more
   * @throws PlainError 404 where there is no such job, version or run
   */
  async plan(jobId: string, { version, run }: PlanWishDto, signal: AbortSignal): Promise<Report> {
    const { title, version: last } = await this.jobs.headOf(jobId);
    const job = await this.jobs.packed(jobId, version ?? last);
    const { machineId, runs } = jobWithoutDrawing(job.settings);
    const jobRun = expectRun(findRun(runs, run));
    const shop = await this.shop.everything();
    const head = this.sender.headOf(shop.machines.find(({ id }) => id === machineId));
    return this.work.report({ job, shop, title, choice: { runId: jobRun.id, head } }, this.picture, signal);
  }

  /** The run of a job that is burnt next, and what is to lie on the bed for it. @throws PlainError 404 where there is no such job */
  async next(jobId: string): Promise<NextRunAnswer> {
    const { version } = await this.jobs.headOf(jobId);
    const [{ settings }, { materials }] = await Promise.all([this.jobs.packed(jobId, version), this.shop.everything()]);
    const document = jobWithoutDrawing(settings);
    const burnt = await Promise.all(document.runs.map(({ id }) => this.record.lastBurnt(jobId, id)));
    const run = expectRun(document.runs.find((_, i) => !burnt[i]) ?? document.runs[0]);
    const sheets = new Map<string, StockToLay>();
    for (const sheet of sheetsInRun(document, run)) {
      const material = materials.find(({ id }) => id === sheet.materialId);
      const { width, height } = sheet;
      const stocked = stockOf(material?.stock, sheet);
      const kind = [sheet.materialId, stocked?.id, width, height].join(' ');
      const name = material ? `${material.name} ${material.thicknessMm} mm` : 'a material that is gone from the book';
      const pieces = (sheets.get(kind)?.pieces ?? 0) + 1;
      sheets.set(kind, { name, width, height, pieces, inStock: stocked?.count ?? null });
    }
    return { version, runId: run.id, runName: run.name, stock: run.stock, sheets: [...sheets.values()] };
  }

  /**
   * Plans a run of a saved version in a worker and sends it to its machine.
   * @param signal ends the planning where nobody waits for it any more
   * @throws PlainError 409 when the machine cannot take it, or the job burns with others
   * @throws PlainError 409 when a run of several is burnt already, or the one before it is not; 422 when a finding blocks
   */
  async start(jobId: string, wish: StartRunDto, signal: AbortSignal): Promise<RunAnswer> {
    const { version, runId, again = false, early = false, by = null } = wish;
    await this.record.expectAlone(jobId);
    const [{ title }, job] = await Promise.all([this.jobs.headOf(jobId), this.jobs.packed(jobId, version)]);
    const document = jobWithoutDrawing(job.settings);
    const { machineId, runs } = document;
    // By its id alone: what is burnt must not hang on two runs that bear one name.
    const jobRun = expectRun(runId === undefined ? runs[0] : runs.find(({ id }) => id === runId));
    if (runs.length > 1 && !again) await this.expectNotBurnt(jobId, jobRun);
    if (!early) await this.expectLaid(jobId, runs, jobRun);
    return this.sender.claim(machineId, title, async (stopped) => {
      const shop = await this.shop.everything();
      const id = randomUUID();
      const machine = shop.machines.find((entry) => entry.id === machineId);
      const choice = { runId: jobRun.id, head: this.sender.headOf(machine) };
      const task = { job, shop, title, folder: this.folder, runId: id, choice };
      const { program, findings } = await this.work.planToFile(task, this.picture, AbortSignal.any([signal, stopped]));
      if (!program) {
        const details: BlockedDetails = { findings: [...findings] };
        throw new PlainError(422, 'blocked', 'The checks found what must be mended before this job is burnt.', details);
      }
      const { sheetIds, basis } = program;
      const run = { id, jobId, version, title, document, jobRun, program, sheetIds, basis, by, after: null };
      return this.sender.send(run, machine, shop.materials, stopped);
    });
  }

  /** A run on stock that is left in place, or turned over, needs that stock to have been burnt before. */
  private async expectLaid(jobId: string, runs: readonly Run[], run: Run): Promise<void> {
    const before = runBefore(runs, run);
    if (!before || (await this.record.lastBurnt(jobId, before.id))) return;
    throw new PlainError(
      409,
      'not-burnt-before',
      `${run.name} takes the stock as ${before.name} leaves it, and ${before.name} was not burnt yet. Burn ${before.name} first, or say that the stock lies there already.`,
    );
  }

  /** Of several runs on one piece of stock, one that is burnt would spoil what is there. */
  private async expectNotBurnt(jobId: string, { id, name }: Run): Promise<void> {
    const burnt = await this.record.lastBurnt(jobId, id);
    if (!burnt) return;
    const when = burnt.toISOString().slice(0, 16).replace('T', ' ');
    throw new PlainError(
      409,
      'burnt-already',
      `${name} is on record as burnt (${when} UTC). Burnt again, it burns over what is there: lay fresh stock first.`,
    );
  }
}

/** @throws PlainError 404 where there is none */
function expectRun(run: Run | undefined): Run {
  if (!run) throw notFound('run of this job');
  return run;
}
