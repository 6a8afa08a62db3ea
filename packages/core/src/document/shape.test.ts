import { describe, expect, test } from '@jest/globals';
import { box } from '../fixtures/shop.ts';
import { usualText } from '../text/set.ts';
import { readBy } from './not-a-drawing.ts';
import { type Shape, sameShape, shapeSchema } from './shape.ts';

const shapeFromJson = (json: unknown, where: string) => readBy(shapeSchema, json, where);
const shapeToJson = (shape: Shape) => shapeSchema.write?.(shape);

const slot: Shape = { kind: 'slot', x1: 1, y1: 2, x2: 3, y2: 4, width: 5 };
const rounded: Shape = { kind: 'path', path: box(0, 0, 9), corners: [{ x: 9, y: 9, kind: 'cut', size: 2 }] };
const shapes: Shape[] = [
  slot,
  rounded,
  { kind: 'rectangle', x: 0, y: 0, width: 9, height: 8, rx: 0, ry: 0, corners: [1, 2, 3, 4] },
  { kind: 'ellipse', cx: 1, cy: 2, rx: 3, ry: 4 },
  { kind: 'polygon', cx: 0, cy: 0, radius: 10, sides: 5, inner: 4, turn: 30 },
  { kind: 'arc', cx: 0, cy: 0, radius: 10, from: -90, sweep: 45 },
  { kind: 'picture', pictureId: 'p', width: 4, height: 2 },
  { kind: 'text', text: { ...usualText, words: 'Noor\nKale', width: 40 }, path: box(0, 0, 5) },
  {
    kind: 'combined',
    how: 'subtract',
    parts: [
      { name: 'Plate', shape: rounded, matrix: [1, 0, 0, 1, 2, 3], rule: 'evenodd' },
      { name: null, shape: { kind: 'combined', how: 'unite', parts: [] }, matrix: [1, 0, 0, 1, 0, 0], rule: 'nonzero' },
    ],
  },
];

describe('shapes as JSON', () => {
  test.each(shapes.map((shape) => [shape.kind, shape] as const))('%s comes back as it went', (_, shape) => {
    const back = shapeFromJson(JSON.parse(JSON.stringify(shapeToJson(shape))), 'item 0');
    expect(back).toEqual(shape);
    expect(sameShape(back, shape)).toBe(true);
    expect(sameShape(back, shape === slot ? rounded : slot)).toBe(false);
  });

  test.each<[string, unknown, string]>([
    ['sides that are none', { ...shapes[4], sides: 2 }, 'item 7: sides must be a whole number from 3 to 1000'],
    ['three corners', { ...shapes[2], corners: [1, 2, 3] }, 'item 7: corners must be 4 numbers'],
    ['an unknown way of combining', { ...shapes[8], how: 'glue' }, 'item 7: how must be unite'],
    ['an unknown kind', { kind: 'blob' }, 'item 7: “blob” is not a kind of shape'],
    ['verbs without points', { kind: 'path', verbs: 'ML', coords: [1] }, 'verbs and coords do not go together'],
    [
      'an arc of ten thousand turns',
      { ...shapes[5], sweep: 1e12 },
      'item 7: sweep must lie between -3600 and 3600, and is 1000000000000',
    ],
    [
      'a place beyond all beds',
      { ...slot, x1: -1e7 },
      'item 7: x1 must lie between -1000000 and 1000000, and is -10000000',
    ],
    ['a path beyond all beds', { kind: 'path', verbs: 'M', coords: [0, 2e6] }, 'item 7: coords must lie between'],
    ['a width that is none', { ...slot, width: null }, 'item 7: width must be a number'],
  ])('%s is refused, with the place', (_, json, message) => {
    expect(() => shapeFromJson(json, 'item 7')).toThrow(message);
  });
});
