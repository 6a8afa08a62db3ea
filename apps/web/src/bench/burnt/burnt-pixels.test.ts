import { expect, test } from '@jest/globals';
import { BurntCode } from '@lambent/core/recipes';
import fc from 'fast-check';
import { BurntPixels } from './burnt-pixels.ts';

const cut = (through: number) => ({ through, dark: 0 });
const toned = (dark: number) => ({ through: 0, dark });

/** Rows of what pixels look like: `.` bare, `#` through, else how dark in tenths. */
function seen(pixels: BurntPixels): string[] {
  return Array.from({ length: pixels.height }, (_, y) =>
    Array.from({ length: pixels.width }, (__, x) => {
      const code = pixels.codeAt(y * pixels.width + x);
      if (code === BurntCode.bare) return '.';
      return code === BurntCode.through ? '#' : String(Math.min(9, Math.round((10 * code) / BurntCode.darkest)));
    }).join(''),
  );
}

test('a line is through once its passes have given what it takes, and brown before', () => {
  const pixels = new BurntPixels(6, 3);
  pixels.line(1, 1.5, 5, 1.5, 1, cut(0.5));
  expect(seen(pixels)).toEqual(['......', '.4444.', '......']);
  pixels.line(5, 1.5, 1, 1.5, 1, cut(0.5));
  expect(seen(pixels)).toEqual(['......', '.####.', '......']);
});

test('lines that follow each other burn no pixel twice, also where they are shorter than one', () => {
  const steps = fc.array(fc.double({ min: 0.05, max: 7, noNaN: true }), { minLength: 1, maxLength: 30 });
  fc.assert(
    fc.property(steps, fc.boolean(), (lengths, isUpright) => {
      const pixels = new BurntPixels(60, 60);
      let place = 2;
      for (const length of lengths) {
        const next = Math.min(58, place + length);
        if (isUpright) pixels.line(30.5, place, 30.5, next, 1, cut(0.6));
        else pixels.line(place, 30.5, next, 30.5, 1, cut(0.6));
        place = next;
      }
      const codes = new Set(Array.from({ length: 3600 }, (_, i) => pixels.codeAt(i)));
      expect(codes.has(BurntCode.through)).toBe(false);
      const burnt = Array.from({ length: 3600 }, (_, i) => pixels.codeAt(i)).filter((code) => code > 0).length;
      expect(burnt).toBe(Math.round(place) - 2);
    }),
  );
});

test('scan lines closer than pixels add up evenly, wherever they fall', () => {
  const spacing = fc.double({ min: 0.05, max: 0.9, noNaN: true });
  fc.assert(
    fc.property(spacing, fc.double({ min: 0, max: 1, noNaN: true }), (wide, first) => {
      const pixels = new BurntPixels(4, 30);
      for (let y = 2 + first; y < 28; y += wide) pixels.row(0, y, 4, y, wide, toned(0.5));
      for (let y = 5; y < 25; y++) {
        const code = pixels.codeAt(4 * y + 2);
        expect(code / BurntCode.darkest).toBeGreaterThan(0.4 - 0.8 * wide * 0.5);
        expect(code / BurntCode.darkest).toBeLessThan(0.4 + 0.8 * wide * 0.5);
      }
    }),
  );
});

test('what is wider than a pixel is burnt as wide, and what lies off the picture not at all', () => {
  const pixels = new BurntPixels(5, 7);
  pixels.line(-20, 3.5, 3, 3.5, 3, cut(1));
  pixels.line(0, 400, 5, 400, 1, cut(1));
  pixels.row(0, 1, 5, 1, 2, toned(1));
  expect(seen(pixels)).toEqual(['88888', '88888', '###..', '###..', '###..', '.....', '.....']);
});

test('what was kept is come back to, and is not changed by what burns after', () => {
  const pixels = new BurntPixels(6, 3);
  pixels.line(1, 1.5, 5, 1.5, 1, cut(0.5));
  const kept = pixels.kept();
  pixels.line(1, 1.5, 5, 1.5, 1, cut(0.5));
  pixels.row(0, 0.5, 6, 0.5, 1, toned(0.5));
  const after = seen(pixels);
  pixels.comeBack(kept);
  expect(seen(pixels)).toEqual(['......', '.4444.', '......']);
  pixels.line(1, 1.5, 5, 1.5, 1, cut(0.5));
  pixels.row(0, 0.5, 6, 0.5, 1, toned(0.5));
  expect(seen(pixels)).toEqual(after);
  expect(seen(pixels)[1]).toBe('.####.');
});
