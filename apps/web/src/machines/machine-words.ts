import type { MachineKind, Origin } from '@lambent/core/machine';
import { t } from '../words/words.ts';

/** What makes a beam, as screens call it. */
export const kindNames: Readonly<Record<MachineKind, string>> = { co2: 'CO₂', diode: t('Diode'), fibre: t('Fibre') };

/** Where the zero of a machine lies, seen by who stands before it. */
export const zeroNames: Readonly<Record<Origin, string>> = {
  'top-left': t('Back left'),
  'bottom-left': t('Front left'),
  centre: t('Middle'),
};
