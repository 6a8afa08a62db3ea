/** What a number of a builder is asked for as. */
interface FieldBase {
  /** As it stands before its field. */
  readonly label: string;
  /** What it does, in a sentence. */
  readonly about?: string;
}

/** In mm. */
export interface LengthField extends FieldBase {
  readonly kind: 'length';
  readonly usual: number;
  readonly least: number;
  readonly most: number;
}

/** One after the other, in mm. */
export interface LengthsField extends FieldBase {
  readonly kind: 'lengths';
  readonly usual: readonly number[];
  /** Of each of them. */
  readonly least: number;
  readonly most: number;
}

/** A number of a unit that is no length: an angle in degrees, a share in percent. */
export interface QuantityField extends FieldBase {
  readonly kind: 'quantity';
  readonly unit: '°' | '%';
  readonly usual: number;
  readonly least: number;
  readonly most: number;
}

/** How many of something. */
export interface CountField extends FieldBase {
  readonly kind: 'count';
  readonly usual: number;
  readonly least: number;
  readonly most: number;
}

/** One of several, by its word. */
export interface ChoiceField<Word extends string = string> extends FieldBase {
  readonly kind: 'choice';
  readonly usual: NoInfer<Word>;
  readonly options: Readonly<Record<Word, string>>;
}

/** A straight edge of an outline that the builder is given: its number from 1 as the outline goes round, or 0 for the longest. */
export interface EdgeField extends FieldBase {
  readonly kind: 'edge';
  readonly usual: 0;
  /** Which of the outlines, from 0. */
  readonly outline: number;
}

export interface YesField extends FieldBase {
  readonly kind: 'yes';
  readonly usual: boolean;
}

export type Field = LengthField | LengthsField | QuantityField | CountField | ChoiceField | EdgeField | YesField;
export type Fields = Readonly<Record<string, Field>>;

/** What stands in the fields of a builder. */
export type NumbersOf<F extends Fields> = {
  readonly [K in keyof F]: F[K] extends YesField
    ? boolean
    : F[K] extends ChoiceField<infer Word>
      ? Word
      : F[K] extends LengthsField
        ? readonly number[]
        : number;
};

/** A number that cannot be: which, why, and the nearest one that can. */
export interface Trouble {
  readonly field: string;
  readonly message: string;
  /** Null where there is none, or none that is known. */
  readonly nearest: number | string | null;
}

/** A field for a length, in mm. */
export const length = (label: string, usual: number, [least, most]: readonly [number, number], about?: string) =>
  ({ kind: 'length', label, usual, least, most, about }) as const satisfies LengthField;

/** A field for lengths one after the other, each within limits, in mm. */
export const lengths = (
  label: string,
  usual: readonly number[],
  [least, most]: readonly [number, number],
  about?: string,
): LengthsField => ({ kind: 'lengths', label, usual, least, most, about });

/** A field for an angle or a share. */
export const quantity = (
  label: string,
  usual: number,
  unit: QuantityField['unit'],
  [least, most]: readonly [number, number],
  about?: string,
): QuantityField => ({ kind: 'quantity', label, unit, usual, least, most, about });

/** A field for a whole number. */
export const count = (label: string, usual: number, [least, most]: readonly [number, number], about?: string) =>
  ({ kind: 'count', label, usual, least, most, about }) as const satisfies CountField;

/** A field for one of several words. */
export const choice = <Word extends string>(
  label: string,
  usual: NoInfer<Word>,
  options: Readonly<Record<Word, string>>,
  about?: string,
): ChoiceField<Word> => ({ kind: 'choice', label, usual, options, about });

/** A field for a straight edge of an outline. @param outline which of those that the builder is given, from 0 */
export const edge = (label: string, outline: number) =>
  ({ kind: 'edge', label, usual: 0, outline }) as const satisfies EdgeField;

/** A field for yes or no. */
export const yes = (label: string, usual: boolean, about?: string) =>
  ({ kind: 'yes', label, usual, about }) as const satisfies YesField;

/** @returns what stands in fields to begin with */
export function usualNumbers<F extends Fields>(fields: F): NumbersOf<F> {
  return Object.fromEntries(Object.entries(fields).map(([name, { usual }]) => [name, usual])) as NumbersOf<F>;
}

/** Numbers as they were kept or typed, what is missing as usual. Nothing is brought within limits: what is beyond is said. */
export function readNumbers<F extends Fields>(
  fields: F,
  numbers: Readonly<Record<string, unknown>>,
): { numbers: NumbersOf<F>; troubles: Trouble[] } {
  const troubles: Trouble[] = [];
  const read = Object.entries(fields).map(([name, field]) => {
    const value = numbers[name] ?? field.usual;
    const trouble = troubleWith(field, value);
    if (trouble) troubles.push({ field: name, ...trouble });
    return [name, value];
  });
  return { numbers: Object.fromEntries(read) as NumbersOf<F>, troubles };
}

function troubleWith(field: Field, value: unknown): Omit<Trouble, 'field'> | null {
  const { kind, label, usual } = field;
  if (kind === 'yes') {
    return typeof value === 'boolean' ? null : { message: `${label} is either yes or no.`, nearest: null };
  }
  if (kind === 'choice') {
    const words = Object.keys(field.options);
    if (typeof value === 'string' && words.includes(value)) return null;
    return { message: `${label} is one of ${words.join(', ')}.`, nearest: usual };
  }
  if (kind === 'lengths') return troubleWithLengths(field, value);
  const unit = unitOf(field);
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    return { message: `${label} is a number.`, nearest: usual };
  }
  if ((kind === 'count' || kind === 'edge') && !Number.isInteger(value)) {
    return { message: `${label} is a whole number.`, nearest: Math.round(value) };
  }
  const { least, most } = kind === 'edge' ? edgeLimits : field;
  if (value >= least && value <= most) return null;
  const nearest = value < least ? least : most;
  return { message: `${label} is ${value}${unit}; it can be from ${least} to ${most}${unit}.`, nearest };
}

/** Whether there is such an edge is the builder's to say. */
const edgeLimits = { least: 0, most: 10000 };

/** What stands behind a number of a field, with what parts it from that. */
function unitOf(field: Field): string {
  if (field.kind === 'quantity') return field.unit === '%' ? ' %' : field.unit;
  return field.kind === 'length' ? ' mm' : '';
}

/** So many lengths are more than anybody types. */
const mostLengths = 100;

function troubleWithLengths(
  { label, usual, least, most }: LengthsField,
  value: unknown,
): Omit<Trouble, 'field'> | null {
  const isList = Array.isArray(value) && value.length > 0 && value.every((entry) => Number.isFinite(entry));
  if (!isList) return { message: `${label} are lengths, such as ${usual.join('; ')}.`, nearest: null };
  if (value.length > mostLengths) {
    return { message: `${label} are ${value.length}; there can be up to ${mostLengths}.`, nearest: null };
  }
  const wrong = value.find((entry) => entry < least || entry > most);
  if (wrong === undefined) return null;
  return { message: `${label}: one is ${wrong} mm; each can be from ${least} to ${most} mm.`, nearest: null };
}
