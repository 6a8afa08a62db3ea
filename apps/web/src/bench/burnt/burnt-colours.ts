import { BurntCode } from '@lambent/core/recipes';

/** Burnt stuff is brown and ever darker, what is cut through black, what is scorched red. */
function colourOf(code: number): [number, number, number, number] {
  if (code === BurntCode.bare) return [0, 0, 0, 0];
  if (code === BurntCode.scorched) return [150, 24, 12, 255];
  if (code === BurntCode.through) return [14, 12, 10, 255];
  const dark = Math.min(1, code / BurntCode.darkest);
  return [74 - 24 * dark, 44 - 18 * dark, 22 - 8 * dark, 30 + 195 * dark];
}

/** By code: the colour of a point, as a picture's data has it. */
export const burntColours = new Uint32Array(
  Uint8ClampedArray.from(Array.from({ length: 256 }, (_, code) => colourOf(code)).flat()).buffer,
);
