import type { Fade } from '../document/fade.ts';
import type { Colour } from '../document/item.ts';
import type { Pixels } from '../document/pixels.ts';
import type { Tone } from '../document/tone.ts';
import { type Box, numbersOfBoxes, uniteBoxes } from '../geometry/paths/box.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { type Matrix, multiply, rotation } from '../geometry/paths/matrix.ts';
import { type Path, pathBounds, transformPath } from '../geometry/paths/path.ts';
import { Components } from '../geometry/questions/components.ts';
import { forEachMeeting } from '../geometry/questions/meeting-boxes.ts';
import { coverageOf } from '../pictures/coverage.ts';
import { type DotGrid, gridOver, gridWithin } from '../pictures/dot-grid.ts';
import { type DotRaster, dotsOf, pictureBounds } from '../pictures/dots.ts';
import { FadeGreys } from '../pictures/fade-greys.ts';
import { type GrainedDots, type GrainSettings, grainOf } from '../pictures/grain.ts';
import { sharesToBurn } from '../pictures/tone.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { type Filled, levelled, type Row } from './scan-lines.ts';

/** A picture that burns, with what takes it from its pixels to the bed, or to a frame in which rows are level. */
export interface PlacedPicture {
  readonly pixels: Pixels;
  readonly matrix: Matrix;
  readonly tone: Tone;
  /** What of it counts, in its pixels; all of it where nothing is said. */
  readonly crop?: Path | undefined;
}

/** An area of one grey: of each of its dots that share burns, 0 to 1. */
export interface GreyArea extends Filled {
  readonly share: number;
  /** Where it fades, or can be seen through: how, on which colour, and what takes the item's shape to this frame. */
  readonly fading?: { readonly fade: Fade; readonly fill: Colour; readonly matrix: Matrix } | undefined;
}

/** What burns by its greys. */
export type ToneArt = PlacedPicture | GreyArea;

export type ToneSettings = GrainSettings &
  Pick<LayerSettings, 'lineSpacingMm' | 'dotMm' | 'powerPercent' | 'leastPowerPercent'>;

/** The dots that burn, and where they lie in a frame in which rows are level. */
export type BurntDots = DotGrid & GrainedDots;

/** Whether art is a picture, and no area of one grey. */
export function isPicture(art: ToneArt): art is PlacedPicture {
  return 'pixels' in art;
}

/** Where art lies, in its frame. */
export function artBounds(art: ToneArt): Box {
  if (!isPicture(art)) return art.bounds;
  return art.crop ? pathBounds(transformPath(art.crop, art.matrix)) : pictureBounds(art.pixels, art.matrix);
}

/** Art turned back, so that scan lines at an angle, in degrees, are level. */
export function levelledArt(art: ToneArt, angle: number): ToneArt {
  if (isPicture(art)) return { ...art, matrix: multiply(rotation(-angle), art.matrix) };
  const { share, fading } = art;
  const turned = fading && { ...fading, matrix: multiply(rotation(-angle), fading.matrix) };
  return { ...levelled(art, angle), share, fading: turned };
}

/** Art by what lies on each other, each in the order of the drawing: that burns as one picture. */
export function artTogether(arts: readonly ToneArt[]): ToneArt[][] {
  const boxes = numbersOfBoxes(arts, artBounds);
  const together = new Components(arts.length);
  forEachMeeting(boxes, 0, (a, b) => together.join(a, b));
  return together.list().map((members) => members.map((i) => arts[i]));
}

/** More dots than this do not go into the memory of a page. */
export const mostDots = 100_000_000;

/** How many dots art lies on. */
export function dotCount(arts: readonly ToneArt[], settings: ToneSettings): number {
  const { columns, rows } = gridOf(arts.map(artBounds), settings);
  return columns * rows;
}

function gridOf(boxes: readonly Box[], { lineSpacingMm, dotMm }: ToneSettings): DotGrid {
  return gridOver(boxes.reduce(uniteBoxes), dotMm ?? lineSpacingMm, lineSpacingMm);
}

/**
 * The dots that art burns with: its greys on the raster of the burn, as they were toned, made of grain. What lies in
 * front covers what is behind it.
 * @param arts from back to front, in a frame in which rows are level, in mm
 * @returns null where nothing has an area, or there would be too many dots; `missed` is the art of which nothing burns, but for what is white
 */
export function burntDots(
  arts: readonly ToneArt[],
  settings: ToneSettings,
): (BurntDots & { readonly missed: readonly ToneArt[] }) | null {
  const boxes = arts.map(artBounds);
  const grid = gridOf(boxes, settings);
  if (grid.columns * grid.rows > mostDots) return null;
  const layers = arts.flatMap((art, i) => greyLayer(art, grid, boxes[i]) ?? []);
  if (layers.length === 0) return null;
  const { shares, shown } = layers.length === 1 && layers[0].isWhole ? layers[0] : overlaid(layers, grid);
  const dots = { ...grid, ...grainOf(shares, grid, shown, settings) };
  return { ...dots, missed: layers.flatMap((layer) => (layer.burns && !isLit(layer, dots) ? [layer.art] : [])) };
}

/** How far the edge of a crop may stray, in mm. */
const cropTolerance = 0.002;
/** A share as small as this is white, with what rounding adds. */
const faintest = 1 / 512;

