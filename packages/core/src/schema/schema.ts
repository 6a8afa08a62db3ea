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
export type AnySchema = Schema<any>;
export type Fields = Readonly<Record<string, AnySchema>>;

/** What a schema reads. */
export type ValueOf<S> = S extends Schema<infer T> ? T : never;

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

/** An object that is no list. */
export function objectFrom(json: unknown): Record<string, unknown> {
  if (typeof json !== 'object' || json === null || Array.isArray(json)) throw new Mismatch('is missing');
  return json as Record<string, unknown>;
}
