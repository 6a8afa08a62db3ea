import { optional, type Schema, type ValueOf } from '../schema/schema.ts';
import { list, record, table } from '../schema/structures.ts';
import { flag, number, numbers, oneOf, text } from '../schema/values.ts';
import { path } from './fields.ts';
import { fitNames } from './ties.ts';

/*
 * Parts from numbers as a job keeps them: which builder made them, and from what. How they are made is in builders/.
 */

/** What stands in a field of a builder; which fields there are is the builder's to say. */
const fieldValue: Schema<number | string | boolean | readonly number[]> = {
  read: (json) => {
    if (typeof json === 'string') return text.read(json);
    if (Array.isArray(json)) return numbers().read(json);
    return typeof json === 'boolean' ? flag.read(json) : number().read(json);
  },
};

/** What stands in the fields of a builder, by their names. */
export const builtNumbers = table(fieldValue, (field) => `number “${field}”`);

const plays = Object.fromEntries(fitNames.map((fit) => [fit, number()])) as Record<
  (typeof fitNames)[number],
  Schema<number>
>;

/** A thing that was built: its parts are the items that name it. */
export const builtThingSchema = record({
  id: text,
  builder: text,
  numbers: builtNumbers,
  /** Of the stock it was made for last, in mm. */
  thicknessMm: number(),
  /** By fit: how much wider an opening is than what goes into it, as it was when the numbers were said. */
  plays: record(plays),
  /** The operator's outlines that it was made of, as they were before; nothing where it was made of numbers alone. */
  outlines: optional(list(record({ name: text, path }))),
});
export type BuiltThing = ValueOf<typeof builtThingSchema>;

/** Which part of a built thing an item is: what is cut of it, or what is scored on it. */
export const builtPart = record({ thingId: text, partId: text, what: oneOf(['cut', 'score']) });
export type BuiltPart = ValueOf<typeof builtPart>;
