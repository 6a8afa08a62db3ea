import { channelsOf } from '../document/channels.ts';
import type { Colour } from '../document/item.ts';
import type { Pixels } from '../document/pixels.ts';

/** The luma of each pixel (ITU-R BT.709), from 0 for black to 255 for white. */
export function lumasOf({ width, height, rgb }: Pixels): Float32Array {
  const lumas = new Float32Array(width * height);
  for (let i = 0; i < lumas.length; i++) lumas[i] = lumaOf(rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]);
  return lumas;
}

/** How bright a colour looks, in the unit of its parts. */
export function lumaOf(red: number, green: number, blue: number): number {
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** What of a luma is a pixel's own, times its opacity: without the white that shows through. */
export function lumaWithoutWhite(luma: number, opacity: number): number {
  return Math.max(0, luma - 255 * (1 - opacity));
}

/** How much of an area of a colour burns where no tone says otherwise, 0 to 1: 1 − luma ÷ 255. */
export function darknessOf(colour: Colour): number {
  const [red, green, blue] = channelsOf(colour);
  return 1 - lumaOf(red, green, blue) / 255;
}

/** How many pixels of a picture are how bright, from black to white, in so many bins; what cannot be seen is not counted. */
export function histogramOf({ width, height, rgb, alpha }: Pixels, bins: number): Uint32Array {
  const counts = new Uint32Array(bins);
  for (let i = 0; i < width * height; i++) {
    if (alpha && alpha[i] < 128) continue;
    const opacity = alpha ? alpha[i] / 255 : 1;
    const luma = lumaWithoutWhite(lumaOf(rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]), opacity) / opacity;
    counts[Math.min(bins - 1, Math.floor((luma / 256) * bins))]++;
  }
  return counts;
}
