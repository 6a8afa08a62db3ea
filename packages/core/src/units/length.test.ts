import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatLength, type LengthUnit, lengthUnits, parseLength, parseLengthFrom, parseLengths } from './length.ts';

function mm(text: string, unit: LengthUnit = 'mm'): number {
  const parsed = parseLength(text, unit);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.reason}`);
  return parsed.value;
}

describe('parseLength', () => {
  test.each<[string, LengthUnit, number]>([
    ['12', 'mm', 12],
    ['12,5', 'mm', 12.5],
    ['.5', 'cm', 5],
    ['3.2cm', 'mm', 32],
    ['0.4"', 'mm', 10.16],
    ['7 3/8', 'in', 7.375 * 25.4],
    ['7 3/8', 'mm', 7.375],
    ['2-5/16 in', 'mm', 2.3125 * 25.4],
    ['2 - 5/16', 'in', (2 - 5 / 16) * 25.4],
    ['3/8', 'in', 9.525],
    ['7⅜', 'in', 7.375 * 25.4],
    ['7 ⅜ in', 'mm', 7.375 * 25.4],
    ['½"', 'mm', 12.7],
    ['-¼', 'in', -6.35],
    ['2 * ⅛ in', 'mm', 6.35],
    ['⅝ + ¾', 'in', 1.375 * 25.4],
    ['1/2"', 'mm', 12.7],
    ['150/4', 'mm', 37.5],
    ['150 / 4 mm', 'in', 37.5],
    ['22 + 2*3mm', 'mm', 28],
    ['1 + 10mm', 'in', 35.4],
    ['(20 + 10) / 4', 'mm', 7.5],
    ['(1 + 1/2) in', 'mm', 38.1],
    ['3mm * 4', 'in', 12],
    ['-4 + 2 × 3', 'mm', 2],
    ['1 inch', 'mm', 25.4],
  ])('%s in a field of %s', (text, unit, expected) => {
    expect(mm(text, unit)).toBeCloseTo(expected, 10);
  });

  test.each([
    ['', 'Type a length'],
    ['12 furlongs', '“furlongs” is not a unit'],
    ['3mm * 4mm', 'is an area'],
    ['3mm / 4mm', 'not a length'],
    ['4 / (1mm + 2mm)', 'not a length'],
    ['4 / 0', 'divided by 0'],
    ['4 +', 'stops too soon'],
    ['(4 + 3', 'bracket is not closed'],
    ['4 5', '“5” was not expected'],
    ['4 € 5', '“€” has no place'],
    ['3 mm mm', '“mm” was not expected'],
    ['1e999', '“e” is not a unit'],
    [`${'('.repeat(60)}1`, 'Too many brackets'],
  ])('refuses “%s”', (text, reason) => {
    expect(parseLength(text, 'mm')).toEqual({ ok: false, reason: expect.stringContaining(reason) });
  });

  test('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789 /+-*().,"mincw') }), (text) => {
        const parsed = parseLength(text, 'mm');
        expect(parsed.ok ? Number.isFinite(parsed.value) : parsed.reason.length > 0).toBe(true);
      }),
    );
  });
});

describe('parseLengthFrom', () => {
  test.each<[string, LengthUnit, number, number]>([
    ['/2', 'mm', 50, 25],
    ['* 3', 'mm', 50, 150],
    ['×1.5', 'in', 50.8, 76.2],
    ['+3mm', 'in', 25.4, 28.4],
    ['+ 1/2', 'in', 25.4, 38.1],
    ['50%', 'mm', 30, 15],
    ['133,5 %', 'cm', 20, 26.7],
    ['-3', 'mm', 50, -3],
    ['12 / 4', 'mm', 50, 3],
    ['+5', 'mm', -2, 3],
  ])('%s in a field of %s that holds %s mm', (text, unit, holds, expected) => {
    expect(parseLengthFrom(text, unit, holds)).toEqual({ ok: true, value: expect.closeTo(expected, 9) });
  });

  test('what makes no sense is refused as ever', () => {
    expect(parseLengthFrom('/0', 'mm', 50)).toMatchObject({ ok: false });
    expect(parseLengthFrom('*3mm', 'mm', 50)).toMatchObject({ ok: false });
  });
});

describe('formatLength', () => {
  test.each<[number, LengthUnit, Parameters<typeof formatLength>[2], string]>([
    [12.5, 'mm', {}, '12.5 mm'],
    [12.5, 'mm', { fixed: true, bare: true }, '12.50'],
    [120, 'cm', {}, '12 cm'],
    [25.4, 'in', {}, '1 in'],
    [-0.001, 'mm', {}, '0 mm'],
    [2.3125 * 25.4, 'in', { fractionOf: 16 }, '2 5/16 in'],
    [-9.525, 'in', { fractionOf: 16 }, '-3/8 in'],
    [10, 'in', { fractionOf: 16 }, '0.3937 in'],
  ])('%d mm in %s', (value, unit, format, text) => {
    expect(formatLength(value, unit, format)).toBe(text);
  });

  test('what is shown reads back within 0.01 mm, in every unit', () => {
    fc.assert(
      fc.property(fc.double({ min: -5000, max: 5000, noNaN: true }), fc.constantFrom(...lengthUnits), (value, unit) => {
        expect(Math.abs(mm(formatLength(value, unit), unit) - value)).toBeLessThanOrEqual(0.01);
      }),
    );
  });
});

test('lengths one after the other, each as one is; which of them is wrong is said', () => {
  expect(parseLengths('60; 1in;2+3', 'mm')).toEqual({ ok: true, value: [60, 25.4, 5] });
  expect(parseLengths('1,5; 2', 'cm')).toEqual({ ok: true, value: [15, 20] });
  expect(parseLengths('60; ; 3', 'mm')).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^Length 2: Type a length/),
  });
});
