import { Mismatch, type OptionalSchema, type Schema, such } from './schema.ts';

/*
 * Schemas of single values: numbers, words, yes or no.
 */

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

/** Words as a sentence names them: `a or b`, `a, b, c`. */
export function inWords(words: readonly string[]): string {
  return words.join(words.length === 2 ? ' or ' : ', ');
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

/** A whole number from `least` to `most`, both included. */
export const wholeNumber = (least: number, most: number): Schema<number> =>
  such(number(), (value) =>
    Number.isInteger(value) && value >= least && value <= most
      ? null
      : `must be a whole number from ${least} to ${most}`,
  );

/** A number from `least`, or, where that is null, more than 0, up to `most`. */
export function fromTo(least: number | null, most: number): Schema<number> {
  return such(number(), (value) => {
    if (least === null ? value > 0 && value <= most : value >= least && value <= most) return null;
    return `must be ${least === null ? 'more than 0' : `from ${least}`} and up to ${most}`;
  });
}

/** A number of a schema that has no part behind the point. */
export const whole = (schema: Schema<number>): Schema<number> =>
  such(schema, (value) => (Number.isInteger(value) ? null : 'must be a whole number'));

/** Text of 1 to so many characters that is not all blanks; blanks around it are left out. */
export const named = (most: number): Schema<string> => ({
  read: (json) => {
    const said = text.read(json).trim();
    if (said.length === 0 || said.length > most) throw new Mismatch(`must have 1 to ${most} characters`);
    return said;
  },
});
