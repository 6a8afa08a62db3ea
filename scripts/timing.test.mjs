// Timing cards in the clock's own time: what they find of both stand-ins, and whether times hold that are planned by it.
import { expect, test } from '@jest/globals';
import { figuresOff, measured, timesOff } from './timing/proof.mjs';

test.each([
  ['lambent', { lookAhead: 16, moveMs: 5, jerk: 100_000 }],
  ['lambent', { lookAhead: 100, moveMs: 5 }],
  ['lambent', { lookAhead: 400, moveMs: 5 }],
  ['plain', { lookAhead: 16, moveMs: 1 }],
  ['plain', { lookAhead: 100, moveMs: 5, jerk: 20_000 }],
  ['plain', { lookAhead: 16, moveMs: 0.5, characterMs: 0.2 }],
])('%s with %j', (language, truth) => {
  const found = measured(language, truth);
  expect(figuresOff(found).off).toBeLessThan(0.02);
  // What the machine has, and is told at all, is found.
  const told = found.fit.figures.filter(({ bound }) => bound === null);
  expect(told.map(({ figure, value }) => [figure, (value ?? 0) > 0])).toEqual(
    told.map(({ figure }) => [figure, found.machine[figure] !== undefined]),
  );
  // How many moves are known ahead makes a difference after each long way, even where lines are slow.
  expect(told.map(({ figure }) => figure)).toContain('lookAhead');
  for (const off of timesOff(found, 12, 20_261_130)) expect(Math.abs(off)).toBeLessThan(0.02);
});
