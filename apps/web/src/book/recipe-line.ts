import type { Machine } from '@lambent/core/machine';
import { burntOperations, operationOf } from '@lambent/core/operations';
import { type Material, type Recipe, settingsInRecipe } from '@lambent/core/recipes';
import {
  type Beyond,
  beyondMachine,
  type LayerSettings,
  settingOf,
  settingsOf,
  usualSettings,
} from '@lambent/core/settings';
import { api } from '../api.ts';
import type { SettingHold } from '../recipe/setting-hold.ts';
import { said } from '../words/words.ts';
import type { BookHold } from './use-book.ts';

/** A recipe as a line of the table: with its machine, what that cannot do of it, and how it is changed. */
export interface RecipeLine {
  readonly recipe: Recipe;
  readonly machine: Machine;
  readonly settings: LayerSettings;
  readonly beyond: readonly Beyond[];
  /** What it is called in labels: its operation, and its variant where it has one. */
  readonly title: string;
  readonly hold: SettingHold;
  /** Who changes the book. */
  readonly by: string;
  readonly change: (part: Partial<Recipe>) => void;
}

/** Today's date in UTC, as 2026-01-31. */
export const today = () => new Date().toISOString().slice(0, 10);

/** The recipes of a material that are in use: machine by machine, in the order of operations. */
export function recipeLines(material: Material, machines: readonly Machine[], book: BookHold): RecipeLine[] {
  return machines.flatMap((machine) =>
    material.recipes
      .filter(({ archived, machineId }) => !archived && machineId === machine.id)
      .toSorted((a, b) => burntOperations.indexOf(a.operation) - burntOperations.indexOf(b.operation))
      .map((recipe) => lineOf(recipe, material.id, machine, book)),
  );
}

function lineOf(recipe: Recipe, materialId: string, machine: Machine, book: BookHold): RecipeLine {
  const { operation } = recipe;
  const settings: LayerSettings = { ...usualSettings(), powerPercent: 0, speedMmPerS: 0, ...settingsInRecipe(recipe) };
  const beyond = beyondMachine(settings, operation, machine);
  const change = (part: Partial<Recipe>) =>
    void book.change((author, known) => {
      const now = known(materialId)?.recipes.find(({ id }) => id === recipe.id) ?? recipe;
      return api.changeRecipe(author, { ...now, ...part });
    });
  const hold: SettingHold = {
    settings,
    has: (setting) => settingsOf(operation).includes(setting),
    set: (setting) => (value) => {
      const isOther = recipe.evidence === 'proven' && settingOf(setting).isInEveryRecipe;
      const typed = {
        evidence: 'copied' as const,
        proof: { by: book.by, on: today(), what: 'typed into the book' },
      };
      const measured = { kerfFrom: { from: 'copied' as const, by: book.by, on: today() } };
      change({ [setting]: value, ...(isOther ? typed : {}), ...(setting === 'kerfMm' ? measured : {}) });
      return undefined;
    },
    look: (setting) => ({ marked: false, fault: beyond.find((entry) => entry.setting === setting)?.sentence }),
  };
  const title = `${said(operationOf(operation).name)}${recipe.variant ? `, ${recipe.variant}` : ''}`;
  return { recipe, machine, settings, beyond, title, hold, by: book.by, change };
}
