import { randomUUID } from 'node:crypto';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import type {
  BlockedDetails,
  BurntPictureAnswer,
  MachineState,
  OffcutDto,
  PlanWishDto,
  PutBackDto,
  RunAnswer,
  RunStatus,
  StartRunDto,
} from '@lambent/contracts';
import type { Report } from '@lambent/core/checks';
import { findRun, type JobDocument, type Run } from '@lambent/core/document';
import { fromMachine, type Machine } from '@lambent/core/machine';
import { type MachineDriver, MachineRefusal, type ProgramEnd } from '@lambent/machines';
import { type BeforeApplicationShutdown, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { filter, lastValueFrom, take, takeUntil, timer } from 'rxjs';
import { In, IsNull, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import { jobWithoutDrawing } from '../jobs/pack.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import type { PackedJob } from '../work/tasks.ts';
import { WorkService } from '../work/work.service.ts';
import { BurntPictureEntity, RunEntity } from './run.entities.ts';
import { answerOf } from './run-answer.ts';
import { type PackedPicture, pictureFrom, sheetsOn } from './stand-in-camera.ts';
import { storedProgram } from './stored-program.ts';

/** How often the record notes how far a run has come. */
const noteEveryMs = 2000;
/** The longest that the end of the server waits for machines to stand. */
const holdWithinMs = 2000;

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

/** A run that is on its way: the machine has it, or is to have it again. */
interface Under {
  readonly id: string;
  readonly title: string;
  notedAt: number;
  noted: RunStatus;
}

@Injectable()
export class RunsService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly folder = join(config.dataFolder, 'programs');
  private readonly log = new Logger('Runs');
  /** By machine: whose sheets lie on it. */
  private readonly laidFor = new Map<string, string>();
  /** By machine: the job that is being made ready for it. */
  private readonly starting = new Map<string, string>();
  /** By machine: the run that it has. */
  private readonly under = new Map<string, Under>();
  private closing = false;

  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    @InjectRepository(BurntPictureEntity) private readonly pictures: Repository<BurntPictureEntity>,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly machines: MachinesService,
    private readonly links: MachineLinks,
    private readonly work: WorkService,
    private readonly hub: EventHub,
    private readonly writes: WriteQueue,
  ) {}

  /** Runs that the server did not see the end of are taken up again: the machine is asked what it is doing. */
  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    this.hub.heard().subscribe((event) => event.type === 'machine' && this.hear(event.machine));
    const open = await this.runs.find({ where: { endedAt: IsNull() }, relations: { job: true } });
    for (const run of open) this.guard(this.takeUp(run));
    for (const machineId of this.links.ids) this.guard(this.stopEnded(machineId));
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

  async list(jobId?: string): Promise<RunAnswer[]> {
    const rows = await this.runs.find({
      where: jobId ? { jobId } : {},
      relations: { job: true },
      order: { sequence: 'DESC' },
      take: 100,
    });
    const pictured = await this.pictures.find({
      select: { runId: true },
      where: { runId: In(rows.map(({ id }) => id)) },
    });
    const seen = new Set(pictured.map(({ runId }) => runId));
    return rows.map((row) => answerOf(row, row.job.title, seen.has(row.id)));
  }

  /**
   * A run, once it has ended or was waited for long enough.
   * @param wait how long, in seconds
   * @throws PlainError 404 where there is none
   */
  async get(id: string, wait: number): Promise<RunAnswer> {
    const ended = this.hub.heard().pipe(
      filter((event) => event.type === 'run' && event.run.id === id && event.run.endedAt !== null),
      take(1),
      takeUntil(timer(wait * 1000)),
    );
    // Listens before it looks: an end in between is not missed.
    const over = lastValueFrom(ended, { defaultValue: null });
    const run = await this.find(id);
    if (run.endedAt || wait === 0) return run;
    await over;
    return this.find(id);
  }

  async putBack(id: string, { sheetId, by }: PutBackDto): Promise<RunAnswer> {
    await this.writes.do('putBackSheet', id, sheetId, by);
    return this.answered(id);
  }

  async keepOffcut(id: string, wanted: OffcutDto): Promise<RunAnswer> {
    await this.writes.do('keepOffcut', id, { ...wanted });
    return this.answered(id);
  }

  /** @throws PlainError 404 where there is none */
  async picture(id: string): Promise<BurntPictureAnswer> {
    const row = await this.pictures.findOneBy({ runId: id });
    if (!row) throw notFound('picture of this run');
    const { runId: _, codes, ...place } = row;
    return { ...place, codes: codes.toString('base64'), simulated: true };
  }

  async programPath(id: string): Promise<string> {
    const run = await this.runs.findOneBy({ id });
    if (!run) throw notFound('run');
    return join(this.folder, `${run.programHash}.gcode`);
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
    return this.work.report({ job, shop, title, choice: { runId: jobRun.id } }, signal);
  }

  /**
   * Plans a run of a saved version in a worker and sends it to its machine.
   * @param signal ends the planning where nobody waits for it any more
   * @throws PlainError 409 when the machine cannot take it, or a run of several is burnt already; 422 when a finding
   * blocks
   */
  async start(jobId: string, { version, runId, again = false }: StartRunDto, signal: AbortSignal): Promise<RunAnswer> {
    const [{ title }, job] = await Promise.all([this.jobs.headOf(jobId), this.jobs.packed(jobId, version)]);
    const document = jobWithoutDrawing(job.settings);
    const { machineId, runs } = document;
    // By its id alone: what is burnt must not hang on two runs that bear one name.
    const jobRun = expectRun(runId === undefined ? runs[0] : runs.find(({ id }) => id === runId));
    if (runs.length > 1 && !again) await this.expectNotBurnt(jobId, jobRun);
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
    const machine = shop.machines.find((one) => one.id === machineId);
    const head = machine ? fromMachine(machine, driver.status.x, driver.status.y) : null;
    const choice = { runId: jobRun.id, head };
    const task = { job, shop, title, folder: this.folder, runId: id, choice };
    const { program, findings } = await this.work.planToFile(task, signal);
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
    const answer = await this.answered(id);
    this.guard(this.follow({ ...run, title }, async () => driver.send(await storedProgram(this.folder, run))));
    return answer;
  }

  /** @throws PlainError 409 that names the run that is there, or that is being made ready */
  private expectFree(machineId: string): void {
    const { starting, under } = this;
    const title = starting.get(machineId) ?? under.get(machineId)?.title;
    const refusal = this.links.get(machineId).busy();
    if (refusal && (refusal.code !== 'machine-busy' || !title)) throw refusal;
    if (!title) return;
    const { state, reason } = this.links.get(machineId).status;
    const doing = starting.has(machineId) ? 'being made ready' : reason ? `${state}, ${reason}` : state;
    throw new PlainError(409, 'machine-busy', `The machine is not free: it has “${title}” (${doing}).`);
  }

  /** Of several runs on one piece of stock, one that is burnt would spoil what is there. */
  private async expectNotBurnt(jobId: string, { id, name }: Run): Promise<void> {
    const done = await this.runs.findOne({
      where: { jobId, jobRunId: id, status: 'done' },
      order: { sequence: 'DESC' },
    });
    if (!done) return;
    const when = done.startedAt.toISOString().slice(0, 16).replace('T', ' ');
    throw new PlainError(
      409,
      'burnt-already',
      `${name} is on record as burnt (${when} UTC). Burnt again, it burns over what is there: lay fresh stock first.`,
    );
  }

  private async takeUp(run: RunEntity): Promise<void> {
    const driver = this.driverOf(run.machineId);
    await this.follow({ ...run, title: run.job.title }, async () => {
      if (!driver) return unseen(run, 'its machine is not the shop’s any more');
      let program: Awaited<ReturnType<typeof storedProgram>>;
      try {
        program = await storedProgram(this.folder, run);
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

  /** A machine that still has a run which is on record as ended is stopped. */
  private async stopEnded(machineId: string): Promise<void> {
    const driver = this.links.get(machineId);
    const id = await driver.askRun();
    if (!id || (driver.status.state !== 'running' && driver.status.state !== 'held')) return;
    const run = await this.runs.findOneBy({ id });
    if (run?.endedAt) await driver.stop();
  }

  private driverOf(machineId: string): MachineDriver | null {
    return this.links.ids.includes(machineId) ? this.links.get(machineId) : null;
  }

  /** Follows a run to its end and puts that on record. @param send has the machine run it */
  private async follow(
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
    await this.writes.insist('endRun', id, progress, picture);
    this.under.delete(machineId);
    await this.answered(id);
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
    this.guard(noted.then(() => (changed ? this.answered(runId) : undefined)));
  }

  /** What the machine shows of the bed; null where it shows nothing: a run is on record without, too. */
  private async pictureOf(id: string, machineId: string): Promise<PackedPicture | null> {
    const driver = this.driverOf(machineId);
    const machine: Machine | undefined = (await this.machines.list()).find((one) => one.id === machineId);
    if (!machine || !driver?.camera || driver.status.state === 'away') return null;
    try {
      return await pictureFrom(await driver.camera.look(), machine);
    } catch (error) {
      this.log.warn(`No picture of run ${id}: ${(error as Error).message}`);
      return null;
    }
  }

  private async find(id: string): Promise<RunAnswer> {
    const run = await this.runs.findOne({ where: { id }, relations: { job: true } });
    if (!run) throw notFound('run');
    return answerOf(run, run.job.title, await this.pictures.existsBy({ runId: id }));
  }

  /** A run as it is on record now; also told to whoever listens. */
  private async answered(id: string): Promise<RunAnswer> {
    const answer = await this.find(id);
    this.hub.say({ type: 'run', run: answer });
    return answer;
  }

  /** What nobody waits for may fail without ending the process. */
  private guard(work: Promise<unknown>): void {
    work.catch((error) => {
      if (!this.closing) this.log.error(error);
    });
  }
}

function unseen({ doneLine, machineS }: RunEntity, reason: string): ProgramEnd {
  return { status: 'broken off', reason, line: doneLine, runS: machineS };
}

/** @throws PlainError 404 where there is none */
function expectRun(run: Run | undefined): Run {
  if (!run) throw notFound('run of this job');
  return run;
}
