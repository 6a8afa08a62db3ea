import type { Ramps } from './ramps.ts';

/** A straight move to be made, in mm and mm/s. */
export interface Block {
  readonly x: number;
  readonly y: number;
  readonly speed: number;
  readonly power: number;
  /** Whether its power stays the same where the head slows down. */
  readonly steady: boolean;
  /** Whether it is read with the move before it, as part of one line. */
  readonly isJoined: boolean;
  /** The program line it came from, or is done with the one before. */
  readonly line: number;
  /** Which line it was of all that were taken, counted from 1. */
  readonly ordinal: number;
}

/** A stretch that the head has just gone along, lit: where, and in how many seconds. */
export interface LitStretch {
  readonly fromX: number;
  readonly fromY: number;
  readonly toX: number;
  readonly toY: number;
  readonly z: number;
  readonly power: number;
  readonly steady: boolean;
  /** The speed that was asked for, in mm/s; 0 where the head stood. */
  readonly speed: number;
  readonly seconds: number;
}

/** Something the head does standing: for how long, and where its focus is afterwards. */
export interface Stand {
  readonly seconds: number;
  readonly z: number;
  readonly power: number;
  readonly line: number;
  readonly ordinal: number;
}

export interface Planned extends Block {
  readonly length: number;
  readonly dirX: number;
  readonly dirY: number;
  /** Along it. */
  readonly acceleration: number;
  /** Of one that stands: for how long, and where the focus is afterwards. */
  readonly stands: { readonly seconds: number; readonly z: number } | null;
  /** How fast it may begin, by the corner before it. */
  readonly corner: number;
  /** When it has been read, on the clock; set when there is room for it. */
  knownAt: number;
  /** When its move was done, likewise. */
  endedAt: number;
}

/** The move under way: at its start, and how its speed runs. */
export interface Running extends Ramps {
  readonly block: Planned;
  readonly fromX: number;
  readonly fromY: number;
}
