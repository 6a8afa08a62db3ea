import type { Path } from '../geometry/paths/path.ts';

/** How pieces may be turned: not at all, upside down, by right angles, or any way. */
export type Turning = 'none' | 'half' | 'quarter' | 'free';

/** A piece, of which one or more are to be laid. */
export interface PackPiece {
  readonly id: string;
  /** Its outline and its holes, closed, in mm. */
  readonly outline: Path;
  /** How many; null for as many as fit. */
  readonly count: number | null;
}

/** Sheets of one kind. */
export interface PackSheet {
  readonly id: string;
  /** Its outline and its holes, closed, in mm. Its margin goes along all of it. */
  readonly outline: Path;
  /** What lies there and stays, closed outlines in mm: pieces keep the gap to it, as to each other. */
  readonly obstacles: readonly Path[];
  /** How many there are; null for as many as it takes. */
  readonly count: number | null;
}

export interface PackWish {
  readonly pieces: readonly PackPiece[];
  /** In the order in which they are to be used. */
  readonly sheets: readonly PackSheet[];
  /** Between pieces, in mm. */
  readonly gapMm: number;
  /** To the edge of a sheet, in mm. */
  readonly marginMm: number;
  readonly turning: Turning;
  readonly mirror: boolean;
  /** Whether small pieces may lie in the holes of large ones. */
  readonly fillsHoles: boolean;
  /** Whether an edge between two pieces that lie side by side is cut once; as many of them as can be, then. */
  readonly sharesEdges?: boolean;
}

/** Where a piece lies: mirrored left for right first if so, then turned about its own (0, 0), then moved there, in mm. */
export interface PackedPiece {
  /** Its number in the wish. */
  readonly piece: number;
  readonly x: number;
  readonly y: number;
  /** In degrees, clockwise on the screen. */
  readonly angle: number;
  readonly isMirrored: boolean;
}

/** What lies on one sheet. */
export interface PackedSheet {
  /** Its number in the wish. */
  readonly sheet: number;
  readonly pieces: readonly PackedPiece[];
}

export interface Packing {
  readonly sheets: readonly PackedSheet[];
  /** How many of each piece found no room; none of those of which as many are wanted as fit. */
  readonly left: readonly number[];
  /** How good it is among packings of one wish: see `isBetterRank`. */
  readonly rank: Rank;
}

/**
 * How good a packing is: what found no place, in mm²; its sheets; how full they are, as shares, those before counting more; the
 * largest rectangle that is left of the last one, in mm²; and how far the head goes, in mm.
 */
export interface Rank {
  readonly left: number;
  readonly sheets: number;
  readonly filled: number;
  readonly rest: number;
  readonly way: number;
}