/** What one piece of art is to burn, on the dots that it lies on. */
interface GreyLayer {
  readonly art: ToneArt;
  readonly within: ReturnType<typeof gridWithin>;
  /** Whether it lies on all dots of the grid. */
  readonly isWhole: boolean;
  /** Of each dot, the share that is to burn, what does not show left out. */
  readonly shares: Float32Array;
  /** How much of each dot shows; null where all of all do. */
  readonly shown: Float32Array | null;
  /** Whether any of it is meant to burn. */
  readonly burns: boolean;
}

function greyLayer(art: ToneArt, whole: DotGrid, box: Box): GreyLayer | null {
  const within = gridWithin(whole, box);
  const { grid } = within;
  const isWhole = grid.columns === whole.columns && grid.rows === whole.rows;
  if (isPicture(art)) {
    const dots = dotsOfPicture(art, grid);
    if (!dots) return null;
    // Nobody burns a picture that is white all over.
    return { art, within, isWhole, shares: sharesToBurn(dots, art.tone), shown: dots.shown, burns: true };
  }
  const shown = coverageOf(art.outlines, grid);
  if (art.fading) {
    const { fade, fill, matrix } = art.fading;
    return fadingLayer(art, within, isWhole, shown, new FadeGreys(fade, fill, matrix));
  }
  return { art, within, isWhole, shares: shown.map((part) => part * art.share), shown, burns: art.share > faintest };
}

/** The greys of a fading fill, sampled in the middle of each dot. */
function fadingLayer(
  art: GreyArea,
  within: GreyLayer['within'],
  isWhole: boolean,
  shown: Float32Array,
  greys: FadeGreys,
): GreyLayer {
  const { columns, rows, left, top, dotMm, rowMm } = within.grid;
  const shares = new Float32Array(shown.length);
  for (let row = 0, dot = 0; row < rows; row++) {
    const y = top + (row + 0.5) * rowMm;
    for (let column = 0; column < columns; column++, dot++) {
      if (shown[dot] === 0) continue;
      greys.lookAt(left + (column + 0.5) * dotMm, y);
      shown[dot] *= greys.opacity;
      shares[dot] = shown[dot] * greys.darkness;
    }
  }
  return { art, within, isWhole, shares, shown, burns: greys.darkest > faintest };
}

/** A picture on dots, without what is cropped away of it. @returns null where it has no area */
export function dotsOfPicture({ pixels, matrix, crop }: PlacedPicture, grid: DotGrid): DotRaster | null {
  const dots = dotsOf(pixels, matrix, grid);
  if (!dots || !crop) return dots;
  const kept = coverageOf(flatten(transformPath(crop, matrix), cropTolerance), grid);
  const { shown } = dots;
  return { ...dots, shown: shown ? kept.map((share, dot) => share * shown[dot]) : kept };
}

/** Layers over each other on all dots of a grid. */
function overlaid(
  layers: readonly GreyLayer[],
  { columns, rows }: DotGrid,
): { shares: Float32Array; shown: Float32Array } {
  const shares = new Float32Array(columns * rows);
  const clear = new Float32Array(columns * rows).fill(1);
  for (const layer of layers) {
    eachDot(layer, columns, (dot, own) => {
      const through = layer.shown ? 1 - layer.shown[own] : 0;
      shares[dot] = shares[dot] * through + layer.shares[own];
      clear[dot] *= through;
    });
  }
  return { shares, shown: clear.map((part) => 1 - part) };
}

/** Whether any dot that a layer lies on burns. */
function isLit({ within: { column, row, grid }, shares }: GreyLayer, { columns, levels }: BurntDots): boolean {
  for (let y = 0, own = 0; y < grid.rows; y++) {
    const base = (row + y) * columns + column;
    for (let x = 0; x < grid.columns; x++, own++) if (levels[base + x] > 0 && shares[own] > 0) return true;
  }
  return false;
}

/** Each dot of a layer, by its place among all of a grid with so many columns, and its own. */
function eachDot({ within }: GreyLayer, columns: number, visit: (dot: number, own: number) => void): void {
  const { column, row, grid } = within;
  for (let y = 0, own = 0; y < grid.rows; y++) {
    const base = (row + y) * columns + column;
    for (let x = 0; x < grid.columns; x++, own++) visit(base + x, own);
  }
}

/** As many moves at least as the dots take in one pass, and hardly more: to each change of level, and to rows and out of them. */
export function mostMoves({ rows, levels }: BurntDots): number {
  let changes = 0;
  for (let dot = 0, before = 0; dot < levels.length; dot++) {
    // 1 where the two differ, without a branch: levels of grain are as good as random.
    changes += ((levels[dot] ^ before) + 255) >> 8;
    before = levels[dot];
  }
  return changes + 4 * rows;
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
  const xs = new Float64Array(2 * columns);
  // Of dots that burn or do not, all burn with all of it.
  const powers = topLevel === 1 ? null : new Float32Array(columns);
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
        if (powers) powers[count] = least + ((1 - least) * level) / topLevel;
        count++;
      }
      from = to;
    }
    if (count === 0) continue;
    yield { y: top + (row + 0.5) * rowMm, xs: xs.subarray(0, 2 * count), powers: powers?.subarray(0, count) };
  }
}
