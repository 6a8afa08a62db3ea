import type { MachineState } from '@lambent/contracts';

/** Whether a head can be moved by hand now: it stands, or is moved so already. */
export function isFreeByHand(machineState: MachineState): boolean {
  const { state, errand } = machineState;
  if (errand) return errand.kind === 'move' && state !== 'away' && state !== 'alarm';
  return state === 'idle' && !isAboutToRun(machineState);
}

/** Whether there is anything to stop: also between the laps of a walk, while it stands, and where a run is to begin. */
export function mayBeStopped(machineState: MachineState): boolean {
  const { state, errand } = machineState;
  return state === 'running' || state === 'held' || errand !== null || isAboutToRun(machineState);
}

/** Whether a machine that stands has a run that begins soon, or a job is being made ready for it. */
export function isAboutToRun({ state, errand, runId, makingReady }: MachineState): boolean {
  return makingReady !== null || (state === 'idle' && errand === null && runId !== null);
}
