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
