import { hasLive } from '@lambent/core/fit';
import { jobOf } from '../../state/document.ts';
import { type StageDefinition, settled, untouched } from '../stage.ts';

/** How the stage stands. */
export const standing: StageDefinition['standing'] = (state) =>
  hasLive(jobOf(state).drawing.items) ? settled : untouched;
