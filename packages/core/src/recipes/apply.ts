import type { Operation } from '../colours/operation.ts';
import { type Air, type Layer, type LayerSettings, settingsOf, usualSettings } from '../drawing/layer.ts';
import {
  type Evidence,
  type Machine,
  type Material,
  type Recipe,
  type Shop,
  settingsInRecipe,
  thicknessOf,
  topSpeedOf,
} from './shop.ts';
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
  const of = (name: string) => ranked.find((recipe) => (recipe.variant ?? '') === name);
  return of(variant) ?? of('') ?? null;
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
  if (!material || settingsOf[operation].length === 0) return null;
  const usual = thicknessOf(material);
  const thickness = thicknessMm ?? usual;
  const recipe = findRecipe(material, machine.id, operation, choice);
  const isAsThick = Math.abs(thickness - usual) <= sameThickness * usual;
  if (recipe && (isAsThick || operation !== 'cut')) {
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
  for (const setting of settingsOf[operation]) {
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
  const settings = { ...usualSettings, ...found } as Partial<LayerSettings>;
  let { powerPercent } = settings;
  const byBook = sources.powerPercent !== undefined && sources.powerPercent === basis?.source;
  if (powerShare !== undefined && powerPercent !== undefined && byBook) {
    powerPercent = Math.round(powerPercent * powerShare * 100) / 100;
    sources.powerPercent = { kind: 'key' };
  }
  const isWhole = powerPercent !== undefined && settings.speedMmPerS !== undefined;
  return { settings: isWhole ? ({ ...settings, powerPercent } as LayerSettings) : null, basis, sources };
}

/** One of a layer's settings that the machine cannot do, and the sentence that says so. */
export interface Beyond {
  readonly setting: keyof LayerSettings;
  readonly sentence: string;
}

/** No laser that burns sheets takes away more, in mm. */
const widestKerf = 2;
/** Scan lines further apart, in mm, are lines of their own. */
const widestSpacing = 5;
/** No beam is left standing for longer, in seconds. */
const longestWait = 10;

/** What of the settings the machine cannot do; nothing when all is well. */
export function beyondMachine(settings: LayerSettings, operation: Operation, machine: Machine): Beyond[] {
  const { name, focus } = machine;
  const used = new Set(settingsOf[operation]);
  const said: Beyond[] = [];
  const range = (setting: keyof LayerSettings, least: number, most: number, say: (value: number) => string) => {
    const value = settings[setting];
    if (!used.has(setting) || typeof value !== 'number' || (value >= least && value <= most)) return;
    said.push({ setting, sentence: say(value) });
  };
  const [leastPower, mostPower] = [machine.leastPower ?? 0, machine.mostPower ?? 100];
  const takes = leastPower > 0 ? `from ${leastPower} to ${mostPower} %` : `more than 0 and up to ${mostPower} %`;
  range(
    'powerPercent',
    Math.max(leastPower, Number.MIN_VALUE),
    mostPower,
    (value) => `Power is ${value} %; ${name} takes ${takes}.`,
  );
  const top = topSpeedOf(machine, operation);
  const does = top < machine.topSpeed ? doing[operation] : 'burns';
  range(
    'speedMmPerS',
    Number.MIN_VALUE,
    top,
    (value) => `Speed is ${value} mm/s; ${name} ${does} at more than 0 and up to ${top} mm/s.`,
  );
  const { passes } = settings;
  if (!(Number.isInteger(passes) && passes >= 1 && passes <= 50)) {
    said.push({ setting: 'passes', sentence: `Passes are ${passes}; they are a whole number from 1 to 50.` });
  }
  range('kerfMm', 0, widestKerf, (value) => `Kerf is ${value} mm; a beam takes away from 0 to ${widestKerf} mm.`);
  range(
    'lineSpacingMm',
    machine.minLineSpacing,
    widestSpacing,
    (value) =>
      `Line spacing is ${value} mm; ${name} holds lines from ${machine.minLineSpacing} to ${widestSpacing} mm apart.`,
  );
  range(
    'cornerPowerPercent',
    0,
    Number.isFinite(settings.powerPercent) ? settings.powerPercent : 100,
    (value) => `Power at corners is ${value} %; it is from 0 to the ${settings.powerPercent} % of the line.`,
  );
  for (const [setting, what] of [
    ['pierceS', 'At the start of a line'],
    ['cornerWaitS', 'At a corner'],
  ] as const) {
    range(setting, 0, longestWait, (value) => `${what} the beam stands ${value} s; it may for 0 to ${longestWait} s.`);
  }
  range('scanAngle', -360, 360, (value) => `Scan lines are turned ${value}°; they may be from -360° to 360°.`);
  range('runUpMm', 0, 200, (value) => `The run-up is ${value} mm; it is from 0 to 200 mm.`);
  const deepest = Math.round((settings.focusMm - (passes - 1) * settings.focusStepMm) * 1000) / 1000;
  const [lowest, highest] = [Math.min(settings.focusMm, deepest), Math.max(settings.focusMm, deepest)];
  if (!focus && (settings.focusMm !== 0 || deepest !== settings.focusMm)) {
    said.push({
      setting: settings.focusMm !== 0 ? 'focusMm' : 'focusStepMm',
      sentence: `The focus would go to ${lowest !== 0 ? lowest : highest} mm; that of ${name} is set by hand. Leave it at 0 mm.`,
    });
  } else if (focus && !(lowest >= focus.lowest && highest <= focus.highest)) {
    const first = settings.focusMm >= focus.lowest && settings.focusMm <= focus.highest;
    said.push({
      setting: first ? 'focusStepMm' : 'focusMm',
      sentence: `The focus would ${lowest === highest ? 'be at' : `go from ${lowest} to`} ${highest} mm; that of ${name} reaches from ${focus.lowest} to ${focus.highest} mm above the stock.`,
    });
  }
  const air = airBeyond(settings.air, machine);
  if (air) said.push({ setting: 'air', sentence: air });
  return said;
}

const doing: Readonly<Record<Operation, string>> = {
  cut: 'cuts',
  score: 'scores',
  engrave: 'engraves',
  guide: 'burns',
  note: 'burns',
};

function airBeyond(air: Air, { name, air: has }: Machine): string | null {
  if (air === 'off') return null;
  if (typeof air === 'number') {
    const most = has?.mostBar ?? null;
    if (most === null) return `Air is ${air} bar; ${name} cannot set a pressure.`;
    return air > 0 && air <= most ? null : `Air is ${air} bar; ${name} blows at more than 0 and up to ${most} bar.`;
  }
  if (has?.levels.includes(air)) return null;
  return `Air is ${air}; ${name} ${has && has.levels.length > 0 ? `has only ${has.levels.join(' and ')}` : 'cannot switch its air'}.`;
}
