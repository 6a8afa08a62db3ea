import type { Pixels } from '../document/pixels.ts';
import { type Box, transformBox } from '../geometry/paths/box.ts';
import { applyTo, invert, type Matrix, type Point } from '../geometry/paths/matrix.ts';
import { lumaOf, lumaWithoutWhite } from './luma.ts';

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

/** A picture on the dots that it burns with, row by row. */
export interface DotRaster extends DotGrid {
  /** From 0 for black to 1 for white. */
  readonly greys: Float32Array;
  /** How much of each dot shows, 0 to 1; null where all of all do. */
  readonly shown: Float32Array | null;
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
  const { lumas, alphas } = sumRows(pixels);
  const lumaRows = new DotIntegrals(lumas, pixels, back, grid);
  const alphaRows = alphas && new DotIntegrals(alphas, pixels, back, grid);
  const whole = Math.abs((back[0] * back[3] - back[1] * back[2]) * dotMm * rowMm);
  const greys = new Float32Array(columns * rows);
  const shown = new Float32Array(columns * rows).fill(1);
  let isWhole = true;
  for (let row = 0, dot = 0; row < rows; row++) {
    const luma = lumaRows.next();
    const alpha = alphaRows?.next();
    const [from, to] = wholeDots(pixels, back, grid, row);
    for (let column = 0; column < columns; column++, dot++) {
      const isInside = column >= from && column < to;
      const covered = isInside ? whole : areaOnPicture(pixels, cornersOf(back, grid, column, row));
      const seen = alpha ? alpha[column] / (255 * parts) : covered;
      greys[dot] = seen > 1e-9 * whole ? Math.min(1, Math.max(0, luma[column] / (255 * parts * seen))) : 1;
      if (isInside && !alpha) continue;
      shown[dot] = covered < whole * (0.5 - 1e-9) ? 0 : Math.min(1, Math.max(0, seen / covered));
      if (shown[dot] < 1) isWhole = false;
    }
  }
  return { ...grid, greys, shown: isWhole ? null : shown };
}

/** How many cells of a size cover a range, and where the first begins; they stand over at both ends alike. */
function cellsAlong(from: number, to: number, size: number): [number, number] {
  const count = Math.max(1, Math.round((to - from) / size));
  return [count, (from + to - count * size) / 2];
}

/** Sums are of whole 256ths of a level: that of a row of 65,000 pixels is a 32-bit number. */
const parts = 256;
type Sums = Uint32Array | Float64Array;

/**
 * For each row of pixels, the sums left of each pixel: of luma (ITU-R BT.709) × opacity, and of opacity alone where some
 * pixels can be seen through.
 */
function sumRows({ width, height, rgb, alpha }: Pixels): { lumas: Sums; alphas: Sums | null } {
  const Numbers = 255 * parts * width < 2 ** 32 ? Uint32Array : Float64Array;
  const lumas = new Numbers((width + 1) * height);
  const alphas = alpha ? new Numbers((width + 1) * height) : null;
  for (let y = 0, pixel = 0, k = 0; y < height; y++, k++) {
    for (let x = 0; x < width; x++, pixel++, k++) {
      const luma = lumaOf(rgb[3 * pixel], rgb[3 * pixel + 1], rgb[3 * pixel + 2]);
      const opacity = alpha ? alpha[pixel] / 255 : 1;
      lumas[k + 1] = lumas[k] + Math.round(lumaWithoutWhite(luma, opacity) * parts);
      if (alphas) alphas[k + 1] = alphas[k] + Math.round(255 * opacity * parts);
    }
  }
  return { lumas, alphas };
}

/** The integrals of a plane over dots, row after row of them. */
class DotIntegrals {
  private row = 0;
  private above: Float64Array;
  private below: Float64Array;
  private readonly out: Float64Array;
  private readonly sign: number;

