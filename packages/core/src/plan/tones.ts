import type { Pixels } from '../document/pixels.ts';
import { transformBox } from '../geometry/paths/box.ts';
import { applyTo, invert, type Matrix, type Point } from '../geometry/paths/matrix.ts';

/** A row of a picture as it burns: lit segments with the share of power that each burns with. */
export interface ToneRow {
  readonly y: number;
  /** Where each segment begins and ends, from left to right, in pairs, in mm. */
  readonly xs: Float64Array;
  /** Above 0 to 1, one a segment. */
  readonly powers: Float32Array;
}

/** Powers are told apart in so many steps. */
const levels = 255;

/**
 * The rows of a picture that burns in its greys, on a raster of dots as wide and high as the distance of the rows. A
 * dot's grey is the exact mean of the picture over the dot. Black burns with all of the power, white not at all.
 *
 * @param placing from the picture's pixels to a frame in which rows are level, in mm
 * @param spacing how far rows are apart, in mm
 */
export function toneRows(pixels: Pixels, placing: Matrix, spacing: number): ToneRow[] {
  const back = invert(placing);
  if (!back) return [];
  const bounds = transformBox({ minX: 0, minY: 0, maxX: pixels.width, maxY: pixels.height }, placing);
  const [columns, left] = cellsAlong(bounds.minX, bounds.maxX, spacing);
  const [rows, top] = cellsAlong(bounds.minY, bounds.maxY, spacing);
  const greys = greysOf(pixels);
  const isLevel = (back[1] === 0 && back[2] === 0) || (back[0] === 0 && back[3] === 0);
  const dots = new Uint8Array(columns);
  const found: ToneRow[] = [];
  for (let row = 0; row < rows; row++) {
    const y = top + row * spacing;
    for (let column = 0; column < columns; column++) {
      const corners = cornersOf(back, left + column * spacing, y, spacing);
      const grey = isLevel ? meanOverBox(greys, pixels, corners[0], corners[2]) : meanOverDot(greys, pixels, corners);
      dots[column] = grey === null ? 0 : Math.round((1 - grey / 255) * levels);
    }
    const burnt = segmentsOf(dots, left, spacing);
    if (burnt.powers.length > 0) found.push({ y: y + spacing / 2, ...burnt });
  }
  return found;
}

/** How many cells of a size cover a range, and where the first begins; they stand over at both ends alike. */
function cellsAlong(from: number, to: number, size: number): [number, number] {
  const count = Math.max(1, Math.round((to - from) / size));
  return [count, (from + to - count * size) / 2];
}

/** A dot's corners in pixels, one after the other. */
function cornersOf(back: Matrix, x: number, y: number, size: number): [Point, Point, Point, Point] {
  return [
    applyTo(back, x, y),
    applyTo(back, x + size, y),
    applyTo(back, x + size, y + size),
    applyTo(back, x, y + size),
  ];
}

/** The luma of each pixel (ITU-R BT.709), 0 to 255. */
function greysOf({ width, height, rgb }: Pixels): Float32Array {
  const greys = new Float32Array(width * height);
  for (let i = 0; i < greys.length; i++) {
    greys[i] = 0.2126 * rgb[3 * i] + 0.7152 * rgb[3 * i + 1] + 0.0722 * rgb[3 * i + 2];
  }
  return greys;
}

/** The mean over a box with sides along the pixels', as far as it lies on the picture; null where it does not. */
function meanOverBox(greys: Float32Array, { width, height }: Pixels, a: Point, b: Point): number | null {
  const [minX, maxX] = [Math.max(0, Math.min(a.x, b.x)), Math.min(width, Math.max(a.x, b.x))];
  const [minY, maxY] = [Math.max(0, Math.min(a.y, b.y)), Math.min(height, Math.max(a.y, b.y))];
  if (!(minX < maxX && minY < maxY)) return null;
  let sum = 0;
  for (let y = Math.floor(minY); y < maxY; y++) {
    const high = Math.min(maxY, y + 1) - Math.max(minY, y);
    for (let x = Math.floor(minX); x < maxX; x++) {
      sum += greys[y * width + x] * high * (Math.min(maxX, x + 1) - Math.max(minX, x));
    }
  }
  return sum / ((maxX - minX) * (maxY - minY));
}

/** The mean over a dot that lies askew to the pixels: each pixel counts with the area that they have in common. */
function meanOverDot(greys: Float32Array, { width, height }: Pixels, corners: readonly Point[]): number | null {
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  const [fromX, toX] = [Math.max(0, Math.floor(Math.min(...xs))), Math.min(width, Math.ceil(Math.max(...xs)))];
  const [fromY, toY] = [Math.max(0, Math.floor(Math.min(...ys))), Math.min(height, Math.ceil(Math.max(...ys)))];
  let sum = 0;
  let whole = 0;
  for (let y = fromY; y < toY; y++) {
    const strip = clipped(clipped(corners, 'y', y, 1), 'y', y + 1, -1);
    for (let x = fromX; x < toX; x++) {
      const area = areaOf(clipped(clipped(strip, 'x', x, 1), 'x', x + 1, -1));
      sum += greys[y * width + x] * area;
      whole += area;
    }
  }
  return whole > 1e-12 ? sum / whole : null;
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

/** Neighbouring dots of one level as one segment; those that do not burn are left out. */
function segmentsOf(dots: Uint8Array, left: number, size: number): Pick<ToneRow, 'xs' | 'powers'> {
  const xs: number[] = [];
  const powers: number[] = [];
  for (let from = 0; from < dots.length; ) {
    let to = from + 1;
    while (to < dots.length && dots[to] === dots[from]) to++;
    if (dots[from] > 0) {
      xs.push(left + from * size, left + to * size);
      powers.push(dots[from] / levels);
    }
    from = to;
  }
  return { xs: Float64Array.from(xs), powers: Float32Array.from(powers) };
}
