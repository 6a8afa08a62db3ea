import type { Colour } from '../../document/item.ts';

const basic = [
  '#000000',
  '#FF0000',
  '#FFFF00',
  '#00FF00',
  '#00FFFF',
  '#0000FF',
  '#FF00FF',
  '#000000',
  '#808080',
  '#C0C0C0',
];
const greys = [51, 91, 132, 173, 214, 255];
const values = [255, 204, 153, 127, 76];

/**
 * A colour by DXF's index: 1 to 9 fixed, 10 to 249 by hue (24 steps of 15°), five values, each full and
 * half tinted, 250 to 255 greys. White, which stands for the colour of the pen, comes as black.
 */
export function indexColour(index: number): Colour {
  if (index >= 0 && index < 10) return basic[index];
  if (index >= 250 && index <= 255) return hex([greys[index - 250], greys[index - 250], greys[index - 250]]);
  if (!(index >= 10 && index < 250)) return '#000000';
  const hue = Math.floor((index - 10) / 10) * 15;
  const value = values[Math.floor((index % 10) / 2)];
  const least = index % 2 === 1 ? value / 2 : 0;
  const channel = (shift: number) => {
    const turn = (hue + shift) % 360;
    const share = turn < 60 ? turn / 60 : turn < 180 ? 1 : turn < 240 ? (240 - turn) / 60 : 0;
    return least + (value - least) * share;
  };
  return hex([channel(120), channel(0), channel(240)]);
}

/** A true colour, written as 0xRRGGBB. */
export function trueColour(value: number): Colour {
  return hex([(value >> 16) & 255, (value >> 8) & 255, value & 255]);
}

function hex(channels: number[]): Colour {
  return `#${channels.map((channel) => Math.floor(channel).toString(16).padStart(2, '0')).join('')}`.toUpperCase();
}
