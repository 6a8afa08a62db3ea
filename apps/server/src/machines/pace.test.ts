import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { Pace } from './pace.ts';

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test('news passes at its pace, the last of what came in between; what is urgent passes at once', () => {
  const said: number[] = [];
  const pace = new Pace<number>(60, (news) => said.push(news));
  for (const news of [1, 2, 3]) pace.take(news, false);
  expect(said).toEqual([1]);
  jest.advanceTimersByTime(59);
  expect(said).toEqual([1]);
  jest.advanceTimersByTime(1);
  expect(said).toEqual([1, 3]);
  pace.take(4, false);
  pace.take(5, true);
  expect(said).toEqual([1, 3, 5]);
  jest.advanceTimersByTime(1000);
  expect(said).toEqual([1, 3, 5]);
  pace.take(6, false);
  expect(said).toEqual([1, 3, 5, 6]);
});

test('after urgent news the next waits its whole time, whatever was held before', () => {
  const said: number[] = [];
  const pace = new Pace<number>(60, (news) => said.push(news));
  pace.take(1, false);
  pace.take(2, false);
  jest.advanceTimersByTime(30);
  pace.take(3, true);
  jest.advanceTimersByTime(10);
  pace.take(4, false);
  jest.advanceTimersByTime(49);
  expect(said).toEqual([1, 3]);
  jest.advanceTimersByTime(1);
  expect(said).toEqual([1, 3, 4]);
  // Just when its time has come, news passes without a timer.
  jest.advanceTimersByTime(60);
  pace.take(5, false);
  expect(said).toEqual([1, 3, 4, 5]);
  expect(jest.getTimerCount()).toBe(0);
});
