import type { QueryClient } from '@tanstack/react-query';
import { api } from '../api.ts';
import { takeRun, useLive } from './live.ts';

/** What may have changed while the server was not heard, by the first word of its query. */
const mayHaveChanged = new Set<unknown>([
  'book-history',
  'deleted jobs',
  'families',
  'jobs',
  'keys',
  'machine-uses',
  'machines',
  'materials',
  'runs',
  'settings',
  'timing',
  'versions',
]);

/** Asks for what was missed once the server answers again: the lists that are shown, and how runs ended meanwhile. */
export function catchUpWithServer(queries: QueryClient): void {
  useLive.subscribe((now, before) => {
    if (!now.connected || before.connected) return;
    void queries.invalidateQueries({ predicate: ({ queryKey: [what] }) => mayHaveChanged.has(what) });
    void askForRuns();
  });
}

/** Hears how the runs are now that went on when they were heard of last. */
async function askForRuns(): Promise<void> {
  const wentOn = Object.values(useLive.getState().runs).filter(({ endedAt }) => endedAt === null);
  const jobs = [...new Set(wentOn.map(({ jobId }) => jobId))];
  // Where the server is gone once more, it is asked when it is back.
  const answers = await Promise.all(jobs.map((jobId) => api.runs(jobId).catch(() => [])));
  for (const run of answers.flat()) if (wentOn.some(({ id }) => id === run.id)) takeRun(run);
}
