import type { Pixels } from '../document/pixels.ts';
import type { Tone } from '../document/tone.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { type DotGrid, dotsOf } from '../pictures/dots.ts';
import { type GrainedDots, type GrainSettings, grainOf } from '../pictures/grain.ts';
import { sharesToBurn } from '../pictures/tone.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { Row } from './scan-lines.ts';

/** A picture that burns, with what takes it from its pixels to the bed. */
export interface PlacedPicture {
  readonly pixels: Pixels;
  readonly matrix: Matrix;
  readonly tone: Tone;
}

export type ToneSettings = GrainSettings &
  Pick<LayerSettings, 'lineSpacingMm' | 'dotMm' | 'powerPercent' | 'leastPowerPercent'>;

/** The dots of a picture as they burn, and where they lie in a frame in which rows are level. */
export type BurntDots = DotGrid & GrainedDots;

/**
 * The dots that a picture burns with: its greys on the raster of the burn, as they were toned, made of grain.
 * @param placing from the picture's pixels to a frame in which rows are level, in mm
 * @returns null where it has no area
 */
export function burntDots(
  { pixels, tone }: Pick<PlacedPicture, 'pixels' | 'tone'>,
  placing: Matrix,
  settings: ToneSettings,
): BurntDots | null {
  const { lineSpacingMm, dotMm } = settings;
  const dots = dotsOf(pixels, placing, dotMm ?? lineSpacingMm, lineSpacingMm);
  if (!dots) return null;
  const { columns, rows, left, top, rowMm, shown } = dots;
  const grid = { columns, rows, left, top, dotMm: dots.dotMm, rowMm };
  return { ...grid, ...grainOf(sharesToBurn(dots, tone), grid, shown, settings) };
}

/**
 * The rows of dots that burn: neighbours of one level are one stretch, and those that do not burn are left out. One row
 * after the other, each good until the next is asked for.
 */
export function* rowsOfDots(
  { columns, rows, left, top, dotMm, rowMm, levels, topLevel }: BurntDots,
  { powerPercent, leastPowerPercent }: ToneSettings,
): Generator<Row> {
  const least = powerPercent > 0 ? Math.min(1, leastPowerPercent / powerPercent) : 0;
  // Of dots that burn or do not, all burn with all of it.
  const powerOf = (level: number) => (topLevel === 1 ? 1 : least + ((1 - least) * level) / topLevel);
  const xs = new Float64Array(2 * columns);
  const powers = new Float32Array(columns);
  for (let row = 0; row < rows; row++) {
    const base = row * columns;
    let count = 0;
    for (let from = 0; from < columns; ) {
      const level = levels[base + from];
      let to = from + 1;
      while (to < columns && levels[base + to] === level) to++;
      if (level > 0) {
        xs[2 * count] = left + from * dotMm;
        xs[2 * count + 1] = left + to * dotMm;
        powers[count] = powerOf(level);
        count++;
      }
      from = to;
    }
    if (count > 0)
      yield { y: top + (row + 0.5) * rowMm, xs: xs.subarray(0, 2 * count), powers: powers.subarray(0, count) };
  }
}
