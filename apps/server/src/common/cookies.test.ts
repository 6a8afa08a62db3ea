import { expect, test } from '@jest/globals';
import { cookieIn } from './cookies.ts';

test.each([
  ['lambent-session=abc_-1', 'abc_-1'],
  ['lambent=one; lambent-session=two', 'two'],
  ['lambent-session=two;other=three', 'two'],
  ['x-lambent-session=two', undefined],
  ['lambent=one', undefined],
  ['', undefined],
  [undefined, undefined],
])('of %p', (header, wanted) => {
  expect(cookieIn(header, 'lambent-session')).toBe(wanted);
});
