import { type Box, boxContains, boxHeight, uniteBoxes } from '../geometry/paths/box.ts';
import { type Polyline, polylineContains } from '../geometry/paths/flatten.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';

/** Something to fill: the closed outlines of one item and their bounds, in bed mm. */
export interface Filled {
  readonly outlines: readonly Polyline[];
  readonly bounds: Box;
}

/** A row of what is filled, or of a picture. */
export interface Row {
  readonly y: number;
  /** Where the row enters and leaves what burns, from left to right, in pairs. */
  readonly xs: Float64Array;
  /** The share of power of each pair; missing where all burn with what the list has. */
  readonly powers?: Float32Array;
}

/**
 * The rows through a block, half a spacing in from its top, that cross anything; and the bounds of figures, not of holes
 * in them, that lie between two rows.
 */
export function crossingsByRow(block: readonly Filled[], spacing: number): { rows: Row[]; missed: Box[] } {
  const bounds = block.map((piece) => piece.bounds).reduce(uniteBoxes);
  const rowCount = Math.max(1, Math.round(boxHeight(bounds) / spacing));
  const firstY = bounds.minY + (boxHeight(bounds) - (rowCount - 1) * spacing) / 2;
  const counts = new Uint32Array(rowCount + 1);
  eachCrossing(block, firstY, spacing, rowCount, (row) => counts[row + 1]++);
  for (let row = 0; row < rowCount; row++) counts[row + 1] += counts[row];
  const crossings = new Float64Array(counts[rowCount]);
  const filled = counts.slice();
  eachCrossing(block, firstY, spacing, rowCount, (row, x) => {
    crossings[filled[row]++] = x;
  });
  const rows: Row[] = [];
  for (let row = 0; row < rowCount; row++) {
    const xs = crossings.subarray(counts[row], counts[row + 1]).sort();
    if (xs.length > 1) rows.push({ y: firstY + row * spacing, xs });
  }
  return { rows, missed: missedBetween(block, firstY, spacing) };
}

/** The bounds of outlines that no row crosses, and that have what burns inside. */
function missedBetween(block: readonly Filled[], firstY: number, spacing: number): Box[] {
  const all = block.flatMap(({ outlines }) => outlines.map((outline) => ({ outline, box: polylineBounds(outline) })));
  return all.flatMap(({ outline, box }) => {
    // A row takes an edge's upper end, not its lower.
    const next = firstY + Math.max(0, Math.ceil((box.minY - firstY) / spacing)) * spacing;
    if (next < box.maxY || outline.points.length < 6) return [];
    const [x, y] = outline.points;
    const holders = all.filter(
      (other) => other.outline !== outline && boxContains(other.box, box) && polylineContains(other.outline, x, y),
    );
    return holders.length % 2 === 0 ? [box] : [];
  });
}

/** Calls back for every place where a row crosses an edge; an edge takes its upper end, not its lower. */
function eachCrossing(
  block: readonly Filled[],
  firstY: number,
  spacing: number,
  rowCount: number,
  take: (row: number, x: number) => void,
): void {
  for (const { outlines } of block) {
    for (const { points } of outlines) {
      let px = points[points.length - 2];
      let py = points[points.length - 1];
      for (let i = 0; i < points.length; i += 2) {
        const qx = points[i];
        const qy = points[i + 1];
        const top = Math.min(py, qy);
        const bottom = Math.max(py, qy);
        const slope = (qx - px) / (qy - py);
        // One row early: whether a row meets an edge is decided by the same comparison for every edge,
        // so that edges which share a node never both miss or both take it.
        let row = Math.max(0, Math.floor((top - firstY) / spacing));
        for (; row < rowCount; row++) {
          const y = firstY + row * spacing;
          if (y >= bottom) break;
          if (y >= top) take(row, px + (y - py) * slope);
        }
        px = qx;
        py = qy;
      }
    }
  }
}
