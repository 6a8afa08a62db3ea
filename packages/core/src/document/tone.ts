import { optional, type ValueOf } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { flag, number, yes } from '../schema/values.ts';

/** A place of a tone curve: which grey becomes which, 0 for black to 1 for white. */
const tonePoint = record({ from: number(0, 1), to: number(0, 1) });
export type TonePoint = ValueOf<typeof tonePoint>;

/** What was decided of a picture's greys, beside the picture, which stays as it came. */
export const toneSchema = record({
  /** From the left to the right; black becomes black and white becomes white where there is none. */
  curve: optional(list(tonePoint)),
  /** From -100 to 100. */
  brightness: optional(number(-100, 100)),
  contrast: optional(number(-100, 100)),
  /** How much differences between near places are raised, 0 to 100. */
  localContrast: optional(number(0, 100)),
  /** How much edges are raised, in per cent, and how far from an edge that reaches, in mm. */
  sharpen: optional(number(0, 500)),
  sharpenMm: optional(number(0.01, 20)),
  inverted: yes,
  /** Whether the stock turns lighter where it burns; as its material says where nothing is said. */
  lighter: optional(flag),
});
export type Tone = ValueOf<typeof toneSchema>;
