import type { OpenedJob } from '../workers/opened-job.ts';
import { openJob } from '../workers/work.ts';
import { keepPictures, pictureIdsIn } from './bed/pictures.ts';
import { loadBuilders } from './state/built-following.ts';

/** Opens a job with all that the Bench needs to show it. @throws NotADrawing, Refusal */
export async function openWholeJob(jobId: string): Promise<OpenedJob> {
  const job = await openJob(jobId);
  if (job.document.built.length > 0) await loadBuilders();
  keepPictures(pictureIdsIn(job.document.drawing.items));
  return job;
}
