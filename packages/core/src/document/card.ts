import type { Operation } from '../operations/operation.ts';
import type { LayerSettings } from '../settings/settings.ts';

/*
 * Test cards as a job keeps them: what was asked for, and what was read off. How they are laid out is in
 * recipes/test-card.ts.
 */

/** What can differ along a side of a card. Greys are shares of the power, as pictures burn with them. */
export const cardSettings = [
  'powerPercent',
  'speedMmPerS',
  'passes',
  'focusMm',
  'lineSpacingMm',
  'greyPercent',
] as const;
export type CardSetting = (typeof cardSettings)[number];

export interface CardAxis {
  readonly setting: CardSetting;
  readonly from: number;
  readonly to: number;
  readonly steps: number;
}

export const cardOperations = ['cut', 'score', 'engrave'] as const;
export type CardOperation = Extract<Operation, (typeof cardOperations)[number]>;

export interface CardWish {
  readonly operation: CardOperation;
  readonly across: CardAxis;
  /** Null for a card of one row. */
  readonly down: CardAxis | null;
  /** What all cells have in common; power and speed among it where they differ along no side. */
  readonly rest: Partial<LayerSettings>;
  /** Of greys: the share of the power that white burns with, 0 to 1. */
  readonly lightest?: number;
  /** What the words are scored with: settings that are known to be safe. */
  readonly words: Pick<LayerSettings, 'powerPercent' | 'speedMmPerS'>;
  readonly cellMm: number;
  readonly gapMm: number;
}

/** How a cell came out: too little (not through, too light), right, or too much (scorched, too dark). */
export const cardMarks = ['under', 'good', 'over'] as const;
export type CardMark = (typeof cardMarks)[number];

/** A card that lies in a job: its cells are the items on the layers `cardLayerId(id, key)`. */
export interface LaidCard {
  readonly id: string;
  /** The run that burns it, alone. */
  readonly runId: string;
  readonly wish: CardWish;
  readonly materialId: string;
  /** As it was when the card was laid, in mm. */
  readonly thicknessMm: number;
  /** By the key of a cell. */
  readonly marks: Readonly<Record<string, CardMark>>;
  /** The cell that is kept as the recipe. */
  readonly best: string | null;
}

/** The layer of a card's cell, or, for `words`, that of its words. */
export function cardLayerId(cardId: string, key: string): string {
  return `card ${cardId} ${key}`;
}

/** The card that a layer belongs to; null where it is no card's. */
export function cardOfLayer(layerId: string): string | null {
  return /^card (\S+) \S+$/.exec(layerId)?.[1] ?? null;
}
