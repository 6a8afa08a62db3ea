import type { OperationDefinition } from './definition.ts';

/** The greys of pictures, row by row, into the surface. */
export const photo = {
  name: 'Photo',
  plural: 'Photos',
  colour: '#2F6FB0',
  dash: [1.5, 2.5],
  letter: 'P',
  burning: {
    traces: 'areas',
    followsTone: true,
    separates: false,
    phase: 0.5,
    verb: 'burns pictures',
    firstEnergy: 0.15,
  },
} as const satisfies OperationDefinition;
