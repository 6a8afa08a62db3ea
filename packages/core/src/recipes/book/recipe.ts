import { burntOperations } from '../../operations/operations.ts';
import {
  Mismatch,
  type OptionalSchema,
  objectFrom,
  optional,
  orMissing,
  orNull,
  type Schema,
  such,
  type ValueOf,
  withUsual,
} from '../../schema/schema.ts';
import { type RecordOf, record } from '../../schema/structures.ts';
import { oneOf, text, yes } from '../../schema/values.ts';
import { allSettings, type LayerSettings, type SettingInEveryRecipe, settingFields } from '../../settings/settings.ts';
import { figureSource } from './figures.ts';

export const evidences = ['proven', 'copied', 'worked out'] as const;

/** How well a recipe is known: burnt and judged, copied from elsewhere, or calculated. */
export type Evidence = (typeof evidences)[number];

const date = such(text, (on) => (/^\d{4}-\d\d-\d\d$/.test(on) ? null : 'must be a date such as 2026-11-26'));

/** Who vouches for a recipe, since when, and what they go by: the burn they judged, what they copied, how they reckoned. */
const proof = record({
  by: text,
  /** A date such as 2026-11-26. */
  on: date,
  what: text,
  /** The job that was burnt for it, where there is one. */
  jobId: orMissing(text),
});
export type Proof = ValueOf<typeof proof>;

const variant: Schema<string> = {
  read: (json) => {
    const name = text.read(json).trim();
    if (name.length > 40) throw new Mismatch('must be at most 40 characters');
    return name;
  },
};

/** A recipe but for its settings. */
const recipeFields = {
  machineId: text,
  /** The lens it is for; any where nothing is said. */
  lensId: orMissing(text) as OptionalSchema<string | null>,
  operation: oneOf(burntOperations),
  /** Which of several for one operation it is, such as `masked` or `deep`; the usual one where nothing is said. */
  variant: orMissing(variant),
  /** Who measured its kerf, and when. */
  kerfFrom: orMissing(figureSource) as OptionalSchema<ValueOf<typeof figureSource> | null>,
  evidence: oneOf(evidences),
  proof: orMissing(proof) as OptionalSchema<Proof | null>,
  note: { read: (json: unknown) => orNull(text).read(json) ?? '' },
  /** A picture of what comes of it, under which it is kept among the pictures. */
  pictureId: orMissing(text),
  /** Kept, but not used any more. */
  archived: yes as OptionalSchema<boolean>,
};

/**
 * A set of settings for one operation of one machine on one material; what it does not say is as usual
 * (`usualSettings`).
 */
export interface Recipe
  extends RecordOf<typeof recipeFields>,
    Pick<LayerSettings, SettingInEveryRecipe>,
    Partial<Omit<LayerSettings, 'kerfMm' | SettingInEveryRecipe>> {
  /** By which the book knows it, and how often it was changed; a shop's file needs neither. */
  readonly id?: number;
  readonly version?: number;
  /** The width of the burn as it was measured, in mm; null where it was not. */
  readonly kerfMm?: number | null;
}

/** A recipe as it is sent or in a file: the book that takes it gives it an id and a version of its own. */
export const recipeSchema: Schema<Recipe> = {
  read: (json) => {
    const { id: _, version: __, ...said } = objectFrom(json);
    return record({ ...recipeFields, ...settingFields(settingField) }).read(said) as unknown as Recipe;
  },
};

const settingField: Parameters<typeof settingFields>[0] = (setting, name) => {
  const { schema, inRecipes = schema, isInEveryRecipe, usual } = setting;
  if (!isInEveryRecipe) return name === 'kerfMm' ? orMissing(inRecipes) : optional(inRecipes);
  return usual === undefined ? inRecipes : withUsual(inRecipes, usual);
};

/** The settings that a recipe says. */
export function settingsInRecipe(recipe: Recipe): Partial<LayerSettings> {
  return Object.fromEntries(
    [...allSettings().keys()].flatMap((name) => {
      const value = recipe[name];
      return value === undefined || (name === 'kerfMm' && value === null) ? [] : [[name, value]];
    }),
  );
}

/** By what a recipe is told from the others of its material: no two that are used may share it. */
export function recipeKey({ machineId, lensId, operation, variant }: Recipe): string {
  return JSON.stringify([machineId, lensId ?? null, operation, variant ?? '']);
}
