import type { Writing } from '../data/writing.ts';
import { JobEntity, OriginalEntity, VersionEntity } from './job.entities.ts';
import { plainWords } from './plain-words.ts';

/**
 * Keeps with a job what lists and the search go by: of its last version the machine, the material of its first sheet and
 * whose it is, and all words that it is found by. Called by every write that changes one of them.
 */
export async function summarise(writing: Writing, id: string): Promise<void> {
  const job = await writing.findOneBy(JobEntity, { id });
  if (!job) return;
  const version = await writing.findOne(VersionEntity, {
    select: { id: true, settings: true },
    where: { jobId: id, number: job.version },
  });
  const originals = await writing.find(OriginalEntity, { select: { id: true, name: true }, where: { jobId: id } });
  const { machineId = '', sheets = [], member = '' } = version?.settings ?? {};
  const words = [job.title, job.project, member, ...new Set(originals.map(({ name }) => name))];
  await writing.update(
    JobEntity,
    { id },
    { machineId, materialId: sheets[0]?.materialId ?? null, whose: member, words: plainWords(words.join('\n')) },
  );
}
