import type { Pixels } from '../../document/pixels.ts';
import type { Point } from '../../geometry/paths/matrix.ts';
import { blurred } from '../blur.ts';
import { coverageOf } from '../coverage.ts';
import { lumasOf } from '../luma.ts';
import type { Field } from './contours.ts';
import { localLevels } from './local-levels.ts';
import { evenLevel } from './threshold.ts';

/** A round place that is rubbed out, in pixels. */
export interface Rubbed extends Point {
  readonly radius: number;
}

/** What of a picture is figure and what is ground; lengths in pixels. */
export interface FigureSettings {
  /** What is darker than this level, 0 to 255, is figure; or the level that parts best, or one by what is around. */
  readonly threshold: number | 'best' | 'local';
  /** What is lighter is the figure. */
  readonly isLight: boolean;
  /** The deviation of the Gaussian that evens greys out first. */
  readonly smoothing: number;
  /** The corners of the part that is kept; none where all of it is. */
  readonly part: readonly Point[];
  readonly rubbed: readonly Rubbed[];
}

/** The surroundings of a pixel are so large a share of the picture's shorter side, and at least so many pixels. */
const surroundings = 1 / 12;
const leastSurroundings = 25;
/** As steep as this is the edge of what is cropped or rubbed out: from figure to ground within a pixel. */
const steep = 255;

/** A picture as numbers that are above 0 in the figure, and below it around: how far each pixel is from the level. */
export function figureOf(pixels: Pixels, settings: FigureSettings): Field {
  const { width, height, alpha } = pixels;
  const values = valuesOf(pixels, settings);
  const hold = (i: number, most: number) => {
    if (values[i] > most) values[i] = most;
  };
  // What cannot be seen is no figure, however light.
  if (alpha) for (let i = 0; i < values.length; i++) hold(i, alpha[i] - 127.5);
  if (settings.part.length > 2) {
    const kept = partKept(pixels, settings.part);
    for (let i = 0; i < values.length; i++) hold(i, steep * (kept[i] - 0.5));
  }
  eachRubbed(pixels, settings.rubbed, (pixel, outside) => hold(pixel, steep * outside));
  return { width, height, values };
}

/** How much of each pixel is neither cropped away nor rubbed out, 0 to 1. */
export function keptPixels(pixels: Pixels, { part, rubbed }: Pick<FigureSettings, 'part' | 'rubbed'>): Float32Array {
  const kept = part.length > 2 ? partKept(pixels, part) : new Float32Array(pixels.width * pixels.height).fill(1);
  eachRubbed(pixels, rubbed, (pixel, outside) => {
    kept[pixel] = Math.min(kept[pixel], Math.max(0, outside + 0.5));
  });
  return kept;
}

function partKept({ width, height }: Pixels, part: readonly Point[]): Float32Array {
  const points = Float64Array.from(part.flatMap(({ x, y }) => [x, y]));
  const grid = { columns: width, rows: height, left: 0, top: 0, dotMm: 1, rowMm: 1 };
  return coverageOf([{ points, closed: true }], grid);
}

/** The pixels in and around what is rubbed out, with how far outside of it each lies. */
function eachRubbed(
  { width, height }: Pixels,
  rubbed: readonly Rubbed[],
  visit: (pixel: number, outside: number) => void,
): void {
  for (const { x, y, radius } of rubbed) {
    const [left, right] = [Math.max(0, Math.floor(x - radius - 1)), Math.min(width, Math.ceil(x + radius + 1))];
    const [top, bottom] = [Math.max(0, Math.floor(y - radius - 1)), Math.min(height, Math.ceil(y + radius + 1))];
    for (let row = top; row < bottom; row++) {
      for (let column = left; column < right; column++) {
        visit(row * width + column, Math.hypot(column + 0.5 - x, row + 0.5 - y) - radius);
      }
    }
  }
}

/** How much darker each pixel is than its level; lighter where what is light is the figure. */
function valuesOf(pixels: Pixels, { threshold, isLight, smoothing }: FigureSettings): Float32Array {
  const { width, height } = pixels;
  const sharp = lumasOf(pixels);
  const values =
    smoothing > 0 ? blurred({ columns: width, rows: height, values: sharp, shown: null }, smoothing, smoothing) : sharp;
  if (isLight) for (let i = 0; i < values.length; i++) values[i] = 255 - values[i];
  if (threshold === 'local') {
    const windowPx = Math.max(leastSurroundings, Math.min(width, height) * surroundings);
    const levels = localLevels(values, width, windowPx);
    for (let i = 0; i < values.length; i++) values[i] = levels[i] - values[i];
    return values;
  }
  const given = threshold === 'best' ? null : isLight ? 255 - threshold : threshold;
  const level = given ?? evenLevel(values);
  for (let i = 0; i < values.length; i++) values[i] = level - values[i];
  return values;
}
