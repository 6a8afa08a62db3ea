import { isToBurn, type JobState, type RunStatus, waitsFor } from '@lambent/contracts';
import { Not } from 'typeorm';
import type { Writing } from '../data/writing.ts';
import { DayBlockEntity } from '../day/day-block.entity.ts';
import { JobEntity, VersionEntity } from '../jobs/job.entities.ts';
import { mailWords } from '../mails/mail-words.ts';
import { mailSender } from '../mails/queue-mail.ts';
import { RunEntity } from '../runs/run.entities.ts';
import { partsOf, sharedPlaceOf } from '../sharing/parts-in-place.ts';
import { SharedPartEntity } from '../sharing/shared-part.entity.ts';
import { JobStepEntity } from './desk.entities.ts';

/**
 * Has a job take a step, unless it stands there already. What lies on its sheets goes onto the machine with it, and is burnt with it.
 * @param mover who moves it; null where it is a run, or nobody says
 */
export async function stepTo(
  writing: Writing,
  jobId: string,
  state: JobState,
  mover: string | null,
  time: Date,
): Promise<void> {
  await stepAlone(writing, jobId, state, mover, time);
  if (state !== 'on a machine' && state !== 'burnt') return;
  for (const part of await partsOf(writing, jobId)) await stepAlone(writing, part.jobId, state, null, time, jobId);
}

/** @param sharedJobId the job on whose sheets it was burnt; null where it was burnt alone */
async function stepAlone(
  writing: Writing,
  jobId: string,
  state: JobState,
  mover: string | null,
  time: Date,
  sharedJobId: string | null = null,
): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id: jobId });
  if (!job || job.state === state) return;
  // Who puts a job away has read what was written, and waits for no answer.
  const settled = waitsFor[state] === 'nobody' ? { awaits: null } : {};
  await writing.update(JobEntity, { id: jobId }, { state, stateSince: time, ...settled });
  await writing.insert(JobStepEntity, { jobId, state, at: time, by: mover, sharedJobId });
  // What is burnt, or not to be burnt any more, waits for no machine.
  if (!isToBurn(state)) await writing.delete(DayBlockEntity, { jobId });
  if (state === 'burnt') await mailSender(writing, jobId, mailWords.burnt(job.title), time);
  await settleShared(writing, jobId, state, time);
}

/** What is to be burnt again leaves the sheets that it was burnt on. Once nothing of them waits for anybody, they are put away. */
async function settleShared(writing: Writing, jobId: string, state: JobState, time: Date): Promise<void> {
  const place = await sharedPlaceOf(writing, jobId);
  if (!place || isToBurn(place.state)) return;
  if (isToBurn(state)) await writing.update(SharedPartEntity, { id: place.id }, { leftAt: time });
  const parts = await partsOf(writing, place.sharedJobId);
  if (parts.every((part) => waitsFor[part.state] === 'nobody'))
    await stepAlone(writing, place.sharedJobId, 'put away', null, time);
}

/**
 * Moves a job on when the end of a run of it is on record: it is burnt once each of its runs was done as of one version. Else it goes back
 * to where it stood before the machine had it.
 */
export async function stepAfterRun(
  writing: Writing,
  { jobId, version }: Pick<RunEntity, 'jobId' | 'version'>,
  status: RunStatus,
  time: Date,
): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id: jobId });
  // Somebody has moved it meanwhile, and knows why.
  if (job?.state !== 'on a machine') return;
  const done = await writing.find(RunEntity, {
    select: { id: true, jobRunId: true },
    where: { jobId, version, status: 'done' },
  });
  const burnt = new Set(done.map(({ jobRunId }) => jobRunId));
  const stored = await writing.findOne(VersionEntity, {
    select: { id: true, settings: true },
    where: { jobId, number: version },
  });
  const runs = stored?.settings.runs ?? [];
  if (status === 'done' && runs.every(({ id: jobRunId }) => burnt.has(jobRunId)))
    return stepTo(writing, jobId, 'burnt', null, time);
  for (const part of await partsOf(writing, jobId)) {
    if (part.state === 'on a machine') await stepBack(writing, part.jobId, time);
  }
  await stepBack(writing, jobId, time);
}

/** Puts a job back to where it stood before a machine had it. */
async function stepBack(writing: Writing, jobId: string, time: Date): Promise<void> {
  const [before] = await writing.find(JobStepEntity, {
    where: { jobId, state: Not('on a machine' as const) },
    order: { id: 'DESC' },
    take: 1,
  });
  await stepAlone(writing, jobId, before?.state ?? 'being prepared', null, time);
}
