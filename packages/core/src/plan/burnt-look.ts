import { blurred } from '../pictures/blur.ts';
import { burntCurve } from '../pictures/burnt-greys.ts';
import type { DotGrid } from '../pictures/dot-grid.ts';
import type { BurntGrey } from '../settings/burnt-greys.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { type BurntDots, burntDots, levelledArt, type PlacedPicture, type ToneSettings } from './tones.ts';

/** How dark of dots is told from what burns within so many dots around each. */
const surroundings = 4;

/** How a picture burns, to be looked at: the mean of how dark the dots in each of its cells come out. */
export interface BurntLook extends DotGrid {
  /** A byte for each cell, from 0 for bare to 255 for as dark as it gets. */
  readonly burnt: Uint8ClampedArray;
}

/**
 * How a picture burns with some settings, in a frame that is turned so that scan lines are level. Of more dots than are
 * wanted several are one cell. Where greys were measured, dots are as dark as those came out.
 * @returns null where the picture has no area
 */
export function burntLook(
  picture: PlacedPicture,
  settings: ToneSettings & Pick<LayerSettings, 'scanAngle'>,
  mostCells: number,
): BurntLook | null {
  const dots = burntDots([levelledArt(picture, settings.scanAngle)], settings);
  if (!dots) return null;
  const { left, top } = dots;
  const darkness = darknessOfDots(dots, settings.grain === 'threshold' ? [] : settings.burntGreys);
  const side = Math.max(1, Math.ceil(Math.sqrt(darkness.length / mostCells)));
  const columns = Math.ceil(dots.columns / side);
  const rows = Math.ceil(dots.rows / side);
  const sums = new Float64Array(columns * rows);
  const counts = new Uint32Array(columns * rows);
  for (let y = 0, dot = 0; y < dots.rows; y++) {
    const base = Math.floor(y / side) * columns;
    for (let x = 0; x < dots.columns; x++, dot++) {
      const cell = base + Math.floor(x / side);
      sums[cell] += darkness[dot];
      counts[cell]++;
    }
  }
  const burnt = Uint8ClampedArray.from(sums, (sum, cell) => (255 * sum) / counts[cell]);
  return { columns, rows, left, top, dotMm: dots.dotMm * side, rowMm: dots.rowMm * side, burnt };
}

/**
 * How dark each dot comes out, 0 to 1. What burns around a dot has a mean, and its measured darkness is reached exactly:
 * by dots that are lighter than black, or by what bare dots take on of their neighbours.
 */
function darknessOfDots({ columns, rows, levels, topLevel }: BurntDots, greys: readonly BurntGrey[]): Float32Array {
  const burnt = Float32Array.from(levels, (level) => level / topLevel);
  if (greys.length === 0) return burnt;
  const curve = burntCurve(greys);
  if (topLevel > 1) return burnt.map(curve);
  const means = blurred({ columns, rows, values: burnt, shown: null }, surroundings, surroundings);
  return burnt.map((value, dot) => {
    const mean = Math.min(1, Math.max(0, means[dot]));
    const dark = curve(mean);
    if (dark <= mean) return mean > 0 ? (value * dark) / mean : 0;
    return value + ((1 - value) * (dark - mean)) / (1 - mean);
  });
}
