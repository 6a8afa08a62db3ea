import type { BookChange, BookTaken, FitDto, KerfDto } from '@lambent/contracts';
import {
  bookFromText,
  changesInWords,
  type FigureSource,
  type Machine,
  type Material,
  materialFromJson,
  type Recipe,
  readBookCsv,
  recipeFromJson,
  recipeKey,
  recipeTitle,
  type StockedSheet,
} from '@lambent/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { type EntityManager, Repository } from 'typeorm';
import { notFound, PlainError } from '../common/errors.ts';
import { materialOf, materialRow, recipeOf, recipeRow } from '../data/book-rows.ts';
import { BookChangeEntity, MaterialEntity, RecipeEntity } from '../data/entities.ts';
import { ShopService } from '../data/shop.service.ts';

/** A recipe, or a material without its recipes, as it stands in the history. */
type Entry = Material | Recipe;

/** A change of the book that is being made: by whom, and the machines that its words name. */
interface Edit {
  readonly manager: EntityManager;
  readonly by: string;
  readonly machines: readonly Machine[];
}

/** The recipe book: every change of it is checked, is kept with who made it, and can be taken back. */
@Injectable()
export class BookService {
  constructor(
    private readonly shop: ShopService,
    @InjectRepository(MaterialEntity) private readonly materials: Repository<MaterialEntity>,
    @InjectRepository(BookChangeEntity) private readonly changes: Repository<BookChangeEntity>,
  ) {}

  /** @throws NotABook when it is none; PlainError 409 when there is one of that id */
  async addMaterial(by: string, json: Record<string, unknown>): Promise<Material> {
    const material = materialFromJson({ ...json, id: json.id ?? idOf(json), recipes: [] });
    await this.edit(by, (edit) => this.insertMaterial(edit, material));
    return this.material(material.id);
  }

  /** @throws NotABook when it is none; PlainError 409 when it was changed meanwhile */
  async changeMaterial(id: string, by: string, version: number, json: Record<string, unknown>): Promise<Material> {
    const material = materialFromJson({ ...json, id, recipes: [] });
    await this.edit(by, async (edit) => {
      const row = await rowOf(edit.manager, id);
      if (row.version !== version)
        throw await this.changedMeanwhile(edit, row.name, { materialId: id, recipeId: null });
      // Fits are kept one by one as they are measured.
      await this.updateMaterial(edit, row, { ...material, fits: row.fits ?? undefined });
    });
    return this.material(id);
  }

  /** @throws NotABook when it is none; PlainError 409 when there is one for the same */
  async addRecipe(materialId: string, by: string, json: Record<string, unknown>): Promise<Material> {
    const recipe = recipeFromJson(json);
    await this.edit(by, async (edit) => {
      const row = await rowOf(edit.manager, materialId);
      await this.insertRecipe(edit, row, recipe);
    });
    return this.material(materialId);
  }

  /** @throws NotABook when it is none; PlainError 409 when it was changed meanwhile, or there is one for the same */
  async changeRecipe(id: number, by: string, version: number, json: Record<string, unknown>): Promise<Material> {
    const recipe = recipeFromJson(json);
    const materialId = await this.edit(by, async (edit) => {
      const { row, material } = await recipeRowOf(edit.manager, id);
      if (row.version !== version) {
        const name = `${recipeTitle(recipeOf(row), edit.machines)} of ${material.name}`;
        throw await this.changedMeanwhile(edit, name, { materialId: row.materialId, recipeId: id });
      }
      await this.updateRecipe(edit, row, recipe);
      return row.materialId;
    });
    return this.material(materialId);
  }

  /** Keeps the width of the burn with a machine's cutting recipe. @throws PlainError 409 when there is none */
  async keepKerf(materialId: string, { machineId, mm, from, by }: KerfDto): Promise<Material> {
    await this.edit(by, async (edit) => {
      const { name } = await rowOf(edit.manager, materialId);
      const cuts = { materialId, machineId, operation: 'cut' as const, archived: false };
      const row = await edit.manager.findOne(RecipeEntity, { where: cuts, order: { variant: 'ASC', id: 'ASC' } });
      if (!row) {
        throw new PlainError(
          409,
          'no-recipe',
          `${name} has no cutting recipe on this machine to keep the kerf with. Choose the machine the piece was cut on.`,
        );
      }
      await this.updateRecipe(edit, row, { ...recipeOf(row), kerfMm: mm, kerfFrom: sourceNow(from, by) });
    });
    return this.material(materialId);
  }

  async keepFit(id: string, { fit, mm, from, by }: FitDto): Promise<Material> {
    await this.edit(by, async (edit) => {
      const row = await rowOf(edit.manager, id);
      const fits = { ...row.fits, [fit]: { mm, source: sourceNow(from, by) } };
      await this.updateMaterial(edit, row, { ...withoutRecipes(row), fits });
    });
    return this.material(id);
  }

