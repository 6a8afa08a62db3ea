import { isDrawn, jobOf } from '../../state/document.ts';
import { findingsOf } from '../../state/plan.ts';
import { type StageDefinition, settled, untouched, wants } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => {
  const codes = ['no-recipe', 'beyond-machine', 'forbidden-stock'];
  const open = (findingsOf(state) ?? []).filter(({ code, accepted }) => codes.includes(code) && accepted === undefined);
  return wants(open.length, true, isDrawn(state) && jobOf(state).sheets.length > 0 ? settled : untouched);
};
