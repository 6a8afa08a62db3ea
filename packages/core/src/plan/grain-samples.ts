import { growBox } from '../geometry/paths/box.ts';
import { applyTo, type Point, rotation } from '../geometry/paths/matrix.ts';
import { type DotGrid, gridOver, gridWithin } from '../pictures/dot-grid.ts';
import { grainOf } from '../pictures/grain.ts';
import { sharesToBurn, sharpenReach } from '../pictures/tone.ts';
import { type Grain, grains } from '../settings/grain.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { artBounds, dotsOfPicture, levelledArt, type PlacedPicture, type ToneSettings } from './tones.ts';

/** A part of a picture as each grain burns it: a byte for each dot, 0 where nothing burns and 255 where all does. */
export interface GrainSamples {
  readonly columns: number;
  readonly rows: number;
  readonly byGrain: Readonly<Record<Grain, Uint8ClampedArray>>;
}

/**
 * The part of a picture around a place of the bed as each grain burns it. Where it is near an edge, the part of that
 * size which lies on the picture.
 * @returns null where the picture has no area
 */
export function grainSamples(
  picture: PlacedPicture,
  settings: ToneSettings & Pick<LayerSettings, 'scanAngle'>,
  around: Point,
  most: { readonly columns: number; readonly rows: number },
): GrainSamples | null {
  const { scanAngle, lineSpacingMm, dotMm } = settings;
  const level = levelledArt(picture, scanAngle) as PlacedPicture;
  const whole = gridOver(artBounds(level), dotMm ?? lineSpacingMm, lineSpacingMm);
  const part = partAround(whole, applyTo(rotation(-scanAngle), around.x, around.y), most);
  const dots = tonedPart(level, whole, part);
  if (!dots) return null;
  const { shares, shown } = dots;
  const { columns, rows } = part;
  const byGrain = Object.fromEntries(
    grains.map((grain) => {
      const { levels, topLevel } = grainOf(shares, part, shown, { ...settings, grain });
      return [grain, Uint8ClampedArray.from(levels, (level) => (level / topLevel) * 255)];
    }),
  ) as Record<Grain, Uint8ClampedArray>;
  return { columns, rows, byGrain };
}

/** The dots around a place, as many as are wanted and there are. */
function partAround(
  whole: DotGrid,
  { x, y }: Point,
  most: { readonly columns: number; readonly rows: number },
): DotGrid {
  const { left, top, dotMm, rowMm } = whole;
  const [columns, rows] = [Math.min(most.columns, whole.columns), Math.min(most.rows, whole.rows)];
  const first = (place: number, count: number, all: number) =>
    Math.max(0, Math.min(all - count, Math.round(place - count / 2)));
  const column = first((x - left) / dotMm, columns, whole.columns);
  const row = first((y - top) / rowMm, rows, whole.rows);
  return { ...whole, columns, rows, left: left + column * dotMm, top: top + row * rowMm };
}

/** What of each dot of a part is to burn. As much of what surrounds it is toned as bears on it. */
function tonedPart(picture: PlacedPicture, whole: DotGrid, part: DotGrid) {
  const { tone } = picture;
  const { columns, rows, left, top, dotMm, rowMm } = part;
  const box = { minX: left, minY: top, maxX: left + columns * dotMm, maxY: top + rows * rowMm };
  // Local contrast goes by the whole picture, sharpening by what is near.
  const reach = tone.localContrast ? Number.POSITIVE_INFINITY : 3 * sharpenReach(tone);
  const { grid } = gridWithin(whole, growBox(box, reach));
  const dots = dotsOfPicture(picture, grid);
  if (!dots) return null;
  const all = sharesToBurn(dots, tone);
  const [column, row] = [Math.round((left - grid.left) / dotMm), Math.round((top - grid.top) / rowMm)];
  const cropped = (values: Float32Array) => {
    const out = new Float32Array(columns * rows);
    for (let y = 0; y < rows; y++) {
      const from = (row + y) * grid.columns + column;
      out.set(values.subarray(from, from + columns), y * columns);
    }
    return out;
  };
  return { shares: cropped(all), shown: dots.shown && cropped(dots.shown) };
}
