import { blocks } from '@lambent/core/checks';
import { isDrawn } from '../../state/document.ts';
import { findingsOf } from '../../state/plan.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const off = (findingsOf(state) ?? []).filter(
    ({ code, accepted }) => (code === 'off-bed' || code === 'off-sheet') && accepted === undefined,
  );
  return wants(off.length, blocks(off), isDrawn(state) ? settled : untouched);
};
