import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { numbersPerEach, perEach } from './per-each.ts';

interface Thing {
  readonly name: number;
}

const fresh: Thing = { name: 99 };
const things = Array.from({ length: 12 }, (_, name): Thing => ({ name }));
const lists = fc.array(fc.array(fc.constantFrom(...things), { maxLength: 14 }), { maxLength: 10 });

test('what is kept for a list is what is computed from each of its things, whatever was asked before', () => {
  fc.assert(
    fc.property(lists, (asked) => {
      const doubled = perEach((some: readonly Thing[]) => some.map(({ name }) => 2 * name));
      for (const list of asked) expect(doubled(list)).toEqual(list.map(({ name }) => 2 * name));
    }),
  );
});

test('so are numbers, several of each thing', () => {
  fc.assert(
    fc.property(lists, (asked) => {
      const numbersOf = (some: readonly Thing[]) => Float64Array.from(some.flatMap(({ name }) => [name, -name, 0.5]));
      const numbers = numbersPerEach(3, numbersOf);
      for (const list of asked) expect(numbers(list)).toEqual(numbersOf(list));
    }),
  );
});

test('where what is computed of other things is the same, so is the list', () => {
  const signs = perEach((some: readonly Thing[]) => some.map(({ name }) => Math.sign(name + 1)));
  const first = signs(things);
  expect(signs(things.with(5, fresh))).toBe(first);
  expect(signs(things.with(5, { name: -7 }))).not.toBe(first);
});

/** What is computed anew when a list is asked for after the first one. */
function computedAfter(first: readonly Thing[], second: readonly Thing[]): number[] {
  let computed: number[] = [];
  const names = perEach((some: readonly Thing[]) => {
    computed = some.map(({ name }) => name);
    return computed;
  });
  names(first);
  computed = [];
  names(second);
  return computed;
}

test('only what is new in a list is computed', () => {
  expect(computedAfter(things, things.slice())).toEqual([]);
  expect(computedAfter(things, things.with(5, fresh))).toEqual([99]);
  expect(computedAfter(things, things.with(0, fresh).with(11, fresh))).toEqual([99, 99]);
  expect(computedAfter(things, [...things, fresh])).toEqual([99]);
  expect(computedAfter(things, things.toSpliced(4, 1))).toEqual([]);
  expect(computedAfter(things, things.toSpliced(4, 1, fresh, fresh))).toEqual([99, 99]);
  expect(computedAfter(things, [fresh, ...things])).toEqual([99]);
});

test('a list that was asked for is the same one again, of the last eight', () => {
  const names = perEach((some: readonly Thing[]) => some.map(({ name }) => name));
  const first = names(things.slice(0, 3));
  for (const length of [4, 5, 6, 7, 8, 9, 10]) names(things.slice(0, length));
  expect(names(things.slice(0, 3))).toBe(first);
  for (const length of [4, 5, 6, 7, 8, 9, 10, 11]) names(things.slice(0, length));
  expect(names(things.slice(0, 3))).not.toBe(first);
});
