import { calc } from '@csstools/css-calc';
import { type Color, converter, parse } from 'culori';
import type { Colour } from '../../document/item.ts';
import {
  identity,
  isFiniteMatrix,
  type Matrix,
  multiply,
  rotation,
  scaling,
  translation,
} from '../../geometry/paths/matrix.ts';

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

/** What lengths are measured against where an element stands, in user units. */
export interface LengthContext {
  readonly fontSize: number;
  /** The font size of the file's root. */
  readonly rootFontSize: number;
  readonly viewportWidth: number;
  readonly viewportHeight: number;
}

/** Which side of the viewport per cent is of; the third is its diagonal over √2, as SVG has it. */
export type Axis = 'x' | 'y' | 'diagonal';

/** A text that is certainly a number and nothing more, as most lengths are; null for `5.` and ` 5`, which may be one too. */
function plainNumber(text: string): number | null {
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const digit = code >= 48 && code <= 57;
    if (!digit && !(i < text.length - 1 && (code === 46 || (code === 45 && i === 0)))) return null;
  }
  const number = Number(text);
  return text !== '' && Number.isFinite(number) ? number : null;
}

/** A length in user units, font units and per cent included; null when it is none. */
export function lengthInUserUnits(text: string | undefined, context: LengthContext, axis: Axis): number | null {
  if (text === undefined) return null;
  const plain = plainNumber(text);
  if (plain !== null) return plain;
  if (text.includes('(')) return calculated(text, context, axis);
  const length = readLength(text);
  return length && inUserUnits(length, context, axis);
}

/** The value of a mathematical function such as `calc()`, in user units; null where it is no length. */
function calculated(text: string, context: LengthContext, axis: Axis): number | null {
  let sound = true;
  const inPx = text.replace(/((?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)(%|[a-z]+)/gi, (_, number: string, unit: string) => {
    const value = inUserUnits({ number: Number(number), unit: unit.toLowerCase() }, context, axis);
    sound &&= value !== null;
    return `${value}px`;
  });
  const value = sound ? readLength(calc(inPx)) : null;
  return value && (value.unit === 'px' || value.unit === '') ? value.number : null;
}

function inUserUnits(length: SvgLength, context: LengthContext, axis: Axis): number | null {
  const { viewportWidth, viewportHeight, fontSize, rootFontSize } = context;
  switch (length.unit) {
    case 'em':
      return length.number * fontSize;
    case 'ex':
    case 'ch':
      return (length.number * fontSize) / 2;
    case 'rem':
      return length.number * rootFontSize;
    case '%': {
      const diagonal = Math.sqrt((viewportWidth ** 2 + viewportHeight ** 2) / 2);
      return (length.number / 100) * (axis === 'x' ? viewportWidth : axis === 'y' ? viewportHeight : diagonal);
    }
    default: {
      const mm = lengthInMm(length);
      return mm === null ? null : mm / mmPerPx;
    }
  }
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

/**
 * A `transform`, as an attribute or in CSS (with units), as a map; null when it cannot be read.
 * @param context what lengths with units are measured against
 */
export function readTransform(text: string, context: LengthContext): Matrix | null {
  if (text.trim() === 'none') return identity;
  let matrix: Matrix = identity;
  const pattern = /[\s,]*([a-zA-Z]+)\s*\(([^)]*)\)/gy;
  let end = 0;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const values = readArguments(match[2], context);
    const step = values && oneTransform(match[1], values);
    if (!step || !isFiniteMatrix(step)) return null;
    matrix = multiply(matrix, step);
    end = pattern.lastIndex;
  }
  return text.slice(end).trim() === '' ? matrix : null;
}

const degreesPer: Record<string, number> = { deg: 1, rad: 180 / Math.PI, grad: 0.9, turn: 360 };

/** Numbers, angles in degrees and lengths in user units; null when one is none of them. */
function readArguments(text: string, context: LengthContext): number[] | null {
  const { numbers, whole } = readNumbers(text);
  if (whole) return numbers;
  const values = text
    .trim()
    .split(/\s*,\s*|\s+/)
    .map((part) => {
      const angle = /^([-+.\de]+)(deg|rad|grad|turn)$/i.exec(part);
      return angle ? Number(angle[1]) * degreesPer[angle[2].toLowerCase()] : lengthInUserUnits(part, context, 'x');
    });
  return values.every((value) => value !== null && Number.isFinite(value)) ? (values as number[]) : null;
}

function oneTransform(name: string, n: number[]): Matrix | null {
  const tan = (degrees: number) => Math.tan((degrees * Math.PI) / 180);
  const takes = (...counts: number[]) => counts.includes(n.length);
  switch (name) {
    case 'matrix':
      return takes(6) ? [n[0], n[1], n[2], n[3], n[4], n[5]] : null;
    case 'translate':
      return takes(1, 2) ? translation(n[0], n[1] ?? 0) : null;
    case 'translateX':
      return takes(1) ? translation(n[0], 0) : null;
    case 'translateY':
      return takes(1) ? translation(0, n[0]) : null;
    case 'scale':
      return takes(1, 2) ? scaling(n[0], n[1] ?? n[0]) : null;
    case 'scaleX':
      return takes(1) ? scaling(n[0], 1) : null;
    case 'scaleY':
      return takes(1) ? scaling(1, n[0]) : null;
    case 'rotate':
      return takes(1, 3) ? rotation(n[0], { x: n[1] ?? 0, y: n[2] ?? 0 }) : null;
    case 'skewX':
      return takes(1) ? [1, 0, tan(n[0]), 1, 0, 0] : null;
    case 'skewY':
      return takes(1) ? [1, tan(n[0]), 0, 1, 0, 0] : null;
    case 'skew':
      return takes(1, 2) ? [1, tan(n[1] ?? 0), tan(n[0]), 1, 0, 0] : null;
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
