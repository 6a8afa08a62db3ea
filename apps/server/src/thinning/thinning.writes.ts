import { LessThan } from 'typeorm';
import type { Writing } from '../data/writing.ts';
import { PictureEntity } from '../files/file.entities.ts';
import { JobEntity, VersionEntity } from '../jobs/job.entities.ts';
import { RunEntity } from '../runs/run.entities.ts';
import { deletedDays, versionsToThin } from './thinning-rule.ts';

/*
 * What nothing refers to any more goes. One short write for each job, so that no save waits for long.
 */

/** A picture is sent before the drawing that shows it; a day is long enough for that. */
const freshMs = 86_400_000;

/** Thins the versions of a job by the rule; its last and those that runs burnt stay. @returns how many went */
export async function thinVersions(writing: Writing, jobId: string, now: Date): Promise<number> {
  const versions = await writing.find(VersionEntity, {
    select: { id: true, number: true, savedAt: true },
    where: { jobId },
  });
  const runs = await writing.find(RunEntity, { select: { id: true, version: true }, where: { jobId } });
  const burnt = new Set(runs.map(({ version }) => version));
  const thinned = versionsToThin(versions, now).filter(({ number }) => !burnt.has(number));
  for (const { id } of thinned) await writing.delete(VersionEntity, { id });
  return thinned.length;
}

/**
 * Ends a job that was deleted so long ago that it cannot be taken back: all of it but what runs burnt, since these stay on
 * record.
 * @returns how many of its versions went
 */
export async function endDeletedJob(writing: Writing, jobId: string, now: Date): Promise<number> {
  const before = new Date(now.getTime() - deletedDays * 86_400_000);
  if (!(await writing.existsBy(JobEntity, { id: jobId, deletedAt: LessThan(before) }))) return 0;
  const runs = await writing.find(RunEntity, { select: { id: true, version: true }, where: { jobId } });
  const burnt = new Set(runs.map(({ version }) => version));
  const versions = await writing.find(VersionEntity, { select: { id: true, number: true }, where: { jobId } });
  const gone = versions.filter(({ number }) => !burnt.has(number));
  for (const { id } of gone) await writing.delete(VersionEntity, { id });
  await writing.query('DELETE FROM originals WHERE jobId = ?', [jobId]);
  if (runs.length === 0) await writing.delete(JobEntity, { id: jobId });
  return gone.length;
}

/** Deletes drawings that no version holds. @returns how many, and how many bytes they were */
export async function dropDrawings(writing: Writing): Promise<{ count: number; bytes: number }> {
  const orphans = 'FROM drawings WHERE NOT EXISTS (SELECT 1 FROM versions WHERE drawingHash = hash)';
  const [freed] = await writing.query(`SELECT count(*) AS count, coalesce(sum(length(json)), 0) AS bytes ${orphans}`);
  if (freed.count > 0) await writing.query(`DELETE ${orphans}`);
  return freed;
}

/** Deletes pictures that neither a drawing nor a recipe shows. @returns how many, and how many bytes they were */
export async function dropPictures(writing: Writing, now: Date): Promise<{ count: number; bytes: number }> {
  const orphans = (await writing.query(
    `SELECT id, length(bytes) AS bytes, addedAt FROM pictures
     WHERE NOT EXISTS (SELECT 1 FROM drawing_pictures WHERE pictureId = pictures.id)
       AND NOT EXISTS (SELECT 1 FROM recipes WHERE recipes.pictureId = pictures.id)
       AND NOT EXISTS (SELECT 1 FROM recipes WHERE proof LIKE '%' || pictures.id || '%')
       AND NOT EXISTS (SELECT 1 FROM book_changes WHERE before LIKE '%' || pictures.id || '%')`,
  )) as { id: string; bytes: number; addedAt: string }[];
  const old = orphans.filter(({ addedAt }) => now.getTime() - Date.parse(`${addedAt.replace(' ', 'T')}Z`) > freshMs);
  for (const { id } of old) await writing.delete(PictureEntity, { id });
  return { count: old.length, bytes: old.reduce((sum, { bytes }) => sum + bytes, 0) };
}
