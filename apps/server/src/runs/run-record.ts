import {
  type BurntPictureAnswer,
  isToBurn,
  type OffcutDto,
  type PutBackDto,
  type RunAnswer,
  type RunsWishDto,
} from '@lambent/contracts';
import type { RunBasis } from '@lambent/core/plan';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { filter, lastValueFrom, take, takeUntil, timer } from 'rxjs';
import { In, IsNull, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { keptTime } from '../common/stored-time.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { sharedPlaceOf } from '../sharing/parts-in-place.ts';
import { BurntPictureEntity, RunEntity } from './run.entities.ts';
import { answerOf } from './run-answer.ts';
import { programFile } from './stored-program.ts';

/** As many runs are answered at a time. */
const mostRuns = 100;

/** The record of runs: what was burnt, when, from which version, and how it came out. */
@Injectable()
export class RunRecord {
  constructor(
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    @InjectRepository(BurntPictureEntity) private readonly pictures: Repository<BurntPictureEntity>,
    private readonly hub: EventHub,
    private readonly writes: WriteQueue,
  ) {}

  /** Those that are asked for, the newest first, a hundred at most. */
  async list({ job, title, material, machine, from, until }: RunsWishDto): Promise<RunAnswer[]> {
    const wanted = this.runs.createQueryBuilder('run').innerJoinAndSelect('run.job', 'job');
    if (job) wanted.andWhere('run.jobId = :job', { job });
    if (title) wanted.andWhere("lower(job.title) LIKE :title ESCAPE '\\'", { title: holding(title) });
    if (machine) wanted.andWhere('run.machineId = :machine', { machine });
    if (material) {
      const named = "lower(json_extract(layer.value, '$.material')) LIKE :material ESCAPE '\\'";
      wanted.andWhere(`EXISTS (SELECT 1 FROM json_each(run.basis, '$.layers') layer WHERE ${named})`, {
        material: holding(material),
      });
    }
    if (from) wanted.andWhere('run.startedAt >= :from', { from: keptTime(from) });
    if (until) wanted.andWhere('run.startedAt < :until', { until: keptTime(until) });
    const rows = await wanted.orderBy('run.sequence', 'DESC').take(mostRuns).getMany();
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
    return programFile(config.dataFolder, run.programHash);
  }

  private async find(id: string): Promise<RunAnswer> {
    const run = await this.row(id);
    return answerOf(run, run.job.title, await this.pictures.existsBy({ runId: id }));
  }

  /** A run as it is on record now; also told to whoever listens. */
  async answered(id: string): Promise<RunAnswer> {
    const answer = await this.find(id);
    this.hub.say({ type: 'run', run: answer });
    return answer;
  }

  /** A run as it is kept, with its job. @throws PlainError 404 where there is none */
  async row(id: string): Promise<RunEntity> {
    const run = await this.runs.findOne({ where: { id }, relations: { job: true } });
    if (!run) throw notFound('run');
    return run;
  }

  /** What a run was planned by. @throws PlainError 404 where there is none on record */
  async basis(id: string): Promise<RunBasis> {
    const { basis } = await this.row(id);
    if (!basis) throw notFound('basis of this run');
    return basis;
  }

  /** Those that have not ended, with their jobs. */
  unended(): Promise<RunEntity[]> {
    return this.runs.find({ where: { endedAt: IsNull() }, relations: { job: true } });
  }

  /** @returns whether a run is on record, and over */
  async isOver(id: string): Promise<boolean> {
    const run = await this.runs.findOneBy({ id });
    return run !== null && run.endedAt !== null;
  }

  /** @throws PlainError 409 where a job lies on sheets with others: it burns with them */
  async expectAlone(jobId: string): Promise<void> {
    const shared = await sharedPlaceOf(this.runs, jobId);
    if (!shared || !isToBurn(shared.state)) return;
    throw new PlainError(
      409,
      'burns-together',
      `This job is burnt together with others, as “${shared.title}”. Burn that, or delete it to burn them alone.`,
    );
  }

  /** When one of a job's runs was burnt to its end last; null where it was not. */
  async lastBurnt(jobId: string, jobRunId: string): Promise<Date | null> {
    const where = { jobId, jobRunId, status: 'done' as const };
    return (await this.runs.findOne({ where, order: { sequence: 'DESC' } }))?.startedAt ?? null;
  }
}

/** A pattern of texts that hold another, in large or small letters. */
function holding(text: string): string {
  return `%${text.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;
}
