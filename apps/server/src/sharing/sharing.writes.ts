import { IsNull } from 'typeorm';
import { PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { DayBlockEntity } from '../day/day-block.entity.ts';
import { stepTo } from '../desk/job-steps.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { addJob } from '../jobs/jobs.writes.ts';
import type { PackedVersion } from '../jobs/pack.ts';
import { sharedPlaceOf } from './parts-in-place.ts';
import { SharedPartEntity } from './shared-part.entity.ts';

/*
 * Every change of which jobs share sheets.
 */

/** A job that is laid onto shared sheets. */
export type NewPart = Pick<SharedPartEntity, 'jobId' | 'version' | 'copies' | 'price'>;

/**
 * Makes a job of several that are ready, on sheets that they share. They wait for no machine alone any more.
 * @param isReady whether nothing blocks it
 * @throws PlainError 409 where one of them has changed, or lies on other sheets meanwhile
 */
export async function layShared(
  writing: Writing,
  shared: { readonly id: string; readonly title: string; readonly isReady: boolean; readonly by: string | null },
  version: PackedVersion,
  parts: readonly NewPart[],
): Promise<void> {
  for (const { jobId, version: seen } of parts) {
    const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
    const isAsSeen = job?.state === 'ready' && job.version === seen && !(await sharedPlaceOf(writing, jobId));
    if (isAsSeen) continue;
    const words = job ? `“${job.title}” has changed` : 'One of these jobs was deleted';
    throw new PlainError(
      409,
      'sharing-changed',
      `${words} meanwhile. Nothing was laid out: look at how it would be now.`,
    );
  }
  const { id, title, isReady, by } = shared;
  await addJob(writing, { id, title, project: '' }, version, `Lay out ${parts.length} jobs`);
  for (const [place, part] of parts.entries()) {
    await writing.insert(SharedPartEntity, { ...part, sharedJobId: id, place, leftAt: null });
    await writing.delete(DayBlockEntity, { jobId: part.jobId });
  }
  if (isReady) await stepTo(writing, id, 'ready', by, new Date());
}
