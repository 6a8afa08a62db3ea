import { expect, jest, test } from '@jest/globals';
import { createStore } from 'zustand/vanilla';
import { spacedStore } from './spaced-store.ts';

function countingStore() {
  const store = spacedStore(
    createStore(() => ({ count: 0 })),
    ({ count }) => count >= 10,
  );
  const heard: [number, number][] = [];
  const unsubscribe = store.subscribe((now, before) => heard.push([before.count, now.count]));
  return { store, heard, unsubscribe };
}

test('a small change is told at once', () => {
  const { store, heard } = countingStore();
  store.setState({ count: 1 });
  store.setState({ count: 2 });
  expect(heard).toEqual([
    [0, 1],
    [1, 2],
  ]);
});

test('large ones are told later, as one, and are the state at once', () => {
  jest.useFakeTimers();
  const { store, heard } = countingStore();
  store.setState({ count: 10 });
  store.setState({ count: 12 });
  expect(store.getState().count).toBe(12);
  expect(heard).toEqual([]);
  jest.runAllTimers();
  expect(heard).toEqual([[0, 12]]);
  store.setState({ count: 13 });
  jest.runAllTimers();
  expect(heard).toEqual([
    [0, 12],
    [12, 13],
  ]);
  jest.useRealTimers();
});

test('who has left is told nothing any more', () => {
  jest.useFakeTimers();
  const { store, heard, unsubscribe } = countingStore();
  store.setState({ count: 10 });
  unsubscribe();
  jest.runAllTimers();
  expect(heard).toEqual([]);
  // Also where another listener makes it leave.
  const leave: (() => void)[] = [];
  store.subscribe(() => {
    for (const go of leave) go();
  });
  leave.push(store.subscribe(() => heard.push([0, 0])));
  store.setState({ count: 11 });
  jest.runAllTimers();
  expect(heard).toEqual([]);
  jest.useRealTimers();
});
