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
