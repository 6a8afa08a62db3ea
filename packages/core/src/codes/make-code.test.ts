import { describe, expect, test } from '@jest/globals';
import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  GlobalHistogramBinarizer,
  MultiFormatReader,
  RGBLuminanceSource,
} from '@zxing/library';
import fc from 'fast-check';
import jsQR from 'jsqr';
import { type CodeSetting, symbologies } from '../document/code.ts';
import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import { flatten, polylineContains } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { CodeRefused, makeCode } from './make-code.ts';
import { moduleOutline } from './module-outline.ts';

/** The package is a function, and says that it is a module with one. */
const readQr = jsQR as unknown as typeof jsQR.default;

const setting = (symbology: CodeSetting['symbology'], words: string, more: Partial<CodeSetting> = {}): CodeSetting => ({
  symbology,
  words,
  width: 30,
  height: symbology === 'code-128' ? 10 : 30,
  ...more,
});

/** What a camera sees of a code: burnt parts dark on a light sheet, or light on a dark one. */
function seen(code: CodeSetting, dotsPerMm = 8) {
  const made = makeCode(code);
  const lines = flatten(made.path, 0.01);
  const [width, height] = [made.code.width, made.code.height].map((mm) => Math.round(mm * dotsPerMm));
  const burnt = Uint8ClampedArray.from({ length: width * height }, (_, i) => {
    const [x, y] = [((i % width) + 0.5) / dotsPerMm, (Math.floor(i / width) + 0.5) / dotsPerMm];
    const inside = lines.filter((line) => polylineContains(line, x, y)).length % 2 === 1;
    return inside === (code.isLight === true) ? 255 : 0;
  });
  return { grey: burnt, width, height, made };
}

function readBack(code: CodeSetting): string {
  // Bars are many, and each is to be some dots wide.
  const { grey, width, height } = seen(code.symbology === 'code-128' ? { ...code, width: 120 } : code);
  const formats = {
    qr: BarcodeFormat.QR_CODE,
    'data-matrix': BarcodeFormat.DATA_MATRIX,
    'code-128': BarcodeFormat.CODE_128,
  };
  const reader = new MultiFormatReader();
  const hints = new Map<DecodeHintType, unknown>([
    [DecodeHintType.POSSIBLE_FORMATS, [formats[code.symbology]]],
    [DecodeHintType.PURE_BARCODE, true],
  ]);
  const bitmap = new BinaryBitmap(new GlobalHistogramBinarizer(new RGBLuminanceSource(grey, width, height)));
  return reader.decode(bitmap, hints).getText();
}

describe('a reader reads back what a code says', () => {
  test.each(symbologies)('%s', (symbology) => {
    for (const words of ['Wilhelmina Strand', '0042', 'a{b}c; "d", e']) {
      expect(readBack(setting(symbology, words))).toBe(words);
      expect(readBack(setting(symbology, words, { isLight: true }))).toBe(words);
    }
  });

  test('another library reads a QR code with letters of all languages', () => {
    for (const words of ['Zoë Åström, 中文, 🌱', 'https://example.org/?row=7']) {
      const { grey, width, height } = seen(setting('qr', words));
      const rgba = Uint8ClampedArray.from({ length: 4 * grey.length }, (_, i) => (i % 4 === 3 ? 255 : grey[i >> 2]));
      const answer = readQr(rgba, width, height);
      expect(new TextDecoder().decode(Uint8Array.from(answer?.binaryData ?? []))).toBe(words);
    }
  });
});

test('the quiet zone is part of the frame, as wide as the standards say', () => {
  for (const [symbology, modules] of [
    ['qr', 4],
    ['data-matrix', 1],
    ['code-128', 10],
  ] as const) {
    const made = makeCode(setting(symbology, 'Ines'));
    const { minX, maxX, minY, maxY } = pathBounds(made.path);
    expect(minX).toBeCloseTo(modules * made.moduleMm, 9);
    expect(maxX).toBeCloseTo(30 - modules * made.moduleMm, 9);
    if (symbology === 'code-128') expect([minY, maxY]).toEqual([0, 10]);
    else expect(maxY).toBeCloseTo(30 - modules * made.moduleMm, 9);
  }
  expect(makeCode(setting('qr', 'Ines', { height: 7 })).code.height).toBe(30);
  expect(pathBounds(makeCode(setting('qr', 'Ines', { isLight: true })).path)).toEqual({
    minX: 0,
    minY: 0,
    maxX: expect.closeTo(30, 9),
    maxY: expect.closeTo(30, 9),
  });
});

test('what burns of a light code and of a dark one is the whole frame together', () => {
  const size = (isLight: boolean) =>
    sizeOfArea(areaOf(makeCode(setting('data-matrix', 'Pavel', isLight ? { isLight } : {})).path, 'nonzero'));
  expect(size(true) + size(false)).toBeCloseTo(900, 4);
});

test('what no code can say is refused in a sentence', () => {
  const refusal = (symbology: CodeSetting['symbology'], words: string) => {
    try {
      makeCode(setting(symbology, words));
    } catch (error) {
      if (error instanceof CodeRefused) return error.message;
      throw error;
    }
    return null;
  };
  expect(refusal('qr', '')).toBe('The QR code says nothing. Write what it is to say.');
  expect(refusal('qr', 'x'.repeat(3999))).toBe('So much does not go into a QR code. Make it shorter.');
  expect(refusal('data-matrix', 'x'.repeat(3999))).toBe('So much does not go into a Data Matrix. Make it shorter.');
  expect(refusal('code-128', 'x'.repeat(4001))).toBe('So much does not go into a Code 128. Make it shorter.');
  expect(refusal('code-128', 'Zoë')).toBe('Code 128 has no sign for “ë”. Write it without, or take a QR code.');
  expect(refusal('data-matrix', '中')).toBe('Data Matrix has no sign for “中”. Write it without, or take a QR code.');
});

test('the outlines of modules cover those that burn, and nothing else', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 7 }),
      fc.array(fc.boolean(), { minLength: 7, maxLength: 49 }),
      (columns, cells) => {
        const rows = Math.floor(cells.length / columns);
        const path = moduleOutline({ columns, rows, isBurnt: (x, y) => cells[y * columns + x] }, 0.5, 0.25);
        const lines = flatten(path, 0.01);
        for (let y = 0; y < rows; y++) {
          for (let x = 0; x < columns; x++) {
            const inside = lines.filter((line) => polylineContains(line, (x + 0.5) / 2, (y + 0.5) / 4)).length;
            expect(inside % 2 === 1).toBe(cells[y * columns + x]);
          }
        }
        const burnt = cells.slice(0, columns * rows).filter(Boolean).length;
        expect(sizeOfArea(areaOf(path, 'nonzero'))).toBeCloseTo(burnt / 8, 6);
        // Each corner is one: no line goes straight on through a point of it.
        expect(lines.every(({ closed }) => closed)).toBe(true);
      },
    ),
  );
});

test('two modules that share an edge are one outline, two that meet at a corner are two', () => {
  const grid = (cells: string) =>
    moduleOutline({ columns: 2, rows: 2, isBurnt: (x, y) => cells[y * 2 + x] === '#' }, 1, 1);
  expect(grid('##..').verbs.length).toBe(5);
  expect(flatten(grid('#..#'), 0.01)).toHaveLength(2);
});
