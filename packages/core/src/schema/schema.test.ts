import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Mismatch, optional, orNull, type Schema, such, type ValueOf, withUsual } from './schema.ts';
import { list, nested, record, table, unnamed, variants } from './structures.ts';
import { flag, knownWord, number, numbers, oneOf, text, yes } from './values.ts';

const place = record({ x: number(), y: number(-10, 10) });
const mark = record({
  id: text,
  place: unnamed(place),
  size: withUsual(number(0, 5), 1),
  note: optional(text),
  colour: orNull(oneOf(['red', 'green'])),
  loud: flag,
  tags: list(text),
});
const marks = record({ marks: list(mark, { most: 2, each: (i) => `mark ${i + 1}` }), owner: text });
const good = { id: 'a', place: { x: 1, y: 2 }, colour: 'red', loud: true, tags: ['t'] };
const fault = (read: () => unknown) => {
  try {
    read();
  } catch (error) {
    if (error instanceof Mismatch) return error.message;
    throw error;
  }
  return null;
};

describe('a record', () => {
  test('has what is said, and what goes without saying', () => {
    const read: ValueOf<typeof mark> = mark.read(good);
    expect(read).toEqual({ ...good, size: 1 });
    expect('note' in read).toBe(false);
    expect(mark.read({ ...good, note: 'n', colour: null, loud: 'yes', size: 5 })).toEqual({
      ...good,
      note: 'n',
      colour: null,
      loud: false,
      size: 5,
    });
    expect(mark.read({ ...good, colour: undefined }).colour).toBeNull();
  });

  test('keeps what a newer build has put into it, and takes nothing for its prototype', () => {
    const json = JSON.parse('{"x": 1, "y": 2, "z": {"deep": [3]}, "__proto__": {"polluted": true}}');
    const read = place.read(json) as Record<string, unknown>;
    expect(read).toEqual({ x: 1, y: 2, z: { deep: [3] } });
    expect(read.polluted).toBeUndefined();
  });

  test.each<[unknown, string]>([
    [{ ...good, id: 5 }, 'id must be text'],
    [{ ...good, place: null }, 'place is missing'],
    [{ ...good, place: [] }, 'place is missing'],
    [{ ...good, place: { x: '1', y: 2 } }, 'x must be a number'],
    [{ ...good, place: { x: 1, y: 11 } }, 'y must lie between -10 and 10, and is 11'],
    [{ ...good, place: { x: 1, y: -10.5 } }, 'y must lie between -10 and 10, and is -10.5'],
    [{ ...good, place: { x: 1e6 + 1, y: 0 } }, 'x must lie between -1000000 and 1000000, and is 1000001'],
    [{ ...good, place: { x: Number.NaN, y: 0 } }, 'x must be a number'],
    [{ ...good, note: 5 }, 'note must be text'],
    [{ ...good, note: null }, 'note must be text'],
    [{ ...good, colour: 'blue' }, 'colour must be red or green'],
    [{ ...good, tags: 'none' }, 'tags must be a list'],
    [{ ...good, tags: ['a', 3] }, 'tags must be text'],
    [null, 'is missing'],
  ])('%j is refused: %s', (json, sentence) => {
    expect(fault(() => mark.read(json))).toBe(sentence);
  });

  test('in a list is told by its place there, whatever holds the list', () => {
    const bad = (change: object) => fault(() => marks.read({ owner: 'o', marks: [good, { ...good, ...change }] }));
    expect(bad({ id: null })).toBe('mark 2: id must be text');
    expect(bad({ place: { x: 1, y: 99 } })).toBe('mark 2: y must lie between -10 and 10, and is 99');
    expect(fault(() => marks.read({ owner: 'o', marks: [good, null] }))).toBe('mark 2 is missing');
    expect(fault(() => marks.read({ owner: 'o', marks: [good, good, good] }))).toBe('marks may hold 2, and holds 3');
    expect(fault(() => record({ inner: marks }).read({ inner: { owner: 1, marks: [] } }))).toBe(
      'inner: owner must be text',
    );
    expect(fault(() => record({ inner: marks }).read({ inner: { owner: '', marks: [{}] } }))).toBe(
      'mark 1: id must be text',
    );
  });
});

test('a table says which of its values is wrong', () => {
  const sizes = table(number(0, 9), (name) => `size of ${name}`, true);
  const relative = record({ sizes: table(number(0, 9), (name) => name) });
  expect(fault(() => relative.read({ sizes: { b: 'x' } }))).toBe('sizes: b must be a number');
  expect(sizes.read({ a: 1, b: 9 })).toEqual({ a: 1, b: 9 });
  expect(fault(() => record({ sizes }).read({ sizes: { a: 1, b: 10 } }))).toBe(
    'size of b must lie between 0 and 9, and is 10',
  );
  expect(fault(() => sizes.read(undefined))).toBe('is missing');
});

