import { isToBurn } from '@lambent/contracts';
import { IsNull } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { JobEntity } from '../jobs/job.entities.ts';
import { setMachineOfJob } from '../jobs/jobs.writes.ts';
import { MachineEntity } from '../machines/machine.entity.ts';
import { sharedPlaceOf } from '../sharing/parts-in-place.ts';
import { DayBlockEntity } from './day-block.entity.ts';

/*
 * Every change of what waits for the machines.
 */

/** Where a job is to wait: before which other one, or after all of them where that is null. */
export interface DayPlace {
  readonly machineId: string;
  readonly beforeJobId: string | null;
  readonly notBefore: Date | null;
}

/**
 * Gives a job to a machine, at a place among those that wait for it. One that was made for another machine gets a version for this one.
 * @param seen the count of its block as it was when this was decided; null where it had none
 * @returns the version that was made; null where it was for this machine before
 * @throws PlainError 404 where there is no such job or machine; 409 where it has moved since, burns together with others, or is not to be burnt any more
 */
export async function giveJob(
  writing: Writing,
  jobId: string,
  { machineId, beforeJobId, notBefore }: DayPlace,
  seen: number | null,
): Promise<number | null> {
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (!job) throw notFound('job');
  if (!isToBurn(job.state)) {
    throw new PlainError(409, 'not-to-burn', `“${job.title}” is ${job.state}. Make it ready first to burn it again.`);
  }
  const shared = await sharedPlaceOf(writing, jobId);
  if (shared) {
    const words = `“${job.title}” is burnt together with others, as “${shared.title}”. Give that to a machine, or delete it to burn them alone.`;
    throw new PlainError(409, 'burns-together', words);
  }
  const machine = await writing.findOneBy(MachineEntity, { id: machineId });
  if (!machine) throw notFound('machine');
  if (machine.definition.isPutAway)
    throw new PlainError(
      409,
      'put-away',
      `${machine.definition.name} is put away. Take it back first, or choose another.`,
    );
  const block = await blockAsSeen(writing, job, seen);
  const version = job.machineId === machineId ? null : await setMachineOfJob(writing, jobId, machineId);
  const others = (
    await writing.find(DayBlockEntity, { where: { job: { machineId } }, order: { place: 'ASC' } })
  ).filter((other) => other.jobId !== jobId);
  const before = others.findIndex((other) => other.jobId === beforeJobId);
  const place = before < 0 ? others.length : before;
  await writing.delete(DayBlockEntity, { jobId });
  await writing.insert(DayBlockEntity, { jobId, place, notBefore, seen: (block?.seen ?? 0) + 1 });
  for (const [i, other] of others.entries())
    await writing.update(DayBlockEntity, { jobId: other.jobId }, { place: i < place ? i : i + 1 });
  return version;
}

/** Takes a job off the day. @throws PlainError 404 where it was not given to a machine, 409 where it has moved since */
export async function takeOffDay(writing: Writing, jobId: string, seen: number): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id: jobId, deletedAt: IsNull() });
  if (!job) throw notFound('job');
  await blockAsSeen(writing, job, seen);
  await writing.delete(DayBlockEntity, { jobId });
}

/** @throws PlainError 409 where it is not as it was seen */
async function blockAsSeen(
  writing: Writing,
  { id, title }: JobEntity,
  seen: number | null,
): Promise<DayBlockEntity | null> {
  const block = await writing.findOneBy(DayBlockEntity, { jobId: id });
  if ((block?.seen ?? null) === seen) return block;
  throw new PlainError(
    409,
    'moved-elsewhere',
    `“${title}” was ${block ? 'moved' : 'taken off the day'} by somebody else meanwhile. Nothing was changed: look where it is now.`,
  );
}
