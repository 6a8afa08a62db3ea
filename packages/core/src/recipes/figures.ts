import type { FitName } from '../document/ties.ts';

/** Where a figure of the shop's comes from: read from a test piece, taken from elsewhere, or a guess to begin with. */
export type FigureFrom = 'measured' | 'copied' | 'guessed';

export const figureSources: readonly FigureFrom[] = ['measured', 'copied', 'guessed'];

/** Who says so, and when: a date such as 2026-11-26. */
export interface FigureSource {
  readonly from: FigureFrom;
  readonly by: string;
  readonly on: string;
}

/** A length in mm that the shop has learnt. */
export interface Figure {
  readonly mm: number;
  readonly source: FigureSource | null;
}

/** What parts are given to begin with, where nothing was measured: the whole difference of two widths, in mm. */
export const guessedFits: Readonly<Record<FitName, number>> = { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 };
