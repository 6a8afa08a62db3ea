import { createHash, randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import type { JobCard, VersionAnswer } from '@lambent/contracts';
import { newJob, sniffFormat } from '@lambent/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { type EntityManager, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { DrawingEntity, JobEntity, OriginalEntity, RunEntity, VersionEntity } from '../data/entities.ts';
import { type PackedVersion, packJob } from '../data/pack.ts';
import { ShopService } from '../data/shop.service.ts';
import { WorkService } from '../work/work.service.ts';
import type { PackedJob } from '../work/worker.ts';

const unzip = promisify(gunzip);

@Injectable()
export class JobsService {
  constructor(
    @InjectRepository(JobEntity) private readonly jobs: Repository<JobEntity>,
    @InjectRepository(VersionEntity) private readonly versions: Repository<VersionEntity>,
    @InjectRepository(OriginalEntity) private readonly originals: Repository<OriginalEntity>,
    @InjectRepository(RunEntity) private readonly runs: Repository<RunEntity>,
    private readonly shop: ShopService,
    private readonly work: WorkService,
  ) {}

  /** Every job, last changed first. */
  async cards(): Promise<JobCard[]> {
    const jobs = await this.jobs.find({ order: { updatedAt: 'DESC' } });
    return Promise.all(
      jobs.map(async (job): Promise<JobCard> => {
        const version = await this.versions.findOneOrFail({
          select: { id: true, settings: true, drawingHash: true, drawing: { hash: true, itemCount: true } },
          where: { jobId: job.id, number: job.version },
          relations: { drawing: true },
        });
        const lastRun = await this.runs.findOne({ where: { jobId: job.id }, order: { startedAt: 'DESC' } });
        return {
          id: job.id,
          title: job.title,
          project: job.project,
          version: job.version,
          updatedAt: job.updatedAt.toISOString(),
          machineId: version.settings.machineId,
          materialId: version.settings.sheets[0]?.materialId ?? null,
          itemCount: version.drawing.itemCount,
          lastRun: lastRun && { status: lastRun.status, endedAt: lastRun.endedAt?.toISOString() ?? null },
        };
      }),
    );
  }

  /** A new job with nothing drawn, on a machine of the shop and under its first key. @returns its id */
  async create(title: string, project: string, machineId: string): Promise<string> {
    const { machines, keys } = await this.shop.everything();
    if (!machines.some(({ id }) => id === machineId)) {
      throw new PlainError(400, 'no-such-machine', `The shop has no machine “${machineId}”.`);
    }
    return this.add(title, project, packJob(newJob(machineId, keys[0].id)), 'New job');
  }

  /** Puts a whole job on the Desk. @returns its id */
  async add(title: string, project: string, version: PackedVersion, edit: string): Promise<string> {
    const job = this.jobs.create({ id: randomUUID(), title, project, version: 1, updatedAt: new Date() });
    await this.jobs.manager.transaction(async (manager) => {
      await manager.insert(JobEntity, job);
      await insertVersion(manager, job.id, 1, edit, version);
    });
    return job.id;
  }

  /** Keeps a document as a job of its own beside the one it came from. @returns its id */
  async copy(id: string, title: string, document: Uint8Array): Promise<string> {
    const { project } = await this.find(id);
    return this.add(title, project, await this.pack(document), 'Copy');
  }

  async rename(id: string, title: string): Promise<void> {
    const { affected } = await this.jobs.update({ id }, { title });
    if (!affected) throw notFound('job');
  }

  /**
   * A job as of a version, by default its last, as the JSON text of a `JobAnswer`: the drawing, which may
   * be large, goes from the database to the page without being parsed on the way.
   */
  async answer(id: string, number?: number): Promise<string> {
    const { title, project, updatedAt, version: last } = await this.find(id);
    const { number: version, settings, drawing } = await this.version(id, number ?? last);
    const drawingText = (await unzip(drawing.json)).toString('utf8');
    const head = JSON.stringify({ id, title, project, version, updatedAt }).slice(0, -1);
    return `${head},"document":${JSON.stringify(settings).slice(0, -1)},"drawing":${drawingText}}}`;
  }

  async titleOf(id: string): Promise<string> {
    return (await this.find(id)).title;
  }

  /** A version with its drawing still packed, for a worker. */
  async packed(id: string, number: number): Promise<PackedJob> {
    const { settings, drawing } = await this.version(id, number);
    return { settings, drawingJson: drawing.json };
  }

  /**
   * Saves a new version on top of `base`.
   * @throws PlainError 409 when `base` is no longer the last version: nothing is saved then
   */
  async save(id: string, base: number, edit: string, document: Uint8Array): Promise<VersionAnswer> {
    const packed = await this.pack(document);
    return this.jobs.manager.transaction(async (manager) => {
      const job = await manager.findOneBy(JobEntity, { id });
      if (!job) throw notFound('job');
      if (job.version !== base) {
        throw new PlainError(
          409,
          'saved-elsewhere',
          'This job was changed in another window since it was opened here. Nothing was overwritten: open that version, or keep this one as a job of its own.',
          { latest: job.version },
        );
      }
      const number = base + 1;
      const savedAt = await insertVersion(manager, id, number, edit, packed);
      await manager.update(JobEntity, { id }, { version: number, updatedAt: savedAt });
      return { number, edit, savedAt: savedAt.toISOString() };
    });
  }

  async history(id: string): Promise<VersionAnswer[]> {
    await this.find(id);
    const rows = await this.versions.find({
      select: { id: true, number: true, edit: true, savedAt: true },
      where: { jobId: id },
      order: { number: 'DESC' },
      take: 200,
    });
    return rows.map(({ number, edit, savedAt }) => ({ number, edit, savedAt: savedAt.toISOString() }));
  }

  /** Keeps a file that was brought in. @throws PlainError 415 when it is not what its place here needs */
  async keepOriginal(id: string, name: string, bytes: Buffer): Promise<{ id: number; sha256: string }> {
    await this.find(id);
    const format = sniffFormat(bytes);
    if (typeof format !== 'string') throw new PlainError(415, 'not-a-drawing', `${name}: ${format.refusal}`);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const saved = await this.originals.save({ jobId: id, name, format, sha256, bytes, addedAt: new Date() });
    return { id: saved.id, sha256 };
  }

  async original(jobId: string, id: number): Promise<Buffer> {
    const original = await this.originals.findOneBy({ jobId, id });
    if (!original) throw notFound('file of this job');
    return original.bytes;
  }

  private async pack(document: Uint8Array): Promise<PackedVersion> {
    const result = await this.work.packDocument(document);
    if ('packed' in result) return result.packed;
    throw new PlainError(400, 'not-a-job', `What was sent is not a job: ${result.trouble}.`);
  }

  private async find(id: string): Promise<JobEntity> {
    const job = await this.jobs.findOneBy({ id });
    if (!job) throw notFound('job');
    return job;
  }

  private async version(jobId: string, number: number): Promise<VersionEntity> {
    const version = await this.versions.findOne({ where: { jobId, number }, relations: { drawing: true } });
    if (!version) throw notFound('version of this job');
    return version;
  }
}

async function insertVersion(
  manager: EntityManager,
  jobId: string,
  number: number,
  edit: string,
  { settings, drawing }: PackedVersion,
): Promise<Date> {
  const savedAt = new Date();
  const row = { ...drawing, json: Buffer.from(drawing.json) };
  await manager.createQueryBuilder().insert().into(DrawingEntity).values(row).orIgnore().execute();
  await manager.insert(VersionEntity, { jobId, number, edit, savedAt, settings, drawingHash: drawing.hash });
  return savedAt;
}
