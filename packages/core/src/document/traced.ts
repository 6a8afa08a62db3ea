import { optional, type ValueOf } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { flag, fromTo, number, oneOf, whole } from '../schema/values.ts';
import { colour } from './fields.ts';

const place = record({ x: number(), y: number() });

/**
 * How outlines are found in a picture: lengths in mm as the picture lies on the bed, areas in mm². Places are in the
 * picture's own pixels, so that they stay where they are in it when it is moved or scaled.
 */
export const traceSettingsSchema = record({
  /** Closed outlines around the figure, or single lines along the middle of its strokes. */
  makes: oneOf(['outlines', 'middle-lines', 'colours']),
  /** How areas of different colours are found; missing where they are not. */
  byColour: optional(
    record({
      /** So many colours at most. */
      most: whole(fromTo(2, 8)),
      /** Each colour over all that lie below it, or beside the others without gaps and overlaps. */
      lie: oneOf(['stacked', 'beside']),
      /** Whether the colour of the ground is one of them. */
      withGround: flag,
      /** The colours that were found, in the order in which they lie, the ground first; none before that. */
      found: list(colour),
      /** Which of them these outlines are of; all where nothing is said. */
      own: optional(colour),
    }),
  ),
  /** What parts figure from ground: the level that parts them best, one that was chosen, or one by what is around. */
  parting: oneOf(['best', 'level', 'local']),
  /** From 0 for black to 255 for white. */
  level: number(0, 255),
  /** Whether what is lighter is the figure. */
  isLight: flag,
  /** Figures, and holes, smaller than these are left out. */
  specksMm2: number(),
  holesMm2: number(),
  /** How far greys are evened out first: the deviation of a Gaussian. */
  smoothingMm: number(),
  toleranceMm: number(),
  /** Turns of at least so many degrees are corners. */
  cornerDegrees: number(1, 180),
  /** Whether holes, and what lies in them, are left out. */
  isOuterOnly: flag,
  /** The corners of the part that is kept; none where all of it is. */
  part: list(place),
  /** Round places that are rubbed out. */
  rubbed: list(record({ x: number(), y: number(), radius: number() })),
});

/** How outlines are found in a picture. */
export type TraceSettings = ValueOf<typeof traceSettingsSchema>;

/** How colours are found, where that is not said otherwise. */
export const usualByColour: NonNullable<TraceSettings['byColour']> = {
  most: 4,
  lie: 'beside',
  withGround: false,
  found: [],
};

/** What is usual for artwork; paper that is lit unevenly asks for more. */
export const usualTraceSettings: TraceSettings = {
  makes: 'outlines',
  parting: 'best',
  level: 128,
  isLight: false,
  specksMm2: 0.5,
  holesMm2: 0.5,
  smoothingMm: 0,
  toleranceMm: 0.05,
  cornerDegrees: 35,
  isOuterOnly: false,
  part: [],
  rubbed: [],
};
