import type { Machine } from '../machine/machine.ts';
import { type Operation, waysOf } from '../operations/operations.ts';
import { type Fields, optional, type Schema } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import type { CardRange, Setting } from './setting.ts';

export type { CardRange };

import { settingTable } from './table.ts';

/** What can be set on a layer; lengths in mm, speed in mm/s, power in per cent of the machine's, times in seconds. */
export type LayerSettings = {
  readonly [Name in keyof typeof settingTable]: ReturnType<(typeof settingTable)[Name]['schema']['read']>;
};

export type SettingName = keyof LayerSettings;

/** The settings that every recipe says. */
export type SettingInEveryRecipe = {
  [Name in SettingName]: (typeof settingTable)[Name] extends { readonly isInEveryRecipe: true } ? Name : never;
}[SettingName];

/** The settings that a test card can try. */
export type SettingOnCards = {
  [Name in SettingName]: (typeof settingTable)[Name] extends { readonly onCards: CardRange } ? Name : never;
}[SettingName];

type UnsaidName = 'powerPercent' | 'speedMmPerS';

// biome-ignore lint/suspicious/noExplicitAny: settings of all kinds of values side by side
type AnySetting = Setting<any>;

const known = new Map(Object.entries(settingTable) as [SettingName, AnySetting][]);

/** Every setting there is, by its name in documents. */
export function allSettings(): ReadonlyMap<SettingName, AnySetting> {
  return known;
}

/** @throws RangeError where there is no setting of that name */
export function settingOf(name: SettingName): AnySetting {
  const setting = known.get(name);
  if (!setting) throw new RangeError(`settingOf: there is no setting “${name}”`);
  return setting;
}

/** Adds a setting to the table, for a test. @returns what takes it out again */
export function addSetting(name: string, setting: AnySetting): () => void {
  if (known.has(name as SettingName)) throw new RangeError(`addSetting: “${name}” is there already`);
  known.set(name as SettingName, setting);
  return () => known.delete(name as SettingName);
}

/** What goes without saying. */
export function usualSettings(): Omit<LayerSettings, UnsaidName> {
  const usual = [...known].flatMap(([name, setting]) => ('usual' in setting ? [[name, setting.usual]] : []));
  return Object.fromEntries(usual) as Omit<LayerSettings, UnsaidName>;
}

/** Which settings an operation burns with. */
export function settingsOf(operation: Operation): SettingName[] {
  const ways = waysOf(operation);
  return [...known].flatMap(([name, { concerns }]) => (ways.includes(concerns) ? [name] : []));
}

/** The settings that a test card can try. */
export function settingsOnCards(): SettingOnCards[] {
  return [...known].flatMap(([name, { onCards }]) => (onCards ? [name as SettingOnCards] : []));
}

/** The fields of a record that holds settings. @param fieldOf how each of them is read there */
export function settingFields(fieldOf: (setting: AnySetting, name: SettingName) => Schema<unknown>): Fields {
  return Object.fromEntries([...known].map(([name, setting]) => [name, fieldOf(setting, name)]));
}

/** Some settings, as JSON has them. What a newer build knows besides is kept. */
export const settingsSchema: Schema<Partial<LayerSettings>> = {
  read: (json) => record(settingFields(({ schema }) => optional(schema))).read(json),
};

/** One of a layer's settings that the machine cannot do, and the sentence that says so. */
export interface Beyond {
  readonly setting: SettingName;
  readonly sentence: string;
  /** The value nearest to it that the machine can do; missing where only the operator can say. */
  readonly nearest?: LayerSettings[SettingName];
}

/** What of the settings the machine cannot do; nothing when all is well. */
export function beyondMachine(settings: LayerSettings, operation: Operation, machine: Machine): Beyond[] {
  return settingsOf(operation).flatMap((name) => {
    const { beyond, within } = settingOf(name);
    const context = { machine, operation, settings };
    const sentence = beyond?.(settings[name], context) ?? null;
    if (sentence === null) return [];
    return [{ setting: name, sentence, ...(within ? { nearest: within(settings[name], context) } : {}) }];
  });
}
