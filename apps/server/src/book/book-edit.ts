import type { Machine } from '@lambent/core/machine';
import { changesInWords, type Material, type Recipe, recipeKey, recipeTitle } from '@lambent/core/recipes';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Owned } from '../data/owned.ts';
import type { Writing } from '../data/writing.ts';
import { MachineEntity } from '../machines/machine.entity.ts';
import { BookChangeEntity, MaterialEntity, RecipeEntity } from './book.entities.ts';
import { materialOf, materialRow, recipeOf, recipeRow } from './book-rows.ts';

/*
 * Every change of the recipe book. Each is checked, is kept with who made it in the same transaction, and can be taken
 * back. What is no book is refused with NotABook.
 */

/** A recipe, or a material without its recipes, as it stands in the history. */
type Entry = Material | Recipe;

/** A change of the book that is being made: by whom, and the machines that its words name. */
interface Edit {
  readonly writing: Writing;
  readonly by: string;
  readonly machines: readonly Machine[];
}

/** Begins a change of the book by someone, with the machines that recipes are held to. */
export async function begin(writing: Writing, author: string): Promise<Edit> {
  const rows = await writing.find(MachineEntity, { order: { position: 'ASC' } });
  return { writing, by: author, machines: rows.map(({ definition }) => definition) };
}

/**
 * Adds a material without its recipes, and says so in the history.
 * @throws PlainError 409 where there is one of its id
 */
export async function insertMaterial({ writing, by }: Edit, material: Material): Promise<void> {
  if (await writing.existsBy(MaterialEntity, { id: material.id })) {
    throw new PlainError(
      409,
      'material-exists',
      `There is a material “${material.id}” already. Give this one another name.`,
    );
  }
  const position = await writing.count(MaterialEntity);
  await writing.insert(MaterialEntity, { ...materialRow(material), version: 1, position });
  await keepChange(writing, {
    by,
    materialId: material.id,
    recipeId: null,
    what: 'made',
    before: null,
    after: material,
  });
}

/**
 * Changes a material's own fields, and says so in the history.
 * @returns `same` where nothing differs, and nothing was written
 */
export async function updateMaterial(
  { writing, by }: Edit,
  row: MaterialEntity,
  material: Material,
): Promise<'changed' | 'same'> {
  const before = withoutRecipes(row);
  const what = changesInWords(before, material);
  if (what === '') return 'same';
  const { recipes: _, ...after } = material;
  await writing.update(MaterialEntity, { id: row.id }, { ...materialRow(material), version: row.version + 1 });
  await keepChange(writing, { by, materialId: row.id, recipeId: null, what, before, after: after as Material });
  return 'changed';
}

/**
 * Adds a recipe to a material, and says so in the history.
 * @throws PlainError 409 where the material has the same one
 */
export async function insertRecipe(edit: Edit, material: MaterialEntity, recipe: Recipe): Promise<void> {
  await refuseTwice(edit, material.id, recipe, null);
  const { writing, by, machines } = edit;
  const { identifiers } = await writing.insert(RecipeEntity, {
    ...recipeRow(recipe),
    version: 1,
    materialId: material.id,
  });
  const recipeId = Number(identifiers[0].id);
  const what = `${recipeTitle(recipe, machines)}: made`;
  await keepChange(writing, { by, materialId: material.id, recipeId, what, before: null, after: recipe });
}

/** Changes a recipe, and says so in the history. @returns `same` where nothing differs, and nothing was written */
export async function updateRecipe(edit: Edit, row: RecipeEntity, recipe: Recipe): Promise<'changed' | 'same'> {
  const { writing, by, machines } = edit;
  const { id: _, version: __, ...before } = recipeOf(row);
  const { id: ___, version: ____, ...after } = recipe;
  const words = changesInWords(before, after);
  if (words === '') return 'same';
  await refuseTwice(edit, row.materialId, recipe, row.id);
  await writing.update(RecipeEntity, { id: row.id }, { ...recipeRow(recipe), version: row.version + 1 });
  const what = `${recipeTitle(before, machines)}: ${words}`;
  await keepChange(writing, { by, materialId: row.materialId, recipeId: row.id, what, before, after });
  return 'changed';
}

