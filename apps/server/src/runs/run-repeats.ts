import { randomUUID } from 'node:crypto';
import type { AgainDto, ChangedSinceDetails, GoOnDto, RunAnswer } from '@lambent/contracts';
import { findRun, type JobDocument, type Run } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import { basisChanges, takesSamePrograms } from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { PicturesService } from '../files/pictures.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { jobWithoutDrawing } from '../jobs/pack.ts';
import { ShopService } from '../shop/shop.service.ts';
import type { PackedJob } from '../work/tasks.ts';
import { WorkService } from '../work/work.service.ts';
import type { RunEntity } from './run.entities.ts';
import { RunRecord } from './run-record.ts';
import { RunSender, type ToSend } from './run-sender.ts';
import { programsIn } from './stored-program.ts';

/** The version, the run and the machine that a record is of. */
interface Burnt {
  readonly job: PackedJob;
  /** Without what is drawn. */
  readonly document: JobDocument;
  readonly jobRun: Run;
  /** Missing where it is not the shop's any more. */
  readonly machine: Machine | undefined;
  readonly shop: Pick<Shop, 'machines' | 'keys' | 'materials'>;
}

/** Burns runs of the record once more: whole, or from one of their lines on. */
@Injectable()
export class RunRepeats {
  private readonly folder = programsIn(config.dataFolder);

  constructor(
    private readonly record: RunRecord,
    private readonly sender: RunSender,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly work: WorkService,
    private readonly pictures: PicturesService,
  ) {}

  /**
   * Sends the very program of a run once more. It is planned anew to find out whether it would be the same by now.
   * @throws PlainError 404 where there is no such run, 409 with what has changed since, or where the machine is not free
   */
  async again(id: string, { asItWas = false, by }: AgainDto, signal: AbortSignal): Promise<RunAnswer> {
    const run = await this.endedRun(id);
    const burnt = await this.whatItBurnt(run);
    return this.sender.claim(run.machineId, run.job.title, async (stopped) => {
      const newId = randomUUID();
      const changes = await this.changesSince(run, burnt, newId, AbortSignal.any([signal, stopped]));
      const mayBurn = isForMachine(run, burnt.machine);
      if (changes.length > 0 && !(asItWas && mayBurn)) {
        const details: ChangedSinceDetails = { changes, mayBurn };
        throw new PlainError(409, 'changed-since', 'Not all is as it was when this run was burnt.', details);
      }
      const { programHash: hash, lines, plannedS, afterRunId, fromLine } = run;
      const after = afterRunId && fromLine ? { runId: afterRunId, fromLine } : null;
      return this.send(run, burnt, { id: newId, program: { hash, lines, plannedS }, after, by: by ?? null }, stopped);
    });
  }

  /**
   * Burns the rest of a run that was stopped or broken off, from one of its lines on: its stock lies where it lay.
   * @throws PlainError 400 where it has no such line, 404 where there is no such run
   * @throws PlainError 409 where its machine is another by now, or not free
   */
  async goOn(id: string, { fromLine, by }: GoOnDto): Promise<RunAnswer> {
    const run = await this.endedRun(id);
    const burnt = await this.whatItBurnt(run);
    const { machine } = burnt;
    if (!machine || !isForMachine(run, machine)) {
      const words = 'The machine is another by now than it was for this run: it cannot go on with it.';
      throw new PlainError(409, 'other-machine', words);
    }
    return this.sender.claim(run.machineId, run.job.title, async (stopped) => {
      const newId = randomUUID();
      const task = { folder: this.folder, hash: run.programHash, runId: newId, fromLine, machine };
      const { hash, lines, seconds } = await this.work.continueToFile(task);
      const program = { hash, lines, plannedS: seconds };
      return this.send(run, burnt, { id: newId, program, after: { runId: id, fromLine }, by: by ?? null }, stopped);
    });
  }

  /** What is other by now than when a run was planned, a sentence each; none where the same program would come of it. */
  private async changesSince(run: RunEntity, burnt: Burnt, newId: string, signal: AbortSignal): Promise<string[]> {
    const { job, jobRun, machine, shop } = burnt;
    const title = run.basis?.title ?? run.job.title;
    const head = run.basis?.head ?? this.sender.headOf(machine);
    const task = { job, shop, title, folder: this.folder, runId: newId, choice: { runId: jobRun.id, head } };
    const picture = async (pictureId: string) => (await this.pictures.get(pictureId)).bytes;
    const { program, findings } = await this.work.planToFile(task, picture, signal);
    if (program?.hash === run.programHash) return [];
    if (!program) return findings.flatMap(({ level, message }) => (level === 'blocks' ? [message] : []));
    const changes = run.basis ? basisChanges(run.basis, program.basis) : [];
    // The rest of a run has another program than the whole.
    const isRest = run.afterRunId !== null && run.basis !== null;
    return changes.length > 0 || isRest ? changes : ['Lambent plans this version otherwise by now.'];
  }

  private send(
    run: RunEntity,
    { document, jobRun, machine, shop }: Burnt,
    what: Pick<ToSend, 'id' | 'program' | 'after' | 'by'>,
    stopped: AbortSignal,
  ): Promise<RunAnswer> {
    const { jobId, version, job, basis, uses } = run;
    const sheetIds = uses?.sheets.map((sheet) => sheet.id) ?? [];
    const wanted = { ...what, jobId, version, title: job.title, document, jobRun, sheetIds, basis };
    return this.sender.send(wanted, machine, shop.materials, stopped);
  }

  /** @throws PlainError 404 where there is none, 409 where it has not ended */
  private async endedRun(id: string): Promise<RunEntity> {
    const run = await this.record.row(id);
    if (run.endedAt) return run;
    throw new PlainError(409, 'run-goes-on', 'This run has not ended yet. Stop it first.');
  }

  /** The version, the run and the machine that a record is of. @throws PlainError 404 where they are gone */
  private async whatItBurnt(run: RunEntity): Promise<Burnt> {
    const job = await this.jobs.packed(run.jobId, run.version);
    const document = { ...jobWithoutDrawing(job.settings), machineId: run.machineId };
    const jobRun: Run | undefined = findRun(document.runs, run.jobRunId);
    if (!jobRun) throw notFound('run of this job');
    const shop = await this.shop.everything();
    const machine = shop.machines.find((entry) => entry.id === run.machineId);
    return { job, document, jobRun, machine, shop };
  }
}

/** Whether a run's program means on a machine what it meant then. */
function isForMachine({ basis }: RunEntity, machine: Machine | undefined): boolean {
  return machine !== undefined && basis !== null && takesSamePrograms(basis.machine, machine);
}
