import { operations } from '../operations/operations.ts';
import { optional, orNull, type Schema, type ValueOf } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { number, oneOf, text } from '../schema/values.ts';
import { settingsSchema } from '../settings/settings.ts';
import { keeps } from './item.ts';

/**
 * In which order a layer's lines burn. `inside-first`: what lies in others first, the nearest next; `nearest`: the
 * nearest whose contents are done; `parts`: each outline's contents, then its edge, part by part; `rows`: parts in
 * rows, there and back; `spread`: what lies in others first, and never one next to what has just burnt; `as-drawn` and
 * `by-hand`: as told, whatever lies in what.
 */
export const lineOrders = ['inside-first', 'nearest', 'parts', 'rows', 'spread', 'as-drawn', 'by-hand'] as const;
export type LineOrder = (typeof lineOrders)[number];

/** How a layer is filled, and in which order and direction its lines burn. */
const burning = {
  order: oneOf(lineOrders),
  /** Which way round closed outlines burn, as seen on the screen. */
  direction: oneOf(['either', 'clockwise', 'anticlockwise']),
  /** Where closed outlines start, unless an item has a start of its own. */
  start: oneOf(['nearest', 'corner']),
  /** What is inside an outline of an item: every other one from outside in, or as its file says. */
  fillRule: oneOf(['even-odd', 'as-drawn']),
  /** What becomes of items that overlap: neither burns there, or both as one. */
  overlaps: oneOf(['cancel', 'unite']),
  /** What becomes of parts so thin that they lie between two scan lines: nothing, or each gets a line of its own. */
  thinParts: oneOf(['skip', 'line']),
  /** At which angle pieces are filled: all at that of the settings, or each at that or a quarter turn from it, the sooner. */
  scanTurns: oneOf(['same', 'sooner']),
  /** Whether an edge that two parts share is burnt for each of them, or once for both. */
  sharedEdges: oneOf(['each', 'once']),
  /** Which side of its cuts is kept; by nesting, the inside of pieces and the outside of their holes. */
  keep: oneOf(['nesting', ...keeps]),
  /** Power by how dark an item's fill is: by steps, or without (`steps` null); `lightest` is the share of power at white. */
  depth: orNull(record({ steps: orNull(number(0, 1000)), lightest: number() })),
};
const wholeBurning = record(burning);
export type LayerBurning = ValueOf<typeof wholeBurning>;

/** What is said of it; what is not, is as usual. */
export const burningSchema: Schema<Partial<LayerBurning>> = record(
  Object.fromEntries(Object.entries(burning).map(([name, schema]) => [name, optional(schema as Schema<unknown>)])),
);

export const usualBurning: LayerBurning = {
  order: 'inside-first',
  direction: 'either',
  start: 'nearest',
  fillRule: 'even-odd',
  overlaps: 'cancel',
  thinParts: 'skip',
  scanTurns: 'same',
  sharedEdges: 'each',
  keep: 'nesting',
  depth: null,
};

/** A number that is missing where it is null. */
const numberIfSaid = { ...optional(number()), read: (json: unknown) => optional(number()).read(json ?? undefined) };

/** What is burnt with one setting. */
export const layerSchema = record({
  id: text,
  name: text,
  operation: oneOf(operations),
  /** Its place among layers of its operation in the burn order: lower ones first, those without one as they stand. */
  rank: numberIfSaid,
  /** What it burns with whatever the recipe says. */
  settings: optional(settingsSchema),
  /** The share of the recipe's power it burns with, 0 to 1: how shades of one operation differ. */
  powerShare: numberIfSaid,
  /** How it is filled and in which order its lines burn, where that is not as usual. */
  burning: optional(burningSchema),
});
export type Layer = ValueOf<typeof layerSchema>;
