import type { OperationDefinition } from './definition.ts';

/** Shown to tell the operator something, never burnt. */
export const note = {
  name: 'Note',
  plural: 'Notes',
  colour: '#C77700',
  dash: [1.5, 3],
  letter: 'N',
  burning: null,
} as const satisfies OperationDefinition;
