import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { BlockedDetails, RunAnswer } from '@lambent/contracts';
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { EventHub } from '../common/event-hub.ts';
import { config } from '../config.ts';
import { RunEntity } from '../data/entities.ts';
import { ShopService } from '../data/shop.service.ts';
import { JobsService } from '../jobs/jobs.service.ts';
import type { MachineLink } from '../machines/machine-link.ts';
import { MachineLinks } from '../machines/machine-links.ts';
import { WorkService } from '../work/work.service.ts';

@Injectable()
export class RunsService implements OnApplicationBootstrap {
  private readonly folder = join(config.dataFolder, 'programs');

  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    private readonly jobs: JobsService,
    private readonly shop: ShopService,
    private readonly links: MachineLinks,
    private readonly work: WorkService,
    private readonly hub: EventHub,
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
    return rows.map((row) => answerOf(row, row.job.title));
  }

  async programPath(id: string): Promise<string> {
    const run = await this.runs.findOneBy({ id });
    if (!run) throw notFound('run');
    return join(this.folder, `${run.programHash}.gcode`);
  }

  /**
   * Plans a saved version in a worker and sends it to its machine.
   * @throws PlainError 409 when the machine cannot take it, 422 when a finding blocks
   */
  async start(jobId: string, version: number): Promise<RunAnswer> {
    const [title, job, shop] = await Promise.all([
      this.jobs.titleOf(jobId),
      this.jobs.packed(jobId, version),
      this.shop.everything(),
    ]);
    const { machineId } = job.settings;
    const link = this.links.get(machineId);
    link.expectIdle();
    const id = randomUUID();
    const { program, findings } = await this.work.planToFile({ job, shop, title, folder: this.folder, runId: id });
    if (!program) {
      const details: BlockedDetails = { findings: [...findings] };
      throw new PlainError(422, 'blocked', 'The checks found what must be mended before this job is burnt.', details);
    }
    const run = this.runs.create({
      id,
      jobId,
      version,
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
    });
    link.expectIdle();
    await this.runs.insert(run);
    this.say(run, title);
    void this.follow(run, title, link);
    return answerOf(run, title);
  }

  private async follow(run: RunEntity, title: string, link: MachineLink): Promise<void> {
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
    await this.runs.save(run);
    this.say(run, title);
  }

  private say(run: RunEntity, title: string): void {
    this.hub.say({ type: 'run', run: answerOf(run, title) });
  }
}

function answerOf(run: RunEntity, jobTitle: string): RunAnswer {
  const { id, jobId, version, machineId, status, reason, programHash, lines, doneLine, plannedS, machineS } = run;
  return {
    id,
    jobId,
    jobTitle,
    version,
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
  };
}
