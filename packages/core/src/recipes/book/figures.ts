import type { FitName } from '../../document/ties.ts';
import { orNull, type ValueOf } from '../../schema/schema.ts';
import { record } from '../../schema/structures.ts';
import { number, oneOf, text } from '../../schema/values.ts';

export const figureSources = ['measured', 'copied', 'guessed'] as const;

/** Where a figure of the shop's comes from: read from a test piece, taken from elsewhere, or a guess to begin with. */
export type FigureFrom = (typeof figureSources)[number];

/** Who says so, and when: a date such as 2026-11-26. */
export const figureSource = record({ from: oneOf(figureSources), by: text, on: text });
export type FigureSource = ValueOf<typeof figureSource>;

/** A length in mm that the shop has learnt. */
export const figureSchema = record({ mm: number(), source: orNull(figureSource) });
export type Figure = ValueOf<typeof figureSchema>;

/** What parts are given to begin with, where nothing was measured: the whole difference of two widths, in mm. */
export const guessedFits: Readonly<Record<FitName, number>> = { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 };
