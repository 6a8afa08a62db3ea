import type { BuildAnswer, Builder, Stock } from './builder.ts';
import { type Fields, readNumbers, type Trouble } from './fields.ts';

/** No stock that is cut by a beam is thicker, in mm. */
const thickest = 60;

/**
 * Makes parts from numbers.
 *
 * @param numbers what is missing is as usual
 */
export function build<F extends Fields>(
  builder: Builder<F>,
  numbers: Readonly<Record<string, unknown>>,
  stock: Stock,
): BuildAnswer {
  const read = readNumbers(builder.fields, numbers);
  const troubles = [...troublesWithStock(stock), ...read.troubles];
  if (troubles.length > 0) return { ok: false, troubles };
  const made = builder.build(read.numbers, stock);
  if (!('parts' in made)) return { ok: false, troubles: made };
  return { ok: true, built: made };
}

function troublesWithStock({ thicknessMm }: Stock): Trouble[] {
  if (thicknessMm > 0 && thicknessMm <= thickest) return [];
  const message = `The stock is ${thicknessMm} mm thick; it can be from more than 0 to ${thickest} mm.`;
  return [{ field: 'stock', message, nearest: thicknessMm > thickest ? thickest : null }];
}

/** Which of a builder's fields mean something, given what stands in them; what is missing is as usual. */
export function askedOf<F extends Fields>(builder: Builder<F>, numbers: Readonly<Record<string, unknown>>): string[] {
  const read = readNumbers(builder.fields, numbers);
  return [...(builder.asks?.(read.numbers) ?? Object.keys(builder.fields))];
}
