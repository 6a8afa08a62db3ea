import { createHash, randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import type {
  CreateJobDto,
  DeletedJob,
  DescribeJobDto,
  DrawingTaken,
  ReadDrawingDto,
  VersionAnswer,
} from '@lambent/contracts';
import { newJob } from '@lambent/core/document';
import { setSheet } from '@lambent/core/edits';
import { sniffFormat } from '@lambent/core/formats';
import { sheetAsStocked } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import { isoOf } from '../common/stored-time.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { EventHub } from '../events/event-hub.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { deletedDays } from '../thinning/thinning-rule.ts';
import type { PackedJob } from '../work/tasks.ts';
import { WorkService } from '../work/work.service.ts';
import { JobEntity, OriginalEntity, VersionEntity } from './job.entities.ts';
import type { Original } from './jobs.writes.ts';
import { type PackedVersion, packJob } from './pack.ts';

const unzip = promisify(gunzip);

/** As much of a file's name is kept. */
export const longestName = 200;

@Injectable()
export class JobsService {
  constructor(
    @InjectRepository(JobEntity) private readonly jobs: Repository<JobEntity>,
    @InjectRepository(VersionEntity) private readonly versions: Repository<VersionEntity>,
    @InjectRepository(OriginalEntity) private readonly originals: Repository<OriginalEntity>,
    private readonly shop: ShopService,
    private readonly settings: SettingsService,
    private readonly work: WorkService,
    private readonly writes: WriteQueue,
    private readonly hub: EventHub,
  ) {}

  /** Whether there is a job on the Desk. */
  hasAny(): Promise<boolean> {
    return this.jobs.existsBy({ deletedAt: IsNull() });
  }

  /** The jobs that were deleted and can be taken back, the last one first. */
  async deleted(): Promise<DeletedJob[]> {
    const rows: { id: string; title: string; deletedAt: string }[] = await this.jobs.query(
      `SELECT jobs.id, jobs.title, jobs.deletedAt FROM jobs
       JOIN versions ON versions.jobId = jobs.id AND versions.number = jobs.version
       WHERE jobs.deletedAt IS NOT NULL ORDER BY jobs.deletedAt DESC, jobs.changed DESC`,
    );
    return rows.map(({ id, title, deletedAt }) => {
      const time = new Date(isoOf(deletedAt));
      const goneAt = new Date(time.getTime() + deletedDays * 86_400_000);
      return { id, title, deletedAt: time.toISOString(), goneAt: goneAt.toISOString() };
    });
  }

  /**
   * A new job with nothing drawn, on a machine of the shop: under its first key and without a sheet where nothing else is
   * said.
   * @returns its id
   */
  async create({ title, project = '', machineId, keyId, materialId }: CreateJobDto): Promise<string> {
    const { machines, keys, materials } = await this.shop.everything();
    const machine = known(machines, machineId, 'machine');
    const key = keyId === undefined ? keys[0] : known(keys, keyId, 'colour key');
    const { lengthUnit: unit } = await this.settings.get();
    const job = { ...newJob(machine.id, key.id), unit };
    if (materialId === undefined) return this.add(title, project, packJob(job), 'New job');
    const sheet = sheetAsStocked('sheet-1', known(materials, materialId, 'material'), machine);
    return this.add(title, project, packJob(setSheet(job, sheet)), 'New job');
  }

  /**
   * Reads a drawing into a job, as a version of its own with the file beside it.
   * @throws PlainError 409 when `base` is no longer the last version, 415 or 422 when the file cannot be read
   */
  async readDrawing(id: string, wanted: ReadDrawingDto, bytes: Buffer): Promise<DrawingTaken> {
    const { name = 'drawing', base, page, dashes, layers, scale = 1 } = wanted;
    const file = name.slice(0, longestName);
    const original = originalFile(file, bytes);
    const from = base ?? (await this.find(id)).version;
    const { version, pictures, taken } = await this.work.bringIn({
      job: await this.packed(id, from),
      bytes,
      file,
      arrivalId: randomUUID().slice(0, 8),
      choices: { ...(page ? { page } : {}), ...(dashes ? { dashes } : {}), ...(layers ? { layers } : {}) },
      scale,
      keys: (await this.shop.everything()).keys,
    });
    for (const picture of pictures) await this.writes.do('keepPicture', picture);
    const { number } = await this.writes.do('bringIn', id, from, `Bring in ${file}`.slice(0, 120), version, original);
    this.hub.say({ type: 'job', jobId: id, version: number });
    return { version: number, ...taken };
  }

  /** Puts a whole job on the Desk, with the files it came from. @returns its id */
  async add(
    title: string,
    project: string,
    version: PackedVersion,
    edit: string,
    originals: readonly Original[] = [],
  ): Promise<string> {
    const id = randomUUID();
    await this.writes.do('addJob', { id, title, project }, version, edit, originals);
    return id;
  }

  /** Keeps a document as a job of its own beside the one it came from. @returns its id */
  async copy(id: string, title: string, document: Uint8Array): Promise<string> {
    const { project } = await this.find(id);
    return this.add(title, project, await this.pack(document), 'Copy');
  }

  /** Makes a job of another one, as it is. @returns its id */
  async duplicate(id: string, title: string): Promise<string> {
    const copyId = randomUUID();
    await this.writes.do('duplicateJob', id, copyId, title);
    return copyId;
  }

  /** Describes a job; what is left out stays, and a day that is empty is none. */
  async describe(id: string, { wantedBy, ...what }: DescribeJobDto): Promise<void> {
    const day = wantedBy === undefined ? {} : { wantedBy: wantedBy || null };
    await this.writes.do('describeJob', id, { ...what, ...day });
    this.hub.say({ type: 'desk', jobId: id });
  }

  delete(id: string): Promise<void> {
    return this.writes.do('deleteJob', id);
  }

  takeBack(id: string): Promise<void> {
    return this.writes.do('takeJobBack', id);
  }

  /**
   * A job as of a version, by default its last, as the JSON of a `JobAnswer` in UTF-8: the drawing, which may be large,
   * goes from the database to the page without being parsed on the way.
   */
  async answer(id: string, number?: number): Promise<Buffer> {
    const { title, project, updatedAt, version: last } = await this.find(id);
    const { number: version, settings, drawing } = await this.version(id, number ?? last);
    const head = JSON.stringify({ id, title, project, version, updatedAt }).slice(0, -1);
    const start = `${head},"document":${JSON.stringify({ ...unnumbered, ...settings }).slice(0, -1)},"drawing":`;
    return Buffer.concat([Buffer.from(start), await unzip(drawing.json), Buffer.from('}}')]);
  }

  /** @returns its title, and the number of its last version */
  async headOf(id: string): Promise<{ title: string; version: number }> {
    const { title, version } = await this.find(id);
    return { title, version };
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
    const saved = await this.writes.do('saveVersion', id, base, edit, packed);
    this.hub.say({ type: 'job', jobId: id, version: saved.number });
    return saved;
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
    const original = originalFile(name, bytes);
    return { id: await this.writes.do('keepOriginal', id, original), sha256: original.sha256 };
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

/** One of the shop's, by its id. @throws PlainError 400 that names those that it has */
function known<T extends { readonly id: string }>(all: readonly T[], id: string, what: string): T {
  const found = all.find((entry) => entry.id === id);
  if (found) return found;
  const has = all.map((entry) => entry.id).join(', ');
  throw new PlainError(400, `no-such-${what.replace(' ', '-')}`, `The shop has no ${what} “${id}”; it has ${has}.`);
}

/** A file as it is kept. @throws PlainError 415 when it is none that drawings come in */
export function originalFile(name: string, bytes: Buffer): Original {
  const format = sniffFormat(bytes);
  if (typeof format !== 'string') throw new PlainError(415, 'not-a-drawing', `${name}: ${format.refusal}`);
  return { name, format, sha256: createHash('sha256').update(bytes).digest('hex'), bytes };
}

/** Documents that were stored before they had a version. */
const unnumbered = { version: 0 };
