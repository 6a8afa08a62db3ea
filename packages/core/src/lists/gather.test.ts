import { expect, test } from '@jest/globals';
import { gather, gatherBy } from './gather.ts';

test('things are gathered by their keys, in their order; those without one are left out', () => {
  const even = (value: number) => (value < 0 ? null : value % 2 === 0);
  expect([...gatherBy([3, 2, -1, 5, 4, 3], even)]).toEqual([
    [false, [3, 5, 3]],
    [true, [2, 4]],
  ]);
  expect(gatherBy([], even).size).toBe(0);
});

test('what is gathered goes into the list that is there', () => {
  const lists = new Map([['a', [1]]]);
  gather(lists, 'a', 2);
  gather(lists, 'b', 3);
  expect([...lists]).toEqual([
    ['a', [1, 2]],
    ['b', [3]],
  ]);
});