  /** @param sums by row of pixels, the sums left of each; one more than pixels */
  constructor(
    private readonly sums: Sums,
    private readonly size: { readonly width: number; readonly height: number },
    private readonly back: Matrix,
    private readonly grid: DotGrid,
  ) {
    this.above = new Float64Array(grid.columns);
    this.below = new Float64Array(grid.columns);
    this.out = new Float64Array(grid.columns);
    this.sign = Math.sign(back[0] * back[3] - back[1] * back[2]);
    this.alongRow(0, this.above);
  }

  /** Those of the next row, in level 256ths × pixels²; the same array each time. */
  next(): Float64Array {
    const { above, below, out, grid, back, sign } = this;
    const [a, b, c, d, e, f] = back;
    const { columns, left, top, dotMm, rowMm } = grid;
    this.alongRow(this.row + 1, below);
    const [y0, y1] = [top + this.row * rowMm, top + (this.row + 1) * rowMm];
    const side = (column: number) => {
      const x = left + column * dotMm;
      return this.alongEdge(a * x + c * y0 + e, b * x + d * y0 + f, a * x + c * y1 + e, b * x + d * y1 + f);
    };
    let before = side(0);
    for (let column = 0; column < columns; column++) {
      const after = side(column + 1);
      out[column] = sign * (above[column] + after - below[column] - before);
      before = after;
    }
    this.row++;
    [this.above, this.below] = [below, above];
    return out;
  }

  /** Integrals along the edges between two rows. */
  private alongRow(row: number, out: Float64Array): void {
    const [a, b, c, d, e, f] = this.back;
    // Where rows of dots run along rows of pixels, their edges add nothing.
    if (b === 0) return;
    const { columns, left, top, dotMm, rowMm } = this.grid;
    const y = top + row * rowMm;
    for (let column = 0; column < columns; column++) {
      const [x0, x1] = [left + column * dotMm, left + (column + 1) * dotMm];
      out[column] = this.alongEdge(a * x0 + c * y + e, b * x0 + d * y + f, a * x1 + c * y + e, b * x1 + d * y + f);
    }
  }

  /** ∫ F dy along an edge, F being the integral of the plane from the left of the picture; in pixels. */
  private alongEdge(x0: number, y0: number, x1: number, y1: number): number {
    if (y0 === y1) return 0;
    if (y0 > y1) return -this.alongEdge(x1, y1, x0, y0);
    const { width, height } = this.size;
    const slope = (x1 - x0) / (y1 - y0);
    const last = Math.min(height, Math.ceil(y1)) - 1;
    let sum = 0;
    for (let row = Math.max(0, Math.floor(y0)); row <= last; row++) {
      const from = Math.max(y0, row);
      const to = Math.min(y1, row + 1);
      if (to <= from) continue;
      const base = row * (width + 1);
      const x = x0 + (from - y0) * slope;
      sum += (to - from) * (slope === 0 ? this.leftOf(base, x) : this.meanLeftOf(base, x, x0 + (to - y0) * slope));
    }
    return sum;
  }

  private leftOf(base: number, x: number): number {
    const { width } = this.size;
    if (x <= 0) return 0;
    if (x >= width) return this.sums[base + width];
    const pixel = Math.floor(x);
    const left = this.sums[base + pixel];
    return left + (this.sums[base + pixel + 1] - left) * (x - pixel);
  }

  /** The mean of `leftOf` between two places: it is linear within each pixel. */
  private meanLeftOf(base: number, xa: number, xb: number): number {
    const [from, to] = xa < xb ? [xa, xb] : [xb, xa];
    if (to - from < 1e-9) return this.leftOf(base, from);
    const { width } = this.size;
    // Beyond the right edge it stays what it is there; beyond the left one it is nothing.
    let sum = Math.max(0, to - Math.max(from, width)) * this.sums[base + width];
    const last = Math.min(width, Math.ceil(to)) - 1;
    for (let pixel = Math.max(0, Math.floor(from)); pixel <= last; pixel++) {
      const [a, b] = [Math.max(from, pixel), Math.min(to, pixel + 1)];
      if (b > a) sum += (b - a) * this.leftOf(base, (a + b) / 2);
    }
    return sum / (to - from);
  }
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
