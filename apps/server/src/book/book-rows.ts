import { type Material, type Recipe, settingsInRecipe } from '@lambent/core/recipes';
import { type Owned, unowned } from '../data/owned.ts';
import type { MaterialEntity, RecipeEntity } from './book.entities.ts';

/*
 * Materials and recipes as rows of the database, and back.
 */

type MaterialRow = Omit<MaterialEntity, 'recipes' | 'position' | keyof Owned>;

/** A recipe as it is stored; its id and its material are the row's own. */
export function recipeRow(
  recipe: Recipe,
): Omit<RecipeEntity, 'id' | 'version' | 'material' | 'materialId' | keyof Owned> {
  const { machineId, lensId, operation, variant, kerfFrom, evidence, proof, note, pictureId, archived } = recipe;
  return {
    machineId,
    lensId: lensId ?? null,
    operation,
    variant: variant ?? '',
    settings: settingsInRecipe(recipe),
    kerfFrom: kerfFrom ?? null,
    evidence,
    proof: proof ?? null,
    note,
    pictureId: pictureId ?? null,
    archived: archived ?? false,
  };
}

/** A recipe as the core has it, from its row. */
export function recipeOf(row: RecipeEntity): Recipe {
  const { id, version, machineId, lensId, operation, variant, settings, kerfFrom, evidence, proof, note } = row;
  const { pictureId, archived } = row;
  return {
    id,
    version,
    machineId,
    ...(lensId === null ? {} : { lensId }),
    operation,
    ...(variant === '' ? {} : { variant }),
    powerPercent: 0,
    speedMmPerS: 0,
    passes: 1,
    lineSpacingMm: 0.1,
    ...settings,
    ...(kerfFrom === null ? {} : { kerfFrom }),
    evidence,
    ...(proof === null ? {} : { proof }),
    note,
    ...(pictureId === null ? {} : { pictureId }),
    ...(archived ? { archived } : {}),
  };
}

/** A material as it is stored, without its recipes. */
export function materialRow(material: Material): Omit<MaterialRow, 'version'> {
  const { recipes: _, version: __, ...plain } = material;
  return {
    ...plain,
    family: plain.family ?? null,
    measuredMm: plain.measuredMm ?? null,
    colour: plain.colour ?? null,
    finish: plain.finish ?? null,
    masked: plain.masked ?? false,
    notes: plain.notes ?? '',
    archived: plain.archived ?? false,
    isClear: plain.isClear ?? false,
    turnsLighter: plain.turnsLighter ?? false,
    leastSizes: plain.leastSizes ?? null,
    fits: plain.fits ?? null,
    stock: plain.stock ?? null,
  };
}

/** A material with its recipes as the core has it, from its row. */
export function materialOf(entity: MaterialEntity): Material {
  const { position: _, recipes, ...row } = unowned(entity);
  const {
    family,
    measuredMm,
    colour,
    finish,
    masked,
    notes,
    archived,
    isClear,
    turnsLighter,
    leastSizes,
    fits,
    stock,
    ...plain
  } = row;
  return {
    ...plain,
    ...(family === null ? {} : { family }),
    ...(measuredMm === null ? {} : { measuredMm }),
    ...(colour === null ? {} : { colour }),
    ...(finish === null ? {} : { finish }),
    ...(masked ? { masked } : {}),
    ...(notes === '' ? {} : { notes }),
    ...(archived ? { archived } : {}),
    ...(isClear ? { isClear } : {}),
    ...(turnsLighter ? { turnsLighter } : {}),
    ...(leastSizes ? { leastSizes } : {}),
    recipes: recipes.map(recipeOf),
    ...(fits ? { fits } : {}),
    ...(stock ? { stock } : {}),
  };
}
