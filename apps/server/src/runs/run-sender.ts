import type { RunAnswer } from '@lambent/contracts';
import { type JobDocument, type Run, sheetsInRun } from '@lambent/core/document';
import type { Point } from '@lambent/core/geometry';
import { fromMachine, type Machine } from '@lambent/core/machine';
import type { RunBasis } from '@lambent/core/plan';
import type { Material } from '@lambent/core/recipes';
import type { ProgramEnd } from '@lambent/machines';
import { Injectable } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { HandService } from '../hand/hand.service.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { RunFollower } from './run-follower.ts';
import { RunRecord } from './run-record.ts';
import { sheetsOn } from './stand-in-camera.ts';
import { programsIn, storedProgram } from './stored-program.ts';

/** A program that is to be sent, and what stands on record of it. */
export interface ToSend {
  readonly id: string;
  readonly jobId: string;
  readonly version: number;
  readonly title: string;
  readonly document: JobDocument;
  readonly jobRun: Run;
  readonly program: { readonly hash: string; readonly lines: number; readonly plannedS: number };
  /** The sheets that it burns on. */
  readonly sheetIds: readonly string[];
  readonly basis: RunBasis | null;
  readonly by: string | null;
  /** The run of whose program this is the rest. */
  readonly after: { readonly runId: string; readonly fromLine: number } | null;
}

/** How a run ends that was stopped before its machine had any of it. */
const stoppedBefore: ProgramEnd = { status: 'stopped', reason: 'stopped by hand before it began', line: 0, runS: 0 };

/** Sends programs to machines, each as a run that is on record and followed to its end. */
@Injectable()
export class RunSender {
  private readonly folder = programsIn(config.dataFolder);
  /** By machine: whose sheets lie on it. */
  private readonly laidFor = new Map<string, string>();
  /** By machine: the job that is being made ready for it. */
  private readonly starting = new Map<string, string>();

  constructor(
    private readonly record: RunRecord,
    private readonly follower: RunFollower,
    private readonly links: MachineLinks,
    private readonly hand: HandService,
    private readonly writes: WriteQueue,
  ) {}

  /**
   * Keeps a machine for a job while that is made ready. What its head does by hand ends.
   * @param work given what is aborted when the machine is told to stop meanwhile.
   * @throws PlainError 409 that names the run that is there, or that is being made ready; 409 where it was stopped.
   */
  async claim<T>(machineId: string, title: string, work: (stopped: AbortSignal) => Promise<T>): Promise<T> {
    await this.hand.end(machineId);
    this.expectFree(machineId);
    const stopped = this.links.stopSignal(machineId);
    this.starting.set(machineId, title);
    this.links.tellHand(machineId, { makingReady: title });
    try {
      return await work(stopped);
    } catch (error) {
      throw stopped.aborted ? refusedStopped(title) : error;
    } finally {
      this.starting.delete(machineId);
      this.links.tellHand(machineId, { makingReady: null });
    }
  }

  /**
   * Puts a run on record and has it burnt; its end is not waited for.
   * @param stopped aborted when the machine was told to stop since it was claimed. The run does not begin then.
   * @throws MachineRefusal where it cannot be taken.
   * @throws PlainError 409 where it was stopped before it was put on record.
   */
  async send(
    wanted: ToSend,
    machine: Machine | undefined,
    materials: readonly Material[],
    stopped: AbortSignal,
  ): Promise<RunAnswer> {
    const { id, jobId, version, title, document, jobRun, program, sheetIds, basis, by, after } = wanted;
    if (stopped.aborted) throw refusedStopped(title);
    const { machineId } = document;
    const driver = this.links.get(machineId);
    const busy = driver.busy();
    if (busy) throw busy;
    const isFresh = jobRun.stock !== 'in place' && after === null;
    if (machine && driver.camera && (isFresh || this.laidFor.get(machineId) !== jobId)) {
      await driver.camera.lay(sheetsOn(sheetsInRun(document, jobRun), machine, materials));
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
      // What goes on lies on the sheets that are there.
      uses: {
        stock: after ? ('in place' as const) : jobRun.stock,
        sheets: sheetsInRun(document, jobRun).filter((sheet) => sheetIds.includes(sheet.id)),
      },
      by,
      basis,
      afterRunId: after?.runId ?? null,
      fromLine: after?.fromLine ?? null,
      taken: [],
    };
    await this.writes.do('addRun', run);
    const answer = await this.record.answered(id);
    this.follower.guard(
      this.follower.follow({ ...run, title }, async () => {
        const stored = await storedProgram(this.folder, run);
        return stopped.aborted ? stoppedBefore : driver.send(stored);
      }),
    );
    return answer;
  }

  /** Where the head of a machine stands, in bed mm; null where that is not known. */
  headOf(machine: Machine | undefined): Point | null {
    if (!machine || !this.links.knows(machine.id)) return null;
    const { state, x, y } = this.links.state(machine.id);
    return state === 'away' ? null : fromMachine(machine, x, y);
  }

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
}

function refusedStopped(title: string): PlainError {
  return new PlainError(409, 'stopped', `“${title}” was stopped before it was sent: nothing of it burns.`);
}
