import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { enclosedArea } from '../../colours/derive.ts';
import { boundsOf, polylinesOf } from '../../document/item.ts';
import { codesOf, idFor } from '../../fixtures/files.ts';
import { FileRefused } from '../refusal.ts';
import { sniffFormat } from '../sniff.ts';
import { readStl } from './read.ts';

type Point = readonly [number, number, number];
type Triangle = readonly [Point, Point, Point];

/** The walls and lids of an upright part between two heights, from its outline in order. */
function upright(
  outline: readonly (readonly [number, number])[],
  low: number,
  high: number,
  inwards = false,
): Triangle[] {
  return outline.flatMap(([ax, ay], i): Triangle[] => {
    const [bx, by] = outline[(i + 1) % outline.length];
    const quad: Triangle[] = [
      [
        [ax, ay, low],
        [bx, by, low],
        [bx, by, high],
      ],
      [
        [ax, ay, low],
        [bx, by, high],
        [ax, ay, high],
      ],
    ];
    return inwards ? quad.map(([a, b, c]): Triangle => [a, c, b]) : quad;
  });
}
function lids(outline: readonly (readonly [number, number])[], heights: readonly number[]): Triangle[] {
  return heights.flatMap((z) =>
    outline.slice(2).map(
      ([x, y], i): Triangle => [
        [...outline[0], z],
        [...outline[i + 1], z],
        [x, y, z],
      ],
    ),
  );
}
const square = [
  [0, 0],
  [20, 0],
  [20, 10],
  [0, 10],
] as const;
const hole = [
  [5, 3],
  [9, 3],
  [9, 7],
  [5, 7],
] as const;
const plate = [...upright(square, 0, 3), ...upright(hole, 0, 3, true)];

function binary(triangles: readonly Triangle[]): Uint8Array {
  const bytes = new Uint8Array(84 + 50 * triangles.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, triangles.length, true);
  triangles.forEach((triangle, i) => {
    triangle.flat().forEach((value, k) => {
      view.setFloat32(84 + 50 * i + 12 + 4 * k, value, true);
    });
  });
  return bytes;
}
function ascii(triangles: readonly Triangle[]): Uint8Array {
  const facets = triangles.map(
    (points) =>
      `facet normal 0 0 0\nouter loop\n${points.map((p) => `vertex ${p.join(' ')}`).join('\n')}\nendloop\nendfacet`,
  );
  return new TextEncoder().encode(`solid plate\n${facets.join('\n')}\nendsolid`);
}
const areaOf = (bytes: Uint8Array, choices = {}) => {
  const { drawing } = readStl(bytes, idFor, choices);
  return drawing.items.map((item) => enclosedArea(polylinesOf(item)));
};

describe('a flat part with a hole', () => {
  test.each([
    ['binary', binary],
    ['ASCII', ascii],
  ] as const)('%s: its outline, hole included', (_, write) => {
    const bytes = write(plate);
    expect(sniffFormat(bytes)).toBe('stl');
    expect(areaOf(bytes)[0]).toBeCloseTo(184, 6);
    const [item] = readStl(bytes, idFor).drawing.items;
    expect(boundsOf(item)).toEqual({ minX: 0, minY: 0, maxX: 20, maxY: 10 });
    expect(polylinesOf(item).map(({ points }) => points.length / 2)).toEqual([4, 4]);
  });

  test('lying on another side it is cut there; all it covers is its silhouette', () => {
    const solid = binary([...plate, ...lids(square, [0, 3])]);
    expect(areaOf(solid, { up: '+x', cutAt: 0.5 })[0]).toBeCloseTo(30, 6);
    expect(areaOf(solid, { cutAt: 'outline' })[0]).toBeCloseTo(200, 4);
  });

  test('one that is not closed is said to be open', () => {
    const reading = readStl(binary(plate.slice(0, -2)), idFor);
    expect(codesOf(reading)).toContain('open-mesh');
    expect(reading.drawing.items.map(({ name }) => name)).toEqual(['Slice of the solid', 'Open edges of the solid']);
  });

  test('nothing but nonsense in it is refused', () => {
    expect(() =>
      readStl(
        binary([
          [
            [Number.NaN, 0, 0],
            [1, 1, 1],
            [2, 2, 2],
          ],
        ]),
        idFor,
      ),
    ).toThrow(FileRefused);
    expect(() => readStl(new TextEncoder().encode('solid nothing\nendsolid'), idFor)).toThrow('no triangles');
  });
});

