import type { Sheet } from '../../document/sheet.ts';
import { ringsSchema } from '../../document/sheet-outline.ts';
import { Mismatch, type OptionalSchema, optional, orNull, type ValueOf } from '../../schema/schema.ts';
import { record } from '../../schema/structures.ts';
import { fromTo, text, whole, yes } from '../../schema/values.ts';

/*
 * The sheets of a material that the shop has: what is taken for a run, put back, or left over.
 */

/** Sheets of one size, in mm. */
export const stockedSheet = record({
  id: text,
  width: fromTo(1, 10_000),
  height: fromTo(1, 10_000),
  count: whole(fromTo(0, 100_000)),
  /** What one costs, in the shop's currency; null where it is charged by the area. */
  price: orNull(fromTo(0, 1e6)),
  /** Left of a larger one. */
  offcut: yes as OptionalSchema<boolean>,
  /** The outline of an offcut with its holes, within its width and height from its top left; a rectangle where nothing is said. */
  outline: optional(ringsSchema),
});
export type StockedSheet = ValueOf<typeof stockedSheet>;

/** Sheets that differ by less, in mm, are of one size. */
const sameSize = 0.5;

/** From which of a material's sheets one on the bed was taken: as it says, else by its size, whichever way it lies. */
export function stockOf(
  stock: readonly StockedSheet[] | undefined,
  { stockId, width, height }: Pick<Sheet, 'stockId' | 'width' | 'height'>,
): StockedSheet | null {
  const near = (a: number, b: number) => Math.abs(a - b) < sameSize;
  return (
    stock?.find(({ id }) => id === stockId) ??
    stock?.find(
      (entry) =>
        !entry.outline &&
        ((near(entry.width, width) && near(entry.height, height)) ||
          (near(entry.width, height) && near(entry.height, width))),
    ) ??
    null
  );
}

/** One sheet less, where there is one; an offcut that is used up is there no more. */
export function takeSheet(stock: readonly StockedSheet[], id: string): StockedSheet[] {
  return stock
    .map((entry) => (entry.id === id ? { ...entry, count: Math.max(0, entry.count - 1) } : entry))
    .filter((entry) => entry.count > 0 || !entry.offcut);
}

/** One sheet more of the size that one was taken from; an offcut that was used up is there again. */
export function putSheetBack(stock: readonly StockedSheet[], taken: StockedSheet): StockedSheet[] {
  if (!stock.some(({ id }) => id === taken.id)) return [...stock, { ...taken, count: 1 }];
  return stock.map((entry) => (entry.id === taken.id ? { ...entry, count: entry.count + 1 } : entry));
}

/** An offcut more; of rectangles of one size there may be several. */
export function addOffcut(
  stock: readonly StockedSheet[],
  { id, width, height, outline }: Pick<StockedSheet, 'id' | 'width' | 'height' | 'outline'>,
): StockedSheet[] {
  const near = (a: number, b: number) => Math.abs(a - b) < sameSize;
  const alike = outline
    ? undefined
    : stock.find((entry) => entry.offcut && !entry.outline && near(entry.width, width) && near(entry.height, height));
  if (alike) return stock.map((entry) => (entry === alike ? { ...entry, count: entry.count + 1 } : entry));
  return [...stock, { id, width, height, count: 1, price: null, offcut: true, ...(outline ? { outline } : {}) }];
}

/** So far may rounding be off, in mm. */
const roundingMm = 0.01;

/** What is wrong with the outline of an offcut of such a size, in words that go on from its name; null where nothing is. */
export function outlineFault(outline: unknown, width: number, height: number): string | null {
  try {
    const rings = ringsSchema.read(outline);
    const isWithin = (mm: number, i: number) => mm >= -roundingMm && mm <= (i % 2 === 0 ? width : height) + roundingMm;
    if (rings.length === 0) return 'has one closed line at least';
    return rings.every((ring) => ring.every(isWithin))
      ? null
      : 'lies within its width and height, from its own top left';
  } catch (error) {
    if (error instanceof Mismatch) return error.message;
    throw error;
  }
}
