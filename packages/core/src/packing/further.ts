import type { JobDocument } from '../document/job.ts';
import type { Sheet } from '../document/sheet.ts';
import type { Machine } from '../machine/machine.ts';
import type { Material } from '../recipes/book/material.ts';
import { sheetAsStocked } from '../recipes/book/shop.ts';
import type { StockedSheet } from '../recipes/book/stock.ts';

/** Sheets of one kind that the shop has besides those on the bed. */
export interface FurtherSheet {
  /** Such a sheet as it would lie on the bed. */
  readonly sheet: Sheet;
  /** How many there are; null for as many as it takes. */
  readonly count: number | null;
}

/** The sheets of a material that are not on the bed: its offcuts, the smallest first, and its whole ones. */
export interface FurtherSheets {
  readonly offcuts: readonly FurtherSheet[];
  readonly whole: readonly FurtherSheet[];
}

/**
 * What the shop has of the material of a job's sheet, as far as it is counted; where no whole sheets are, as many of the usual
 * size as it takes. Those on the bed are not among them.
 */
export function furtherSheets(
  { sheets }: Pick<JobDocument, 'sheets'>,
  material: Material,
  machine: Machine,
): FurtherSheets {
  const first = sheets.find(({ materialId }) => materialId === material.id);
  const stock = material.stock ?? [];
  const laid = ({ id }: StockedSheet) => sheets.filter(({ stockId }) => stockId === id).length;
  const kindOf = (entry: StockedSheet): FurtherSheet => ({
    sheet: laidAs(sheetAsStocked('', material, machine, entry.id), first, machine),
    count: entry.count - laid(entry),
  });
  const left = ({ count }: FurtherSheet) => count === null || count > 0;
  const areaOfSheet = ({ width, height }: StockedSheet) => width * height;
  const whole = stock.filter(({ offcut }) => !offcut).map(kindOf);
  const usual = { sheet: laidAs(sheetAsStocked('', { ...material, stock: [] }, machine), first, machine), count: null };
  return {
    offcuts: stock
      .filter(({ offcut }) => offcut)
      .toSorted((a, b) => areaOfSheet(a) - areaOfSheet(b))
      .map(kindOf)
      .filter(left),
    whole: whole.length > 0 ? whole.filter(left) : [usual],
  };
}

/** Laid with its corner where that of the first sheet lies, as far as the bed has room; and with its margin. */
function laidAs(sheet: Sheet, first: Sheet | undefined, { origin, bedWidth, bedHeight }: Machine): Sheet {
  if (!first || origin === 'centre') return { ...sheet, margin: first?.margin ?? sheet.margin };
  const y = origin === 'top-left' ? first.y : first.y + first.height - sheet.height;
  const isOnBed = first.x >= 0 && y >= 0 && first.x + sheet.width <= bedWidth && y + sheet.height <= bedHeight;
  return { ...sheet, margin: first.margin, ...(isOnBed ? { x: first.x, y } : {}) };
}
