import { type StageDefinition, untouched } from '../stage.ts';

/** Settled once a run has come to its end, which the record tells (`useBurnt`). */
export const standing: StageDefinition['standing'] = () => untouched;
