import { Mismatch, type Schema, such } from '../../schema/schema.ts';
import { list, record } from '../../schema/structures.ts';
import { type Material, materialSchema } from './material.ts';
import { type Recipe, recipeSchema } from './recipe.ts';

/*
 * The book as JSON, complete: what an export writes and an import takes, and how one material or recipe is sent.
 */

/** Says what in sent or read JSON is no book, material or recipe. */
export class NotABook extends Error {
  override readonly name = 'NotABook';
}

const format = 'lambent-book';
const version = 1;

const bookSchema = record({
  format: { read: (json: unknown) => said(json === format, format, `must be “${format}”`) },
  version: {
    read: (json: unknown) => said(json === version, version, `must be ${version}: it was written by a later Lambent`),
  },
  materials: such(list(materialSchema, { each: (i) => `material ${i + 1}` }), (materials) => {
    const twice = materials.find(({ id }, i) => materials.some((other, k) => k < i && other.id === id));
    return twice ? new Mismatch(`two materials have the id “${twice.id}”`, '', true, true) : null;
  }),
});

function said<T>(isRight: boolean, value: T, what: string): T {
  if (!isRight) throw new Mismatch(what);
  return value;
}

/** A whole book as text. */
export function bookToText(materials: readonly Material[]): string {
  return `${JSON.stringify({ format, version, materials }, null, 2)}\n`;
}

/**
 * A book from text.
 * @throws NotABook with one sentence that names the place
 */
export function bookFromText(text: string): readonly Material[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new NotABook(`It is not JSON: ${(error as Error).message}.`);
  }
  return readAs(bookSchema, json, 'the book').materials;
}

/** @throws NotABook with one sentence that names the place */
export function materialFromJson(json: unknown): Material {
  return readAs(materialSchema, json, 'the material');
}

/** @throws NotABook with one sentence that names the place */
export function recipeFromJson(json: unknown): Recipe {
  return readAs(recipeSchema, json, 'the recipe');
}

function readAs<T>(schema: Schema<T>, json: unknown, what: string): T {
  try {
    return schema.read(json);
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    const isBook = what === 'the book' && error.place !== '';
    const { message } = isBook ? error : error.within(what);
    throw new NotABook(`${message[0].toUpperCase()}${message.slice(1)}.`);
  }
}