test('numbers are counted, bounded, and not copied', () => {
  const json = [1, 2, 3];
  expect(numbers(3).read(json)).toBe(json);
  expect(numbers().read([])).toEqual([]);
  expect(fault(() => numbers(6).read(json))).toBe('must be 6 numbers');
  expect(fault(() => numbers().read([1, null]))).toBe('must be a list of numbers');
  expect(fault(() => numbers().read('1, 2'))).toBe('must be a list of numbers');
  expect(fault(() => numbers().read([1, -2e6]))).toBe('must lie between -1000000 and 1000000, and is -2000000');
});

test('more can be asked of a value', () => {
  const whole = such(number(0, 9), (value) => (Number.isInteger(value) ? null : 'must be a whole number'));
  expect(whole.read(3)).toBe(3);
  expect(fault(() => whole.read(3.5))).toBe('must be a whole number');
  expect(fault(() => whole.read(10.5))).toBe('must lie between 0 and 9, and is 10.5');
});

test('a word that is not known is as if nothing were said', () => {
  const line = record({ cap: knownWord(['round', 'square']), locked: yes });
  expect(line.read({ cap: 'round', locked: true })).toEqual({ cap: 'round', locked: true });
  expect(line.read({ cap: 'fancy', locked: 'yes' })).toEqual({});
});

test('what is made of itself goes as deep as it may', () => {
  interface Tree {
    readonly name: string;
    readonly children: readonly Tree[];
  }
  const tree: Schema<Tree> = record({
    name: text,
    children: list(
      nested((): Schema<Tree> => tree, 3, 'is too deep'),
      { each: (i) => `child ${i}` },
    ),
  });
  const deep = (levels: number): Tree => ({ name: 'n', children: levels > 0 ? [deep(levels - 1)] : [] });
  expect(tree.read(deep(3))).toEqual(deep(3));
  expect(fault(() => tree.read(deep(4)))).toBe('child 0 is too deep');
  // The depth is counted anew.
  expect(tree.read(deep(3))).toEqual(deep(3));
  expect(tree.write?.(deep(2))).toEqual(deep(2));
});

describe('variants', () => {
  const shape = variants('kind', { round: { radius: number() }, square: { side: number(), turned: optional(flag) } });
  test('are read as what they are', () => {
    const read: ValueOf<typeof shape> = shape.read({ kind: 'round', radius: 2 });
    expect(read).toEqual({ kind: 'round', radius: 2 });
    expect(shape.read({ kind: 'square', side: 1, turned: true })).toEqual({ kind: 'square', side: 1, turned: true });
  });
  test('of no known kind are refused', () => {
    expect(fault(() => shape.read({ kind: 'oval' }))).toBe('kind must be round or square');
    expect(fault(() => shape.read({ kind: 'toString' }))).toBe('kind must be round or square');
    expect(fault(() => shape.read({ kind: 'round' }))).toBe('radius must be a number');
    const named = variants('kind', { only: {} }, (kind) => `“${kind}” is not a shape`);
    expect(fault(() => record({ named }).read({ named: { kind: 'x' } }))).toBe('named: “x” is not a shape');
  });
});

describe('writing', () => {
  const code = {
    read: (json: unknown) => [...text.read(json)].map((letter) => letter.codePointAt(0) ?? 0),
    write: (codes: readonly number[]) => String.fromCodePoint(...codes),
  };
  const inPlace = {
    spreadOver: ['a', 'b'],
    read: (json: unknown) => {
      const { a, b } = record({ a: number(), b: number() }).read(json);
      return { sum: a + b, a };
    },
    write: ({ sum, a }: { sum: number; a: number }) => ({ a, b: sum - a }),
  };
  const schema = record({ name: code, list: list(code), pair: inPlace, none: orNull(code), some: optional(code) });

  test('gives back what was read', () => {
    const json = { name: 'ab', list: ['c', 'de'], a: 1, b: 2, none: null, extra: 7 };
    const value = schema.read(json);
    expect(value).toEqual({
      name: [97, 98],
      list: [[99], [100, 101]],
      pair: { sum: 3, a: 1 },
      none: null,
      extra: 7,
    });
    expect(schema.write?.(value)).toEqual(json);
    expect(schema.write?.({ ...value, none: [97], some: [98] })).toEqual({ ...json, none: 'a', some: 'b' });
  });

  test('is left out where values are their own JSON', () => {
    expect(place.write).toBeUndefined();
    expect(list(place).write).toBeUndefined();
    const shape = variants('kind', { coded: { code }, plain: { x: number() } });
    expect(shape.write?.({ kind: 'coded', code: [97] })).toEqual({ kind: 'coded', code: 'a' });
    expect(shape.write?.({ kind: 'plain', x: 1 })).toEqual({ kind: 'plain', x: 1 });
  });

  test('and reading undo each other', () => {
    const words = fc.string({ unit: fc.constantFrom('a', 'b', 'z') });
    const json = fc.record({
      name: words,
      list: fc.array(words),
      a: fc.integer({ min: -99, max: 99 }),
      b: fc.integer({ min: -99, max: 99 }),
      none: fc.option(words),
    });
    fc.assert(fc.property(json, (value) => expect(schema.write?.(schema.read(value))).toEqual(value)));
  });
});
