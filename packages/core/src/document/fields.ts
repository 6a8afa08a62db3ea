import type { FillRule } from '../geometry/areas/area.ts';
import type { Matrix, Point } from '../geometry/paths/matrix.ts';
import { coordsOf, type Path } from '../geometry/paths/path.ts';
import { Mismatch, objectFrom, type Schema } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { largestNumber, number, numbers } from '../schema/values.ts';

/*
 * Fields that several parts of a document have.
 */

/** A colour as `#RRGGBB`, in capitals. */
export const colour: Schema<string> = {
  read: (json) => {
    if (typeof json !== 'string' || !/^#[0-9A-F]{6}$/.test(json)) throw new Mismatch('must be like #D0481E');
    return json;
  },
};

export const matrix = numbers(6) as unknown as Schema<Matrix>;

export const point: Schema<Point> = record({ x: number(), y: number() });

/** Whatever is not `evenodd` is nonzero. */
export const fillRule: Schema<FillRule> = { read: (json) => (json === 'evenodd' ? 'evenodd' : 'nonzero') };

const letters = 'MLCZ';
/** By the code of a letter: its verb; 255 where it is none. */
const verbOf = new Uint8Array(128).fill(255);
for (let verb = 0; verb < letters.length; verb++) verbOf[letters.charCodeAt(verb)] = verb;

/** A path as JSON: its verbs are a string such as `MLCZ`. Read in loops: drawings have a hundred thousand of them. */
export const path: Schema<Path> = {
  read: (json) => {
    const { verbs: letters, coords: list } = objectFrom(json);
    if (!Array.isArray(list)) throw new Mismatch('must be a list of numbers', 'coords');
    const coords = new Float64Array(list.length);
    for (let i = 0; i < list.length; i++) {
      const value: unknown = list[i];
      if (typeof value !== 'number' || !(value >= -largestNumber && value <= largestNumber)) throw badCoords(list);
      coords[i] = value;
    }
    if (typeof letters !== 'string') throw new Mismatch('must be text', 'verbs');
    const verbs = new Uint8Array(letters.length);
    let needed = 0;
    for (let i = 0; i < letters.length; i++) {
      const verb = verbOf[letters.charCodeAt(i)] ?? 255;
      if (verb === 255) throw new Mismatch('may be M, L, C and Z', 'verbs');
      verbs[i] = verb;
      needed += coordsOf[verb as 0 | 1 | 2 | 3];
    }
    if (needed !== coords.length || (verbs.length > 0 && verbs[0] !== 0)) {
      throw new Mismatch('verbs and coords do not go together', '', true);
    }
    return { verbs, coords };
  },
  write: ({ verbs, coords }) => ({
    verbs: Array.from(verbs, (verb) => letters[verb]).join(''),
    coords: Array.from(coords),
  }),
};

/** What is wrong with a list of coordinates. */
function badCoords(list: readonly unknown[]): Mismatch {
  try {
    numbers().read(list);
  } catch (error) {
    if (error instanceof Mismatch) return error.within('coords');
  }
  return new Mismatch('must be a list of numbers', 'coords');
}

/** A path whose verbs and coords stand among the other fields of what has it. */
export const pathAmongFields: Schema<Path> = { ...path, spreadOver: ['verbs', 'coords'] };
