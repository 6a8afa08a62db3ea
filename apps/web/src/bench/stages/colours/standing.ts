import { isDrawn } from '../../state/document.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const { paints, undecided } = state.prepared.meaning;
  const open = paints.filter((use) => use.layerId === null).length;
  return wants(undecided.length > 0 ? open : 0, true, isDrawn(state) ? settled : untouched);
};
