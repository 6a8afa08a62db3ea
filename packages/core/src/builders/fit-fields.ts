import type { Stock } from './builder.ts';
import { choice, length, type NumbersOf, type Trouble } from './fields.ts';

/** How parts meet: by a fit of the material's, or with a play that is typed. */
export const fitFields = {
  fit: choice('Joints', 'snug', {
    loose: 'Loose',
    sliding: 'Sliding',
    snug: 'Snug',
    press: 'Pressed',
    typed: 'Typed',
  }),
  play: length('Play', 0.05, [-0.5, 2], 'How much wider an opening is than what goes into it.'),
} as const;

/** Fields for a fit that is most often sliding. @param label what fits */
export const slidingFields = (label: string) => ({
  ...fitFields,
  fit: { ...fitFields.fit, label, usual: 'sliding' as const },
});

/** What is wrong with a fit that presses, where nothing may. */
export function pressedTrouble({ fit }: NumbersOf<typeof fitFields>, message: string): Trouble {
  return fit === 'typed' ? { field: 'play', message, nearest: 0 } : { field: 'fit', message, nearest: 'sliding' };
}

/** @returns how much wider an opening is than what goes into it, in mm */
export function playIn({ fit, play }: NumbersOf<typeof fitFields>, { plays }: Stock): number {
  return fit === 'typed' ? play : plays[fit];
}
