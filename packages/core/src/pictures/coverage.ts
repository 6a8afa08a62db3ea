import type { Polyline } from '../geometry/paths/flatten.ts';
import type { DotGrid } from './dot-grid.ts';

/** What rounding leaves of a dot that is covered wholly, or not at all. */
const slack = 1e-5;

/**
 * How much of each dot an area covers, 0 to 1, row by row, exactly. Each edge adds the signed area between it and the
 * right end of its row, and sums from the left give what is covered: the accumulation of font rasterizers.
 *
 * @param outlines closed, in the frame of the dots; what they enclose is to their same side, and none cross
 */
export function coverageOf(outlines: readonly Polyline[], grid: DotGrid): Float32Array {
  const { columns, rows } = grid;
  const changes = new Float64Array((columns + 2) * rows);
  for (const { points } of outlines) {
    const count = points.length / 2;
    for (let i = 0; i < count; i++) {
      const next = i + 1 === count ? 0 : i + 1;
      addEdge(changes, grid, points[2 * i], points[2 * i + 1], points[2 * next], points[2 * next + 1]);
    }
  }
  const out = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let column = 0; column < columns; column++) {
      sum += changes[row * (columns + 2) + column];
      const share = Math.abs(sum);
      out[row * columns + column] = share < slack ? 0 : share > 1 - slack ? 1 : share;
    }
  }
  return out;
}

function addEdge(
  changes: Float64Array,
  { columns, rows, left, top, dotMm, rowMm }: DotGrid,
  fromX: number,
  fromY: number,
  toX: number,
  toY: number,
): void {
  if (fromY === toY) return;
  const down = fromY < toY;
  const [x0, y0] = [((down ? fromX : toX) - left) / dotMm, ((down ? fromY : toY) - top) / rowMm];
  const [x1, y1] = [((down ? toX : fromX) - left) / dotMm, ((down ? toY : fromY) - top) / rowMm];
  const slope = (x1 - x0) / (y1 - y0);
  const last = Math.min(rows, Math.ceil(y1)) - 1;
  for (let row = Math.max(0, Math.floor(y0)); row <= last; row++) {
    const [from, to] = [Math.max(y0, row), Math.min(y1, row + 1)];
    if (to <= from) continue;
    const high = down ? to - from : from - to;
    const along = (y: number) => Math.min(columns, Math.max(0, x0 + (y - y0) * slope));
    addStretch(changes, row * (columns + 2), along(from), along(to), high);
  }
}

/** What a stretch of an edge within a row changes: its height, shared out over the dots that it crosses. */
function addStretch(changes: Float64Array, base: number, xa: number, xb: number, high: number): void {
  const [from, to] = xa < xb ? [xa, xb] : [xb, xa];
  const last = Math.floor(to);
  for (let column = Math.floor(from); column <= last; column++) {
    const [a, b] = [Math.max(from, column), Math.min(to, column + 1)];
    const part = to > from ? (high * (b - a)) / (to - from) : high;
    // Of the dot itself, what lies right of the stretch; of those behind it, all.
    const right = part * (column + 1 - (a + b) / 2);
    changes[base + column] += right;
    changes[base + column + 1] += part - right;
  }
}
