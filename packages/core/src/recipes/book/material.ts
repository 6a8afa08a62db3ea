import { type FitName, fitNames } from '../../document/ties.ts';
import { type BurntOperation, burntOperations } from '../../operations/operations.ts';
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
import { list, record, unnamed } from '../../schema/structures.ts';
import { flag, fromTo, text, yes } from '../../schema/values.ts';
import { type Figure, figureSchema } from './figures.ts';
import { recipeSchema } from './recipe.ts';
import { stockedSheet } from './stock.ts';

const length = fromTo(null, 10_000);

const idSchema = such(text, (id) =>
  /^[a-z0-9][a-z0-9-]{0,79}$/.test(id) ? null : `must be small letters, figures and hyphens, and not “${id}”`,
);

const name: Schema<string> = {
  read: (json) => {
    const name = text.read(json).trim();
    if (name === '' || name.length > 80) throw new Mismatch('must be 1 to 80 characters');
    return name;
  },
};

const tone: Schema<string> = {
  read: (json) => {
    if (!/^#[0-9A-Fa-f]{6}$/.test(String(json))) throw new Mismatch('must be like #D0481E');
    return String(json);
  },
};

const stock = such(list(stockedSheet, { each: (i) => `sheet ${i + 1} in stock`, isPlaced: false }), (sheets) =>
  new Set(sheets.map(({ id }) => id)).size < sheets.length
    ? new Mismatch('two sheets in stock have one id', '', true)
    : null,
);

/** By fit, what is known of it; missing where nothing is. */
const fits: OptionalSchema<Readonly<Partial<Record<FitName, Figure>>>> = {
  isOptional: true,
  read: (json) => {
    if (json === undefined || json === null) return undefined as never;
    const known = record(Object.fromEntries(fitNames.map((name) => [name, optional(figureSchema)]))).read(json);
    return Object.keys(known).length > 0 ? known : (undefined as never);
  },
};

/** The least that holds, in mm: how wide walls between cuts and engraved lines are, and how high capitals; 0 where nobody knows. */
const leastSize = record({ detailMm: withUsual(fromTo(0, 100), 0), letterMm: withUsual(fromTo(0, 100), 0) });

/** By operation, the least that it holds. */
const leastSizes = optional(
  record(Object.fromEntries(burntOperations.map((operation) => [operation, optional(leastSize)]))),
) as OptionalSchema<Readonly<Partial<Record<BurntOperation, ValueOf<typeof leastSize>>>>>;

const fields = record({
  id: idSchema,
  tone,
  /** What kind of stuff it is, such as `Plywood`: settings that nobody has burnt are worked out within it. */
  family: optional(text),
  name,
  thicknessMm: length,
  /** As the shop measured it, in mm. */
  measuredMm: orMissing(length) as OptionalSchema<number | null>,
  colour: optional(text),
  finish: optional(text),
  /** Whether a film covers it. */
  masked: optional(flag),
  notes: optional(text),
  /** Whether one sees through it: then it may be engraved from behind. */
  isClear: optional(flag),
  /** Whether it turns lighter where it burns, as slate and anodised metal do. */
  turnsLighter: optional(flag),
  /** The least that it holds, by operation. */
  leastSizes,
  /** Kept, but not offered any more. */
  archived: yes as OptionalSchema<boolean>,
  sheetWidth: length,
  sheetHeight: length,
  /** Why it must never be lasered; null when it may. */
  forbidden: { read: (json: unknown) => orNull(text).read(json) || null },
  recipes: unnamed(withUsual(list(recipeSchema, { each: (i) => `recipe ${i + 1}`, isPlaced: false }), [])),
  /** The sheets of it that the shop has. */
  stock: unnamed(orMissing(stock)) as OptionalSchema<ValueOf<typeof stock>>,
  /** How much wider than a thing its pocket is, by fit, where that was learnt. */
  fits,
});

/** What a shop burns on; lengths in mm. Its tone is that in which a sheet of it is drawn. */
export interface Material extends ValueOf<typeof fields> {
  /** How often it was changed. */
  readonly version?: number;
}

/** A material as it is sent or in a file, with its recipes; faults are told by its id. */
export const materialSchema: Schema<Material> = {
  read: (json) => {
    const { version: _, ...said } = objectFrom(json);
    try {
      return fields.read(said);
    } catch (error) {
      if (!(error instanceof Mismatch) || error.place === 'id') throw error;
      throw error.within(`“${String(said.id)}”`, true);
    }
  },
};

/** How thick a material is, in mm: as the shop measured it, else as it is sold. */
export function thicknessOf({ measuredMm, thicknessMm }: Pick<Material, 'measuredMm' | 'thicknessMm'>): number {
  return measuredMm ?? thicknessMm;
}
