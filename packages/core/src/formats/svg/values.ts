import { type Color, converter, parse } from 'culori';
import type { Colour } from '../../drawing/item.ts';
import { identity, isFiniteMatrix, type Matrix, multiply, rotation } from '../../geometry/matrix.ts';

/** CSS pixels to mm: 96 to the inch. */
export const mmPerPx = 25.4 / 96;

const mmPerUnit: Record<string, number> = {
  '': mmPerPx,
  px: mmPerPx,
  mm: 1,
  cm: 10,
  q: 0.25,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
};

export interface SvgLength {
  readonly number: number;
  readonly unit: string;
}

/** `12.5mm` and the like; null when it is not a number with a unit or per cent. */
export function readLength(text: string | undefined): SvgLength | null {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(%|[a-z]*)\s*$/i.exec(text ?? '');
  if (!match) return null;
  const number = Number(match[1]);
  return Number.isFinite(number) ? { number, unit: match[2].toLowerCase() } : null;
}

/** A physical length in mm; null for per cent and units that hang on a font. */
export function lengthInMm(length: SvgLength): number | null {
  const factor = mmPerUnit[length.unit];
  return factor === undefined ? null : length.number * factor;
}

/** A length in user units (1 unit = 1 px before any viewBox); null when it is none. */
export function userUnits(text: string | undefined): number | null {
  const length = readLength(text);
  if (!length) return null;
  const mm = lengthInMm(length);
  return mm === null ? null : mm / mmPerPx;
}

/** Every number in a list such as `points` or `viewBox`; stops at the first thing that is none. */
export function readNumbers(text: string): { numbers: number[]; whole: boolean } {
  const numbers: number[] = [];
  const pattern = /[\s,]*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)/giy;
  let end = 0;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const number = Number(match[1]);
    if (!Number.isFinite(number)) return { numbers, whole: false };
    numbers.push(number);
    end = pattern.lastIndex;
  }
  return { numbers, whole: text.slice(end).trim() === '' };
}

/** A `transform` attribute as a map; null when it cannot be read. */
export function readTransform(text: string): Matrix | null {
  let matrix: Matrix = identity;
  const pattern = /[\s,]*([a-zA-Z]+)\s*\(([^)]*)\)/gy;
  let end = 0;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const { numbers, whole } = readNumbers(match[2]);
    const step = whole ? oneTransform(match[1], numbers) : null;
    if (!step || !isFiniteMatrix(step)) return null;
    matrix = multiply(matrix, step);
    end = pattern.lastIndex;
  }
  return text.slice(end).trim() === '' ? matrix : null;
}

function oneTransform(name: string, n: number[]): Matrix | null {
  const tan = (degrees: number) => Math.tan((degrees * Math.PI) / 180);
  switch (name) {
    case 'matrix':
      return n.length === 6 ? [n[0], n[1], n[2], n[3], n[4], n[5]] : null;
    case 'translate':
      return n.length === 1 || n.length === 2 ? [1, 0, 0, 1, n[0], n[1] ?? 0] : null;
    case 'scale':
      return n.length === 1 || n.length === 2 ? [n[0], 0, 0, n[1] ?? n[0], 0, 0] : null;
    case 'rotate':
      return n.length === 1 || n.length === 3 ? rotation(n[0], { x: n[1] ?? 0, y: n[2] ?? 0 }) : null;
    case 'skewX':
      return n.length === 1 ? [1, 0, tan(n[0]), 1, 0, 0] : null;
    case 'skewY':
      return n.length === 1 ? [1, tan(n[0]), 0, 1, 0, 0] : null;
    default:
      return null;
  }
}

const toRgb = converter('rgb');

export interface CssColour {
  readonly colour: Colour;
  readonly alpha: number;
}

/** Any CSS colour as `#RRGGBB` and its alpha; null when it is none. */
export function readColour(text: string): CssColour | null {
  const parsed: Color | undefined = parse(text.trim().toLowerCase());
  if (!parsed) return null;
  const { r, g, b, alpha = 1 } = toRgb(parsed);
  const hex = (channel: number) =>
    Math.round(Math.min(1, Math.max(0, channel)) * 255)
      .toString(16)
      .padStart(2, '0');
  return { colour: `#${hex(r)}${hex(g)}${hex(b)}`.toUpperCase(), alpha };
}
