import type { MachineState, RunStatus } from '@lambent/contracts';
import { type Machine } from '@lambent/core/machine';
import { type MachineDriver, MachineRefusal, type ProgramEnd } from '@lambent/machines';
import { type BeforeApplicationShutdown, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { isErrand } from '../hand/hand-program.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { RunEntity } from './run.entities.ts';
import { RunRecord } from './run-record.ts';
import { type PackedPicture, pictureFrom } from './stand-in-camera.ts';
import { programsIn, storedProgram } from './stored-program.ts';

/** How often the record notes how far a run has come. */
const noteEveryMs = 2000;
/** The longest that the end of the server waits for machines to stand. */
const holdWithinMs = 2000;

/** A run that is on its way: the machine has it, or is to have it again. */
interface Under {
  readonly id: string;
  readonly title: string;
  notedAt: number;
  noted: RunStatus;
}

/** Follows runs on their machines to their end, and puts what becomes of them on record. */
@Injectable()
export class RunFollower implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly log = new Logger('Runs');
  /** By machine: the run that it has. */
  private readonly under = new Map<string, Under>();
  private closing = false;

  constructor(
    private readonly record: RunRecord,
    private readonly machines: MachinesService,
    private readonly links: MachineLinks,
    private readonly hub: EventHub,
    private readonly writes: WriteQueue,
  ) {}

  /** Runs that the server did not see the end of are taken up again: the machine is asked what it is doing. */
  async onApplicationBootstrap(): Promise<void> {
    this.hub.heard().subscribe((event) => event.type === 'machine' && this.hear(event.machine));
    const open = await this.record.unended();
    for (const run of open) this.guard(this.takeUp(run));
    for (const machineId of this.links.ids) this.guard(this.stopEnded(machineId));
    this.links.newLines.subscribe((machineId) => this.guard(this.stopEnded(machineId)));
  }

  /** Holds what runs, with the beam off, and puts that on record: a second start offers to go on. */
  async beforeApplicationShutdown(): Promise<void> {
    this.closing = true;
    await this.links.close(holdWithinMs);
    for (const [machineId, { id }] of this.under) {
      const { line, runS } = this.links.get(machineId).status;
      const progress = { status: 'held', reason: 'Lambent was ended', doneLine: line, machineS: runS } as const;
      await this.writes.do('noteRun', id, progress).catch((error) => this.log.error(error.message));
    }
  }

  /** What a machine has, as far as is known: the title of its job. */
  titleOn(machineId: string): string | undefined {
    return this.under.get(machineId)?.title;
  }

  private async takeUp(run: RunEntity): Promise<void> {
    const driver = this.driverOf(run.machineId);
    await this.follow({ ...run, title: run.job.title }, async () => {
      if (!driver) return unseen(run, 'its machine is not the shop’s any more');
      let program: Awaited<ReturnType<typeof storedProgram>>;
      try {
        program = await storedProgram(programsIn(config.dataFolder), run);
      } catch {
        // What is there by now may be another’s, sent by another server.
        if ((await driver.askRun()) === run.id) await driver.stop();
        return unseen(run, 'its program is lost');
      }
      const end = await driver.takeUp(program);
      // A machine that has forgotten the run cannot say how far it was.
      return end.line > 0 ? end : { ...end, line: run.doneLine, runS: run.machineS };
    });
  }

  /** A machine that still has a run which is on record as ended is stopped, and one that was moved by hand. */
  private async stopEnded(machineId: string): Promise<void> {
    const driver = this.links.get(machineId);
    const id = await driver.askRun();
    if (!id || (driver.status.state !== 'running' && driver.status.state !== 'held')) return;
    if (isErrand(id) || (await this.record.isOver(id))) await driver.stop();
  }

  private driverOf(machineId: string): MachineDriver | null {
    return this.links.ids.includes(machineId) ? this.links.get(machineId) : null;
  }

  /** Follows a run to its end and puts that on record. @param send has the machine run it */
  async follow(
    { id, machineId, title, status: noted }: Pick<RunEntity, 'id' | 'machineId' | 'status'> & { title: string },
    send: () => Promise<ProgramEnd>,
  ): Promise<void> {
    this.under.set(machineId, { id, title, notedAt: performance.now(), noted });
    if (this.driverOf(machineId)) this.hear(this.links.state(machineId));
    let end: ProgramEnd;
    try {
      end = await send();
    } catch (error) {
      if (!(error instanceof MachineRefusal)) this.log.error(error);
      end = { status: 'refused', reason: (error as Error).message, line: 0, runS: 0 };
    }
    if (this.closing) return;
    const { status, reason, line, runS } = end;
    // The bed is looked at before anything else can be laid on it.
    const picture = await this.pictureOf(id, machineId);
    const progress = { status, reason, doneLine: line, machineS: runS };
    // Who reads the end may begin the next run at once.
    this.under.delete(machineId);
    await this.writes.insist('endRun', id, progress, picture);
    await this.record.answered(id);
  }

  /** Notes on record how far a run has come, whenever it is held or goes on, and else from time to time. */
  private hear({ machineId, runId, state, reason, line, runS }: MachineState): void {
    const under = this.under.get(machineId);
    if (!under || under.id !== runId || (state !== 'running' && state !== 'held') || this.closing) return;
    const now = performance.now();
    if (under.noted === state && now - under.notedAt < noteEveryMs) return;
    const changed = under.noted !== state;
    under.notedAt = now;
    under.noted = state;
    const noted = this.writes.do('noteRun', runId, { status: state, reason, doneLine: line, machineS: runS });
    this.guard(noted.then(() => (changed ? this.record.answered(runId) : undefined)));
  }

  /** What the machine shows of the bed; null where it shows nothing: a run is on record without, too. */
  private async pictureOf(id: string, machineId: string): Promise<PackedPicture | null> {
    const driver = this.driverOf(machineId);
    const machine: Machine | undefined = (await this.machines.list()).find((entry) => entry.id === machineId);
    if (!machine || !driver?.camera || driver.status.state === 'away') return null;
    try {
      return await pictureFrom(await driver.camera.look(), machine);
    } catch (error) {
      this.log.warn(`No picture of run ${id}: ${(error as Error).message}`);
      return null;
    }
  }

  /** What nobody waits for may fail without ending the process. */
  guard(work: Promise<unknown>): void {
    work.catch((error) => {
      if (!this.closing) this.log.error(error);
    });
  }
}

function unseen({ doneLine, machineS }: RunEntity, reason: string): ProgramEnd {
  return { status: 'broken off', reason, line: doneLine, runS: machineS };
}
