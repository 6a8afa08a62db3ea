import type { Machine, MachineDoubt } from '@lambent/core/machine';

/** A machine while it is typed: what is typed is a draft until it is saved. */
export interface MachineDraft {
  readonly draft: Machine;
  readonly change: (part: Partial<Machine>) => void;
  readonly doubts: readonly MachineDoubt[];
}
