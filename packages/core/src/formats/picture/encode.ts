import type { Pixels } from '../../document/pixels.ts';
import type { Assets } from '../assets.ts';
import { encodeRgbaAsJpeg } from './codecs.ts';

/** Pixels as PNG. */
export async function encodePixels({ width, height, rgb, alpha }: Pixels): Promise<Uint8Array> {
  const { encode } = await import('fast-png');
  if (!alpha) return encode({ width, height, data: rgb, channels: 3, depth: 8 });
  const data = new Uint8Array(4 * width * height);
  for (let pixel = 0; pixel < alpha.length; pixel++) {
    const opacity = alpha[pixel] / 255;
    // Pixels lie over white; what is written does not.
    const own = (value: number) => (opacity === 0 ? 255 : Math.round((value - 255 * (1 - opacity)) / opacity));
    for (let c = 0; c < 3; c++) data[4 * pixel + c] = Math.min(255, Math.max(0, own(rgb[3 * pixel + c])));
    data[4 * pixel + 3] = alpha[pixel];
  }
  return encode({ width, height, data, channels: 4, depth: 8 });
}

/** Pixels as JPEG; what can be seen through lies over white. @param quality from 1 to 100 */
export async function encodeJpeg({ width, height, rgb }: Pixels, quality: number, assets: Assets): Promise<Uint8Array> {
  const data = new Uint8ClampedArray(4 * width * height).fill(255);
  for (let pixel = 0; pixel < width * height; pixel++) {
    for (let channel = 0; channel < 3; channel++) data[4 * pixel + channel] = rgb[3 * pixel + channel];
  }
  return encodeRgbaAsJpeg({ width, height, data }, quality, assets);
}
