import { burntOperations } from '../operations/operations.ts';
import { Mismatch, optional, orNull, type Schema, such, type ValueOf } from '../schema/schema.ts';
import { record, table, unnamed } from '../schema/structures.ts';
import { number, oneOf, text } from '../schema/values.ts';
import { type SettingOnCards, settingsOnCards, settingsSchema } from '../settings/settings.ts';

/*
 * Test cards as a job keeps them: what was asked for, and what was read off. How they are laid out is in
 * recipes/cards/test-card.ts.
 */

/** What can differ along a side of a card: settings, and greys, which are shares of the power. */
export type CardSetting = SettingOnCards | 'greyPercent';

const cardSetting: Schema<CardSetting> = {
  read: (json) => oneOf<CardSetting>([...settingsOnCards(), 'greyPercent']).read(json),
};
const cardAxis = record({ setting: cardSetting, from: number(), to: number(), steps: number(1, 100) });
export type CardAxis = ValueOf<typeof cardAxis>;

const cardWish = such(
  record({
    operation: oneOf(burntOperations),
    across: cardAxis,
    /** Null for a card of one row. */
    down: orNull(cardAxis),
    /** What all cells have in common; power and speed among it where they differ along no side. */
    rest: settingsSchema,
    /** Of greys: the share of the power that white burns with, 0 to 1. */
    lightest: optional(number()),
    /** What the words are scored with: settings that are known to be safe. */
    words: record({ powerPercent: number(), speedMmPerS: number() }),
    cellMm: number(),
    gapMm: number(),
  }),
  ({ across, down, rest, cellMm, gapMm }) => {
    if (!(cellMm > 0 && gapMm >= 0)) return new Mismatch('cells must be larger than 0 mm', '', true);
    for (const setting of ['powerPercent', 'speedMmPerS'] as const) {
      const isSaid = rest[setting] !== undefined || across.setting === setting || down?.setting === setting;
      const what = `${setting} is neither common to all cells nor differs along a side`;
      if (!isSaid) return new Mismatch(what, '', true);
    }
    return null;
  },
);
export type CardWish = ValueOf<typeof cardWish>;

/** How a cell came out: too little (not through, too light), right, or too much (scorched, too dark). */
export const cardMarks = ['under', 'good', 'over'] as const;
export type CardMark = (typeof cardMarks)[number];

/** A card that lies in a job: its cells are the items on the layers `cardLayerId(id, key)`. */
export const cardSchema = record({
  id: text,
  /** The run that burns it, alone. */
  runId: text,
  wish: cardWish,
  materialId: text,
  /** As it was when the card was laid, in mm. */
  thicknessMm: number(),
  /** By the key of a cell. */
  marks: unnamed(table(oneOf(cardMarks), (key) => `mark ${key}`)),
  /** How dark cells came out, in per cent of what is black on the stuff, where somebody said it. By the key of a cell. */
  darks: optional(unnamed(table(number(0, 100), (key) => `dark ${key}`))),
  /** The cell that is kept as the recipe. */
  best: orNull(text),
});
export type LaidCard = ValueOf<typeof cardSchema>;

/** The layer of a card's cell, or, for `words`, that of its words. */
export function cardLayerId(cardId: string, key: string): string {
  return `card ${cardId} ${key}`;
}

/** The card that a layer belongs to; null where it is no card's. */
export function cardOfLayer(layerId: string): string | null {
  return /^card (\S+) \S+$/.exec(layerId)?.[1] ?? null;
}

/** Whether an item is part of a test card: a cell or its words. */
export function isOnCard({ pinned }: { readonly pinned: string | null }): boolean {
  return pinned !== null && cardOfLayer(pinned) !== null;
}
