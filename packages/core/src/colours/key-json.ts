import { Mismatch, objectFrom } from '../schema/schema.ts';
import { type ColourKey, keySchema } from './key.ts';

/** Says what in a file is not a colour key. */
export class NotAKey extends Error {
  override readonly name = 'NotAKey';
}

const kind = 'lambent colour key';

/** A colour key as a file others can read. */
export function keyToJson(key: ColourKey): string {
  return `${JSON.stringify({ kind, ...key }, null, 2)}\n`;
}

/**
 * Builds a key from JSON, checking all of it.
 * @throws NotAKey with one sentence that names the place
 */
export function keyFromJson(json: unknown): ColourKey {
  try {
    const { kind: _, ...said } = objectFrom(json);
    const key = keySchema.read(said);
    return { ...key, name: key.name.trim() };
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    throw new NotAKey(`This is not a colour key: ${faultOf(error)}.`);
  }
}

/** Reads a key from the text of a file. @throws NotAKey */
export function keyFromText(text: string): ColourKey {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new NotAKey(
      'This is not a colour key: the file holds no JSON. Choose a file that was saved from the Colour keys.',
    );
  }
  return keyFromJson(json);
}

function faultOf({ isPlaced, isClause, place, message }: Mismatch): string {
  if (isPlaced || isClause) return message;
  return place === '' ? `The colour key ${message}` : `its ${message}`;
}
