import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SignInGate } from './sign-in-gate.ts';

const minute = 60_000;

/** A gate at which a name was tried so often, each time as soon as it may be. @returns when that was, in ms */
function tried(times: number): { gate: SignInGate; at: number; waits: number[] } {
  const gate = new SignInGate();
  const waits: number[] = [];
  let at = 0;
  for (let i = 0; i < times; i++) {
    gate.isWrong('ines', at);
    waits.push(gate.waitFor('ines', at));
    at += waits[i];
  }
  return { gate, at, waits };
}

test('after five wrong passwords each takes twice as long as the one before, up to a quarter of an hour', () => {
  expect(tried(9).waits).toEqual([0, 0, 0, 0, 0, 1000, 2000, 4000, 8000]);
  expect(tried(40).waits.at(-1)).toBe(15 * minute);
});

test('it waits for the name that was tried and for no other; the right password ends it', () => {
  const { gate, at } = tried(12);
  gate.isWrong('ines', at);
  expect(gate.waitFor('ines', at)).toBeGreaterThan(0);
  expect(gate.waitFor('pavel', at)).toBe(0);
  gate.isRight('ines');
  expect(gate.waitFor('ines', at)).toBe(0);
});

test('a day without a try is forgotten', () => {
  const { gate, at } = tried(12);
  gate.isWrong('ines', at + 25 * 60 * minute);
  expect(gate.waitFor('ines', at + 25 * 60 * minute)).toBe(0);
});

test('however many names are tried, one that is tried again and again waits, and memory does not grow', () => {
  const { gate, at } = tried(12);
  for (let i = 0; i < 9000; i++) gate.isWrong(`name ${i}`, at);
  gate.isWrong('ines', at);
  for (let i = 0; i < 9000; i++) gate.isWrong(`other ${i}`, at);
  expect(gate.waitFor('ines', at)).toBeGreaterThan(0);
});

test('no wait is longer than the longest, and none ends later by waiting', () => {
  const steps = fc.array(fc.record({ wrong: fc.boolean(), later: fc.integer({ min: 0, max: 30 * minute }) }));
  fc.assert(
    fc.property(steps, (all) => {
      const gate = new SignInGate();
      let now = 0;
      for (const { wrong, later } of all) {
        now += later;
        if (wrong) gate.isWrong('ines', now);
        const wait = gate.waitFor('ines', now);
        expect(wait).toBeLessThanOrEqual(15 * minute);
        expect(gate.waitFor('ines', now + wait)).toBe(0);
      }
    }),
  );
});
