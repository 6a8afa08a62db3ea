import type { BookTaken, FitDto, KerfDto } from '@lambent/contracts';
import { burntOperations, separates } from '@lambent/core/operations';
import {
  bookFromText,
  type FigureSource,
  type Material,
  materialFromJson,
  type Recipe,
  readBookCsv,
  recipeFromJson,
  recipeKey,
  recipeTitle,
  type StockedSheet,
} from '@lambent/core/recipes';
import { In } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { BookChangeEntity, MaterialEntity, RecipeEntity } from './book.entities.ts';
/*
 * Every change of the recipe book. Each is checked, is kept with who made it in the same transaction, and can be taken
 * back. What is no book is refused with NotABook.
 */
import {
  begin,
  besideTable,
  changedMeanwhile,
  idFor,
  insertMaterial,
  insertRecipe,
  materialRowById,
  recipeRowById,
  refuseUnlessSame,
  updateMaterial,
  updateRecipe,
  withoutRecipes,
} from './book-edit.ts';
import { materialOf, recipeOf } from './book-rows.ts';

/** @returns its id @throws PlainError 409 when there is one of that id */
export async function addMaterial(writing: Writing, author: string, json: Record<string, unknown>): Promise<string> {
  const material = materialFromJson({ ...json, id: json.id ?? idFor(json), recipes: [] });
  await insertMaterial(await begin(writing, author), material);
  return material.id;
}

/** @throws PlainError 409 when it was changed meanwhile */
export async function changeMaterial(
  writing: Writing,
  author: string,
  id: string,
  version: number,
  json: Record<string, unknown>,
): Promise<void> {
  const material = materialFromJson({ ...json, id, recipes: [] });
  const edit = await begin(writing, author);
  const row = await materialRowById(writing, id);
  if (row.version !== version) throw await changedMeanwhile(edit, row.name, { materialId: id, recipeId: null });
  // Fits are kept one by one as they are measured.
  await updateMaterial(edit, row, { ...material, fits: row.fits ?? undefined });
}

/** @throws PlainError 409 when there is one for the same */
export async function addRecipe(
  writing: Writing,
  author: string,
  materialId: string,
  json: Record<string, unknown>,
): Promise<void> {
  const recipe = recipeFromJson(json);
  await insertRecipe(await begin(writing, author), await materialRowById(writing, materialId), recipe);
}

/** @returns its material's id @throws PlainError 409 when it was changed meanwhile, or there is one for the same */
export async function changeRecipe(
  writing: Writing,
  author: string,
  id: number,
  version: number,
  json: Record<string, unknown>,
): Promise<string> {
  const recipe = recipeFromJson(json);
  const edit = await begin(writing, author);
  const { row, material } = await recipeRowById(writing, id);
  if (row.version !== version) {
    const name = `${recipeTitle(recipeOf(row), edit.machines)} of ${material.name}`;
    throw await changedMeanwhile(edit, name, { materialId: row.materialId, recipeId: id });
  }
  await updateRecipe(edit, row, recipe);
  return row.materialId;
}

/** Keeps the width of the burn with a machine's cutting recipe. @throws PlainError 409 when there is none */
export async function keepKerf(
  writing: Writing,
  materialId: string,
  { machineId, mm, from, by }: KerfDto,
): Promise<void> {
  const { name } = await materialRowById(writing, materialId);
  const operation = In(burntOperations.filter(separates));
  const cuts = { materialId, machineId, operation, archived: false };
  const row = await writing.findOne(RecipeEntity, { where: cuts, order: { variant: 'ASC', id: 'ASC' } });
  if (!row) {
    throw new PlainError(
      409,
      'no-recipe',
      `${name} has no cutting recipe on this machine to keep the kerf with. Choose the machine the piece was cut on.`,
    );
  }
  await updateRecipe(await begin(writing, by), row, { ...recipeOf(row), kerfMm: mm, kerfFrom: sourceNow(from, by) });
}

/**
 * Keeps a measured clearance of a material, with who measured it and from what.
 * @throws PlainError 404 where there is no such material
 */
export async function keepFit(writing: Writing, id: string, { fit, mm, from, by }: FitDto): Promise<void> {
  const row = await materialRowById(writing, id);
  const fits = { ...row.fits, [fit]: { mm, source: sourceNow(from, by) } };
  await updateMaterial(await begin(writing, by), row, { ...withoutRecipes(row), fits });
}

