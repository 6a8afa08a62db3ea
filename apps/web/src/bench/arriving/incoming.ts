import type { Arrival, ReadingChoices } from '@lambent/core/document';
import type { ArrivalPlace, Reading } from '@lambent/core/formats';
import type { Point } from '@lambent/core/geometry';

export type PlaceKind = ArrivalPlace['kind'];

/** A file on its way in: read, shown, and not yet part of the job. */
export interface Arriving {
  readonly id: string;
  readonly file: File;
  readonly reading: Reading;
  readonly choices: ReadingChoices;
  /** How much larger than read. */
  readonly factor: number;
  readonly place: PlaceKind;
  /** Where its top left corner goes, in bed mm, when it is placed by its corner. */
  readonly corner: Point;
  /** The part that a known dimension is typed of; null for the whole. */
  readonly measured: string | null;
  /** What is being read again, and how it was read before; null for a file that is new. */
  readonly again: { readonly arrival: Arrival; readonly before: Reading } | null;
  /** It is being put into the job. */
  readonly taking: boolean;
}

/** A file that is being read: which, with what choices, and a way to end it. Each has an id of its own. */
export interface ReadingTurn {
  readonly id: number;
  readonly file: string;
  readonly choices: ReadingChoices;
  readonly stop: AbortController;
}

/** What the Art stage shows of files coming in. */
export interface Incoming {
  readonly arriving: Arriving | null;
  readonly waiting: readonly File[];
  /** What is being read; null while nothing is. */
  readonly reading: ReadingTurn | null;
  /** How many parts have been found in it so far. */
  readonly parts: number;
  readonly refused: { readonly file: string; readonly why: string } | null;
}

export const nothingIncoming: Incoming = { arriving: null, waiting: [], reading: null, parts: 0, refused: null };
