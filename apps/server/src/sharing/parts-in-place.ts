import { isToBurn, type JobState } from '@lambent/contracts';
import { PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';

/** Where a job lies on shared sheets. */
export interface SharedPlace {
  readonly id: number;
  readonly sharedJobId: string;
  readonly title: string;
  readonly state: JobState;
}

/** On whose sheets a job lies with others; null where it lies on its own. */
export async function sharedPlaceOf(writing: Pick<Writing, 'query'>, jobId: string): Promise<SharedPlace | null> {
  const [place] = (await writing.query(
    `SELECT part.id, part.sharedJobId, jobs.title, jobs.state
     FROM parts_in_place AS part JOIN jobs ON jobs.id = part.sharedJobId WHERE part.jobId = ?`,
    [jobId],
  )) as SharedPlace[];
  return place ?? null;
}

/** The jobs that lie on the sheets of a shared one, and where they stand. */
export async function partsOf(
  writing: Pick<Writing, 'query'>,
  sharedJobId: string,
): Promise<{ jobId: string; state: JobState }[]> {
  return (await writing.query(
    `SELECT part.jobId, jobs.state
     FROM parts_in_place AS part JOIN jobs ON jobs.id = part.jobId WHERE part.sharedJobId = ? ORDER BY part.place`,
    [sharedJobId],
  )) as { jobId: string; state: JobState }[];
}

/**
 * Whether a shared job that was deleted can be taken back with what lies on its sheets.
 * @throws PlainError 409 where one of its jobs lies on other sheets by now, or is no more to be burnt as they are
 */
export async function expectPartsFree(writing: Pick<Writing, 'query'>, sharedJobId: string): Promise<void> {
  const parts = (await writing.query(
    `SELECT jobs.title, jobs.state, shared.state AS sharedState, other.title AS elsewhere
     FROM shared_parts AS part
     JOIN jobs ON jobs.id = part.jobId JOIN jobs AS shared ON shared.id = part.sharedJobId
     LEFT JOIN parts_in_place AS place ON place.jobId = part.jobId
     LEFT JOIN jobs AS other ON other.id = place.sharedJobId
     WHERE part.sharedJobId = ? AND part.leftAt IS NULL ORDER BY part.place`,
    [sharedJobId],
  )) as { title: string; state: JobState; sharedState: JobState; elsewhere: string | null }[];
  for (const { title, state, sharedState, elsewhere } of parts) {
    if (elsewhere !== null) {
      const words = `“${title}” lies on other sheets by now, those of “${elsewhere}”. Delete that job first.`;
      throw new PlainError(409, 'lies-elsewhere', words);
    }
    if (isToBurn(sharedState) && !isToBurn(state))
      throw new PlainError(409, 'not-to-burn', `“${title}” is ${state} by now: these sheets would burn it again.`);
  }
}
