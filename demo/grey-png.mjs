import { encodePixels } from '@lambent/core/formats';

/** A made-up picture as a PNG file. */
export async function greyPng({ width, height, greys }) {
  const rgb = new Uint8Array(3 * greys.length);
  for (const [i, grey] of greys.entries()) rgb.fill(grey, 3 * i, 3 * i + 3);
  return Buffer.from(await encodePixels({ width, height, rgb }));
}
