import type { VersionAnswer } from '@lambent/contracts';
import { IsNull, Not } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { expectPartsFree } from '../sharing/parts-in-place.ts';
import { DrawingEntity, DrawingPictureEntity, JobEntity, OriginalEntity, VersionEntity } from './job.entities.ts';
import { summarise } from './job-summary.ts';
import type { PackedVersion } from './pack.ts';

/*
 * Every change of jobs.
 */

/** A file as it was brought in. */
export type Original = Pick<OriginalEntity, 'name' | 'format' | 'sha256'> & { readonly bytes: Uint8Array };

/** Puts a whole job on the Desk. */
export async function addJob(
  writing: Writing,
  job: { readonly id: string; readonly title: string; readonly project: string },
  version: PackedVersion,
  edit: string,
  originals: readonly Original[] = [],
): Promise<void> {
  const updatedAt = new Date();
  const changed = await nextChange(writing);
  await writing.insert(JobEntity, { ...job, version: 1, updatedAt, stateSince: updatedAt, changed });
  await insertVersion(writing, job.id, 1, edit, updatedAt, version);
  for (const original of originals) await keepOriginal(writing, job.id, original);
  await summarise(writing, job.id);
}

/**
 * Saves a new version on top of `base`.
 * @throws PlainError 409 when `base` is no longer the last version
 */
export async function saveVersion(
  writing: Writing,
  id: string,
  base: number,
  edit: string,
  version: PackedVersion,
): Promise<VersionAnswer> {
  const job = await writing.findOneBy(JobEntity, { id });
  if (!job) throw notFound('job');
  if (job.deletedAt) {
    throw new PlainError(
      409,
      'job-deleted',
      'This job was deleted in another window. Keep what is here as a job of its own, or take the deleted one back on the Desk.',
      { latest: job.version },
    );
  }
  if (job.version !== base) {
    throw new PlainError(
      409,
      'saved-elsewhere',
      'This job was changed in another window since it was opened here. Nothing was overwritten: open that version, or keep this one as a job of its own.',
      { latest: job.version },
    );
  }
  const number = base + 1;
  const savedAt = new Date();
  await insertVersion(writing, id, number, edit, savedAt, version);
  await writing.update(JobEntity, { id }, { version: number, updatedAt: savedAt, changed: await nextChange(writing) });
  await summarise(writing, id);
  return { number, edit, savedAt: savedAt.toISOString() };
}

/** Saves a version that a file was read into, with the file as it was brought in. @throws as `saveVersion` does */
export async function bringIn(
  writing: Writing,
  id: string,
  base: number,
  edit: string,
  { settings, ...version }: PackedVersion,
  original: Original,
): Promise<VersionAnswer> {
  const originalId = await keepOriginal(writing, id, original);
  const { length } = settings.arrivals;
  const arrivals = settings.arrivals.map((arrival, i) => (i === length - 1 ? { ...arrival, originalId } : arrival));
  return saveVersion(writing, id, base, edit, { ...version, settings: { ...settings, arrivals } });
}

/** What a job is called, what it belongs to, and until when it is wanted: a day such as 2026-12-24, or null for none. */
export type JobDescription = Pick<JobEntity, 'title' | 'project' | 'wantedBy'>;

/** Describes a job; what is left out stays. @throws PlainError 404 where there is no such job */
export async function describeJob(writing: Writing, id: string, what: Partial<JobDescription>): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id });
  if (!job) throw notFound('job');
  const { title = job.title, project = job.project, wantedBy = job.wantedBy } = what;
  await writing.update(JobEntity, { id }, { title, project, wantedBy });
  await summarise(writing, id);
}

/**
 * Makes a version of a job for another machine. What was changed by hand was for the one before: it goes.
 * @returns the number of the version
 * @throws PlainError 404 where there is no such job
 */
export async function setMachineOfJob(writing: Writing, id: string, machineId: string): Promise<number> {
  const job = await writing.findOneBy(JobEntity, { id, deletedAt: IsNull() });
  const version = job && (await writing.findOneBy(VersionEntity, { jobId: id, number: job.version }));
  if (!version) throw notFound('job');
  const { settings, drawingHash } = version;
  const number = job.version + 1;
  const savedAt = new Date();
  const moved = { ...settings, machineId, settings: {} };
  await writing.insert(VersionEntity, {
    jobId: id,
    number,
    edit: 'Change machine',
    savedAt,
    settings: moved,
    drawingHash,
  });
  await writing.update(JobEntity, { id }, { version: number, updatedAt: savedAt, changed: await nextChange(writing) });
  await summarise(writing, id);
  return number;
}