  /** Changes which sheets of a material the shop has. */
  async changeStock(
    id: string,
    by: string,
    change: (stock: readonly StockedSheet[]) => readonly StockedSheet[],
  ): Promise<void> {
    await this.edit(by, async (edit) => {
      const row = await rowOf(edit.manager, id);
      await this.updateMaterial(edit, row, { ...withoutRecipes(row), stock: change(row.stock ?? []) });
    });
  }

  /** The changes of a material and its recipes, the latest first. */
  async history(materialId: string): Promise<BookChange[]> {
    await rowOf(this.materials.manager, materialId);
    const rows = await this.changes.find({ where: { materialId }, order: { id: 'DESC' }, take: 500 });
    return rows.map(({ at, ...change }) => ({ ...change, at: at.toISOString() }));
  }

  /** Takes one change back. @throws PlainError 409 when what it changed was changed again */
  async undo(id: number, by: string): Promise<Material> {
    const materialId = await this.edit(by, async (edit) => {
      const change = await edit.manager.findOneBy(BookChangeEntity, { id });
      if (!change) throw notFound('change');
      const { recipeId, before, after } = change;
      if (recipeId === null) {
        const row = await rowOf(edit.manager, change.materialId);
        refuseUnlessSame(withoutRecipes(row), after);
        const back = (before ?? { ...after, archived: true }) as Material;
        await this.updateMaterial(edit, row, back);
      } else {
        const { row } = await recipeRowOf(edit.manager, recipeId);
        refuseUnlessSame(recipeOf(row), after);
        await this.updateRecipe(edit, row, (before ?? { ...after, archived: true }) as Recipe);
      }
      return change.materialId;
    });
    return this.material(materialId);
  }

  /**
   * Takes a book in: materials and recipes that are new are added, those that are known are changed to what it says, and
   * nothing is taken out.
   * @param take whether what is good is taken, or nothing unless all is
   * @throws NotABook when it is no book at all
   */
  async takeIn(by: string, format: 'json' | 'csv', text: string, take: 'good' | 'all-or-nothing'): Promise<BookTaken> {
    const { materials: known, machines } = await this.shop.everything();
    const { book, faults } =
      format === 'json' ? { book: bookFromText(text), faults: [] } : this.table(text, known, machines);
    const counts = { added: 0, changed: 0, same: 0 };
    const taken = faults.length === 0 || take === 'good';
    if (!taken) return { ...counts, faults, taken };
    await this.edit(by, async (edit) => {
      for (const { recipes, ...material } of book) {
        const stored = await edit.manager.findOne(MaterialEntity, {
          where: { id: material.id },
          relations: { recipes: true },
        });
        // A book that says nothing of stock takes none away.
        const stock = material.stock ?? stored?.stock ?? undefined;
        if (stored) counts[await this.updateMaterial(edit, stored, { ...material, stock, recipes: [] })]++;
        else {
          await this.insertMaterial(edit, { ...material, recipes: [] });
          counts.added++;
        }
        const row = stored ?? (await rowOf(edit.manager, material.id));
        for (const recipe of recipes) {
          const old = stored?.recipes.find((one) => !one.archived && recipeKey(recipeOf(one)) === recipeKey(recipe));
          if (old) counts[await this.updateRecipe(edit, old, recipe)]++;
          else {
            await this.insertRecipe(edit, row, recipe);
            counts.added++;
          }
        }
      }
    });
    return { ...counts, faults, taken };
  }

