import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { extrusionOf, overlapOf, sectionOf, volumeWithin } from './extrusion.ts';
import type { Box3, Place, Solid, Vec3 } from './space.ts';
import { sharedBox, volumeOf } from './space.ts';

/** Looking along z, y and x, to the front, and turned. */
const places: Readonly<Record<string, Omit<Place, 'origin'>>> = {
  flat: { u: [1, 0, 0], v: [0, 1, 0] },
  upright: { u: [1, 0, 0], v: [0, 0, -1] },
  side: { u: [0, -1, 0], v: [0, 0, -1] },
};

const solid = (rings: readonly (readonly number[])[], place: Place, depth: number): Solid => ({
  partId: 'part',
  outlines: rings.map((points) => ({ points: new Float64Array(points), closed: true })),
  place,
  depth,
});

const rectangle = (x: number, y: number, width: number, height: number) => [
  ...[x, y, x + width, y],
  ...[x + width, y + height, x, y + height],
];

describe('what two solids share', () => {
  const side = fc.double({ min: 0.5, max: 20, noNaN: true });
  const place = fc.double({ min: -10, max: 10, noNaN: true });
  const block = fc.record({
    kind: fc.constantFrom('flat', 'upright', 'side'),
    origin: fc.tuple(place, place, place),
    width: side,
    height: side,
    depth: side,
  });

  test('is, of blocks, the block that both have', () => {
    fc.assert(
      fc.property(block, block, (a, b) => {
        const [one, other] = [a, b].map(({ kind, origin, width, height, depth }) =>
          extrusionOf(solid([rectangle(0, 0, width, height)], { origin, ...places[kind] }, depth)),
        );
        const shared = sharedBox(one.box, other.box);
        expect(overlapOf(one, other)).toBeCloseTo(shared ? volumeOf(shared) : 0, 8);
        expect(volumeWithin(one, other.box)).toBeCloseTo(shared ? volumeOf(shared) : 0, 8);
      }),
    );
  });

  test('is exact where outlines slope: two roofs across each other', () => {
    // A triangle 12 wide and 6 high, 12 deep, along y; and the same along x. Together a pyramid: 12 × 12 × 6 / 3.
    const roof = [0, 0, 12, 0, 6, -6];
    const along = extrusionOf(solid([roof], { origin: [0, 0, 0], ...places.upright }, 12));
    const across = extrusionOf(solid([roof], { origin: [0, 12, 0], u: [0, -1, 0], v: [0, 0, -1] }, 12));
    expect(volumeWithin(along, along.box)).toBeCloseTo(432, 9);
    expect(overlapOf(along, across)).toBeCloseTo(288, 9);
  });

  test('is exact where outlines of the same depth cross', () => {
    const square = extrusionOf(solid([rectangle(0, 0, 10, 10)], { origin: [0, 0, 0], ...places.flat }, 2));
    const diamond = extrusionOf(solid([[10, 0, 15, 5, 10, 10, 5, 5]], { origin: [0, 0, 1], ...places.flat }, 2));
    expect(overlapOf(square, diamond)).toBeCloseTo(25, 9);
  });

  test('is nothing in a hole, and nothing where faces touch', () => {
    const plate = extrusionOf(
      solid([rectangle(0, 0, 20, 20), rectangle(5, 5, 4, 4)], { origin: [0, 0, 0], ...places.flat }, 3),
    );
    const pin = (x: number) =>
      extrusionOf(solid([rectangle(x, -3, 4, 6)], { origin: [0, 5, 0], ...places.upright }, 4));
    expect(overlapOf(plate, pin(5))).toBeCloseTo(0, 12);
    expect(overlapOf(plate, pin(5.5))).toBeCloseTo(0.5 * 4 * 3, 9);
    expect(volumeWithin(plate, plate.box)).toBeCloseTo((400 - 16) * 3, 9);
  });
});

test('a line goes through a solid where its outline says, along each axis', () => {
  const plate = extrusionOf(
    solid([rectangle(0, 0, 20, 10), rectangle(5, 2, 4, 4)], { origin: [1, 2, 3], ...places.flat }, 3),
  );
  const through: Vec3 = [8, 6, 4];
  expect([0, 1, 2].map((axis) => sectionOf(plate, axis as 0 | 1 | 2, through))).toEqual([
    [
      [1, 6],
      [10, 21],
    ],
    [
      [2, 4],
      [8, 12],
    ],
    [],
  ]);
  expect(sectionOf(plate, 2, [12, 6, 0])).toEqual([[3, 6]]);
  expect(sectionOf(plate, 0, [0, 6, 7])).toEqual([]);
});

test('what lies askew is refused', () => {
  const askew: Place = { origin: [0, 0, 0], u: [0.6, 0.8, 0], v: [0, 0, 1] };
  expect(() => extrusionOf(solid([rectangle(0, 0, 1, 1)], askew, 1))).toThrow('goes along no axis');
});

test('boxes that only touch share nothing', () => {
  const box = (min: Vec3, max: Vec3): Box3 => ({ min, max });
  expect(sharedBox(box([0, 0, 0], [1, 1, 1]), box([1, 0, 0], [2, 1, 1]))).toBeNull();
});
