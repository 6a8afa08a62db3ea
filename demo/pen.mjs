import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';

export const colours = {
  cut: '#D0481E',
  score: '#00806A',
  engrave: '#5B3FA0',
  photo: '#2F6FB0',
  guide: '#7A7F80',
  note: '#C77700',
};

const require = createRequire(import.meta.url);
const fontFile = require.resolve('@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff');
const bytes = readFileSync(fontFile);
const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
const capital = font.tables.os2.sCapHeight / font.unitsPerEm;

export const n = (value) => String(Math.round(value * 1000) / 1000 || 0);

/** An SVG page in mm. */
export function page(width, height, lines) {
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}mm" height="${n(height)}mm" viewBox="0 0 ${n(width)} ${n(height)}">`,
    ...lines,
    '</svg>',
    '',
  ].join('\n');
}

export const cut = (d, id) => line(d, colours.cut, id);
export const score = (d, id) => line(d, colours.score, id);

function line(d, colour, id) {
  return `<path${id ? ` id="${id}"` : ''} d="${d}" fill="none" stroke="${colour}" stroke-width="0.1"/>`;
}

/**
 * Text as outlines to engrave, capitals `height` mm high, its baseline starting at x, y.
 * With `up`, it runs from bottom to top.
 */
export function engraved(text, x, y, height, { up = false, id } = {}) {
  const path = font.getPath(text, 0, 0, height / capital);
  const turn = (px, py) => (up ? [x + py, y - px] : [x + px, y + py]);
  const d = path.commands
    .map((c) => {
      const points = [
        [c.x1, c.y1],
        [c.x2, c.y2],
        [c.x, c.y],
      ].filter(([px]) => px !== undefined);
      return c.type + points.map(([px, py]) => turn(px, py).map(n).join(' ')).join(' ');
    })
    .join('');
  return `<path${id ? ` id="${id}"` : ''} d="${d}" fill="${colours.engrave}"/>`;
}

/** How wide text runs, in mm, at capitals `height` mm high. */
export function textWidth(text, height) {
  return font.getAdvanceWidth(text, height / capital);
}

/** A generator of numbers in [0, 1) from a seed (mulberry32). */
export function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
