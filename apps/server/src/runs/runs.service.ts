import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type {
  BlockedDetails,
  BurntPictureAnswer,
  OffcutDto,
  PutBackDto,
  RunAnswer,
  StartRunDto,
} from '@lambent/contracts';
import { fromMachine, jobFromJson, type Machine, type Run } from '@lambent/core';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { EventHub } from '../common/event-hub.ts';
import { config } from '../config.ts';
import { BurntPictureEntity, RunEntity } from '../data/entities.ts';
import { ShopService } from '../data/shop.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import type { MachineLink } from '../machines/machine-link.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { WorkService } from '../work/work.service.ts';
import { pictureFrom, sheetsWord } from './stand-in-camera.ts';
import { StockBooking } from './stock-booking.ts';

@Injectable()
export class RunsService implements OnApplicationBootstrap {
  private readonly folder = join(config.dataFolder, 'programs');
  private readonly log = new Logger('Runs');
  /** By machine: whose sheets lie on it. */
  private readonly laidFor = new Map<string, string>();

  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    @InjectRepository(BurntPictureEntity) private readonly pictures: Repository<BurntPictureEntity>,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly links: MachineLinks,
    private readonly work: WorkService,
    private readonly hub: EventHub,
    private readonly stock: StockBooking,
  ) {}

  /** Runs that were under way when the server last went down did not reach their end under its eyes. */
  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    await this.runs.update(
      { status: 'running' },
      { status: 'broken off', reason: 'the server went down while it ran', endedAt: new Date() },
    );
  }

  async list(jobId?: string): Promise<RunAnswer[]> {
    const rows = await this.runs.find({
      where: jobId ? { jobId } : {},
      relations: { job: true },
      order: { startedAt: 'DESC' },
      take: 100,
    });
    const pictured = await this.pictures.find({
      select: { runId: true },
      where: { runId: In(rows.map(({ id }) => id)) },
    });
    const seen = new Set(pictured.map(({ runId }) => runId));
    return rows.map((row) => answerOf(row, row.job.title, seen.has(row.id)));
  }

  async putBack(id: string, { sheetId, by }: PutBackDto): Promise<RunAnswer> {
    return this.answered(await this.stock.putBack(id, sheetId, by));
  }

  async keepOffcut(id: string, wanted: OffcutDto): Promise<RunAnswer> {
    return this.answered(await this.stock.keepOffcut(id, wanted));
  }

  private async answered(run: RunEntity): Promise<RunAnswer> {
    const answer = answerOf(run, run.job.title, await this.pictures.existsBy({ runId: run.id }));
    this.hub.say({ type: 'run', run: answer });
    return answer;
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
   * Plans a run of a saved version in a worker and sends it to its machine.
   * @throws PlainError 409 when the machine cannot take it, or a run of several is burnt already; 422 when a finding
   * blocks
   */
  async start(jobId: string, { version, runId, again = false }: StartRunDto): Promise<RunAnswer> {
    const [title, job, shop] = await Promise.all([
      this.jobs.titleOf(jobId),
      this.jobs.packed(jobId, version),
      this.shop.everything(),
    ]);
    const document = jobFromJson({ ...job.settings, drawing: { items: [], groups: [] } });
    const { machineId, runs } = document;
    const jobRun = runId === undefined ? runs[0] : runs.find((one) => one.id === runId);
    if (!jobRun) throw notFound('run of this job');
    if (runs.length > 1 && !again) await this.expectNotBurnt(jobId, jobRun);
    const link = this.links.get(machineId);
    link.expectIdle();
    const id = randomUUID();
    const machine = shop.machines.find((one) => one.id === machineId);
    const head = machine ? fromMachine(machine, link.state.x, link.state.y) : null;
    const { program, findings } = await this.work.planToFile({
      job,
      shop,
      title,
      folder: this.folder,
      runId: id,
      choice: { runId: jobRun.id, head },
    });
    if (!program) {
      const details: BlockedDetails = { findings: [...findings] };
      throw new PlainError(422, 'blocked', 'The checks found what must be mended before this job is burnt.', details);
    }
    const run = this.runs.create({
      id,
      jobId,
      version,
      jobRunId: jobRun.id,
      jobRunName: jobRun.name,
      machineId,
      status: 'running',
      reason: null,
      startedAt: new Date(),
      endedAt: null,
      programHash: program.hash,
      lines: program.lines,
      doneLine: 0,
      plannedS: program.plannedS,
      machineS: 0,
      taken: [],
    });
    link.expectIdle();
    if (machine && (jobRun.stock !== 'in place' || this.laidFor.get(machineId) !== jobId)) {
      await link.lay(sheetsWord(document, machine, shop.materials));
      this.laidFor.set(machineId, jobId);
    }
    await this.runs.insert(run);
    this.say(run, title);
    const used = document.sheets.filter(({ id }) => program.sheetIds.includes(id));
    const end = () => this.stock.take(run, jobRun, used, shop.materials, title);
    void this.follow(run, title, link, machine ?? null, end);
    return answerOf(run, title);
  }

  /** Of several runs on one piece of stock, one that is burnt would spoil what is there. */
  private async expectNotBurnt(jobId: string, { id, name }: Run): Promise<void> {
    const done = await this.runs.findOne({
      where: { jobId, jobRunId: id, status: 'done' },
      order: { startedAt: 'DESC' },
    });
    if (!done) return;
    const when = done.startedAt.toISOString().slice(0, 16).replace('T', ' ');
    throw new PlainError(
      409,
      'burnt-already',
      `${name} is on record as burnt (${when} UTC). Burnt again, it burns over what is there: lay fresh stock first.`,
    );
  }

  /** @param takeStock takes what the run used, once it has ended */
  private async follow(
    run: RunEntity,
    title: string,
    link: MachineLink,
    machine: Machine | null,
    takeStock: () => Promise<RunEntity['taken']>,
  ): Promise<void> {
    const file = createReadStream(join(this.folder, `${run.programHash}.gcode`));
    const lines = createInterface({ input: file, crlfDelay: Number.POSITIVE_INFINITY });
    try {
      const { status, reason } = await link.send(run.id, lines);
      run.status = status;
      run.reason = reason;
    } catch (error) {
      run.status = 'refused';
      run.reason = (error as Error).message;
    }
    run.endedAt = new Date();
    run.doneLine = link.state.line;
    run.machineS = link.state.runS;
    // The bed is looked at before anything else can be laid on it.
    const pictured = machine !== null && (await this.takePicture(run, link, machine));
    run.taken = await takeStock();
    await this.runs.save(run);
    this.say(run, title, pictured);
  }

  /** Keeps what the machine shows of the bed. @returns whether it shows anything; a run is on record without, too */
  private async takePicture({ id }: RunEntity, link: MachineLink, machine: Machine): Promise<boolean> {
    if (link.state.state === 'away') return false;
    try {
      const picture = await pictureFrom(await link.look(), machine);
      if (picture) await this.pictures.insert({ runId: id, ...picture });
      return picture !== null;
    } catch (error) {
      this.log.warn(`No picture of run ${id}: ${(error as Error).message}`);
      return false;
    }
  }

  private say(run: RunEntity, title: string, pictured = false): void {
    this.hub.say({ type: 'run', run: answerOf(run, title, pictured) });
  }
}

function answerOf(run: RunEntity, jobTitle: string, hasPicture = false): RunAnswer {
  const { id, jobId, version, jobRunId, jobRunName, machineId, status } = run;
  const { reason, programHash, lines, doneLine, plannedS, machineS, taken } = run;
  return {
    id,
    jobId,
    jobTitle,
    version,
    jobRunId,
    jobRunName,
    machineId,
    status,
    reason,
    startedAt: run.startedAt.toISOString(),
    endedAt: run.endedAt?.toISOString() ?? null,
    programHash,
    lines,
    doneLine,
    plannedS,
    machineS,
    hasPicture,
    taken,
  };
}
