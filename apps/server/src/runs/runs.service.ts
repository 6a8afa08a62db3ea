import { randomUUID } from 'node:crypto';
import { mkdir } from 'node:fs/promises';
import type { BlockedDetails, PlanWishDto, RunAnswer, StartRunDto } from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import { findRun, type JobDocument, type Run } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import { fromMachine, type Machine } from '@lambent/core/machine';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { HandService } from '../hand/hand.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { jobWithoutDrawing } from '../jobs/pack.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { ShopService } from '../shop/shop.service.ts';
import type { PackedJob } from '../work/tasks.ts';
import { WorkService } from '../work/work.service.ts';
import { RunFollower } from './run-follower.ts';
import { RunRecord } from './run-record.ts';
import { sheetsOn } from './stand-in-camera.ts';
import { programsIn, storedProgram } from './stored-program.ts';

/** A run of a job that is to be burnt. */
interface Wanted {
  readonly jobId: string;
  readonly version: number;
  readonly title: string;
  readonly job: PackedJob;
  /** Its settings, without what is drawn. */
  readonly document: JobDocument;
  readonly jobRun: Run;
}

/** Plans runs of jobs, and sends them to their machines. */
@Injectable()
export class RunsService implements OnModuleInit {
  private readonly folder = programsIn(config.dataFolder);
  /** By machine: whose sheets lie on it. */
  private readonly laidFor = new Map<string, string>();
  /** By machine: the job that is being made ready for it. */
  private readonly starting = new Map<string, string>();

  constructor(
    private readonly record: RunRecord,
    private readonly follower: RunFollower,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly links: MachineLinks,
    private readonly hand: HandService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
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
    const jobRun = expectRun(findRun(jobWithoutDrawing(job.settings).runs, run));
    const shop = await this.shop.everything();
    const head = this.headOf(shop.machines, jobWithoutDrawing(job.settings).machineId);
    return this.work.report({ job, shop, title, choice: { runId: jobRun.id, head } }, this.picture, signal);
  }

  /**
   * Plans a run of a saved version in a worker and sends it to its machine.
   * @param signal ends the planning where nobody waits for it any more
   * @throws PlainError 409 when the machine cannot take it, or a run of several is burnt already; 422 when a finding
   * blocks
   */
  async start(jobId: string, wish: StartRunDto, signal: AbortSignal): Promise<RunAnswer> {
    const { version, runId, again = false, early = false } = wish;
    const [{ title }, job] = await Promise.all([this.jobs.headOf(jobId), this.jobs.packed(jobId, version)]);
    const document = jobWithoutDrawing(job.settings);
    const { machineId, runs } = document;
    // By its id alone: what is burnt must not hang on two runs that bear one name.
    const jobRun = expectRun(runId === undefined ? runs[0] : runs.find(({ id }) => id === runId));
    if (runs.length > 1 && !again) await this.expectNotBurnt(jobId, jobRun);
    if (!early) await this.expectLaid(jobId, runs, jobRun);
    // Who sends a job has done with what the head does by hand.
    await this.hand.end(machineId);
    this.expectFree(machineId);
    this.starting.set(machineId, title);
    try {
      return await this.planAndSend({ jobId, version, title, job, document, jobRun }, signal);
    } finally {
      this.starting.delete(machineId);
    }
  }

  private async planAndSend(
    { jobId, version, title, job, document, jobRun }: Wanted,
    signal: AbortSignal,
  ): Promise<RunAnswer> {
    const { machineId } = document;
    const driver = this.links.get(machineId);
    const shop = await this.shop.everything();
    const id = randomUUID();
    const machine = shop.machines.find((entry) => entry.id === machineId);
    const head = this.headOf(shop.machines, machineId);
    const choice = { runId: jobRun.id, head };
    const task = { job, shop, title, folder: this.folder, runId: id, choice };
    const { program, findings } = await this.work.planToFile(task, this.picture, signal);
    if (!program) {
      const details: BlockedDetails = { findings: [...findings] };
      throw new PlainError(422, 'blocked', 'The checks found what must be mended before this job is burnt.', details);
    }
    const busy = driver.busy();
    if (busy) throw busy;
    if (machine && driver.camera && (jobRun.stock !== 'in place' || this.laidFor.get(machineId) !== jobId)) {
      await driver.camera.lay(sheetsOn(document, machine, shop.materials));
      this.laidFor.set(machineId, jobId);
    }
    const run = {
      id,
      jobId,
      version,
      jobRunId: jobRun.id,
      jobRunName: jobRun.name,
      machineId,
      status: 'running' as const,
      reason: null,
      startedAt: new Date(),
      endedAt: null,
      programHash: program.hash,
      lines: program.lines,
      doneLine: 0,
      plannedS: program.plannedS,
      machineS: 0,
      uses: { stock: jobRun.stock, sheets: document.sheets.filter((sheet) => program.sheetIds.includes(sheet.id)) },
      taken: [],
    };
    await this.writes.do('addRun', run);
    const answer = await this.record.answered(id);
    this.follower.guard(
      this.follower.follow({ ...run, title }, async () => driver.send(await storedProgram(this.folder, run))),
    );
    return answer;
  }

  /** Where the head of a machine stands, in bed mm; null where that is not known. */
  private headOf(machines: readonly Machine[], machineId: string): Point | null {
    const machine = machines.find(({ id }) => id === machineId);
    if (!machine || !this.links.knows(machineId)) return null;
    const { state, x, y } = this.links.state(machineId);
    return state === 'away' ? null : fromMachine(machine, x, y);
  }

  /** @throws PlainError 409 that names the run that is there, or that is being made ready */
  private expectFree(machineId: string): void {
    const { starting } = this;
    const title = starting.get(machineId) ?? this.follower.titleOn(machineId);
    const refusal = this.links.get(machineId).busy();
    if (refusal && (refusal.code !== 'machine-busy' || !title)) throw refusal;
    if (!title) return;
    const { state, reason } = this.links.get(machineId).status;
    const doing = starting.has(machineId) ? 'being made ready' : reason ? `${state}, ${reason}` : state;
    throw new PlainError(409, 'machine-busy', `The machine is not free: it has “${title}” (${doing}).`);
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

/** The run whose stock another one takes as it leaves it; null where there is none. */
function runBefore(runs: readonly Run[], run: Run): Run | null {
  return run.stock === 'fresh' ? null : (runs[runs.indexOf(run) - 1] ?? null);
}

/** @throws PlainError 404 where there is none */
function expectRun(run: Run | undefined): Run {
  if (!run) throw notFound('run of this job');
  return run;
}
