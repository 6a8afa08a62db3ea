import { blocks } from '@lambent/core/checks';
import { isDrawn } from '../../store.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const off = (state.planned?.findings ?? []).filter(({ code }) => code === 'off-bed' || code === 'off-sheet');
  return wants(off.length, blocks(off), isDrawn(state) ? settled : untouched);
};
