import type { RunChoice } from '@lambent/core/plan';
import type { BenchState } from '../../state/bench-state.ts';

/** The run that is looked at, and where the head stood when it was planned. */
export function choiceOf({ prepared, planning }: BenchState): RunChoice {
  return { runId: prepared.run.id, head: planning.subject?.head ?? null };
}
