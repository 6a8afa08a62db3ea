import type { Pixels } from '../document/pixels.ts';

/** Of a square of pixels, so many across and down are looked at. */
const looks = 2;

/**
 * A smaller picture, of the means of some pixels of each square; what is left over at the right and below is left out.
 * @param step how many pixels a square has across and down
 */
export function reduced({ width, height, rgb, alpha }: Pixels, step: number): Pixels {
  const [columns, rows] = [Math.max(1, Math.floor(width / step)), Math.max(1, Math.floor(height / step))];
  const placesWithin = (size: number) => {
    const count = Math.min(looks, size);
    return Array.from({ length: count }, (_, k) => Math.floor(((k + 0.5) * size) / count));
  };
  // A picture narrower than a square has no more than it has.
  const across = placesWithin(Math.min(step, width));
  const inSquare = placesWithin(Math.min(step, height)).flatMap((y) => across.map((x) => y * width + x));
  const meanOf = (values: Uint8Array, channels: number) => {
    const means = new Uint8Array(columns * rows * channels);
    for (let row = 0, k = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const first = row * step * width + column * step;
        for (let channel = 0; channel < channels; channel++, k++) {
          let sum = 0;
          for (let i = 0; i < inSquare.length; i++) sum += values[(first + inSquare[i]) * channels + channel];
          means[k] = Math.round(sum / inSquare.length);
        }
      }
    }
    return means;
  };
  return { width: columns, height: rows, rgb: meanOf(rgb, 3), alpha: alpha ? meanOf(alpha, 1) : null };
}
