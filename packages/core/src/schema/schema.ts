/*
 * Schemas of what is stored and sent as JSON. From one schema come the type, the reading, what stands where nothing is
 * said, and the words in which something else is refused.
 */

/** Says what in JSON is not as its schema has it. */
export class Mismatch extends Error {
  override readonly name = 'Mismatch';

  /**
   * @param what goes on where the place's name ends, such as `must be a number`
   * @param place where it stands, such as `sheet 2: width`; empty for the value that was read itself
   * @param isClause whether `what` is a clause of its own, which stands behind a colon
   * @param isPlaced whether the place is told from the outermost value on
   */
  constructor(
    readonly what: string,
    readonly place = '',
    readonly isClause = false,
    readonly isPlaced = false,
  ) {
    super(place === '' ? what : `${place}${isClause ? ':' : ''} ${what}`);
  }

  /** The same, said of the value around it. */
  within(outer: string, isPlaced = false): Mismatch {
    if (this.isPlaced) return this;
    return new Mismatch(this.what, this.place === '' ? outer : `${outer}: ${this.place}`, this.isClause, isPlaced);
  }
}

/** How a value is read from JSON. */
export interface Schema<T> {
  /** @throws Mismatch */
  readonly read: (json: unknown) => T;
  /** The value as JSON; absent where the value is its own JSON. */
  readonly write?: (value: T) => unknown;
  /** The names of a record's own JSON that it is made of, where it does not stand under a name of its own. */
  readonly spreadOver?: readonly string[];
}

/** A field that may be missing. */
export interface OptionalSchema<T> extends Schema<T> {
  readonly isOptional: true;
}

// biome-ignore lint/suspicious/noExplicitAny: any schema, whatever it reads
type AnySchema = Schema<any>;
export type Fields = Readonly<Record<string, AnySchema>>;

/** What a schema reads. */
export type ValueOf<S> = S extends Schema<infer T> ? T : never;

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
 * No number of a document lies further from 0 than this: a kilometre, in mm. Larger ones come of files in wrong units, of
 * damage or of ill will, and would keep a planner busy for ever.
 */
export const largestNumber = 1e6;

/** A number from `least` to `most`, both included. */
export function number(least = -largestNumber, most = largestNumber): Schema<number> {
  return {
    read: (json) => {
      if (typeof json !== 'number' || !Number.isFinite(json)) throw new Mismatch('must be a number');
      if (json < least || json > most) throw beyond(json, least, most);
      return json;
    },
  };
}

function beyond(value: number, least: number, most: number): Mismatch {
  return new Mismatch(`must lie between ${least} and ${most}, and is ${value}`);
}

/** A list of numbers; of so many, where `count` is given. The list is taken as it is, not copied. */
export function numbers(count?: number): Schema<readonly number[]> {
  return {
    read: (json) => {
      if (!Array.isArray(json)) throw new Mismatch('must be a list of numbers');
      for (const value of json) {
        if (!Number.isFinite(value)) throw new Mismatch('must be a list of numbers');
        if (Math.abs(value) > largestNumber) throw beyond(value, -largestNumber, largestNumber);
      }
      if (count !== undefined && json.length !== count) throw new Mismatch(`must be ${count} numbers`);
      return json;
    },
  };
}

/** Text, of any length. */
export const text: Schema<string> = {
  read: (json) => {
    if (typeof json !== 'string') throw new Mismatch('must be text');
    return json;
  },
};

/** Yes or no; whatever is not `true` is no. */
export const flag: Schema<boolean> = { read: (json) => json === true };

/** One of some words. */
export function oneOf<const T extends string>(words: readonly T[]): Schema<T> {
  return {
    read: (json) => {
      const found = words.find((word) => word === json);
      if (found === undefined) throw new Mismatch(`must be ${inWords(words)}`);
      return found;
    },
  };
}

function inWords(words: readonly string[]): string {
  return words.join(words.length === 2 ? ' or ' : ', ');
}

/** A value, or null; null where nothing is said. */
export function orNull<T>(schema: Schema<T>): Schema<T | null> {
  return {
    read: (json) => (json === null || json === undefined ? null : schema.read(json)),
    ...(schema.write ? { write: (value) => (value === null ? null : schema.write?.(value)) } : {}),
  };
}

/** A value that may be missing. */
export function optional<T>(schema: Schema<T>): OptionalSchema<T> {
  return { ...schema, read: (json) => (json === undefined ? (undefined as T) : schema.read(json)), isOptional: true };
}

/** A value that is missing where it is null, empty or not said. */
export function orMissing<T>(schema: Schema<T>): OptionalSchema<T> {
  const isNothing = (json: unknown) => json === null || json === undefined || json === '';
  return {
    ...schema,
    read: (json) => {
      const value = isNothing(json) ? undefined : schema.read(json);
      return (isNothing(value) ? undefined : value) as T;
    },
    isOptional: true,
  };
}

/** A value, with what stands there where nothing is said. */
export function withUsual<T>(schema: Schema<T>, usual: T): Schema<T> {
  return { ...schema, read: (json) => (json === undefined ? usual : schema.read(json)) };
}

/**
 * A value of which more is asked.
 * @param fault what is wrong with it, such as `must be a whole number`; null where nothing is
 */
export function such<T>(schema: Schema<T>, fault: (value: T) => string | Mismatch | null): Schema<T> {
  return {
    ...schema,
    read: (json) => {
      const value = schema.read(json);
      const what = fault(value);
      if (what !== null) throw what instanceof Mismatch ? what : new Mismatch(what);
      return value;
    },
  };
}

/** One of some words; anything else is as if nothing were said. */
export function knownWord<const T extends string>(words: readonly T[]): OptionalSchema<T> {
  return { read: (json) => words.find((word) => word === json) as T, isOptional: true };
}

/** Yes, or nothing. */
export const yes: OptionalSchema<true> = {
  read: (json) => (json === true ? true : undefined) as true,
  isOptional: true,
};

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

/** An object that is no list. */
export function objectFrom(json: unknown): Record<string, unknown> {
  if (typeof json !== 'object' || json === null || Array.isArray(json)) throw new Mismatch('is missing');
  return json as Record<string, unknown>;
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
