import type { OperationDefinition } from './definition.ts';

/** Along lines, through the stock. */
export const cut = {
  name: 'Cut',
  plural: 'Cuts',
  colour: '#D0481E',
  dash: [],
  letter: 'C',
  burning: {
    traces: 'lines',
    separates: true,
    phase: 3,
    verb: 'cuts',
    firstEnergy: 0.5,
  },
} as const satisfies OperationDefinition;
