import { invert, type Matrix, multiply } from '../geometry/paths/matrix.ts';
import { optional, type ValueOf } from '../schema/schema.ts';
import { list, record, variants } from '../schema/structures.ts';
import { number } from '../schema/values.ts';
import { colour, matrix, point } from './fields.ts';

/** A colour of a fading fill, how far along it is, 0 to 1, and how solid, 0 to 1. */
const stop = record({ at: number(0, 1), colour, opacity: number(0, 1) });
export type FadeStop = ValueOf<typeof stop>;

const circle = record({ x: number(), y: number(), radius: number(0) });
const stops = { stops: list(stop) };

/**
 * A fill that is not the same all over, or can be seen through. Its places are in a frame of its own, which `matrix`
 * takes to the frame of the item's shape. Before the first stop and after the last, the colour stays as it is there.
 */
export const fadeSchema = variants(
  'kind',
  {
    /** The item's fill, see-through alike all over. */
    even: { opacity: number(0, 1) },
    /** Along a line. */
    linear: { matrix, from: point, to: point, ...stops },
    /** From a circle to a circle; what no circle between or beyond them goes through is not filled. */
    radial: { matrix, from: circle, to: circle, ...stops },
  },
  (kind) => `“${String(kind)}” is not a kind of fading fill`,
);
export type Fade = ValueOf<typeof fadeSchema>;

export const optionalFade = optional(fadeSchema);

/** A fade that stays where it is on the bed while its item's shape gets another frame. */
export function fadeInFrame(fade: Fade, was: Matrix, is: Matrix): Fade {
  if (fade.kind === 'even') return fade;
  const back = invert(is);
  return back ? { ...fade, matrix: multiply(multiply(back, was), fade.matrix) } : fade;
}
