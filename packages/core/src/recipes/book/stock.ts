import type { Sheet } from '../../document/sheet.ts';
import type { Box } from '../../geometry/paths/box.ts';
import { type OptionalSchema, orNull, type ValueOf } from '../../schema/schema.ts';
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
        (near(entry.width, width) && near(entry.height, height)) ||
        (near(entry.width, height) && near(entry.height, width)),
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

/** An offcut more; of one size there may be several. */
export function addOffcut(
  stock: readonly StockedSheet[],
  { id, width, height }: Pick<StockedSheet, 'id' | 'width' | 'height'>,
): StockedSheet[] {
  const alike = stock.find(
    (entry) => entry.offcut && Math.abs(entry.width - width) < sameSize && Math.abs(entry.height - height) < sameSize,
  );
  if (alike) return stock.map((entry) => (entry === alike ? { ...entry, count: entry.count + 1 } : entry));
  return [...stock, { id, width, height, count: 1, price: null, offcut: true }];
}

/**
 * The largest rectangle that is left of a sheet beside what burnt on it, cut straight across: at one of its four sides.
 * @param burnt what burnt, on the bed, as the sheet lies straight
 * @returns its size in mm, whole; null where hardly anything is left
 */
export function offcutLeft(
  { x, y, width, height }: Pick<Sheet, 'x' | 'y' | 'width' | 'height'>,
  burnt: Box,
): { width: number; height: number } | null {
  const least = 20;
  const [across, down] = [
    Math.max(burnt.minX - x, x + width - burnt.maxX),
    Math.max(burnt.minY - y, y + height - burnt.maxY),
  ];
  const [beside, below] = [
    { width: Math.floor(Math.min(width, across)), height: Math.floor(height) },
    { width: Math.floor(width), height: Math.floor(Math.min(height, down)) },
  ];
  const larger = beside.width * beside.height >= below.width * below.height ? beside : below;
  return larger.width >= least && larger.height >= least ? larger : null;
}
