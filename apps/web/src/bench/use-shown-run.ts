import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';
import { useLive } from '../stores/live.ts';
import { useBench } from './context.ts';
import { machineOf } from './state/document.ts';
import { planOf } from './state/plan.ts';

/**
 * The run under way of what is on screen, and how far into the plan it is, in seconds; null when this
 * job, as it is drawn now, is not being burnt.
 */
export function useShownRun(): { atS: number; runId: string } | null {
  const jobId = useBench((state) => state.jobId);
  const machineId = useBench((state) => machineOf(state).id);
  const version = useBench((state) => (state.save.kind === 'saved' ? state.stored.version : null));
  const jobRunId = useBench((state) => state.prepared.run.id);
  const timeS = useBench((state) => planOf(state)?.timeS ?? 0);
  const live = useLive((state) => state.machines[machineId]);
  const heard = useLive((state) => (live?.runId ? state.runs[live.runId] : undefined));
  // A run that was begun before this page was opened is not heard of; it is asked for.
  const known = useQuery({
    queryKey: ['runs', jobId],
    queryFn: () => api.runs(jobId),
    enabled: Boolean(live?.runId) && !heard,
  });
  if (!live?.runId) return null;
  const run = heard ?? known.data?.find(({ id }) => id === live.runId);
  if (run?.jobId !== jobId || run.version !== version || run.jobRunId !== jobRunId) return null;
  // The rest of a run begins where so much of the plan is left.
  const beganS = run.fromLine === null ? 0 : Math.max(0, timeS - run.plannedS);
  return { atS: beganS + live.runS, runId: run.id };
}