/** Makes a job of the last version of another, with the files that it came from. @throws PlainError 404 where there is none */
export async function duplicateJob(writing: Writing, id: string, copyId: string, title: string): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id, deletedAt: IsNull() });
  const version = job && (await writing.findOneBy(VersionEntity, { jobId: id, number: job.version }));
  if (!version) throw notFound('job');
  const { settings, drawingHash } = version;
  const now = new Date();
  const changed = await nextChange(writing);
  await writing.insert(JobEntity, {
    id: copyId,
    title,
    project: job.project,
    version: 1,
    updatedAt: now,
    stateSince: now,
    changed,
  });
  const edit = `Duplicate of ${job.title}`.slice(0, 120);
  const originals = new Map<number, number>();
  for (const original of await writing.find(OriginalEntity, { where: { jobId: id } }))
    originals.set(original.id, await keepOriginal(writing, copyId, fileOf(original)));
  // Where its drawings came from are files of its own.
  const arrivals = settings.arrivals.map((arrival) => ({
    ...arrival,
    originalId: arrival.originalId === null ? null : (originals.get(arrival.originalId) ?? null),
  }));
  await writing.insert(VersionEntity, {
    jobId: copyId,
    number: 1,
    edit,
    savedAt: now,
    settings: { ...settings, arrivals },
    drawingHash,
  });
  await summarise(writing, copyId);
}

function fileOf({ name, format, sha256, bytes }: OriginalEntity): Original {
  return { name, format, sha256, bytes };
}

/** Takes a job off the Desk; it can be taken back until it is thinned out (thinning.writes.ts). */
export async function deleteJob(writing: Writing, id: string): Promise<void> {
  const { affected } = await writing.update(JobEntity, { id, deletedAt: IsNull() }, { deletedAt: new Date() });
  if (!affected) throw notFound('job');
}

/**
 * Takes a deleted job back.
 * @throws PlainError 404 when it is not among the deleted ones any more
 * @throws PlainError 409 where it is a shared one, and what lies on its sheets is burnt, or lies elsewhere by now
 */
export async function takeJobBack(writing: Writing, id: string): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id, deletedAt: Not(IsNull()) });
  if (!job || !(await writing.existsBy(VersionEntity, { jobId: id, number: job.version })))
    throw notFound('deleted job');
  await expectPartsFree(writing, id);
  await writing.update(JobEntity, { id }, { deletedAt: null, changed: await nextChange(writing) });
}

/** Keeps a file that was brought into a job. @returns its id */
export async function keepOriginal(writing: Writing, jobId: string, original: Original): Promise<number> {
  if (!(await writing.existsBy(JobEntity, { id: jobId }))) throw notFound('job');
  const row = { ...original, bytes: Buffer.from(original.bytes), jobId, addedAt: new Date() };
  const { identifiers } = await writing.insert(OriginalEntity, row);
  await summarise(writing, jobId);
  return Number(identifiers[0].id);
}

/** The number of the change that is being made: one more than that of the last. Clocks can be set back; this cannot. */
async function nextChange(writing: Writing): Promise<number> {
  const [{ last }] = (await writing.query('SELECT coalesce(max(changed), 0) AS last FROM jobs')) as [{ last: number }];
  return last + 1;
}

async function insertVersion(
  writing: Writing,
  jobId: string,
  number: number,
  edit: string,
  savedAt: Date,
  { settings, drawing, pictureIds }: PackedVersion,
): Promise<void> {
  const { hash } = drawing;
  if (!(await writing.existsBy(DrawingEntity, { hash }))) {
    await writing.insert(DrawingEntity, { ...drawing, json: Buffer.from(drawing.json) });
    for (const pictureId of pictureIds) await writing.insert(DrawingPictureEntity, { drawingHash: hash, pictureId });
  }
  await writing.insert(VersionEntity, { jobId, number, edit, savedAt, settings, drawingHash: hash });
}
