import { blocks } from '@lambent/core/checks';
import { isDrawn } from '../../state/document.ts';
import { findingsOf } from '../../state/plan.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const open = (findingsOf(state) ?? []).filter(({ level, accepted }) => level !== 'notes' && accepted === undefined);
  return wants(
    isDrawn(state) ? open.length : 0,
    blocks(open),
    isDrawn(state) && findingsOf(state) ? settled : untouched,
  );
};
