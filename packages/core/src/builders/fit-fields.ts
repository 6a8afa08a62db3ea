import type { Stock } from './builder.ts';
import { choice, length, type NumbersOf } from './fields.ts';

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

/** @returns how much wider an opening is than what goes into it, in mm */
export function playIn({ fit, play }: NumbersOf<typeof fitFields>, { plays }: Stock): number {
  return fit === 'typed' ? play : plays[fit];
}
