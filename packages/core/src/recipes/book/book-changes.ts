import { type MachineFigure, machineFigures } from '../../machine/figures.ts';
import type { Machine } from '../../machine/machine.ts';
import { operationOf } from '../../operations/operations.ts';
import { textInOrder } from '../../schema/in-order.ts';
import { allSettings, type SettingName } from '../../settings/settings.ts';
import type { Material } from './material.ts';
import type { Recipe } from './recipe.ts';

/** What fields of a material or a recipe are called, where they are no settings, and their units. */
const named: Readonly<Record<string, { readonly words: string; readonly unit?: string }>> = {
  kerfFrom: { words: 'where the kerf is from' },
  machineId: { words: 'machine' },
  lensId: { words: 'lens' },
  thicknessMm: { words: 'thickness', unit: 'mm' },
  measuredMm: { words: 'measured thickness', unit: 'mm' },
  sheetWidth: { words: 'sheet width', unit: 'mm' },
  sheetHeight: { words: 'sheet height', unit: 'mm' },
  forbidden: { words: 'why it is forbidden' },
  proof: { words: 'known from' },
  pictureId: { words: 'picture' },
};

function nameOf(field: string): { readonly words: string; readonly unit?: string } {
  const figure = (machineFigures as Readonly<Record<string, MachineFigure>>)[field];
  const ofMachine = figure && { words: figure.name.toLowerCase(), unit: figure.unit };
  return named[field] ?? allSettings().get(field as SettingName) ?? ofMachine ?? { words: field };
}

/** How a recipe is called within its material: `Cut, Wren, masked`. */
export function recipeTitle(recipe: Recipe, machines: readonly Pick<Machine, 'id' | 'name'>[]): string {
  const machine = machines.find(({ id }) => id === recipe.machineId)?.name ?? recipe.machineId;
  return [operationOf(recipe.operation).name, machine, recipe.lensId, recipe.variant].filter(Boolean).join(', ');
}

/**
 * What was changed between two states of a recipe, a material, a machine or settings, each value with what it was before;
 * recipes and how often they were changed apart. Empty where nothing was.
 */
export function changesInWords<T extends object>(before: T, after: T): string {
  const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (field) => !['id', 'version', 'recipes'].includes(field),
  ) as (keyof T & string)[];
  return fields
    .filter((field) => textInOrder(before[field] ?? null) !== textInOrder(after[field] ?? null))
    .map((field) => {
      if (field === 'archived') return after[field] ? 'put away' : 'taken up again';
      if (field === 'pictureId') return after[field] ? 'another picture' : 'no picture any more';
      if (field === 'stock') return `stock ${inStock(before)} → ${inStock(after)}`;
      const { words, unit } = nameOf(field);
      const [was, is] = [before[field], after[field]].map((value) => said(value, unit));
      return `${words} ${was} → ${is}`;
    })
    .join(', ');
}

/** How many sheets there are of which size: `4 of 600 × 400 mm`. */
function inStock(entry: object): string {
  const sheets = 'stock' in entry ? ((entry as Material).stock ?? []) : [];
  const words = sheets.map(
    ({ count, width, height, price, offcut }) =>
      `${count} of ${width} × ${height} mm${offcut ? ' (offcut)' : ''}${price === null ? '' : ` at ${price}`}`,
  );
  return words.join('; ') || 'none';
}

function said(value: unknown, unit: string | undefined): string {
  if (value === undefined || value === null || value === '') return 'none';
  if (typeof value === 'object')
    return Object.values(value)
      .map((part) => said(part, undefined))
      .join(' ');
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return unit ? `${value} ${unit}` : String(value);
}
