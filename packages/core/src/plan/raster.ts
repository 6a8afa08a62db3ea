import { type Box, boxHeight, boxWidth, growBox, uniteBoxes } from '../geometry/box.ts';
import { indexBoxes } from '../geometry/box-index.ts';
import type { Polyline } from '../geometry/flatten.ts';
import { Move, type MoveList } from './moves.ts';

/** Something to fill: the closed outlines of one item and their bounds, in bed mm. */
export interface Filled {
  readonly outlines: readonly Polyline[];
  readonly bounds: Box;
}

export interface RasterSettings {
  readonly spacing: number;
  readonly speed: number;
  readonly acceleration: number;
  readonly passes: number;
  /** Where the head may go: run-ups are cut short there. */
  readonly bed: Box;
}

/** The distance in mm in which the head comes to speed from rest. */
export function runUpLength(speed: number, acceleration: number): number {
  return (speed * speed) / (2 * acceleration);
}

/**
 * Fills outlines with scan lines, even-odd over all of them together: where two overlap, neither
 * burns. Lines run both ways, each with a run-up and a run-out beyond its ends, so that speed is
 * constant while lit. Pieces that lie far apart are filled one after the other where that is quicker.
 *
 * @returns whether a run-up had to be cut short at the edge of the bed
 */
export function rasterFill(list: MoveList, pieces: readonly Filled[], settings: RasterSettings): boolean {
  let short = false;
  for (const block of blocksOf(pieces, settings)) {
    for (let pass = 0; pass < settings.passes; pass++) {
      short = scanBlock(list, block, settings) || short;
    }
  }
  return short;
}

function scanBlock(list: MoveList, block: readonly Filled[], settings: RasterSettings): boolean {
  const { spacing, bed } = settings;
  const runUp = runUpLength(settings.speed, settings.acceleration);
  const rows = crossingsByRow(block, spacing);
  let short = false;
  let forth = true;
  for (const { y, xs } of rows) {
    const first = xs[0];
    const last = xs[xs.length - 1];
    const left = Math.max(bed.minX, first - runUp);
    const right = Math.min(bed.maxX, last + runUp);
    if (left > first - runUp || right < last + runUp) short = true;
    // Beyond the bed there is nothing to run to; what lies there is a finding of its own.
    const from = Math.min(left, first);
    const to = Math.max(right, last);
    list.to(Move.travel, forth ? from : to, y);
    for (let i = 0; i < xs.length; i += 2) {
      const at = forth ? i : xs.length - 1 - i;
      list.to(Move.dark, xs[at], y);
      list.to(Move.lit, xs[forth ? at + 1 : at - 1], y);
    }
    list.to(Move.dark, forth ? to : from, y);
    forth = !forth;
  }
  return short;
}

interface Row {
  readonly y: number;
  /** Where the row enters and leaves what is filled, from left to right, in pairs. */
  readonly xs: Float64Array;
}

/** The rows through a block, half a spacing in from its top, that cross anything. */
function crossingsByRow(block: readonly Filled[], spacing: number): Row[] {
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
  return rows;
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

/** More blocks than this are not compared pair by pair. */
const mostPairs = 160;

/** Groups pieces into blocks that are each scanned as one, so that the whole takes little time. */
function blocksOf(pieces: readonly Filled[], settings: RasterSettings): Filled[][] {
  const blocks = touchingBlocks(pieces, runUpLength(settings.speed, settings.acceleration));
  if (blocks.length > mostPairs) return [pieces.slice()];
  const cost = (box: Box) => {
    const rows = boxHeight(box) / settings.spacing;
    return rows * (boxWidth(box) / settings.speed + (2 * settings.speed) / settings.acceleration);
  };
  for (;;) {
    let best: { i: number; j: number; saved: number } | null = null;
    for (let i = 0; i < blocks.length; i++) {
      for (let j = i + 1; j < blocks.length; j++) {
        const saved =
          cost(blocks[i].bounds) + cost(blocks[j].bounds) - cost(uniteBoxes(blocks[i].bounds, blocks[j].bounds));
        if (saved > 0 && (!best || saved > best.saved)) best = { i, j, saved };
      }
    }
    if (!best) break;
    const [other] = blocks.splice(best.j, 1);
    const block = blocks[best.i];
    blocks[best.i] = { bounds: uniteBoxes(block.bounds, other.bounds), pieces: [...block.pieces, ...other.pieces] };
  }
  return blocks.sort((a, b) => a.bounds.minY - b.bounds.minY || a.bounds.minX - b.bounds.minX).map((b) => b.pieces);
}

/** Pieces whose bounds come within `reach` mm of each other, gathered; overlapping ones must share a block. */
function touchingBlocks(pieces: readonly Filled[], reach: number): { bounds: Box; pieces: Filled[] }[] {
  const index = indexBoxes(pieces.map(({ bounds }) => bounds));
  const seen = new Uint8Array(pieces.length);
  const blocks: { bounds: Box; pieces: Filled[] }[] = [];
  for (let first = 0; first < pieces.length; first++) {
    if (seen[first]) continue;
    seen[first] = 1;
    const waiting = [first];
    const members: Filled[] = [];
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      members.push(pieces[next]);
      const near = growBox(pieces[next].bounds, reach);
      for (const other of index?.search(near.minX, near.minY, near.maxX, near.maxY) ?? []) {
        if (seen[other]) continue;
        seen[other] = 1;
        waiting.push(other);
      }
    }
    blocks.push({ bounds: members.map((piece) => piece.bounds).reduce(uniteBoxes), pieces: members });
  }
  return blocks;
}
