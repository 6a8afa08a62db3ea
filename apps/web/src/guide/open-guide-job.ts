import { api } from '../api.ts';
import { jobFromFile } from '../dropped/job-from-file.ts';
import { t } from '../words/words.ts';
import type { GuidePage } from './guide-pages.ts';

const drawings = import.meta.glob<string>('./drawings/*.svg', { query: '?raw', import: 'default' });

/**
 * Makes the small job of a page.
 * @returns where it opens.
 * @throws Error for a page without a job.
 * @throws Refusal where the job cannot be made.
 */
export async function makeGuideJob({ slug, title, job }: GuidePage, machineId: string): Promise<string> {
  if (!job) throw new Error(t('{{title}} has no job.', { title }));
  // Where the shop has something to burn, a sheet of it lies on the bed.
  const sheet = (await api.materials()).find(({ forbidden }) => !forbidden)?.id;
  if (!job.hasDrawing) {
    const { id } = await api.createJob(title, machineId, sheet);
    return `/jobs/${id}/${job.stage}`;
  }
  const drawing = await drawings[`./drawings/${slug}.svg`]();
  const end = await jobFromFile(new File([drawing], `${title}.svg`), machineId, sheet);
  if ('refusal' in end) throw new Error(end.refusal);
  return `/jobs/${end.jobId}/${job.stage}`;
}
