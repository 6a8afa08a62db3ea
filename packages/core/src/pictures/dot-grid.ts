import type { Box } from '../geometry/paths/box.ts';

/** Dots in rows that are level, in a frame of their own, in mm. */
export interface DotGrid {
  readonly columns: number;
  readonly rows: number;
  /** Where the first dot begins. */
  readonly left: number;
  readonly top: number;
  /** How wide a dot is, and how far apart rows are. */
  readonly dotMm: number;
  readonly rowMm: number;
}

/** Dots of a size over a box; they stand over on both sides alike. @param rowMm how far apart rows are */
export function gridOver({ minX, minY, maxX, maxY }: Box, dotMm: number, rowMm: number): DotGrid {
  const [columns, left] = cellsAlong(minX, maxX, dotMm);
  const [rows, top] = cellsAlong(minY, maxY, rowMm);
  return { columns, rows, left, top, dotMm, rowMm };
}

/** The dots of a grid that a box lies on. @returns them as a grid, and its first column and row in the whole */
export function gridWithin(grid: DotGrid, { minX, minY, maxX, maxY }: Box) {
  const { left, top, dotMm, rowMm } = grid;
  // What rounding adds to a box takes no dots more.
  const first = (mm: number, size: number) => Math.max(0, Math.floor(mm / size + 1e-6));
  const count = (mm: number, size: number, from: number, most: number) =>
    Math.max(0, Math.min(most, Math.ceil(mm / size - 1e-6)) - from);
  const [column, row] = [first(minX - left, dotMm), first(minY - top, rowMm)];
  const columns = count(maxX - left, dotMm, column, grid.columns);
  const rows = count(maxY - top, rowMm, row, grid.rows);
  return { column, row, grid: { ...grid, columns, rows, left: left + column * dotMm, top: top + row * rowMm } };
}

/** How many cells of a size cover a range, and where the first begins; they stand over at both ends alike. */
function cellsAlong(from: number, to: number, size: number): [number, number] {
  const count = Math.max(1, Math.round((to - from) / size));
  return [count, (from + to - count * size) / 2];
}