  /** A table as materials: what it does not say of those that are known stays as it is. */
  private table(text: string, known: readonly Material[], machines: Parameters<typeof readBookCsv>[2]) {
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
      const old = stored?.recipes.find((one) => !one.archived && recipeKey(one) === recipeKey(recipe));
      book.set(material.id, { ...start, recipes: [...start.recipes, { ...recipe, ...besideTable(old, recipe) }] });
    }
    return { book: [...book.values()], faults };
  }

  private async insertMaterial({ manager, by }: Edit, material: Material): Promise<void> {
    if (await manager.existsBy(MaterialEntity, { id: material.id })) {
      throw new PlainError(
        409,
        'material-exists',
        `There is a material “${material.id}” already. Give this one another name.`,
      );
    }
    const position = await manager.count(MaterialEntity);
    await manager.insert(MaterialEntity, { ...materialRow(material), version: 1, position });
    await this.keep(manager, {
      by,
      materialId: material.id,
      recipeId: null,
      what: 'made',
      before: null,
      after: material,
    });
  }

  private async updateMaterial(
    { manager, by }: Edit,
    row: MaterialEntity,
    material: Material,
  ): Promise<'changed' | 'same'> {
    const before = withoutRecipes(row);
    const what = changesInWords(before, material);
    if (what === '') return 'same';
    const { recipes: _, ...after } = material;
    await manager.update(MaterialEntity, { id: row.id }, { ...materialRow(material), version: row.version + 1 });
    await this.keep(manager, { by, materialId: row.id, recipeId: null, what, before, after: after as Material });
    return 'changed';
  }

  private async insertRecipe(edit: Edit, material: MaterialEntity, recipe: Recipe): Promise<void> {
    await this.refuseTwice(edit, material.id, recipe, null);
    const { manager, by, machines } = edit;
    const { identifiers } = await manager.insert(RecipeEntity, {
      ...recipeRow(recipe),
      version: 1,
      materialId: material.id,
    });
    const recipeId = Number(identifiers[0].id);
    const what = `${recipeTitle(recipe, machines)}: made`;
    await this.keep(manager, { by, materialId: material.id, recipeId, what, before: null, after: recipe });
  }

  private async updateRecipe(edit: Edit, row: RecipeEntity, recipe: Recipe): Promise<'changed' | 'same'> {
    const { manager, by, machines } = edit;
    const { id: _, version: __, ...before } = recipeOf(row);
    const { id: ___, version: ____, ...after } = recipe;
    const words = changesInWords(before, after);
    if (words === '') return 'same';
    await this.refuseTwice(edit, row.materialId, recipe, row.id);
    await manager.update(RecipeEntity, { id: row.id }, { ...recipeRow(recipe), version: row.version + 1 });
    const what = `${recipeTitle(before, machines)}: ${words}`;
    await this.keep(manager, { by, materialId: row.materialId, recipeId: row.id, what, before, after });
    return 'changed';
  }

  private async refuseTwice(
    { manager, machines }: Edit,
    materialId: string,
    recipe: Recipe,
    but: number | null,
  ): Promise<void> {
    if (recipe.archived) return;
    const rows = await manager.findBy(RecipeEntity, { materialId, archived: false });
    if (rows.every((row) => row.id === but || recipeKey(recipeOf(row)) !== recipeKey(recipe))) return;
    throw new PlainError(
      409,
      'recipe-exists',
      `There is a recipe for ${recipeTitle(recipe, machines)} already. Change that one, or give this one a variant of its own.`,
    );
  }

  private async changedMeanwhile(
    { manager }: Edit,
    name: string,
    of: Pick<BookChangeEntity, 'materialId' | 'recipeId'>,
  ): Promise<PlainError> {
    const where = of.recipeId === null ? { materialId: of.materialId } : { recipeId: of.recipeId };
    const last = await manager.findOne(BookChangeEntity, { where, order: { id: 'DESC' } });
    const how = last ? ` by ${last.by}: ${last.what}` : '';
    return new PlainError(
      409,
      'changed-meanwhile',
      `${name} was changed meanwhile${how}. Look at it as it is now, then change it again.`,
      last?.after,
    );
  }

  private async keep(manager: EntityManager, change: Omit<BookChangeEntity, 'id' | 'at'>): Promise<void> {
    await manager.insert(BookChangeEntity, { ...change, at: new Date() });
  }

  /** Does something to the book, whole or not at all. */
  private async edit<T>(by: string, work: (edit: Edit) => Promise<T>): Promise<T> {
    const machines = await this.shop.machines();
    return this.materials.manager.transaction((manager) => work({ manager, by, machines }));
  }

  private async material(id: string): Promise<Material> {
    const row = await this.materials.findOne({
      where: { id },
      relations: { recipes: true },
      order: { recipes: { id: 'ASC' } },
    });
    if (!row) throw notFound('material');
    return materialOf(row);
  }
}

async function rowOf(manager: EntityManager, id: string): Promise<MaterialEntity> {
  const row = await manager.findOneBy(MaterialEntity, { id });
  if (!row) throw notFound('material');
  return row;
}

async function recipeRowOf(
  manager: EntityManager,
  id: number,
): Promise<{ row: RecipeEntity; material: MaterialEntity }> {
  const row = await manager.findOneBy(RecipeEntity, { id });
  if (!row) throw notFound('recipe');
  return { row, material: await rowOf(manager, row.materialId) };
}

/** A material as it stands in the history: its recipes have a history of their own. */
function withoutRecipes(row: MaterialEntity): Material {
  const { recipes: _, version: __, ...material } = materialOf({ ...row, recipes: [] });
  return material as Material;
}

function refuseUnlessSame(now: Entry, then: Entry): void {
  if (changesInWords(then, now) === '') return;
  throw new PlainError(
    409,
    'changed-again',
    'It was changed again since. Take the later changes back first, or change it by hand.',
  );
}

function sourceNow(from: FigureSource['from'], by: string): FigureSource {
  return { from, by, on: new Date().toISOString().slice(0, 10) };
}

/** What a recipe has that a table cannot hold, and that still goes with what the table says. */
function besideTable(old: Recipe | undefined, { kerfMm, proof }: Recipe): Partial<Recipe> {
  if (!old) return {};
  const sameProof = proof && old.proof && proof.by === old.proof.by && proof.on === old.proof.on;
  return {
    ...(old.kerfFrom && old.kerfMm === kerfMm ? { kerfFrom: old.kerfFrom } : {}),
    ...(old.pictureId ? { pictureId: old.pictureId } : {}),
    ...(sameProof && proof.what === old.proof?.what ? { proof: old.proof } : {}),
  };
}

/** An id made of a material's name and thickness. */
function idOf({ name, thicknessMm }: Record<string, unknown>): string {
  const words = `${name} ${thicknessMm}`.normalize('NFKD').toLowerCase();
  return words
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 80);
}
