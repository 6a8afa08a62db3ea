import type { RunAnswer } from '@lambent/contracts';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { useBench } from './context.ts';

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

/** Whether the job, as it is on screen, was burnt to its end. */
export function useBurnt(): boolean {
  const { runs } = useRuns();
  const version = useBench((state) => (state.save.kind === 'saved' ? state.version : null));
  return runs.some((run) => run.status === 'done' && run.version === version);
}
