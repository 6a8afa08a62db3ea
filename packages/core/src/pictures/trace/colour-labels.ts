import type { Pixels } from '../../document/pixels.ts';
import { boxOfColour, colourBoxes, type Rgb } from './palette.ts';

/** The label of what does not count: it is left out, or lies beyond the picture. */
export const outside = 255;

/** Which colour each pixel is of. */
export interface Labels {
  readonly width: number;
  readonly height: number;
  /** By pixel, the place of its colour in the palette, or `outside`. */
  readonly of: Uint8Array;
}

/** A pixel whose colour is so near to the line between two others, in levels, is a mix of them. */
const mixWithin = 48;

/**
 * Labels each pixel by its nearest colour. Pixels along an edge, whose colour is a mix of those beside, get the one that
 * they have more of.
 */
export function labelsOf(pixels: Pixels, palette: readonly Rgb[], counts: (pixel: number) => boolean): Labels {
  const { width, height, rgb } = pixels;
  const nearest = new Uint8Array(colourBoxes).fill(outside);
  const labels = new Uint8Array(width * height).fill(outside);
  for (let pixel = 0, k = 0; pixel < labels.length; pixel++, k += 3) {
    if (!counts(pixel)) continue;
    const box = boxOfColour(rgb[k], rgb[k + 1], rgb[k + 2]);
    if (nearest[box] === outside) nearest[box] = nearestTo(palette, rgb[k], rgb[k + 1], rgb[k + 2]);
    labels[pixel] = nearest[box];
  }
  return unmixed(pixels, palette, { width, height, of: labels });
}

function nearestTo(palette: readonly Rgb[], r: number, g: number, b: number): number {
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (const [i, colour] of palette.entries()) {
    const distance = (colour[0] - r) ** 2 + (colour[1] - g) ** 2 + (colour[2] - b) ** 2;
    if (distance < least) [best, least] = [i, distance];
  }
  return best;
}

/** How far along from one colour to another a third lies, 0 to 1, by what is nearest to it on the line between them. */
export function mixOf(from: Rgb, to: Rgb, r: number, g: number, b: number): number {
  const [dr, dg, db] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const square = dr * dr + dg * dg + db * db;
  if (square === 0) return 0.5;
  const t = ((r - from[0]) * dr + (g - from[1]) * dg + (b - from[2]) * db) / square;
  return Math.min(1, Math.max(0, t));
}

/** Thin ribbons along edges, which are of a colour only because they are a mix of two others, given to those. */
function unmixed({ rgb }: Pixels, palette: readonly Rgb[], labels: Labels): Labels {
  const { width, height } = labels;
  const solid = solidPixels(labels);
  const cleaned = labels.of.slice();
  for (let y = 0, pixel = 0; y < height; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      if (solid[pixel] || labels.of[pixel] === outside) continue;
      const beside = solidAround(labels, solid, x, y);
      const mix = beside.length > 0 ? bestMix(palette, beside, rgb, 3 * pixel) : null;
      if (mix !== null) cleaned[pixel] = mix;
    }
  }
  return { width, height, of: cleaned };
}

/** Pixels that are part of a square of four of one colour. */
function solidPixels({ width, height, of: labels }: Labels): Uint8Array {
  const solid = new Uint8Array(labels.length);
  for (let y = 0; y + 1 < height; y++) {
    for (let x = 0; x + 1 < width; x++) {
      const i = y * width + x;
      const label = labels[i];
      if (label !== labels[i + 1] || label !== labels[i + width] || label !== labels[i + width + 1]) continue;
      solid[i] = solid[i + 1] = solid[i + width] = solid[i + width + 1] = 1;
    }
  }
  return solid;
}

/** The colours of solid pixels within two of a place. */
function solidAround({ width, height, of: labels }: Labels, solid: Uint8Array, x: number, y: number): number[] {
  const found: number[] = [];
  for (let row = Math.max(0, y - 2); row <= Math.min(height - 1, y + 2); row++) {
    for (let column = Math.max(0, x - 2); column <= Math.min(width - 1, x + 2); column++) {
      const i = row * width + column;
      if (solid[i] && labels[i] !== outside && !found.includes(labels[i])) found.push(labels[i]);
    }
  }
  return found;
}

/** Of which of some colours a pixel has most; null where it is no mix of two of them. */
function bestMix(palette: readonly Rgb[], beside: readonly number[], rgb: Uint8Array, k: number): number | null {
  const [r, g, b] = [rgb[k], rgb[k + 1], rgb[k + 2]];
  let best: number | null = null;
  let least = mixWithin;
  for (const [i, first] of beside.entries()) {
    for (const other of beside.slice(i)) {
      const [from, to] = [palette[first], palette[other]];
      const t = first === other ? 0 : mixOf(from, to, r, g, b);
      const off = Math.hypot(
        r - from[0] - (to[0] - from[0]) * t,
        g - from[1] - (to[1] - from[1]) * t,
        b - from[2] - (to[2] - from[2]) * t,
      );
      if (off < least) [best, least] = [t > 0.5 ? other : first, off];
    }
  }
  return best;
}

/** Labels without areas smaller than a size, in pixels²: they go to the colour that is most around them. */
export function withoutSpecks(labels: Labels, least: number): Labels {
  if (least <= 1) return labels;
  const { width, height, of: all } = labels;
  const next = all.slice();
  const seen = new Uint8Array(all.length);
  const area = new Int32Array(all.length);
  const around = new Uint32Array(outside);
  for (let start = 0; start < all.length; start++) {
    if (seen[start] || all[start] === outside) continue;
    const count = fill(labels, start, seen, area);
    if (count >= least) continue;
    around.fill(0);
    for (let i = 0; i < count; i++) {
      eachBeside(width, height, area[i], (other) => {
        if (all[other] !== all[start] && all[other] !== outside) around[all[other]]++;
      });
    }
    const most = around.reduce((best, times, label) => (times > around[best] ? label : best), 0);
    if (around[most] > 0) for (let i = 0; i < count; i++) next[area[i]] = most;
  }
  return { width, height, of: next };
}

/** The pixels of one label that hang together with one, put into `area`. @returns how many they are */
function fill({ width, height, of: labels }: Labels, start: number, seen: Uint8Array, area: Int32Array): number {
  area[0] = start;
  seen[start] = 1;
  let count = 1;
  const visit = (other: number) => {
    if (seen[other] || labels[other] !== labels[start]) return;
    seen[other] = 1;
    area[count++] = other;
  };
  for (let i = 0; i < count; i++) eachBeside(width, height, area[i], visit);
  return count;
}

function eachBeside(width: number, height: number, pixel: number, visit: (other: number) => void): void {
  const x = pixel % width;
  if (x > 0) visit(pixel - 1);
  if (x + 1 < width) visit(pixel + 1);
  if (pixel >= width) visit(pixel - width);
  if (pixel < width * (height - 1)) visit(pixel + width);
}
