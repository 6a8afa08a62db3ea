import type { Colour } from './item.ts';

/** Red, green and blue of a colour, 0 to 255. */
export function channelsOf(colour: Colour): number[] {
  return [1, 3, 5].map((offset) => Number.parseInt(colour.slice(offset, offset + 2), 16));
}

/** A colour from red, green and blue, 0 to 255. */
export function colourOfChannels([r, g, b]: readonly number[]): Colour {
  const hex = [r, g, b].map((value) => Math.round(value).toString(16).padStart(2, '0')).join('');
  return `#${hex}`.toUpperCase();
}
