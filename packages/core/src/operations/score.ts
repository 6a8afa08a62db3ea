import type { OperationDefinition } from './definition.ts';

/** Along lines, a groove in the surface. */
export const score = {
  name: 'Score',
  plural: 'Scores',
  colour: '#00806A',
  dash: [5, 3],
  letter: 'S',
  burning: {
    traces: 'lines',
    separates: false,
    phase: 2,
    verb: 'scores',
    firstEnergy: 0.06,
  },
} as const satisfies OperationDefinition;
