import { describe, expect, test } from '@jest/globals';
import { applyTo } from '../../geometry/paths/matrix.ts';
import { lengthInMm, lengthInUserUnits, readColour, readLength, readNumbers, readTransform } from './values.ts';

const place = { fontSize: 20, rootFontSize: 16, viewportWidth: 300, viewportHeight: 400 };

describe('lengths', () => {
  test.each([
    ['10mm', 10],
    ['1.5cm', 15],
    ['2in', 50.8],
    ['72pt', 25.4],
    ['6pc', 25.4],
    ['96', 25.4],
    ['96px', 25.4],
    ['40Q', 10],
    [' -3e1 mm ', -30],
    ['.5in', 12.7],
  ])('%s', (text, mm) => {
    const length = readLength(text);
    expect(length && lengthInMm(length)).toBeCloseTo(mm, 9);
  });

  test.each(['', 'wide', '10mm 20mm', '1e999', '--3', '50%', '2em'])('“%s” is no physical length', (text) => {
    const length = readLength(text);
    expect(length === null || lengthInMm(length) === null).toBe(true);
  });
});

test.each<[string, 'x' | 'y' | 'diagonal', number | null]>([
  ['50%', 'x', 150],
  ['50%', 'y', 200],
  ['10%', 'diagonal', Math.sqrt((300 ** 2 + 400 ** 2) / 2) / 10],
  ['2em', 'x', 40],
  ['2ex', 'y', 20],
  ['1in', 'x', 96],
  ['7', 'y', 7],
  ['two', 'x', null],
])('%s along %s is %p user units', (text, axis, units) => {
  const read = lengthInUserUnits(text, place, axis);
  if (units === null) expect(read).toBeNull();
  else expect(read).toBeCloseTo(units, 9);
});

test.each<[string, number | null]>([
  ['-.5', -0.5],
  ['5.', 5],
  ['+3', 3],
  ['1e2', 100],
  [' 7 ', 7],
  ['0x10', null],
  ['1-2', null],
  ['1.2.3', null],
  ['-', null],
  ['.', null],
  ['9'.repeat(400), null],
])('“%s” is %p user units', (text, units) => {
  expect(lengthInUserUnits(text, place, 'x')).toBe(units);
});

test('numbers stand with spaces, commas, signs and points between them', () => {
  expect(readNumbers('1,2 3-4.5.5e1')).toEqual({ numbers: [1, 2, 3, -4.5, 5], whole: true });
  expect(readNumbers('1 2 three 4')).toEqual({ numbers: [1, 2], whole: false });
  expect(readNumbers(' ')).toEqual({ numbers: [], whole: true });
});

describe('transforms', () => {
  test.each<[string, number, number]>([
    ['translate(10)', 12, 3],
    ['translate(10 -5)', 12, -2],
    ['scale(2)', 4, 6],
    ['scale(2,-1)', 4, -3],
    ['rotate(90)', -3, 2],
    ['rotate(180, 10, 10)', 18, 17],
    ['skewX(45)', 5, 3],
    ['skewY(45)', 2, 5],
    ['matrix(1 0 0 1 4 5)', 6, 8],
    ['translate(10,0)  scale(2), rotate(90)', 4, 4],
    ['translate(1in, 5px) rotate(0.25turn)', 93, 7],
    ['translateX(4) scaleY(2)', 6, 6],
    ['none', 2, 3],
    ['', 2, 3],
  ])('%s takes (2, 3) to (%d, %d)', (text, x, y) => {
    const matrix = readTransform(text, place);
    const point = matrix && applyTo(matrix, 2, 3);
    expect(point?.x).toBeCloseTo(x, 9);
    expect(point?.y).toBeCloseTo(y, 9);
  });

  test.each([
    'translate()',
    'rotate(1,2)',
    'matrix(1 2 3)',
    'wobble(3)',
    'scale(1e999)',
    'scale(2) and more',
    'scale(2',
  ])('“%s” is none', (text) => {
    expect(readTransform(text, place)).toBeNull();
  });
});

test('colours in the notations of CSS, and their see-throughness', () => {
  expect(readColour('#abc')).toEqual({ colour: '#AABBCC', alpha: 1 });
  expect(readColour('rgb(100%, 0%, 50%)')?.colour).toBe('#FF0080');
  expect(readColour('rgba(255, 0, 0, 0.25)')).toEqual({ colour: '#FF0000', alpha: 0.25 });
  expect(readColour('#ff000080')?.alpha).toBeCloseTo(0.5, 1);
  expect(readColour('hsl(240, 100%, 50%)')?.colour).toBe('#0000FF');
  expect(readColour('DarkSlateGray')?.colour).toBe('#2F4F4F');
  expect(readColour('no such colour')).toBeNull();
});
