import type { Pixels } from '../document/pixels.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import type { DotGrid } from './dot-grid.ts';
import { lumaOf, lumaWithoutWhite } from './luma.ts';

/** Sums are of whole 256ths of a level: that of a row of 65,000 pixels is a 32-bit number. */
export const parts = 256;
type Sums = Uint32Array | Float64Array;

/** What is summed of a pixel, in 256ths of a level. */
export type PixelValue = (pixels: Pixels, pixel: number) => number;

/** Luma (ITU-R BT.709) × opacity. */
export const lumaAt: PixelValue = ({ rgb, alpha }, pixel) => {
  const luma = lumaOf(rgb[3 * pixel], rgb[3 * pixel + 1], rgb[3 * pixel + 2]);
  return Math.round((alpha ? lumaWithoutWhite(luma, alpha[pixel] / 255) : luma) * parts);
};

/** Opacity alone. */
export const alphaAt: PixelValue = ({ alpha }, pixel) => (alpha ? alpha[pixel] : 255) * parts;

/** For rows of pixels, the sums left of each pixel: one more than pixels. */
class RowSums {
  readonly sums: Sums;
  private held = -1;

  /** @param holdsAll whether rows are asked for in any order; else one at a time is kept. */
  constructor(
    private readonly pixels: Pixels,
    private readonly valueAt: PixelValue,
    private readonly holdsAll: boolean,
  ) {
    const { width, height } = pixels;
    const Numbers = 255 * parts * width < 2 ** 32 ? Uint32Array : Float64Array;
    this.sums = new Numbers((width + 1) * (holdsAll ? height : 1));
    if (holdsAll) for (let row = 0; row < height; row++) this.add(row, row * (width + 1));
  }

  /** Where among the sums those of a row begin. */
  baseOf(row: number): number {
    if (this.holdsAll) return row * (this.pixels.width + 1);
    if (this.held !== row) this.add(row, 0);
    this.held = row;
    return 0;
  }

  private add(row: number, base: number): void {
    const { sums, pixels, valueAt } = this;
    const { width } = pixels;
    for (let x = 0, sum = 0; x < width; x++) {
      sum += valueAt(pixels, row * width + x);
      sums[base + x + 1] = sum;
    }
  }
}

/** The integrals of a plane over dots, row after row of them. */
export class DotIntegrals {
  private row = 0;
  private above: Float64Array;
  private below: Float64Array;
  private readonly out: Float64Array;
  private readonly sign: number;
  /** Null for a picture that is turned. */
  private readonly edges: Edges | null;
  private readonly rows: RowSums;

  constructor(
    private readonly size: Pixels,
    valueAt: PixelValue,
    private readonly back: Matrix,
    private readonly grid: DotGrid,
  ) {
    this.edges = back[1] === 0 && back[2] === 0 ? edgesInPixels(back, grid, size.width) : null;
    this.rows = new RowSums(size, valueAt, this.edges === null);
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
    const [y0, y1] = [top + this.row * rowMm, top + (this.row + 1) * rowMm];
    if (this.edges) {
      this.row++;
      return this.alongPixels(this.edges, d * y0 + f, d * y1 + f);
    }
    this.alongRow(this.row + 1, below);
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

  /** Those of a row of dots between two places down a picture that is not turned, one row of pixels after the other. */
  private alongPixels({ pixels, within }: Edges, y0: number, y1: number): Float64Array {
    const { out, sign, size, rows } = this;
    const { sums } = rows;
    const [low, high] = y0 < y1 ? [y0, y1] : [y1, y0];
    out.fill(0);
    const last = Math.min(size.height, Math.ceil(high)) - 1;
    for (let row = Math.max(0, Math.floor(low)); row <= last; row++) {
      const tall = Math.min(high, row + 1) - Math.max(low, row);
      // What rounding leaves of a row is none.
      if (tall <= 1e-9) continue;
      const share = y0 < y1 ? sign * tall : -sign * tall;
      const base = rows.baseOf(row);
      let before = 0;
      for (let edge = 0; edge < pixels.length; edge++) {
        const left = sums[base + pixels[edge]];
        const after = left + (sums[base + pixels[edge] + 1] - left) * within[edge];
        if (edge > 0) out[edge - 1] += share * (after - before);
        before = after;
      }
    }
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
    const { height } = this.size;
    const slope = (x1 - x0) / (y1 - y0);
    const last = Math.min(height, Math.ceil(y1)) - 1;
    let sum = 0;
    for (let row = Math.max(0, Math.floor(y0)); row <= last; row++) {
      const from = Math.max(y0, row);
      const to = Math.min(y1, row + 1);
      if (to <= from) continue;
      const base = this.rows.baseOf(row);
      const x = x0 + (from - y0) * slope;
      sum += (to - from) * (slope === 0 ? this.leftOf(base, x) : this.meanLeftOf(base, x, x0 + (to - y0) * slope));
    }
    return sum;
  }

  private leftOf(base: number, x: number): number {
    const { width } = this.size;
    if (x <= 0) return 0;
    const { sums } = this.rows;
    if (x >= width) return sums[base + width];
    const pixel = Math.floor(x);
    const left = sums[base + pixel];
    return left + (sums[base + pixel + 1] - left) * (x - pixel);
  }

  /** The mean of `leftOf` between two places: it is linear within each pixel. */
  private meanLeftOf(base: number, xa: number, xb: number): number {
    const [from, to] = xa < xb ? [xa, xb] : [xb, xa];
    if (to - from < 1e-9) return this.leftOf(base, from);
    const { width } = this.size;
    // Beyond the right edge it stays what it is there; beyond the left one it is nothing.
    let sum = Math.max(0, to - Math.max(from, width)) * this.rows.sums[base + width];
    const last = Math.min(width, Math.ceil(to)) - 1;
    for (let pixel = Math.max(0, Math.floor(from)); pixel <= last; pixel++) {
      const [a, b] = [Math.max(from, pixel), Math.min(to, pixel + 1)];
      if (b > a) sum += (b - a) * this.leftOf(base, (a + b) / 2);
    }
    return sum / (to - from);
  }
}

/** Where columns of dots meet in a picture that is not turned: in which pixel, and how far into it. */
interface Edges {
  readonly pixels: Int32Array;
  readonly within: Float64Array;
}

function edgesInPixels([a, , , , e]: Matrix, { columns, left, dotMm }: DotGrid, width: number): Edges {
  const places = Float64Array.from({ length: columns + 1 }, (_, column) =>
    Math.min(width, Math.max(0, a * (left + column * dotMm) + e)),
  );
  const pixels = Int32Array.from(places, (place) => Math.min(width - 1, Math.floor(place)));
  return { pixels, within: places.map((place, i) => place - pixels[i]) };
}
