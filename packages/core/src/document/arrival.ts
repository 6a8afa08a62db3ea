import type { Matrix } from '../geometry/paths/matrix.ts';

/** What the operator chose of how a file is read; what is not said is as usual. */
export interface ReadingChoices {
  /** Which page, counted from 1. */
  readonly page?: number;
  /** Dashed strokes as solid lines (as usual) or as their dashes. */
  readonly dashes?: 'solid' | 'dashed';
  /** Clip paths applied (as usual), or everything taken whole. */
  readonly clips?: 'applied' | 'whole';
  /** How a solid lies: the side that faces up. */
  readonly up?: SolidSide;
  /** At what height a solid is cut, as a share of its own height from 0 to 1; `outline` takes all it covers. */
  readonly cutAt?: number | 'outline';
}

export const solidSides = ['+z', '-z', '+y', '-y', '+x', '-x'] as const;
export type SolidSide = (typeof solidSides)[number];

/** A file that was brought into a job: how it was read and where it was put. Its items' ids start with its id. */
export interface Arrival {
  readonly id: string;
  readonly file: string;
  /** The original as it is kept with the job; null where it is not. */
  readonly originalId: number | null;
  readonly choices: ReadingChoices;
  /** From the drawing as read, in mm, to its place on the bed. */
  readonly place: Matrix;
}

/** The id of a part of an arrival, by its place in the file. */
export function arrivalItemId(arrivalId: string, place: string): string {
  return `${arrivalId}-${place}`;
}
