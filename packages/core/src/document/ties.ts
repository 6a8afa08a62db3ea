/** How two parts meet. */
export type FitName = 'loose' | 'sliding' | 'snug' | 'press';

export const fitNames: readonly FitName[] = ['loose', 'sliding', 'snug', 'press'];

/** A fit as it was applied: how much wider the opening is than what goes in, in mm over the whole width. */
export interface FitTie {
  readonly fit: FitName;
  readonly clearanceMm: number;
}

/** Of a slot: which of its sides is as wide as the stock is thick. */
export interface ThicknessTie extends FitTie {
  readonly side: 'width' | 'height';
}

/**
 * What an outline is to the part it is made from: a pocket for it, what goes into it, or a lid whose walls, as thick
 * as the stock, pass over it.
 */
export interface PartTie extends FitTie {
  readonly role: 'pocket' | 'insert' | 'lid';
}

export const partRoles = ['pocket', 'insert', 'lid'] as const;

/** A hole that a bolt drops through. */
export interface BoltTie {
  /** Such as `M4` or `1/4 in`. */
  readonly size: string;
  readonly room: 'close' | 'normal' | 'wide';
}

export const boltRooms = ['close', 'normal', 'wide'] as const;