test('a cone is cut to a circle as wide as it is there', () => {
  const sides = 720;
  const rim = Array.from(
    { length: sides },
    (_, i): Point => [10 * Math.cos((2 * Math.PI * i) / sides), 10 * Math.sin((2 * Math.PI * i) / sides), 0],
  );
  const cone = rim.map((point, i): Triangle => [point, rim[(i + 1) % sides], [0, 0, 30]]);
  fc.assert(
    fc.property(fc.double({ min: 0.02, max: 0.9, noNaN: true }), (cutAt) => {
      const radius = 10 * (1 - cutAt);
      expect(Math.sqrt(areaOf(binary(cone), { up: '+z', cutAt })[0] / Math.PI)).toBeCloseTo(radius, 2);
    }),
    { numRuns: 20 },
  );
});

describe('how a solid lies by itself', () => {
  const whole = [...upright(square, 0, 3), ...lids(square, [0, 3])];
  const moveCorners = (triangles: readonly Triangle[], move: (corner: Point) => Point) =>
    triangles.map(([a, b, c]): Triangle => [move(a), move(b), move(c)]);
  const turnedBy = (triangles: readonly Triangle[], a: number, b: number) =>
    moveCorners(triangles, ([x, y, z]) => {
      const [y1, z1] = [y * Math.cos(a) - z * Math.sin(a), y * Math.sin(a) + z * Math.cos(a)];
      return [x * Math.cos(b) + z1 * Math.sin(b), y1, -x * Math.sin(b) + z1 * Math.cos(b)];
    });
  test('a plate comes out as large as it is, however it is turned in space', () => {
    const angle = fc.double({ min: 0.05, max: 1.5, noNaN: true });
    fc.assert(
      fc.property(angle, angle, (a, b) => {
        expect(areaOf(binary(turnedBy(whole, a, b)))[0]).toBeCloseTo(200, 3);
      }),
      { numRuns: 60 },
    );
  });
  test('walls that lean are no face to lie on', () => {
    const leaning = moveCorners(upright(square, 0, 4), ([x, y, z]) => (z === 0 ? [x, y, z] : [x / 2, y / 2, z]));
    expect(codesOf(readStl(binary(leaning), idFor))).not.toContain('laid-flat');
  });
  const moved = (triangles: readonly Triangle[], dx: number) => moveCorners(triangles, ([x, y, z]) => [x + dx, y, z]);
  test('of several solids those that overlap are one, those apart stay apart, and a cavity stays open', () => {
    const overlapping = readStl(binary([...whole, ...moved(whole, 5)]), idFor);
    expect(areaOf(binary([...whole, ...moved(whole, 5)]))[0]).toBeCloseTo(250, 6);
    expect(codesOf(overlapping)).toContain('solids-united');
    expect(codesOf(readStl(binary([...whole, ...moved(whole, 50)]), idFor))).not.toContain('solids-united');
    // Its faces look inwards.
    const top = lids(hole, [2]).map(([a, b, c]): Triangle => [a, c, b]);
    const cavity = [...upright(hole, 1, 2, true), ...lids(hole, [1]), ...top];
    const [united] = areaOf(binary([...whole, ...moved(whole, 5), ...cavity]));
    expect(united).toBeCloseTo(250 - 16, 6);
  });
});