async function refuseTwice(
  { writing, machines }: Edit,
  materialId: string,
  recipe: Recipe,
  but: number | null,
): Promise<void> {
  if (recipe.archived) return;
  const rows = await writing.findBy(RecipeEntity, { materialId, archived: false });
  if (rows.every((row) => row.id === but || recipeKey(recipeOf(row)) !== recipeKey(recipe))) return;
  throw new PlainError(
    409,
    'recipe-exists',
    `There is a recipe for ${recipeTitle(recipe, machines)} already. Change that one, or give this one a variant of its own.`,
  );
}

/** What is answered where someone else was quicker: who changed what. */
export async function changedMeanwhile(
  { writing }: Edit,
  name: string,
  entry: Pick<BookChangeEntity, 'materialId' | 'recipeId'>,
): Promise<PlainError> {
  const where = entry.recipeId === null ? { materialId: entry.materialId } : { recipeId: entry.recipeId };
  const last = await writing.findOne(BookChangeEntity, { where, order: { id: 'DESC' } });
  const how = last ? ` by ${last.by}: ${last.what}` : '';
  return new PlainError(
    409,
    'changed-meanwhile',
    `${name} was changed meanwhile${how}. Look at it as it is now, then change it again.`,
    last?.after,
  );
}

async function keepChange(
  writing: Writing,
  change: Omit<BookChangeEntity, 'id' | 'at' | 'material' | keyof Owned>,
): Promise<void> {
  await writing.insert(BookChangeEntity, { ...change, at: new Date() });
}

/** @throws PlainError 404 where there is no such material */
export async function materialRowById(writing: Writing, id: string): Promise<MaterialEntity> {
  const row = await writing.findOneBy(MaterialEntity, { id });
  if (!row) throw notFound('material');
  return row;
}

/** @throws PlainError 404 where there is no such recipe */
export async function recipeRowById(
  writing: Writing,
  id: number,
): Promise<{ row: RecipeEntity; material: MaterialEntity }> {
  const row = await writing.findOneBy(RecipeEntity, { id });
  if (!row) throw notFound('recipe');
  return { row, material: await materialRowById(writing, row.materialId) };
}

/** A material as it stands in the history: its recipes have a history of their own. */
export function withoutRecipes(row: MaterialEntity): Material {
  const { recipes: _, version: __, ...material } = materialOf({ ...row, recipes: [] });
  return material as Material;
}

/** Holds that an entry is as it was. @throws PlainError 409 where it has been changed since */
export function refuseUnlessSame(now: Entry, then: Entry): void {
  if (changesInWords(then, now) === '') return;
  throw new PlainError(
    409,
    'changed-again',
    'It was changed again since. Take the later changes back first, or change it by hand.',
  );
}

/** What a recipe has that a table cannot hold, and that still goes with what the table says. */
export function besideTable(old: Recipe | undefined, { kerfMm, proof }: Recipe): Partial<Recipe> {
  if (!old) return {};
  const sameProof = proof && old.proof && proof.by === old.proof.by && proof.on === old.proof.on;
  return {
    ...(old.kerfFrom && old.kerfMm === kerfMm ? { kerfFrom: old.kerfFrom } : {}),
    ...(old.pictureId ? { pictureId: old.pictureId } : {}),
    ...(sameProof && proof.what === old.proof?.what ? { proof: old.proof } : {}),
  };
}

/** An id made of a material's name and thickness. */
export function idFor({ name, thicknessMm }: Record<string, unknown>): string {
  const words = `${name} ${thicknessMm}`.normalize('NFKD').toLowerCase();
  return words
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 80);
}
