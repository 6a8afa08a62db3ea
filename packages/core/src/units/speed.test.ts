import { expect, test } from '@jest/globals';
import { formatClock, formatDuration } from './duration.ts';
import { formatSpeed, parseSpeed, type SpeedUnit } from './speed.ts';

test.each<[string, SpeedUnit, number]>([
  ['14', 'mm/s', 14],
  ['840', 'mm/min', 14],
  ['840 mm/min', 'mm/s', 14],
  ['0.5 in/s', 'mm/s', 12.7],
  ['60 in/min', '%', 25.4],
  ['35 %', 'mm/s', 175],
  ['35', '%', 175],
  ['12,5', 'mm/s', 12.5],
])('%s in a field of %s', (text, unit, expected) => {
  expect(parseSpeed(text, unit, 500)).toEqual({ ok: true, value: expect.closeTo(expected, 10) });
});

test.each([['fast'], ['0'], ['14 knots'], ['-3'], ['']])('refuses “%s”', (text) => {
  expect(parseSpeed(text, 'mm/s', 500).ok).toBe(false);
});

test('speeds and times are shown with what fits their size', () => {
  expect(formatSpeed(400, 'mm/s', 500)).toBe('400 mm/s');
  expect(formatSpeed(14, 'in/min', 500)).toBe('33.1 in/min');
  expect(formatSpeed(175, '%', 500)).toBe('35 %');
  expect([24, 492, 3849].map(formatClock)).toEqual(['0:24', '8:12', '1:04:09']);
  expect([24, 680, 3849].map(formatDuration)).toEqual(['24 s', '11 min 20 s', '1 h 4 min']);
});
