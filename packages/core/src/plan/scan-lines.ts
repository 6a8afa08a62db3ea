import { type Box, uniteBoxes } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { applyTo, rotation } from '../geometry/paths/matrix.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';

/** Something to fill: the closed outlines of one item and their bounds, in bed mm. */
export interface Filled {
  readonly outlines: readonly Polyline[];
  readonly bounds: Box;
}

/** A piece turned back, so that scan lines at an angle, in degrees, are level. */
export function levelled({ outlines }: Filled, angle: number): Filled {
  const back = rotation(-angle);
  const level = outlines.map(({ points, closed }) => {
    const out = new Float64Array(points.length);
    for (let i = 0; i < points.length; i += 2) {
      const { x, y } = applyTo(back, points[i], points[i + 1]);
      out[i] = x;
      out[i + 1] = y;
    }
    return { points: out, closed };
  });
  return { outlines: level, bounds: level.map(polylineBounds).reduce(uniteBoxes) };
}

/** Lines through a block, evenly apart: where the first lies, in mm, and how many there are. */
export interface ScanGrid {
  readonly first: number;
  readonly spacing: number;
  readonly count: number;
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
 * Where level lines, or upright ones, cross the outlines of a block.
 * @returns by line: its crossings in order, x in mm of rows, y of columns; they come in pairs
 */
export function crossings(block: readonly Filled[], grid: ScanGrid, along: 'rows' | 'columns'): Float64Array[] {
  const starts = new Uint32Array(grid.count + 1);
  eachCrossing(block, grid, along, (line) => starts[line + 1]++);
  for (let line = 0; line < grid.count; line++) starts[line + 1] += starts[line];
  const places = new Float64Array(starts[grid.count]);
  const filled = starts.slice();
  eachCrossing(block, grid, along, (line, place) => {
    places[filled[line]++] = place;
  });
  return Array.from({ length: grid.count }, (_, line) => places.subarray(starts[line], starts[line + 1]).sort());
}

/** Calls back for every place where a line crosses an edge; an edge takes its lesser end, not its greater. */
function eachCrossing(
  block: readonly Filled[],
  { first, spacing, count }: ScanGrid,
  along: 'rows' | 'columns',
  take: (line: number, place: number) => void,
): void {
  // Across the lines, and along them.
  const [v, u] = along === 'rows' ? [1, 0] : [0, 1];
  for (const { outlines } of block) {
    for (const { points } of outlines) {
      let pu = points[points.length - 2 + u];
      let pv = points[points.length - 2 + v];
      for (let i = 0; i < points.length; i += 2) {
        const qu = points[i + u];
        const qv = points[i + v];
        const low = Math.min(pv, qv);
        const high = Math.max(pv, qv);
        const slope = (qu - pu) / (qv - pv);
        // One line early: whether a line meets an edge is decided by the same comparison for every edge,
        // so that edges which share a node never both miss or both take it.
        let line = Math.max(0, Math.floor((low - first) / spacing));
        for (; line < count; line++) {
          const place = first + line * spacing;
          if (place >= high) break;
          if (place >= low) take(line, pu + (place - pv) * slope);
        }
        pu = qu;
        pv = qv;
      }
    }
  }
}
