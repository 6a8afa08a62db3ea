import type { MachineKind, Origin } from '@lambent/core/machine';

/** What makes a beam, as screens call it. */
export const kindNames: Readonly<Record<MachineKind, string>> = { co2: 'CO₂', diode: 'Diode', fibre: 'Fibre' };

/** Where the zero of a machine lies, seen by who stands before it. */
export const zeroNames: Readonly<Record<Origin, string>> = {
  'top-left': 'Back left',
  'bottom-left': 'Front left',
  centre: 'Middle',
};
