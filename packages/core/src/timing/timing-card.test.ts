import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine as usual } from '../fixtures/shop.ts';
import { fromMachine } from '../machine/frame.ts';
import { origins } from '../machine/machine.ts';
import { timeMoves } from '../plan/motion.ts';
import { secondsOf, timingCard } from './timing-card.ts';

describe('a timing card', () => {
  test('stays on any bed, and can light no beam', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 12, max: 2000 }),
        fc.integer({ min: 12, max: 2000 }),
        fc.constantFrom(...origins),
        (bedWidth, bedHeight, origin) => {
          const machine = { ...usual, bedWidth, bedHeight, origin, margin: 2 };
          for (const { lines, start } of timingCard(machine)) {
            let { x, y } = { ...start };
            for (const { text } of lines) {
              expect(text).not.toMatch(/M0*[34](?!\d)|S0*[1-9]/);
              const place = fromMachine(machine, numberAfter('X', text) ?? 0, numberAfter('Y', text) ?? 0);
              if (numberAfter('X', text) !== null) x = place.x;
              if (numberAfter('Y', text) !== null) y = place.y;
              expect(Math.min(x, y, bedWidth - x, bedHeight - y)).toBeGreaterThan(1.9);
            }
          }
        },
      ),
      { numRuns: 30 },
    );
  });

  test('says how long each part takes: its moves, and the lines before and after them', () => {
    const machine = { ...usual, moveMs: 5 };
    for (const part of timingCard(machine)) {
      const moves = timeMoves([part.timed], machine, part.start)[0].reduce((sum, s) => sum + s, 0);
      const whole = secondsOf(part, machine);
      expect(whole).toBeGreaterThanOrEqual(moves - 1e-6);
      expect(whole).toBeLessThan(moves + 0.0051);
      // Three lines are read before the first move.
      expect(part.lines.slice(0, 3).map(({ text }) => text)).toEqual(['G21', 'G90', 'M5']);
      expect(part.lines.at(-1)?.text).toBe('M5');
    }
  });

  test('says the same in long lines as in short ones', () => {
    const parts = timingCard(usual);
    const long = parts.find(({ topic }) => topic === 'words');
    expect(long?.lines[10].text.length).toBeGreaterThan(25);
    expect(numberAfter('X', long?.lines[10].text ?? '')).toBeCloseTo(
      (numberAfter('X', long?.lines[9].text ?? '') ?? 0) + 0.05,
      6,
    );
  });
});

function numberAfter(letter: string, text: string): number | null {
  const [, digits] = new RegExp(`${letter}(-?[\\d.]+)`).exec(text) ?? [];
  return digits === undefined ? null : Number(digits);
}
