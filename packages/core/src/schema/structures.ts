import { type AnySchema, type Fields, Mismatch, objectFrom, type Schema, type ValueOf } from './schema.ts';
import { inWords, oneOf } from './values.ts';

/*
 * Schemas of what holds other values: lists, tables, records, records of several kinds.
 */

type OptionalNames<F extends Fields> = {
  [Name in keyof F]: F[Name] extends { readonly isOptional: true } ? Name : never;
}[keyof F];
type Values<F extends Fields, Name extends keyof F> = { readonly [N in Name]: ValueOf<F[N]> };
type Simplified<T> = { [Name in keyof T]: T[Name] };

/** What a record of fields holds. */
export type RecordOf<F extends Fields> = Simplified<
  Values<F, Exclude<keyof F, OptionalNames<F>>> & Partial<Values<F, OptionalNames<F>>>
>;

/**
 * A value of a schema that is made of itself.
 * @param deepest how deep it goes at most
 * @param what is said where it goes deeper
 */
export function nested<T>(schema: () => Schema<T>, deepest: number, what: string): Schema<T> {
  let depth = 0;
  return {
    read: (json) => {
      if (depth >= deepest) throw new Mismatch(what);
      depth++;
      try {
        return schema().read(json);
      } finally {
        depth--;
      }
    },
    write: (value) => {
      const { write } = schema();
      return write ? write(value) : value;
    },
  };
}

/** How a list is read. */
interface ListOptions {
  readonly most?: number;
  /** Names an entry by its place, counted from 0; where it is missing, faults of entries are those of the list. */
  readonly each?: (place: number) => string;
  /** Whether that says enough, whatever holds the list. */
  readonly isPlaced?: boolean;
}

/** A list of what a schema reads. @throws Mismatch with the place in the list */
export function list<T>(
  schema: Schema<T>,
  { most = Number.POSITIVE_INFINITY, each, isPlaced = true }: ListOptions = {},
): Schema<readonly T[]> {
  const { read, write } = schema;
  return {
    read: (json) => {
      if (!Array.isArray(json)) throw new Mismatch('must be a list');
      if (json.length > most) throw new Mismatch(`may hold ${most}, and holds ${json.length}`);
      return json.map((entry, place) => {
        try {
          return read(entry);
        } catch (error) {
          throw each ? placed(error, each(place), isPlaced) : error;
        }
      });
    },
    ...(write ? { write: (values) => values.map(write) } : {}),
  };
}

/**
 * Values by name.
 * @param each says what a value is called, by its name
 * @param isPlaced whether that says enough, whatever holds the table
 */
export function table<T>(
  schema: Schema<T>,
  each: (name: string) => string,
  isPlaced = false,
): Schema<Readonly<Record<string, T>>> {
  return {
    read: (json) => {
      const made: [string, T][] = Object.entries(objectFrom(json)).map(([name, value]) => [
        name,
        readAt(schema.read, value, each(name), isPlaced),
      ]);
      return Object.fromEntries(made);
    },
  };
}

/** A record of fields. What it has besides them is kept as it is: a newer build may know what it means. */
export interface RecordSchema<F extends Fields> extends Schema<RecordOf<F>> {
  readonly fields: F;
}

/** An object of fields. What it has besides is kept. @throws Mismatch with the field's name */
export function record<const F extends Fields>(fields: F): RecordSchema<F> {
  const entries = Object.entries(fields);
  const readers = entries.map(([name, { read, spreadOver }]) => ({ name, read, isSpread: spreadOver !== undefined }));
  const known = new Set(entries.flatMap(([name, { spreadOver }]) => spreadOver ?? [name]));
  const writers = entries.filter(([, { write }]) => write);
  return {
    fields,
    read: (json) => {
      const from = objectFrom(json);
      const made: Record<string, unknown> = {};
      let place = '';
      try {
        for (const { name, read, isSpread } of readers) {
          place = isSpread ? '' : name;
          const value = read(isSpread ? from : from[name]);
          if (value !== undefined) made[name] = value;
        }
      } catch (error) {
        throw place === '' ? error : placed(error, place, false);
      }
      for (const name in from) if (!known.has(name) && name !== '__proto__') made[name] = from[name];
      return made as RecordOf<F>;
    },
    ...(writers.length === 0
      ? {}
      : {
          write: (value: RecordOf<F>) => {
            const made: Record<string, unknown> = { ...value };
            for (const [name, { write, spreadOver }] of writers) {
              if (made[name] === undefined) continue;
              const json = write?.(made[name]);
              if (!spreadOver) made[name] = json;
              else {
                delete made[name];
                Object.assign(made, json);
              }
            }
            return made;
          },
        }),
  };
}

/** A record of one of several kinds; which, is in its field `tag`. */
export type VariantOf<Tag extends string, Kinds extends Readonly<Record<string, Fields>>> = {
  [Kind in keyof Kinds]: Simplified<{ readonly [T in Tag]: Kind } & RecordOf<Kinds[Kind]>>;
}[keyof Kinds];

/**
 * Records of several kinds, told apart by the field `tag`.
 * @param kinds by kind, the fields that it has besides
 * @param say what is said of a kind that there is not
 */
export function variants<Tag extends string, const Kinds extends Readonly<Record<string, Fields>>>(
  tag: Tag,
  kinds: Kinds,
  say?: (kind: unknown) => string,
): Schema<VariantOf<Tag, Kinds>> {
  const names = Object.keys(kinds);
  const records = new Map<unknown, AnySchema>(
    names.map((name) => [name, record({ [tag]: oneOf([name]), ...kinds[name] })]),
  );
  return {
    read: (json) => {
      const kind = objectFrom(json)[tag];
      const found = records.get(kind);
      if (found) return found.read(json) as VariantOf<Tag, Kinds>;
      throw say ? new Mismatch(say(kind), '', true) : new Mismatch(`must be ${inWords(names)}`, tag);
    },
    write: (value) => {
      const write = records.get((value as Record<string, unknown>)[tag])?.write;
      return write ? write(value) : value;
    },
  };
}

/**
 * A record whose faults are told as those of what holds it.
 * @param before goes before the names of its fields, where they would say too little alone
 */
export function unnamed<T>(schema: Schema<T>, before = ''): Schema<T> {
  return {
    ...schema,
    read: (json) => {
      try {
        return schema.read(json);
      } catch (error) {
        if (error instanceof Mismatch && error.place !== '' && !error.isPlaced) throw new Unnamed(error, before);
        throw error;
      }
    },
  };
}

class Unnamed extends Mismatch {
  constructor({ what, place, isClause }: Mismatch, before: string) {
    super(what, `${before}${place}`, isClause);
  }

  /** What holds it says its own name from here on. */
  override within(): Mismatch {
    return new Mismatch(this.what, this.place, this.isClause);
  }
}

function readAt<T>(read: (json: unknown) => T, json: unknown, place: string, isPlaced = false): T {
  try {
    return read(json);
  } catch (error) {
    throw placed(error, place, isPlaced);
  }
}

function placed(error: unknown, place: string, isPlaced: boolean): unknown {
  return error instanceof Mismatch ? error.within(place, isPlaced) : error;
}
