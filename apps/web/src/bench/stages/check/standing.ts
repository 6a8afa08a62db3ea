import { blocks } from '@lambent/core/checks';
import { isDrawn } from '../../store.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const open = (state.planned?.findings ?? []).filter(({ level }) => level !== 'notes');
  return wants(isDrawn(state) ? open.length : 0, blocks(open), isDrawn(state) && state.planned ? settled : untouched);
};
