import type { Colour } from '../document/item.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import type { Path } from '../geometry/paths/path.ts';

/*
 * What stands on paper: a job sheet, which goes with a job to its machine (`checks/job-sheet.ts`), or a quote. It is words, and a
 * picture where there is one, laid out as PDF (`pdf/paper.ts`).
 */

/** A column of a table: what stands above it, and how much of the paper's width it has, in mm; the rest where 0. */
export interface SheetColumn {
  readonly name: string;
  readonly widthMm: number;
  /** Whether its figures stand at its right edge. */
  readonly isFigures: boolean;
}

export interface SheetTable {
  readonly title: string;
  readonly columns: readonly SheetColumn[];
  readonly rows: readonly (readonly string[])[];
  /** The row that says what the others come to. */
  readonly total: readonly string[] | null;
}

/** The bed seen from above, in bed mm. */
export interface SheetPicture {
  readonly bedWidth: number;
  readonly bedHeight: number;
  /** Where the machine's zero lies. */
  readonly zero: Point;
  readonly sheets: readonly { readonly name: string; readonly corners: readonly Point[] }[];
  /** What burns, a layer each, in the order in which it burns. */
  readonly layers: readonly { readonly colour: Colour; readonly path: Path; readonly isFilled: boolean }[];
}

export interface Paper {
  readonly title: string;
  /** Such as `Job sheet`. */
  readonly kind: string;
  /** Whose it is, where it burns, which run. */
  readonly facts: readonly { readonly name: string; readonly value: string }[];
  /** What a QR code beside the facts says, for a phone; null for none. */
  readonly code: string | null;
  readonly picture: SheetPicture | null;
  readonly tables: readonly SheetTable[];
  readonly lists: readonly { readonly title: string; readonly lines: readonly string[] }[];
}
