import type { OperationDefinition } from './definition.ts';

/** Shown to draw by, never burnt. */
export const guide = {
  name: 'Guide',
  plural: 'Guides',
  colour: '#7A7F80',
  dash: [7, 3, 1.5, 3],
  letter: 'G',
  burning: null,
} as const satisfies OperationDefinition;
