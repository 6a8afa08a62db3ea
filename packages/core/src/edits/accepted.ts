import type { Accepted, JobDocument } from '../document/job.ts';

/** Keeps a finding as accepted, in place of what was accepted of the same before. */
export function acceptFinding(job: JobDocument, accepted: Accepted): JobDocument {
  return { ...job, accepted: [...job.accepted.filter(({ about }) => about !== accepted.about), accepted] };
}

/** Takes it back that findings are accepted, by what they are about. */
export function takeBackAccepted(job: JobDocument, about: ReadonlySet<string>): JobDocument {
  const accepted = job.accepted.filter((known) => !about.has(known.about));
  return accepted.length === job.accepted.length ? job : { ...job, accepted };
}
