import type { Material, Recipe } from '@lambent/core/recipes';
import { IsIn, IsInt, IsObject, IsString, Length, Min } from 'class-validator';

/** A material without its recipes; one that is new gets an id made of its name where it has none. */
export type SentMaterial = Pick<Material, MaterialNeeds> &
  Partial<Omit<Material, MaterialNeeds | 'version' | 'recipes'>>;
type MaterialNeeds = 'name' | 'thicknessMm' | 'tone' | 'sheetWidth' | 'sheetHeight';
/** A recipe; what it does not say is as usual. */
export type SentRecipe = Omit<Recipe, 'id' | 'version'>;

/** Whose edit of the book it is. */
class BookEditDto {
  @IsString()
  @Length(1, 120, { message: 'Say who changes the book, in 1 to 120 characters.' })
  by!: string;
}

/** A new material; an id is made of its name where it has none. What is in it is checked by `materialFromJson`. */
export class NewMaterialDto extends BookEditDto {
  @IsObject({ message: 'The material is missing.' })
  material!: SentMaterial;
}

/** A material as it is to be; `version` says which state of it was changed. Its recipes are changed one by one. */
export class MaterialDto extends NewMaterialDto {
  @IsInt()
  @Min(1)
  version!: number;
}

/** A new recipe of a material. What is in it is checked by `recipeFromJson`. */
export class NewRecipeDto extends BookEditDto {
  @IsObject({ message: 'The recipe is missing.' })
  recipe!: SentRecipe;
}

/** A recipe as it is to be; `version` says which state of it was changed. */
export class RecipeDto extends NewRecipeDto {
  @IsInt()
  @Min(1)
  version!: number;
}

/** Who takes a book in, and how; the body is the book. */
export class TakeBookInDto extends BookEditDto {
  @IsIn(['json', 'csv'], { message: 'A book is read as json or csv.' })
  format!: 'json' | 'csv';

  /** `good` takes what can be taken, `all-or-nothing` nothing unless all can. */
  @IsIn(['good', 'all-or-nothing'], { message: 'Say whether to take what is good, or all-or-nothing.' })
  take!: 'good' | 'all-or-nothing';
}

/** Who takes a change back. */
export class UndoChangeDto extends BookEditDto {}

/** A recipe, or a material without its recipes: these have a history of their own. */
export type BookEntry = Recipe | (Omit<Material, 'recipes'> & Partial<Pick<Material, 'recipes'>>);

/** One change of the book. */
export interface BookChange {
  readonly id: number;
  /** ISO 8601, in UTC. */
  readonly at: string;
  readonly by: string;
  readonly materialId: string;
  /** The recipe that was changed; null where it was the material itself. */
  readonly recipeId: number | null;
  /** In words, each value with what it was before. */
  readonly what: string;
  /** Null where it was made. */
  readonly before: BookEntry | null;
  readonly after: BookEntry;
}

/** What became of a book that was read in. */
export interface BookTaken {
  readonly added: number;
  readonly changed: number;
  /** What stood there as it was. */
  readonly same: number;
  /** What was not taken, by the line of the table. Where nothing was to be taken unless all could be, all stays as it is. */
  readonly faults: readonly { readonly line: number; readonly sentence: string }[];
  readonly taken: boolean;
}
