import { BarcodeFormat, DataMatrixWriter, EncodeHintType, QRCodeWriter } from '@zxing/library';
import JsBarcode from 'jsbarcode';
import { type CodeSetting, type Symbology, symbologyNames } from '../document/code.ts';
import type { Shape } from '../document/shape.ts';
import { type ModuleGrid, moduleOutline } from './module-outline.ts';

/** A code that cannot be made. Its message is one plain sentence. */
export class CodeRefused extends Error {
  override readonly name = 'CodeRefused';
}

/** How many modules stay free around a code, by its standard: ISO/IEC 18004, 16022 and 15417. */
const quietModules: Readonly<Record<Symbology, number>> = { qr: 4, 'data-matrix': 1, 'code-128': 10 };

/** The last letter that each has a sign for: code points in ASCII, in Latin-1, and all. */
const lastLetter: Readonly<Record<Symbology, string>> = {
  qr: '\u{10FFFF}',
  'data-matrix': '\u00FF',
  'code-128': '\u007F',
};

const qrHints = new Map<EncodeHintType, unknown>([
  [EncodeHintType.MARGIN, 0],
  [EncodeHintType.ERROR_CORRECTION, 'M'],
  [EncodeHintType.CHARACTER_SET, 'UTF-8'],
]);
/** Square, by the package's number for it: a Data Matrix may be oblong as well. */
const squareHints = new Map<EncodeHintType, unknown>([[EncodeHintType.DATA_MATRIX_SHAPE, 1]]);

/** More letters than this go into no code. */
const mostLetters = 4000;

/**
 * A code as it burns, in a frame from (0, 0) to its width and height, its quiet zone included: its dark modules, or, on stock
 * that the beam makes lighter, its light ones and the quiet zone.
 *
 * @throws CodeRefused where it says nothing, too much, or what its symbology has no sign for
 */
export function makeCode(setting: CodeSetting): Extract<Shape, { kind: 'code' }> {
  const { symbology, words, width, height } = setting;
  const name = symbologyNames[symbology];
  if (words === '') throw new CodeRefused(`The ${name} says nothing. Write what it is to say.`);
  const quiet = quietModules[symbology];
  const dark = darkModules(symbology, words);
  const isLinear = symbology === 'code-128';
  const [columns, rows] = [dark.columns + 2 * quiet, isLinear ? 1 : dark.rows + 2 * quiet];
  const isDark = (column: number, row: number) => {
    const [x, y] = [column - quiet, isLinear ? 0 : row - quiet];
    return x >= 0 && y >= 0 && x < dark.columns && y < dark.rows && dark.isBurnt(x, y);
  };
  const isBurnt = (column: number, row: number) => isDark(column, row) !== (setting.isLight === true);
  const moduleMm = width / columns;
  const high = isLinear ? height : moduleMm;
  return {
    kind: 'code',
    code: isLinear ? setting : { ...setting, height: width },
    path: moduleOutline({ columns, rows, isBurnt }, moduleMm, high),
    moduleMm,
  };
}

function darkModules(symbology: Symbology, words: string): ModuleGrid {
  const name = symbologyNames[symbology];
  if (words.length > mostLetters) throw tooLong(name);
  const last = lastLetter[symbology];
  const foreign = [...words].find((letter) => letter > last);
  if (foreign !== undefined) {
    throw new CodeRefused(`${name} has no sign for “${foreign}”. Write it without, or take a QR code.`);
  }
  return symbology === 'code-128' ? barsOf(words) : squaresOf(symbology, words);
}

function tooLong(name: string): CodeRefused {
  return new CodeRefused(`So much does not go into a ${name}. Make it shorter.`);
}

/** The bars of a Code 128. */
function barsOf(words: string): ModuleGrid {
  const made: { encodings?: readonly { readonly data: string }[] } = {};
  try {
    JsBarcode(made, words, { format: 'CODE128' });
  } catch {
    throw tooLong('Code 128');
  }
  const bars = made.encodings?.map(({ data }) => data).join('') ?? '';
  return { columns: bars.length, rows: 1, isBurnt: (column) => bars[column] === '1' };
}

/** The modules of a QR code or a Data Matrix, without what is free around them. */
function squaresOf(symbology: 'qr' | 'data-matrix', words: string): ModuleGrid {
  const made = (() => {
    try {
      return symbology === 'qr'
        ? new QRCodeWriter().encode(words, BarcodeFormat.QR_CODE, 0, 0, qrHints)
        : new DataMatrixWriter().encode(words, BarcodeFormat.DATA_MATRIX, 0, 0, squareHints);
    } catch {
      throw tooLong(symbologyNames[symbology]);
    }
  })();
  return { columns: made.getWidth(), rows: made.getHeight(), isBurnt: (column, row) => made.get(column, row) };
}
