import { clearSettings, setMachine } from '@lambent/core/edits';
import type { Machine } from '@lambent/core/machine';
import { t } from '../words/words.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf, machineOf } from './state/document.ts';

/** The machines that a job may go to: those at work, and the one it is on. */
export function offeredMachines(machines: readonly Machine[], current: string): readonly Machine[] {
  return machines.filter(({ id, isPutAway }) => !isPutAway || id === current);
}

/**
 * Moves the job to another machine. Every size stays true. What was changed by hand was for the other machine: it goes,
 * unless the operator takes it along. A card says that, and what no longer fits the bed.
 */
export function changeMachine(actions: BenchActions, machineId: string): void {
  const before = machineOf(actions.get());
  const { settings } = jobOf(actions.get());
  if (machineId === before.id) return;
  actions.edit(t('change machine'), (job) => setMachine(clearSettings(job), machineId));
  if (machineOf(actions.get()) !== before) actions.sayMoved({ machine: before, settings });
}
