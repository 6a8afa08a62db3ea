import { largestNumber, Mismatch, type Schema } from '../schema/schema.ts';

/*
 * Checked pieces of JSON; each says where in the file it found what it does not take.
 */

/** Says what in stored or sent JSON is not a drawing. */
export class NotADrawing extends Error {
  override readonly name = 'NotADrawing';
}

/** Reads what a schema describes. @throws NotADrawing naming what is wrong */
export function readBy<T>(schema: Schema<T>, json: unknown, where: string): T {
  try {
    return schema.read(json);
  } catch (error) {
    if (error instanceof Mismatch) throw new NotADrawing(error.within(where).message);
    throw error;
  }
}

export function asRecord(value: unknown, where: string): Record<string, unknown> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new NotADrawing(`${where} is missing`);
  return value as Record<string, unknown>;
}

export function asText(value: unknown, where: string): string {
  if (typeof value !== 'string') throw new NotADrawing(`${where} must be text`);
  return value;
}

export function asTextOrNull(value: unknown, where: string): string | null {
  return value === null || value === undefined ? null : asText(value, where);
}

/** A number from `least` to `most`. */
export function asNumber(value: unknown, where: string, least = -largestNumber, most = largestNumber): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new NotADrawing(`${where} must be a number`);
  if (value < least || value > most) throw beyond(value, where, least, most);
  return value;
}

export function asNumbers(value: unknown, where: string): number[] {
  if (!Array.isArray(value)) throw new NotADrawing(`${where} must be a list of numbers`);
  for (const number of value) {
    if (!Number.isFinite(number)) throw new NotADrawing(`${where} must be a list of numbers`);
    if (Math.abs(number) > largestNumber) throw beyond(number, where, -largestNumber, largestNumber);
  }
  return value;
}

function beyond(value: number, where: string, least: number, most: number): NotADrawing {
  return new NotADrawing(`${where} must lie between ${least} and ${most}, and is ${value}`);
}

export function asColour(value: unknown, where: string): string | null {
  if (value === null || value === undefined) return null;
  if (typeof value !== 'string' || !/^#[0-9A-F]{6}$/.test(value))
    throw new NotADrawing(`${where} must be like #D0481E`);
  return value;
}

/** A list of at most `most`. */
export function asList(value: unknown, where: string, most = Number.POSITIVE_INFINITY): unknown[] {
  if (!Array.isArray(value)) throw new NotADrawing(`${where} must be a list`);
  if (value.length > most) throw new NotADrawing(`${where} may hold ${most}, and holds ${value.length}`);
  return value;
}

export function oneOf<T extends string>(value: unknown, known: readonly T[], where: string): T {
  const found = known.find((one) => one === value);
  if (found === undefined) throw new NotADrawing(`${where} must be ${known.join(', ')}`);
  return found;
}
