import type { RunChoice } from '@lambent/core/plan';
import type { BenchState } from '../../state/bench-state.ts';

/** Hands a file to the browser to be saved. */
export function download(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** The run that is looked at, and where the head stood when it was planned. */
export function choiceOf({ prepared, planning }: BenchState): RunChoice {
  return { runId: prepared.run.id, head: planning.subject?.head ?? null };
}
