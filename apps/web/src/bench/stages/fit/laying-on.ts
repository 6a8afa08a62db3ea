import { bedBox, type Machine } from '@lambent/core/machine';
import type { Laying } from '@lambent/core/packing';
import { t } from '../../../words/words.ts';
import { newId } from '../../new-id.ts';

/** What pieces are laid with; runs of further sheets are called by them, and by the run that they repeat where there are several. */
export function layingOn(machine: Machine): Laying {
  return {
    bed: bedBox(machine),
    newId,
    nameRun: (sheet, run, isOnly) =>
      isOnly ? t('Sheet {{sheet}}', { sheet }) : t('Sheet {{sheet}}, {{run}}', { sheet, run: run.name }),
  };
}
