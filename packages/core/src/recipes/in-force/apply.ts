import type { Layer } from '../../document/layer.ts';
import type { Machine } from '../../machine/machine.ts';
import { type Operation, separates } from '../../operations/operations.ts';
import { type LayerSettings, settingsOf, usualSettings } from '../../settings/settings.ts';
import { type Material, thicknessOf } from '../book/material.ts';
import { type Evidence, type Recipe, settingsInRecipe } from '../book/recipe.ts';
import type { Shop } from '../book/shop.ts';
import { type Burn, type WorkedOut, workOut } from './work-out.ts';

/** Where a setting came from. */
export type SettingSource =
  /** `from` says which recipe, such as `Birch plywood 3 mm, Wren`. */
  | { readonly kind: 'recipe'; readonly evidence: Evidence; readonly from: string }
  /** Speeds between which the right one is with 95 in 100, in mm/s. */
  | { readonly kind: 'worked out'; readonly from: string; readonly doubt: WorkedOut['doubt'] }
  | { readonly kind: 'key' }
  | { readonly kind: 'hand' };

/** The settings a layer burns with, and where each came from; null where there is no number to go by. */
export interface AppliedSettings {
  readonly settings: LayerSettings | null;
  readonly basis: Basis | null;
  readonly sources: Readonly<Partial<Record<keyof LayerSettings, SettingSource>>>;
}

/** What the book has for an operation: a recipe, or settings worked out from others. */
export interface Basis {
  /** The recipe itself; null where the settings are worked out. */
  readonly recipe: Recipe | null;
  readonly settings: Partial<LayerSettings>;
  readonly source: Extract<SettingSource, { kind: 'recipe' | 'worked out' }>;
}

/** What a layer of a job burns on. */
export interface Stock {
  readonly material: Material | null;
  /** As it was measured; as the material is said to be where it was not. */
  readonly thicknessMm?: number;
}

/** Which of the recipes for an operation is asked for. */
export interface RecipeChoice {
  readonly lensId?: string | null;
  readonly variant?: string;
}

/** Stock that is thicker or thinner than its material by no more than this share is cut as that. */
const sameThickness = 0.1;

/** The recipe that a material has for an operation of a machine: of the variant asked for, else the usual one. */
export function findRecipe(
  material: Material | null,
  machineId: string,
  operation: Operation,
  { lensId = null, variant = '' }: RecipeChoice = {},
): Recipe | null {
  const all = (material?.recipes ?? []).filter(
    (recipe) =>
      recipe.machineId === machineId &&
      recipe.operation === operation &&
      !recipe.archived &&
      (recipe.lensId === lensId || (recipe.lensId ?? null) === null),
  );
  // One for this very lens goes before one for any.
  const ranked = all.toSorted((a, b) => Number((b.lensId ?? null) !== null) - Number((a.lensId ?? null) !== null));
  const variantNamed = (name: string) => ranked.find((recipe) => (recipe.variant ?? '') === name);
  return variantNamed(variant) ?? variantNamed('') ?? null;
}

/**
 * What the book has for an operation on some stock: its recipe, or, where there is none for the thickness or the
 * machine, what can be worked out from others; null where nothing can.
 */
export function basisFor(
  book: Pick<Shop, 'materials' | 'machines'>,
  { material, thicknessMm }: Stock,
  machine: Machine,
  operation: Operation,
  choice: RecipeChoice = {},
): Basis | null {
  if (!material || settingsOf(operation).length === 0) return null;
  const usual = thicknessOf(material);
  const thickness = thicknessMm ?? usual;
  const recipe = findRecipe(material, machine.id, operation, choice);
  const isAsThick = Math.abs(thickness - usual) <= sameThickness * usual;
  if (recipe && (isAsThick || !separates(operation))) {
    const variant = recipe.variant ? `, ${recipe.variant}` : '';
    const from = `${material.name} ${material.thicknessMm} mm, ${machine.name}${variant}`;
    return { recipe, settings: settingsInRecipe(recipe), source: { kind: 'recipe', evidence: recipe.evidence, from } };
  }
  const worked = workOut(book, { material, thicknessMm: thickness, machine, operation });
  if (!worked) return null;
  return {
    recipe: null,
    settings: worked.settings,
    source: { kind: 'worked out', from: burnsInWords(worked.from), doubt: worked.doubt },
  };
}

/** Burns that settings rest on, the nearest first: `Birch plywood 3 and 4 mm, Wren; 5 more`. */
function burnsInWords(burns: readonly Burn[]): string {
  const [{ material, machine }] = burns;
  const alike = burns.filter((burn) => burn.material.name === material.name && burn.machine === machine);
  const thicknesses = [...new Set(alike.map((burn) => burn.material.thicknessMm))].sort((a, b) => a - b);
  const words =
    thicknesses.length > 1 ? `${thicknesses.slice(0, -1).join(', ')} and ${thicknesses.at(-1)}` : thicknesses[0];
  const more = burns.length - alike.length;
  return `${material.name} ${words} mm, ${machine.name}${more > 0 ? `; ${more} more` : ''}`;
}

/** What the book has, with what the layer's key says laid over it, and over that what was changed by hand. */
export function applyRecipe(
  basis: Basis | null,
  { operation, settings: byKey = {}, powerShare }: Pick<Layer, 'operation' | 'settings' | 'powerShare'>,
  byHand: Partial<LayerSettings> = {},
): AppliedSettings {
  const sources: Partial<Record<keyof LayerSettings, SettingSource>> = {};
  const found: Partial<Record<keyof LayerSettings, LayerSettings[keyof LayerSettings]>> = {};
  for (const setting of settingsOf(operation)) {
    const [own, keyed, known] = [byHand[setting], byKey[setting], basis?.settings[setting]];
    if (own !== undefined) {
      found[setting] = own;
      sources[setting] = { kind: 'hand' };
    } else if (keyed !== undefined) {
      found[setting] = keyed;
      sources[setting] = { kind: 'key' };
    } else if (basis && known !== undefined) {
      found[setting] = known;
      sources[setting] = basis.source;
    }
  }
  const settings = { ...usualSettings(), ...found } as Partial<LayerSettings>;
  let { powerPercent } = settings;
  const byBook = sources.powerPercent !== undefined && sources.powerPercent === basis?.source;
  if (powerShare !== undefined && powerPercent !== undefined && byBook) {
    powerPercent = Math.round(powerPercent * powerShare * 100) / 100;
    sources.powerPercent = { kind: 'key' };
  }
  const isWhole = powerPercent !== undefined && settings.speedMmPerS !== undefined;
  return { settings: isWhole ? ({ ...settings, powerPercent } as LayerSettings) : null, basis, sources };
}
