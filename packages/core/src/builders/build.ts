import type { Path } from '../geometry/paths/path.ts';
import type { BuildAnswer, Builder, SourceOutline, Stock } from './builder.ts';
import { type Fields, readNumbers, type Trouble } from './fields.ts';

/** No stock that is cut by a beam is thicker, in mm. */
const thickest = 60;

/**
 * Makes parts from numbers.
 *
 * @param numbers what is missing is as usual
 * @param outlines what it works on, where it takes any
 */
export function build<F extends Fields>(
  builder: Builder<F>,
  numbers: Readonly<Record<string, unknown>>,
  stock: Stock,
  outlines: readonly SourceOutline[] = [],
): BuildAnswer {
  const read = readNumbers(builder.fields, numbers);
  const troubles = [...troublesWithStock(stock), ...troublesWithCount(builder, outlines), ...read.troubles];
  if (troubles.length > 0) return { ok: false, troubles };
  const made = builder.build(read.numbers, stock, outlines);
  if (!('parts' in made)) return { ok: false, troubles: made };
  return { ok: true, built: made };
}

function troublesWithCount<F extends Fields>(
  { name, takes }: Builder<F>,
  outlines: readonly SourceOutline[],
): Trouble[] {
  const wanted = takes?.length ?? 0;
  if (outlines.length === wanted) return [];
  const message = `${name} is made of ${wanted} outlines, and there ${outlines.length === 1 ? 'is 1' : `are ${outlines.length}`}.`;
  return [{ field: 'outlines', message, nearest: null }];
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

/** What a builder's numbers point out on each of its outlines, in their frames; nothing where it points out nothing. */
export function marksOf<F extends Fields>(
  { fields, marks }: Builder<F>,
  numbers: Readonly<Record<string, unknown>>,
  outlines: readonly SourceOutline[],
): readonly Path[] {
  return marks?.(readNumbers(fields, numbers).numbers, outlines) ?? [];
}
