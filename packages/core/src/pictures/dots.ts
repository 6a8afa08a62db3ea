import type { Pixels } from '../document/pixels.ts';
import { type Box, transformBox } from '../geometry/paths/box.ts';
import { applyTo, invert, type Matrix, type Point } from '../geometry/paths/matrix.ts';
import type { DotGrid } from './dot-grid.ts';
import { alphaAt, DotIntegrals, lumaAt, parts } from './dot-integrals.ts';

/** A picture on the dots that it burns with, row by row. */
export interface DotRaster extends DotGrid {
  /** From 0 for black to 1 for white. */
  readonly greys: Float32Array;
  /** How much of each dot shows, 0 to 1; null where all of all do. */
  readonly shown: Float32Array | null;
}

/** Where a picture lies, in a frame to which its pixels are placed. */
export function pictureBounds({ width, height }: Pick<Pixels, 'width' | 'height'>, placing: Matrix): Box {
  return transformBox({ minX: 0, minY: 0, maxX: width, maxY: height }, placing);
}

/**
 * A picture on the raster of its burn. A dot's grey is the exact mean of what it covers of the picture, each pixel
 * counted with the area in common. It comes from integrals along the dot's edges (Green's theorem), which neighbours
 * share. A dot of which more than half lies beside the picture does not show.
 *
 * @param placing from the picture's pixels to a frame in which rows are level, in mm.
 * @param grid the dots, in that frame.
 * @returns null where the picture has no area.
 */
export function dotsOf(pixels: Pixels, placing: Matrix, grid: DotGrid): DotRaster | null {
  const back = invert(placing);
  if (!back || pixels.width === 0 || pixels.height === 0) return null;
  const { columns, rows, dotMm, rowMm } = grid;
  const lumaRows = new DotIntegrals(pixels, lumaAt, back, grid);
  const alphaRows = pixels.alpha && new DotIntegrals(pixels, alphaAt, back, grid);
  const whole = Math.abs((back[0] * back[3] - back[1] * back[2]) * dotMm * rowMm);
  const greys = new Float32Array(columns * rows);
  let shown: Float32Array | null = null;
  const setDot = (dot: number, covered: number, seen: number, luma: number) => {
    greys[dot] = seen > 1e-9 * whole ? greyOf(luma, seen) : 1;
    const share = covered < whole * (0.5 - 1e-9) ? 0 : Math.min(1, Math.max(0, seen / covered));
    if (share === 1) return;
    shown ??= new Float32Array(columns * rows).fill(1);
    shown[dot] = share;
  };
  for (let row = 0; row < rows; row++) {
    const luma = lumaRows.next();
    const alpha = alphaRows?.next();
    const [from, to] = wholeDots(pixels, back, grid, row);
    const first = row * columns;
    for (let column = 0; column < columns; column++) {
      const isInside = column >= from && column < to;
      if (isInside && !alpha) {
        greys[first + column] = greyOf(luma[column], whole);
        continue;
      }
      const covered = isInside ? whole : areaOnPicture(pixels, cornersOf(back, grid, column, row));
      setDot(first + column, covered, alpha ? alpha[column] / (255 * parts) : covered, luma[column]);
    }
  }
  return { ...grid, greys, shown };
}

/** The grey of an area in pixels², 0 to 1, from the integral of luma over it. */
function greyOf(luma: number, area: number): number {
  return Math.min(1, Math.max(0, luma / (255 * parts * area)));
}

/** From which column to before which one the dots of a row lie on the picture whole. */
function wholeDots({ width, height }: Pixels, [a, b, c, d, e, f]: Matrix, grid: DotGrid, row: number) {
  const { columns, left, top, dotMm, rowMm } = grid;
  let [from, to] = [0, columns];
  const hold = (start: number, step: number, most: number) => {
    const slack = 1e-9 * most;
    if (Math.abs(step) < 1e-12) {
      if (start < -slack || start > most + slack) to = 0;
      return;
    }
    const ends = [(-slack - start) / step, (most + slack - start) / step].sort((p, q) => p - q);
    from = Math.max(from, Math.ceil(ends[0]));
    to = Math.min(to, Math.floor(ends[1]) + 1);
  };
  for (const x of [left, left + dotMm]) {
    for (const y of [top + row * rowMm, top + (row + 1) * rowMm]) {
      hold(a * x + c * y + e, a * dotMm, width);
      hold(b * x + d * y + f, b * dotMm, height);
    }
  }
  return [from, to] as const;
}

/** A dot's corners in pixels, one after the other. */
function cornersOf(back: Matrix, { left, top, dotMm, rowMm }: DotGrid, column: number, row: number): Point[] {
  const [x, y] = [left + column * dotMm, top + row * rowMm];
  return [
    applyTo(back, x, y),
    applyTo(back, x + dotMm, y),
    applyTo(back, x + dotMm, y + rowMm),
    applyTo(back, x, y + rowMm),
  ];
}

/** How much of a dot lies on a picture, in pixels². */
function areaOnPicture({ width, height }: Pixels, corners: readonly Point[]): number {
  const across = clipped(clipped(corners, 'x', 0, 1), 'x', width, -1);
  return areaOf(clipped(clipped(across, 'y', 0, 1), 'y', height, -1));
}

/** What of a convex polygon lies on one side of a line (Sutherland and Hodgman, 1974). @param side 1 keeps what is beyond the place */
function clipped(polygon: readonly Point[], axis: 'x' | 'y', place: number, side: 1 | -1): Point[] {
  const kept: Point[] = [];
  polygon.forEach((to, i) => {
    const from = polygon[(i + polygon.length - 1) % polygon.length];
    const [before, after] = [(from[axis] - place) * side, (to[axis] - place) * side];
    if (before >= 0 !== after >= 0) {
      const t = before / (before - after);
      kept.push({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t });
    }
    if (after >= 0) kept.push(to);
  });
  return kept;
}

function areaOf(polygon: readonly Point[]): number {
  let twice = 0;
  polygon.forEach((to, i) => {
    const from = polygon[(i + polygon.length - 1) % polygon.length];
    twice += from.x * to.y - to.x * from.y;
  });
  return Math.abs(twice) / 2;
}
