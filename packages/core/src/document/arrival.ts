import { optional, orNull, type Schema, type ValueOf, withUsual } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { knownWord, number, text } from '../schema/values.ts';
import { matrix } from './fields.ts';

export const solidSides = ['+z', '-z', '+y', '-y', '+x', '-x'] as const;
export type SolidSide = (typeof solidSides)[number];

const height: Schema<number | 'outline'> = {
  read: (json) => (json === 'outline' ? json : number().read(json)),
};

/** What the operator chose of how a file is read; what is not said is as usual. */
const readingChoices = record({
  /** Which page, counted from 1. */
  page: optional(number()),
  /** Dashed strokes as solid lines (as usual) or as their dashes. */
  dashes: knownWord(['solid', 'dashed']),
  /** Clip paths applied (as usual), or everything taken whole. */
  clips: knownWord(['applied', 'whole']),
  /** Parts on the layers that the file names (as usual), or all by their colours. */
  layers: knownWord(['named', 'by-colour']),
  /** A picture of very many pixels made smaller (as usual), or with all of them. */
  pixels: knownWord(['reduced', 'all']),
  /** How a solid lies: the side that faces up. */
  up: knownWord(solidSides),
  /** At what height a solid is cut, as a share of its own height from 0 to 1; `outline` takes all it covers. */
  cutAt: optional(height),
});
export type ReadingChoices = ValueOf<typeof readingChoices>;

/** More items of a note are not kept: it says how many there are. */
export const mostNotedItems = 50;

/** What was decided of a file where it did not say, or could not be followed. */
const arrivalNote = record({
  code: text,
  message: text,
  count: number(0, Number.MAX_SAFE_INTEGER),
  itemIds: list(text),
});
export type ArrivalNote = ValueOf<typeof arrivalNote>;

/** A file that was brought into a job: how it was read and where it was put. Its items' ids start with its id. */
export const arrivalSchema = record({
  id: text,
  file: text,
  /** The original as it is kept with the job; null where it is not. */
  originalId: orNull(number(0, Number.MAX_SAFE_INTEGER)),
  choices: readingChoices,
  /** From the drawing as read, in mm, to its place on the bed. */
  place: matrix,
  notes: withUsual(list(arrivalNote), []),
});
export type Arrival = ValueOf<typeof arrivalSchema>;

/** The id of a part of an arrival, by its place in the file. */
export function arrivalItemId(arrivalId: string, place: string): string {
  return `${arrivalId}-${place}`;
}
