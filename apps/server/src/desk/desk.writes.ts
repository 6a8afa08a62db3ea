import type { JobState } from '@lambent/contracts';
import { IsNull } from 'typeorm';
import { notFound } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { EstimateEntity } from './desk.entities.ts';
import { stepTo } from './job-steps.ts';

/*
 * Every change of where jobs stand, and of what is known of them.
 */

/** Moves a job to another state. @param mover who does; null where nobody says @throws PlainError 404 where there is no such job */
export async function moveJob(writing: Writing, id: string, state: JobState, mover: string | null): Promise<void> {
  if (!(await writing.existsBy(JobEntity, { id, deletedAt: IsNull() }))) throw notFound('job');
  await stepTo(writing, id, state, mover, new Date());
}

/** Keeps what a job was worked out to take, unless it was deleted meanwhile. */
export async function keepEstimate(writing: Writing, estimate: Omit<EstimateEntity, 'job'>): Promise<void> {
  if (!(await writing.existsBy(JobEntity, { id: estimate.jobId }))) return;
  await writing.delete(EstimateEntity, { jobId: estimate.jobId });
  await writing.insert(EstimateEntity, estimate);
}
