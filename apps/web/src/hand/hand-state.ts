import type { MachineState } from '@lambent/contracts';

/** Whether a head can be moved by hand now: it stands, or is moved so already. */
export function isFreeByHand({ state, errand }: MachineState): boolean {
  if (errand) return errand.kind === 'move' && state !== 'away' && state !== 'alarm';
  return state === 'idle';
}
