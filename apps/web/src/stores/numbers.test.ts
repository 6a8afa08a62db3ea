import { afterEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  },
});
const { counted, inSentence, takeNumberStyle, written } = await import('./numbers.ts');

afterEach(() => takeNumberStyle('point'));

describe('numbers', () => {
  test('stay as they are where the shop writes points', () => {
    expect([written('-12.5 mm'), inSentence('It is 0.25 mm wide.'), counted(20_000)]).toEqual([
      '-12.5 mm',
      'It is 0.25 mm wide.',
      '20,000',
    ]);
  });

  test('have a comma where the shop writes commas; thousands are parted by a point or a narrow space', () => {
    takeNumberStyle('comma');
    expect([written('12.5 × 3.25 mm'), written('€ 6.40'), counted(1_234_567)]).toEqual([
      '12,5 × 3,25 mm',
      '€ 6,40',
      '1.234.567',
    ]);
    takeNumberStyle('space');
    expect([written('0.1'), counted(20_000)]).toEqual(['0,1', '20\u202f000']);
    expect(kept.get('numbers')).toBe('space');
  });

  test('in sentences are those with a unit; names, files and addresses stay as they are', () => {
    takeNumberStyle('comma');
    const same = ['Plate 1.5 was read.', 'part-2.0.svg has no unit.', 'Nothing listens at 127.0.0.1.', 'Since 27.11.'];
    for (const sentence of same) expect(inSentence(sentence)).toBe(sentence);
    expect(inSentence('“a-1.5.svg” is 2.5 mm wide, at 10.5 mm/s, 7.5 % and 0.8 bar. It takes 1.5 s.')).toBe(
      '“a-1.5.svg” is 2,5 mm wide, at 10,5 mm/s, 7,5 % and 0,8 bar. It takes 1,5 s.',
    );
  });

  test('come back as they were, whatever they are', () => {
    takeNumberStyle('comma');
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (value, decimals) => {
          const text = value.toFixed(decimals);
          expect(written(text).replace(',', '.')).toBe(text);
          expect(written(written(text))).toBe(written(text));
        },
      ),
    );
  });
});
