import type { ValueOf } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { number, oneOf, text } from '../schema/values.ts';

export const fitNames = ['loose', 'sliding', 'snug', 'press'] as const;

/** How two parts meet. */
export type FitName = (typeof fitNames)[number];

const fit = {
  fit: oneOf(fitNames),
  /** How much wider the opening is than what goes in, in mm over the whole width. */
  clearanceMm: number(),
};

const fitTie = record(fit);
/** A fit as it was applied. */
export type FitTie = ValueOf<typeof fitTie>;

/** Of a slot: which of its sides is as wide as the stock is thick. */
export const thicknessTie = record({ ...fit, side: oneOf(['width', 'height']) });
export type ThicknessTie = ValueOf<typeof thicknessTie>;

export const partRoles = ['pocket', 'insert', 'lid'] as const;

/**
 * What an outline is to the part it is made from: a pocket for it, what goes into it, or a lid whose walls, as thick
 * as the stock, pass over it.
 */
export const partTie = record({ ...fit, role: oneOf(partRoles) });
export type PartTie = ValueOf<typeof partTie>;

export const boltRooms = ['close', 'normal', 'wide'] as const;

/** A hole that a bolt drops through; its size such as `M4` or `1/4 in`. */
export const boltTie = record({ size: text, room: oneOf(boltRooms) });
export type BoltTie = ValueOf<typeof boltTie>;
