import { builtNumbers } from '../document/built.ts';
import { Mismatch, objectFrom, type ValueOf } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { text } from '../schema/values.ts';
import { readNumbers } from './fields.ts';
import { builders } from './list.ts';

/*
 * Numbers of a builder that the shop keeps under a name.
 */

const familySchema = record({ id: text, name: text, builder: text, numbers: builtNumbers });

/** Numbers of a builder under a name, such as “Seed drawer, small”. */
export type NumberFamily = ValueOf<typeof familySchema>;

/** Says what in a file is no family of numbers. */
export class NotAFamily extends Error {
  override readonly name = 'NotAFamily';
}

const kind = 'lambent numbers';
/** A name is no longer than that. */
const longestName = 80;

/** A family as a file that others can read. */
export function familyToJson({ id: _, ...family }: NumberFamily): string {
  return `${JSON.stringify({ kind, ...family }, null, 2)}\n`;
}

/**
 * A family from JSON: of a builder that there is, with fields that it has, and numbers within their limits.
 *
 * @param id what it is known by
 * @throws NotAFamily with one sentence that says what is wrong
 */
export function familyFromJson(json: unknown, id: string): NumberFamily {
  const family = read(json, id);
  const name = family.name.trim();
  if (name === '' || name.length > longestName) {
    throw new NotAFamily(`A name has 1 to ${longestName} characters.`);
  }
  const builder = builders.find((known) => known.id === family.builder);
  if (!builder) throw new NotAFamily(`These numbers are for “${family.builder}”, which this Lambent does not build.`);
  const unknown = Object.keys(family.numbers).find((field) => !(field in builder.fields));
  if (unknown !== undefined) throw new NotAFamily(`${builder.name} has no number “${unknown}”.`);
  const [trouble] = readNumbers(builder.fields, family.numbers).troubles;
  if (trouble) throw new NotAFamily(`${builder.name}: ${trouble.message}`);
  return { ...family, name };
}

function read(json: unknown, id: string): NumberFamily {
  try {
    const { kind: _, ...said } = objectFrom(json);
    return familySchema.read({ ...said, id });
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    throw new NotAFamily('This is no file of kept numbers: it must say a name, a builder and its numbers.');
  }
}

/** A family from the text of a file. @throws NotAFamily */
export function familyFromText(said: string, id: string): NumberFamily {
  let json: unknown;
  try {
    json = JSON.parse(said);
  } catch {
    throw new NotAFamily('This is no file of kept numbers: it holds no JSON. Choose one that was taken out here.');
  }
  return familyFromJson(json, id);
}
