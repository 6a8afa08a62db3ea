import { type Box, boxWidth } from '../geometry/paths/box.ts';
import { gather } from '../lists/gather.ts';
import { crossings, type Filled, type Row, type ScanGrid } from './scan-lines.ts';

/** Parts shorter than this, in mm, or than so many spacings, are tips and corners, and are not looked for. */
const shortestMm = 0.5;
const shortestSpacings = 6;
/** In so many columns a part of that length is met. */
const columnsInShortest = 4;

/** A part of what is filled that lies between two rows: met by columns side by side, and by no row. */
export interface ThinPart {
  /** The row that it comes before. */
  readonly row: number;
  readonly columns: ThinColumn[];
  readonly box: Box;
}

/** Where a column meets a part: from which y to which, in mm. */
interface ThinColumn {
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
}

/** Parts of a block that no row comes through, like the bar of a letter that is thinner than rows are apart. */
export function thinParts(block: readonly Filled[], rows: ScanGrid, bounds: Box): ThinPart[] {
  const spacing = Math.max(shortestMm, shortestSpacings * rows.spacing) / columnsInShortest;
  const count = Math.floor(boxWidth(bounds) / spacing);
  const grid: ScanGrid = { first: bounds.minX + (boxWidth(bounds) - (count - 1) * spacing) / 2, spacing, count };
  const done: ThinColumns[] = [];
  let open = new Map<number, ThinColumns[]>();
  crossings(block, grid, 'columns').forEach((ys, column) => {
    const x = grid.first + column * spacing;
    const met = new Map<number, ThinColumns[]>();
    for (let i = 0; i + 1 < ys.length; i += 2) {
      const [top, bottom] = [ys[i], ys[i + 1]];
      // A row takes an edge's upper end, not its lower.
      const row = Math.max(0, Math.ceil((top - rows.first) / rows.spacing));
      if (top === bottom || (row < rows.count && rows.first + row * rows.spacing < bottom)) continue;
      const part = takeNearest(open.get(row) ?? [], top, bottom, rows.spacing / 2) ?? { row, columns: [] };
      part.columns.push({ x, top, bottom });
      gather(met, row, part);
    }
    for (const parts of open.values()) done.push(...parts);
    open = met;
  });
  for (const parts of open.values()) done.push(...parts);
  return done.flatMap(({ row, columns }) =>
    columns.length < columnsInShortest ? [] : [{ row, columns, box: boxAround(columns) }],
  );
}

/** Takes the part that goes on at a stretch out of those that were met in the last column; null where none does. */
function takeNearest(parts: ThinColumns[], top: number, bottom: number, within: number): ThinColumns | null {
  let [best, least] = [-1, within];
  parts.forEach((part, i) => {
    const mm = distance(part, top, bottom);
    if (mm < least) [best, least] = [i, mm];
  });
  return best < 0 ? null : parts.splice(best, 1)[0];
}

type ThinColumns = Omit<ThinPart, 'box'>;

/** How far a column's stretch lies from where a part was met last, in mm; below 0 where they overlap. */
function distance({ columns }: ThinColumns, top: number, bottom: number): number {
  const last = columns[columns.length - 1];
  return Math.max(last.top, top) - Math.min(last.bottom, bottom);
}

function boxAround(columns: readonly ThinColumn[]): Box {
  return {
    minX: columns[0].x,
    minY: Math.min(...columns.map(({ top }) => top)),
    maxX: columns[columns.length - 1].x,
    maxY: Math.max(...columns.map(({ bottom }) => bottom)),
  };
}

/** A stretch of a part that one level line lies in, anywhere from `top` to `bottom`; mm. */
interface Dash {
  readonly from: number;
  to: number;
  top: number;
  bottom: number;
}

/** Lines through thin parts: one through each, or several where it bends; those that can share a row do. */
export function thinRows(parts: readonly ThinPart[]): Row[] {
  const byRow = new Map<number, Dash[]>();
  for (const { row, columns } of parts) for (const dash of dashesOf(columns)) gather(byRow, row, dash);
  return [...byRow.values()].flatMap((dashes) => {
    const rows: { top: number; bottom: number; dashes: Dash[] }[] = [];
    // The fewest lines that meet all: always as low as the highest end that is not met yet lets it.
    for (const dash of dashes.sort((a, b) => a.bottom - b.bottom)) {
      const last = rows[rows.length - 1];
      if (last && dash.top < last.bottom && doLieApart(last.dashes, dash)) {
        last.top = Math.max(last.top, dash.top);
        last.dashes.push(dash);
      } else rows.push({ top: dash.top, bottom: dash.bottom, dashes: [dash] });
    }
    return rows.map(
      ({ top, bottom, dashes: met }): Row => ({
        y: (top + bottom) / 2,
        xs: Float64Array.from(met.sort((a, b) => a.from - b.from).flatMap(({ from, to }) => [from, to])),
      }),
    );
  });
}

function dashesOf(columns: readonly ThinColumn[]): Dash[] {
  const dashes: Dash[] = [];
  for (const { x, top, bottom } of columns) {
    const last = dashes[dashes.length - 1];
    const [highest, lowest] = last ? [Math.max(last.top, top), Math.min(last.bottom, bottom)] : [0, 0];
    if (last && highest < lowest) Object.assign(last, { to: x, top: highest, bottom: lowest });
    else {
      // Where it bends too much, the next one goes on halfway between the columns.
      const from = last ? (last.to + x) / 2 : x;
      if (last) last.to = from;
      dashes.push({ from, to: x, top, bottom });
    }
  }
  return dashes.filter(({ from, to }) => from < to);
}

function doLieApart(dashes: readonly Dash[], { from, to }: Dash): boolean {
  return dashes.every((other) => other.to < from || to < other.from);
}
