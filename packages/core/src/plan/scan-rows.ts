import { type Box, boxContains, boxHeight, uniteBoxes } from '../geometry/paths/box.ts';
import { type Polyline, polylineContains } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { crossings, type Filled, type Row, type ScanGrid } from './scan-lines.ts';
import { thinParts, thinRows } from './thin-parts.ts';

/**
 * The rows through a block, half a spacing in from its top, that cross anything; and the bounds of what lies between two
 * rows: whole figures, not holes in them, and thin parts of others.
 * @param thinLines whether what lies between rows gets lines of its own, among the rows; then nothing is missed
 */
export function crossingsByRow(
  block: readonly Filled[],
  spacing: number,
  thinLines: boolean,
): { rows: Row[]; missed: Box[] } {
  const bounds = block.map((piece) => piece.bounds).reduce(uniteBoxes);
  const count = Math.max(1, Math.round(boxHeight(bounds) / spacing));
  const grid = { first: bounds.minY + (boxHeight(bounds) - (count - 1) * spacing) / 2, spacing, count };
  const rows = crossings(block, grid, 'rows').flatMap((xs, row): Row[] =>
    xs.length > 1 ? [{ y: grid.first + row * spacing, xs }] : [],
  );
  const parts = thinParts(block, grid, bounds);
  const figures = missedBetween(block, grid);
  if (thinLines) {
    const alone = figures.filter(({ box }) => !parts.some((part) => boxContains(box, part.box)));
    const own = alone.flatMap(({ outline, box }): Row[] => {
      const middle = { first: (box.minY + box.maxY) / 2, spacing, count: 1 };
      const [xs] = crossings([{ outlines: [outline], bounds: box }], middle, 'rows');
      return xs.length > 1 ? [{ y: middle.first, xs }] : [];
    });
    const all = [...rows, ...own, ...thinRows(parts)].sort((a, b) => a.y - b.y || a.xs[0] - b.xs[0]);
    return { rows: all, missed: [] };
  }
  const boxes = figures.map(({ box }) => box);
  const others = parts.filter((part) => !boxes.some((box) => boxContains(box, part.box, spacing)));
  return { rows, missed: [...boxes, ...others.map(({ box }) => box)] };
}

/** The outlines that no row crosses, and that have what burns inside. */
function missedBetween(block: readonly Filled[], { first, spacing }: ScanGrid): { outline: Polyline; box: Box }[] {
  const all = block.flatMap(({ outlines }) => outlines.map((outline) => ({ outline, box: polylineBounds(outline) })));
  return all.filter(({ outline, box }) => {
    // A row takes an edge's upper end, not its lower.
    const next = first + Math.max(0, Math.ceil((box.minY - first) / spacing)) * spacing;
    if (next < box.maxY || outline.points.length < 6) return false;
    const [x, y] = outline.points;
    const holders = all.filter(
      (other) => other.outline !== outline && boxContains(other.box, box) && polylineContains(other.outline, x, y),
    );
    return holders.length % 2 === 0;
  });
}
