import type { Operation } from '../colours/operation.ts';
import type { Layer, LayerSettings } from '../drawing/layer.ts';
import type { Evidence, Machine, Material, Recipe } from './shop.ts';

/** Where a setting came from. */
export type SettingSource =
  | { readonly kind: 'recipe'; readonly evidence: Evidence }
  | { readonly kind: 'key' }
  | { readonly kind: 'hand' };

/** The settings a layer burns with, and where each came from; null where there is no number to go by. */
export interface AppliedSettings {
  readonly settings: LayerSettings | null;
  readonly recipe: Recipe | null;
  readonly sources: Readonly<Partial<Record<keyof LayerSettings, SettingSource>>>;
}

export function findRecipe(material: Material | null, machineId: string, operation: Operation): Recipe | null {
  return material?.recipes.find((recipe) => recipe.machineId === machineId && recipe.operation === operation) ?? null;
}

/** The recipe's settings, with what the layer's key says laid over them, and over that what was changed by hand. */
export function applyRecipe(
  material: Material | null,
  machineId: string,
  { operation, settings: byKey = {}, powerShare }: Pick<Layer, 'operation' | 'settings' | 'powerShare'>,
  byHand: Partial<LayerSettings> = {},
): AppliedSettings {
  const recipe = findRecipe(material, machineId, operation);
  const sources: Partial<Record<keyof LayerSettings, SettingSource>> = {};
  const from = <K extends keyof LayerSettings>(setting: K): LayerSettings[K] | undefined => {
    const own = byHand[setting];
    if (own !== undefined) {
      sources[setting] = { kind: 'hand' };
      return own;
    }
    const keyed = byKey[setting];
    if (keyed !== undefined) {
      sources[setting] = { kind: 'key' };
      return keyed;
    }
    const known = recipe?.[setting] ?? undefined;
    if (recipe && known !== undefined) sources[setting] = { kind: 'recipe', evidence: recipe.evidence };
    return known;
  };
  let powerPercent = from('powerPercent');
  if (powerShare !== undefined && powerPercent !== undefined && sources.powerPercent?.kind === 'recipe') {
    powerPercent = Math.round(powerPercent * powerShare * 100) / 100;
    sources.powerPercent = { kind: 'key' };
  }
  const speedMmPerS = from('speedMmPerS');
  const passes = from('passes') ?? 1;
  const lineSpacingMm = from('lineSpacingMm') ?? 0.1;
  const kerfMm = operation === 'cut' ? (from('kerfMm') ?? 0) : 0;
  if (powerPercent === undefined || speedMmPerS === undefined) return { settings: null, recipe, sources };
  return { settings: { powerPercent, speedMmPerS, passes, lineSpacingMm, kerfMm }, recipe, sources };
}

/** No laser that burns sheets takes away more, in mm. */
const widestKerf = 2;

/** What of the settings the machine cannot do: one plain sentence each; none when all is well. */
export function beyondMachine(settings: LayerSettings, operation: Operation, machine: Machine): string[] {
  const said: string[] = [];
  const { powerPercent, speedMmPerS, passes, lineSpacingMm, kerfMm } = settings;
  if (!(powerPercent > 0 && powerPercent <= 100)) {
    said.push(`Power is ${powerPercent} %; ${machine.name} takes more than 0 and up to 100 %.`);
  }
  if (!(speedMmPerS > 0 && speedMmPerS <= machine.topSpeed)) {
    said.push(`Speed is ${speedMmPerS} mm/s; ${machine.name} burns at more than 0 and up to ${machine.topSpeed} mm/s.`);
  }
  if (!(Number.isInteger(passes) && passes >= 1 && passes <= 50)) {
    said.push(`Passes are ${passes}; they are a whole number from 1 to 50.`);
  }
  if (!(kerfMm >= 0 && kerfMm <= widestKerf)) {
    said.push(`Kerf is ${kerfMm} mm; a beam takes away from 0 to ${widestKerf} mm.`);
  }
  if (operation === 'engrave' && !(lineSpacingMm >= machine.minLineSpacing && lineSpacingMm <= 5)) {
    said.push(
      `Line spacing is ${lineSpacingMm} mm; ${machine.name} holds lines from ${machine.minLineSpacing} to 5 mm apart.`,
    );
  }
  return said;
}
