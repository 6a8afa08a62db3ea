import type { DotGrid } from '../pictures/dots.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { burntDots, levelledArt, type PlacedPicture, type ToneSettings } from './tones.ts';

/** How a picture burns, to be looked at: the mean of what burns of the dots in each of its cells. */
export interface BurntLook extends DotGrid {
  /** A byte for each cell, 0 where nothing burns and 255 where all does. */
  readonly burnt: Uint8ClampedArray;
}

/**
 * How a picture burns with some settings, in a frame that is turned so that scan lines are level. Of more dots than are
 * wanted several are one cell.
 * @returns null where the picture has no area
 */
export function burntLook(
  picture: PlacedPicture,
  settings: ToneSettings & Pick<LayerSettings, 'scanAngle'>,
  mostCells: number,
): BurntLook | null {
  const dots = burntDots([levelledArt(picture, settings.scanAngle)], settings);
  if (!dots) return null;
  const { left, top, levels, topLevel } = dots;
  const side = Math.max(1, Math.ceil(Math.sqrt(levels.length / mostCells)));
  const columns = Math.ceil(dots.columns / side);
  const rows = Math.ceil(dots.rows / side);
  const sums = new Uint32Array(columns * rows);
  const counts = new Uint32Array(columns * rows);
  for (let y = 0, dot = 0; y < dots.rows; y++) {
    const base = Math.floor(y / side) * columns;
    for (let x = 0; x < dots.columns; x++, dot++) {
      const cell = base + Math.floor(x / side);
      sums[cell] += levels[dot];
      counts[cell]++;
    }
  }
  const burnt = Uint8ClampedArray.from(sums, (sum, cell) => (255 * sum) / (topLevel * counts[cell]));
  return { columns, rows, left, top, dotMm: dots.dotMm * side, rowMm: dots.rowMm * side, burnt };
}
