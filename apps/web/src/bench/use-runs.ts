import type { RunAnswer } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { useBench } from './context.ts';
import { jobOf } from './state/document.ts';

/** The runs of the open job, newest first: those on record, and what was heard of them since. */
export function useRuns(): { runs: RunAnswer[]; error: Error | null } {
  const jobId = useBench((state) => state.jobId);
  const heard = useLive((live) => live.runs);
  const recorded = useQuery({ queryKey: ['runs', jobId], queryFn: () => api.runs(jobId) });
  const known = new Map((recorded.data ?? []).map((run) => [run.id, run]));
  for (const run of Object.values(heard)) if (run.jobId === jobId) known.set(run.id, run);
  const runs = [...known.values()].sort((a, b) => b.startedAt.localeCompare(a.startedAt));
  return { runs, error: recorded.error };
}

/** Whether the job, as it is on screen, was burnt to its end: every run of it. */
export function useBurnt(): boolean {
  const { runs } = useRuns();
  const version = useBench((state) => (state.save.kind === 'saved' ? state.stored.version : null));
  const jobRuns = useBench((state) => jobOf(state).runs);
  return jobRuns.every(({ id }) =>
    runs.some((run) => run.status === 'done' && run.jobRunId === id && (run.version === version || jobRuns.length > 1)),
  );
}

/** When each of the job's runs was last burnt to its end, by the run's id. */
export function useBurntRuns(): ReadonlyMap<string, string> {
  const { runs } = useRuns();
  const burnt = new Map<string, string>();
  for (const { status, jobRunId, startedAt } of runs) {
    if (status === 'done' && !burnt.has(jobRunId)) burnt.set(jobRunId, startedAt);
  }
  return burnt;
}
