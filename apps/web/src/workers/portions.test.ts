import { expect, test } from '@jest/globals';
import { type Item, isOutlineUnknown, outlineOf, type Shape, unpainted } from '@lambent/core/document';
import { identity, PathBuilder } from '@lambent/core/geometry';
import { GatheredItems, portionsOf } from './portions.ts';

const itemOf = (id: string, shape: Shape): Item => ({
  id,
  name: null,
  shape,
  matrix: identity,
  paint: unpainted,
  fillRule: 'nonzero',
  groupId: null,
  pinned: null,
  hidden: false,
});
const circle = (cx: number): Shape => ({ kind: 'ellipse', cx, cy: 0, rx: 5, ry: 5 });

/** Sends portions as a worker does: what arrives are copies. */
function sent(items: readonly Item[]) {
  const gathered = new GatheredItems();
  const sizes = [];
  for (const portion of portionsOf(items)) {
    sizes.push(portion.items.length);
    gathered.take(structuredClone(portion));
  }
  return { sizes, items: gathered.items };
}

test('items arrive in their order, at most a thousand at once; none where there are none', () => {
  const items = Array.from({ length: 2001 }, (_, i) => itemOf(`i${i}`, circle(i)));
  const { sizes, items: arrived } = sent(items);
  expect(sizes).toEqual([1000, 1000, 1]);
  expect(arrived).toEqual(items);
  expect(sent([])).toEqual({ sizes: [], items: [] });
});

test('long outlines go by themselves', () => {
  const builder = new PathBuilder().moveTo(0, 0);
  for (let i = 0; i < 50_000; i++) builder.lineTo(i, i % 2);
  const long = itemOf('long', { kind: 'path', path: builder.build() });
  expect(sent([itemOf('a', circle(0)), long, itemOf('b', circle(1)), itemOf('c', circle(2))]).sizes).toEqual([2, 2]);
});

test('an outline that took work arrives with its item, and is not worked out again', () => {
  const part = (shape: Shape) => ({ name: null, shape, matrix: identity, rule: 'nonzero' as const });
  const shape: Shape = { kind: 'combined', how: 'unite', parts: [part(circle(0)), part(circle(4))] };
  const [, arrived] = sent([itemOf('a', circle(9)), itemOf('b', shape)]).items;
  expect(isOutlineUnknown(structuredClone(shape))).toBe(true);
  expect(isOutlineUnknown(arrived.shape)).toBe(false);
  expect(outlineOf(arrived.shape)).toEqual(outlineOf(shape));
});
