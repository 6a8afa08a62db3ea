import type { Machine } from '../machine/machine.ts';
import type { BurningWay, Operation } from '../operations/operations.ts';
import { Mismatch, type Schema } from '../schema/schema.ts';

/** What blows at the beam: nothing, a little or all of what the machine has, or a pressure in bar. */
export type Air = 'off' | 'low' | 'high' | number;

/** What a setting may depend on besides its own value. */
export interface SettingContext {
  readonly machine: Machine;
  readonly operation: Operation;
  /** The settings that others go by. */
  readonly settings: {
    readonly powerPercent: number;
    readonly passes: number;
    readonly focusMm: number;
    readonly focusStepMm: number;
  };
}

/** What an operator changes it with. */
export type SettingField =
  /** A plain number; its arrow keys step by so much. */
  | { readonly kind: 'figure'; readonly step: number }
  /** A number that is found where nothing is typed: 0 there stands for null. */
  | { readonly kind: 'figure or found'; readonly step: number }
  | { readonly kind: 'yes or no' }
  | { readonly kind: 'air' }
  /** One of some words, by the names that they have in documents. */
  | { readonly kind: 'word'; readonly words: Readonly<Record<string, string>> }
  /** The page has a field of its own for it. */
  | { readonly kind: 'own' };

/** What a test card may try of a setting, and what its values are counted in there, such as `mm lines`. */
export interface CardRange {
  readonly counted: string;
  readonly least: number;
  readonly most: number;
  readonly isWhole?: boolean;
}

/** How a setting stands in the book's table. */
export interface SettingColumn<Value> {
  readonly name: string;
  readonly write: (value: Value) => string | number | null;
  /** @throws Mismatch with a whole sentence */
  readonly read: (cell: string) => Value;
}

/** Everything there is to know about one setting of a layer. */
export interface Setting<Value> {
  /** The operations that burn in this way have it. */
  readonly concerns: BurningWay;
  /** What it is called in a sentence, such as `power at corners`. */
  readonly words: string;
  /** What stands above its field. */
  readonly label: string;
  /** Such as `mm`; empty where it has none. */
  readonly unit: string;
  /** What it is where nothing is said; missing where it has to be said. */
  readonly usual?: Value;
  /** What a document may say. */
  readonly schema: Schema<Value>;
  /** What a recipe may say, where that is less. */
  readonly inRecipes?: Schema<Value>;
  /** Whether every recipe says it: with another value, a proven recipe is another recipe. */
  readonly isInEveryRecipe?: boolean;
  readonly column: SettingColumn<Value>;
  readonly field: SettingField;
  /** Whether it stands behind *Finer settings*. */
  readonly isFiner: boolean;
  /** What a step's block says of it in the strip; null where it goes without saying. */
  readonly onStrip?: (value: Value) => string | null;
  /** Test cards may try several values of it, within these, before the machine has its say. */
  readonly onCards?: CardRange;
  /** The sentence that says why the machine cannot do it; null where it can. */
  readonly beyond?: (value: Value, context: SettingContext) => string | null;
  /** The value nearest to one that is beyond, which the machine can do; missing where only the operator can say. */
  readonly within?: (value: Value, context: SettingContext) => Value;
}

/** A column of plain numbers. */
export function figureColumn(name: string): SettingColumn<number> {
  return { name, write: (value) => value, read: (cell) => numberIn(cell, name) };
}

/** A column of words, as documents have them. */
export function wordColumn<const Word extends string>(name: string, words: readonly Word[]): SettingColumn<Word> {
  return {
    name,
    write: (value) => value,
    read: (cell) => {
      const found = words.find((word) => word === cell);
      if (!found) throw new Mismatch(`“${cell}” under “${name}” is none of ${words.join(', ')}.`);
      return found;
    },
  };
}

function numberIn(cell: string, name: string): number {
  const value = Number(cell.replace(',', '.'));
  if (cell.trim() === '' || !Number.isFinite(value)) throw new Mismatch(`“${cell}” under “${name}” is not a number.`);
  return value;
}