/** Changes which sheets of a material the shop has; for writes of which this is a part. */
export async function changeStock(
  writing: Writing,
  author: string,
  id: string,
  change: (stock: readonly StockedSheet[]) => readonly StockedSheet[],
): Promise<void> {
  const row = await materialRowById(writing, id);
  await updateMaterial(await begin(writing, author), row, { ...withoutRecipes(row), stock: change(row.stock ?? []) });
}

/** Takes one change back. @returns its material's id @throws PlainError 409 when what it changed was changed again */
export async function undoBookChange(writing: Writing, author: string, id: number): Promise<string> {
  const edit = await begin(writing, author);
  const change = await writing.findOneBy(BookChangeEntity, { id });
  if (!change) throw notFound('change');
  const { recipeId, before, after } = change;
  if (recipeId === null) {
    const row = await materialRowById(writing, change.materialId);
    refuseUnlessSame(withoutRecipes(row), after);
    await updateMaterial(edit, row, (before ?? { ...after, archived: true }) as Material);
  } else {
    const { row } = await recipeRowById(writing, recipeId);
    refuseUnlessSame(recipeOf(row), after);
    await updateRecipe(edit, row, (before ?? { ...after, archived: true }) as Recipe);
  }
  return change.materialId;
}

/**
 * Takes a book in: materials and recipes that are new are added, those that are known are changed to what it says, and
 * nothing is taken out.
 * @param take whether what is good is taken, or nothing unless all is
 */
export async function takeBookIn(
  writing: Writing,
  author: string,
  format: 'json' | 'csv',
  text: string,
  take: 'good' | 'all-or-nothing',
): Promise<BookTaken> {
  const edit = await begin(writing, author);
  const known = (await writing.find(MaterialEntity, { relations: { recipes: true } })).map(materialOf);
  const { book, faults } =
    format === 'json' ? { book: bookFromText(text), faults: [] } : bookFromTable(text, known, edit.machines);
  const counts = { added: 0, changed: 0, same: 0 };
  const taken = faults.length === 0 || take === 'good';
  if (!taken) return { ...counts, faults, taken };
  for (const { recipes, ...material } of book) {
    const stored = await writing.findOne(MaterialEntity, {
      where: { id: material.id },
      relations: { recipes: true },
    });
    // A book that says nothing of stock takes none away.
    const stock = material.stock ?? stored?.stock ?? undefined;
    if (stored) counts[await updateMaterial(edit, stored, { ...material, stock, recipes: [] })]++;
    else {
      await insertMaterial(edit, { ...material, recipes: [] });
      counts.added++;
    }
    const row = stored ?? (await materialRowById(writing, material.id));
    for (const recipe of recipes) {
      const old = stored?.recipes.find((entry) => !entry.archived && recipeKey(recipeOf(entry)) === recipeKey(recipe));
      if (old) counts[await updateRecipe(edit, old, recipe)]++;
      else {
        await insertRecipe(edit, row, recipe);
        counts.added++;
      }
    }
  }
  return { ...counts, faults, taken };
}

/** A table as materials: what it does not say of those that are known stays as it is. */
function bookFromTable(text: string, known: readonly Material[], machines: Parameters<typeof readBookCsv>[2]) {
  const { rows, faults } = readBookCsv(text, known, machines);
  const book = new Map<string, Material>();
  for (const { material, recipe } of rows) {
    const stored = known.find(({ id }) => id === material.id);
    const plain = {
      name: material.id,
      thicknessMm: 1,
      tone: '#D8CFBA',
      sheetWidth: 300,
      sheetHeight: 200,
      forbidden: null,
    };
    const start = book.get(material.id) ?? { ...(stored ?? plain), ...material, recipes: [] };
    const old = stored?.recipes.find((entry) => !entry.archived && recipeKey(entry) === recipeKey(recipe));
    book.set(material.id, { ...start, recipes: [...start.recipes, { ...recipe, ...besideTable(old, recipe) }] });
  }
  return { book: [...book.values()], faults };
}

function sourceNow(from: FigureSource['from'], author: string): FigureSource {
  return { from, by: author, on: new Date().toISOString().slice(0, 10) };
}
