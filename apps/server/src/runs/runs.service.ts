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
import { EventHub } from '../common/event-hub.ts';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { BurntPictureEntity, RunEntity } from '../data/entities.ts';
import { ShopService } from '../data/shop.service.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import type { MachineLink, ProgramEnd } from '../machines/machine-link.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { WorkService } from '../work/work.service.ts';
import { type PackedPicture, pictureFrom, sheetsWord } from './stand-in-camera.ts';

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
    private readonly writes: WriteQueue,
  ) {}

  /** Runs that were under way when the server last went down did not reach their end under its eyes. */
  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    for (const { id, doneLine, machineS } of await this.runs.findBy({ status: 'running' })) {
      const reason = 'the server went down while it ran';
      await this.writes.do('endRun', id, { status: 'broken off', reason, doneLine, machineS }, null);
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

  async putBack(id: string, { sheetId, by }: PutBackDto): Promise<RunAnswer> {
    await this.writes.do('putBackSheet', id, sheetId, by);
    return this.answered(id);
  }

  async keepOffcut(id: string, wanted: OffcutDto): Promise<RunAnswer> {
    await this.writes.do('keepOffcut', id, { ...wanted });
    return this.answered(id);
  }

  /** A run as it is on record now; also told to whoever listens. */
  private async answered(id: string): Promise<RunAnswer> {
    const run = await this.runs.findOne({ where: { id }, relations: { job: true } });
    if (!run) throw notFound('run');
    const answer = answerOf(run, run.job.title, await this.pictures.existsBy({ runId: id }));
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
    const sheets = document.sheets.filter(({ id }) => program.sheetIds.includes(id));
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
      uses: { stock: jobRun.stock, sheets },
      taken: [],
    };
    link.expectIdle();
    if (machine && (jobRun.stock !== 'in place' || this.laidFor.get(machineId) !== jobId)) {
      await link.lay(sheetsWord(document, machine, shop.materials));
      this.laidFor.set(machineId, jobId);
    }
    await this.writes.do('addRun', run);
    const answer = await this.answered(id);
    this.follow(answer, link, machine ?? null).catch((error) => this.log.error(error));
    return answer;
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

  private async follow({ id, programHash }: RunAnswer, link: MachineLink, machine: Machine | null): Promise<void> {
    const file = createReadStream(join(this.folder, `${programHash}.gcode`));
    const lines = createInterface({ input: file, crlfDelay: Number.POSITIVE_INFINITY });
    let end: ProgramEnd;
    try {
      end = await link.send(id, lines);
    } catch (error) {
      end = { status: 'refused', reason: (error as Error).message };
    }
    const progress = { ...end, doneLine: link.state.line, machineS: link.state.runS };
    // The bed is looked at before anything else can be laid on it.
    const picture = machine && (await this.pictureOf(id, link, machine));
    const { notTaken } = await this.writes.insist('endRun', id, progress, picture);
    for (const why of notTaken) this.log.warn(`A sheet was not taken from stock. ${why}`);
    await this.answered(id);
  }

  /** What the machine shows of the bed; null where it shows nothing: a run is on record without, too. */
  private async pictureOf(id: string, link: MachineLink, machine: Machine): Promise<PackedPicture | null> {
    if (link.state.state === 'away') return null;
    try {
      return await pictureFrom(await link.look(), machine);
    } catch (error) {
      this.log.warn(`No picture of run ${id}: ${(error as Error).message}`);
      return null;
    }
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
