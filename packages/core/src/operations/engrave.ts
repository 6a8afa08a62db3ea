import type { OperationDefinition } from './definition.ts';

/** Areas, row by row, into the surface. */
export const engrave = {
  name: 'Engrave',
  plural: 'Engravings',
  colour: '#5B3FA0',
  dash: [],
  letter: 'E',
  burning: {
    traces: 'areas',
    separates: false,
    phase: 1,
    verb: 'engraves',
    firstEnergy: 0.25,
  },
} as const satisfies OperationDefinition;
