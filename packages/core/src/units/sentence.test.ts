import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { lengthsIn, speedsIn } from './sentence.ts';

test('lengths of a sentence are said in another unit, each of those that share one', () => {
  const said: readonly [mm: string, inches: string][] = [
    ['2 items come within 2.54 mm of the edge.', '2 items come within 0.1 in of the edge.'],
    ['The 508 × 254 mm bed of Wren', 'The 20 × 10 in bed of Wren'],
    ['From 25.4 to 20,000 mm.', 'From 1 to 787.4016 in.'],
    ['They are −25.4 and 50.8 mm.', 'They are -1 and 2 in.'],
    ['12.7 mm', '0.5 in'],
    ['Move in by 0.10 mm, then cut 3 mm (25.4 mm)', 'Move in by 0.0039 in, then cut 0.1181 in (1 in)'],
  ];
  for (const [mm, inches] of said) expect(lengthsIn(mm, 'in')).toBe(inches);
  expect(lengthsIn('600 × 400 mm', 'cm')).toBe('60 × 40 cm');
});

test('names, speeds, counts and words stay', () => {
  const same = [
    'The lens “50 mm” is not there.',
    'It goes at 400 mm/s, with 0.2 J/mm² and 12 lines/mm.',
    '2 of 3 are free by now',
    'It ends in 5 mmx; no number in mm.',
  ];
  for (const sentence of same) expect(lengthsIn(sentence, 'in')).toBe(sentence);
  expect(lengthsIn('Layer 2 to 25.4 mm', 'in')).toBe('Layer 2 to 1 in');
  expect(lengthsIn('lines of 25.4 mm on Layer 3 and 50.8 mm', 'in')).toBe('lines of 1 in on Layer 3 and 2 in');
});

test('speeds of a sentence are said in another unit; lengths, shares and names stay', () => {
  expect(speedsIn('It goes at 400 mm/s, and no more than 25.4 to 50.8 mm/s there, 10 mm on.', 'in/s')).toBe(
    'It goes at 15.7 in/s, and no more than 1 to 2 in/s there, 10 mm on.',
  );
  expect(speedsIn('Wren goes 1,000 mm/s at most.', 'mm/min')).toBe('Wren goes 60000 mm/min at most.');
  const same = ['It speeds up by 3,000 mm/s².', 'The lens “50 mm/s” is not there.', '0.2 J/mm', 'No speed at all'];
  for (const sentence of same) expect(speedsIn(sentence, 'in/s')).toBe(sentence);
  for (const unit of ['mm/s', '%'] as const)
    expect(speedsIn('It goes at 400 mm/s.', unit)).toBe('It goes at 400 mm/s.');
});

test('what is said in inches is the same length, to 0.01 mm; in mm nothing changes', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -5000, max: 5000, noNaN: true }),
      fc.integer({ min: 0, max: 4 }),
      (value, decimals) => {
        const sentence = `It is ${value.toFixed(decimals)} mm wide.`;
        const [, inches] = /^It is (-?[\d.]+) in wide\.$/.exec(lengthsIn(sentence, 'in')) ?? [];
        expect(Math.abs(Number(inches) * 25.4 - Number(value.toFixed(decimals)))).toBeLessThan(0.01);
        expect(lengthsIn(sentence, 'mm')).toBe(sentence);
      },
    ),
  );
});
