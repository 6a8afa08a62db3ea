import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { RunEntity } from '../runs/run.entities.ts';

const firstMs = 60_000;
const everyMs = 6 * 3_600_000;
/** A program is written before its run is on record; a day is long enough for that. */
const freshMs = 86_400_000;

/** Thins out what nothing refers to: soon after the start, and every six hours. The rule is in docs/reliability.md. */
@Injectable()
export class ThinningService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('Thinning');
  private timer: NodeJS.Timeout | null = null;

  constructor(
    @InjectRepository(JobEntity) private readonly jobs: Repository<JobEntity>,
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    private readonly writes: WriteQueue,
  ) {}

  onApplicationBootstrap(): void {
    this.plan(firstMs);
  }

  onApplicationShutdown(): void {
    if (this.timer) clearTimeout(this.timer);
  }

  private plan(ms: number): void {
    this.timer = setTimeout(() => {
      this.thin(new Date())
        .catch((error) => this.log.warn(`Nothing was thinned: ${(error as Error).message}`))
        .finally(() => this.plan(everyMs));
    }, ms);
    this.timer.unref();
  }

  private async thin(now: Date): Promise<void> {
    let versions = 0;
    for (const { id, deletedAt } of await this.jobs.find({ select: { id: true, deletedAt: true } })) {
      versions += await this.writes.do(deletedAt ? 'endDeletedJob' : 'thinVersions', id, now);
    }
    const drawings = await this.writes.do('dropDrawings');
    const pictures = await this.writes.do('dropPictures', now);
    const programs = await this.dropPrograms(now);
    const drafts = await this.writes.do('dropDrafts', now);
    await this.writes.do('dropMails', now);
    if (drafts > 0) this.log.log(`Dropped ${drafts} sendings that were begun and not sent in.`);
    const bytes = drawings.bytes + pictures.bytes + programs.bytes;
    if (versions + drawings.count + pictures.count + programs.count === 0) return;
    this.log.log(
      `Freed ${(bytes / 1e6).toFixed(1)} MB: ${versions} versions, ${drawings.count} drawings, ${pictures.count} pictures, ${programs.count} programs.`,
    );
  }

  /** Deletes programs of no run, and those that were never finished. */
  private async dropPrograms(now: Date): Promise<{ count: number; bytes: number }> {
    const folder = join(config.dataFolder, 'programs');
    const used = new Set(
      (await this.runs.find({ select: { id: true, programHash: true } })).map((run) => run.programHash),
    );
    const freed = { count: 0, bytes: 0 };
    for (const name of await readdir(folder).catch(() => [])) {
      const { size, mtimeMs } = await stat(join(folder, name));
      if (used.has(name.split('.')[0]) || now.getTime() - mtimeMs < freshMs) continue;
      await rm(join(folder, name));
      freed.bytes += size;
      if (name.endsWith('.gcode')) freed.count++;
    }
    return freed;
  }
}
