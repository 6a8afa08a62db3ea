import type { Box } from '../geometry/paths/box.ts';
import type { Rings, Shape } from './edges.ts';

/** What is free to lie on, of one sheet, for pieces that are grown by half of the gap. */
export interface Room {
  readonly box: Box;
  /** Its outline, what is forbidden left out; null where that is the box itself. */
  readonly free: Shape | null;
}

/** A piece that has a place: which it is, how it is turned, and where the place of its own lies, in mm. */
export interface Place {
  readonly piece: number;
  readonly turn: number;
  readonly x: number;
  readonly y: number;
}

/** Overlaps below this, in mm², are rounding: where two corners meet they are less than 0.0005 mm deep. */
export const leastOverlap = 1e-7;

/** What is known of a piece as it is turned one way. */
export interface Turned {
  readonly shape: Shape;
  /** The same, grown a little: what of it lies over others tells how long they touch. */
  readonly grown: Shape;
  /** Its corners, x and y one after another, by which it may be put into corners that others leave. */
  readonly corners: Float64Array;
  /** Points well within it, x and y one after another. */
  readonly inner: Float64Array;
  readonly rings: Rings;
  /** How far its lines may stray from its true outline, in mm: so far it may be pushed to where it is free. */
  readonly play: number;
}

/** What is searched: pieces as they may lie, the rooms that may be used, and which pieces are to be laid. */
export interface Search {
  /** By piece and turn. */
  readonly turned: readonly (readonly Turned[])[];
  readonly rooms: readonly Room[];
  /** Each piece as often as it is to be laid. */
  readonly wanted: readonly number[];
  /** Whether edges that lie on each other are cut once. */
  readonly sharesEdges: boolean;
}

/** What lies in each room, and what found no place. */
export interface Laid {
  readonly places: readonly (readonly Place[])[];
  readonly left: readonly number[];
}
