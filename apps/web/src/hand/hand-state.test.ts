import { expect, test } from '@jest/globals';
import type { Errand, MachineState } from '@lambent/contracts';
import { isAboutToRun, isFreeByHand, mayBeStopped } from './hand-state.ts';

const errand = (kind: Errand['kind']): Errand => ({ kind, to: null, jobId: null, title: null });
const inState = (change: Partial<MachineState>) =>
  ({ state: 'idle', errand: null, runId: null, makingReady: null, ...change }) as MachineState;

test.each<[string, Partial<MachineState>, { stop: boolean; free: boolean; soon: boolean }]>([
  ['one that rests', {}, { stop: false, free: true, soon: false }],
  ['one that burns', { state: 'running', runId: 'r' }, { stop: true, free: false, soon: false }],
  ['one that is held', { state: 'held', runId: 'r' }, { stop: true, free: false, soon: false }],
  ['one whose run begins soon', { runId: 'r' }, { stop: true, free: false, soon: true }],
  ['one that a job is made ready for', { makingReady: 'Tags' }, { stop: true, free: false, soon: true }],
  ['one between two laps of a walk', { errand: errand('walk') }, { stop: true, free: false, soon: false }],
  ['one that is moved', { errand: errand('move'), state: 'running' }, { stop: true, free: true, soon: false }],
  ['one in alarm', { state: 'alarm' }, { stop: false, free: false, soon: false }],
  ['one that is away', { state: 'away' }, { stop: false, free: false, soon: false }],
])('%s', (_, change, is) => {
  const machine = inState(change);
  expect({ stop: mayBeStopped(machine), free: isFreeByHand(machine), soon: isAboutToRun(machine) }).toEqual(is);
});
