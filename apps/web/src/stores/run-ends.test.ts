import { expect, test } from '@jest/globals';
import type { RunAnswer } from '@lambent/contracts';
import { endInWords, hasEnded } from './run-ends.ts';

const run = (more: Partial<RunAnswer>) =>
  ({ jobTitle: 'Tags', status: 'running', reason: null, machineS: 0, endedAt: null, ...more }) as RunAnswer;

test('a run has ended when it was heard of before, and had not', () => {
  const over = run({ status: 'done', endedAt: '2026-11-27T10:00:00Z' });
  expect(hasEnded(run({}), over)).toBe(true);
  expect(hasEnded(undefined, over)).toBe(false);
  expect(hasEnded(over, over)).toBe(false);
  expect(hasEnded(run({}), run({ status: 'held' }))).toBe(false);
});

test('how it ended is said with the machine’s own words', () => {
  expect(endInWords(run({ status: 'done', machineS: 125 }))).toBe('“Tags” is burnt, in 2:05.');
  expect(endInWords(run({ status: 'stopped', reason: 'stopped by hand' }))).toBe('“Tags” was stopped by hand.');
  expect(endInWords(run({ status: 'refused', reason: 'X9 is off the bed' }))).toBe(
    '“Tags” was refused: X9 is off the bed.',
  );
  expect(endInWords(run({ status: 'broken off' }))).toBe('“Tags” was broken off.');
});
