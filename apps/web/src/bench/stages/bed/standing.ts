import { jobOf } from '../../state/document.ts';
import { type StageDefinition, settled, untouched } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) => (jobOf(state).sheets.length > 0 ? settled : untouched);
