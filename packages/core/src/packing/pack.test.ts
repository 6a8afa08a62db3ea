import flattenJs from '@flatten-js/core';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten } from '../geometry/paths/flatten.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { numbersFrom } from '../plan/random.ts';
import { PackingCheck, packedMatrix } from './check.ts';
import { disc, polygon, rectangle, wishOf } from './fixtures.ts';
import { packed } from './pack.ts';
import { leastSheets, sheetUses } from './use.ts';
import type { Packing, PackWish } from './wish.ts';

/** The best that comes out within so many tries. */
function bestOf(wish: PackWish, tries: number, seed = 1): Packing {
  let best: Packing | null = null;
  let left = tries;
  for (const better of packed(wish, seed)) {
    best = better ?? best;
    if (--left <= 0 && best) break;
  }
  if (!best) throw new Error('Nothing came out');
  return best;
}

const laidOf = (packing: Packing) => packing.sheets.flatMap(({ pieces }) => pieces);

describe('laws', () => {
  const size = fc.integer({ min: 6, max: 70 });
  const outlines: fc.Arbitrary<Path> = fc.oneof(
    fc.tuple(size, size).map(([width, height]) => rectangle(width, height, 13, -20)),
    fc
      .tuple(size, size)
      .map(([width, height]) => polygon([0, 0], [width, 0], [width * 0.4, height], [width * 0.1, height * 0.3])),
    size.map((side) => disc(side / 2)),
  );
  const wishes = fc
    .tuple(
      fc.array(fc.tuple(outlines, fc.integer({ min: 1, max: 5 })), { minLength: 1, maxLength: 7 }),
      fc.constantFrom('none', 'half', 'quarter', 'free'),
      fc.constantFrom(0, 0.5, 3),
      fc.constantFrom(0, 4),
      fc.boolean(),
    )
    .map(([pieces, turning, gapMm, marginMm, mirror]) =>
      wishOf([], {
        pieces: pieces.map(([outline, count], i) => ({ id: `${i}`, outline, count })),
        // Now and then there is too little room for all.
        sheets: [{ id: 'sheet', outline: rectangle(150, 110), obstacles: [], count: pieces.length % 2 === 0 ? 1 : 2 }],
        turning: turning as PackWish['turning'],
        gapMm,
        marginMm,
        mirror,
      }),
    );

  test('nothing overlaps, distances are kept, and every piece is laid or said to be left; by another library too', () => {
    fc.assert(
      fc.property(wishes, fc.integer({ min: 0, max: 1000 }), (wish, seed) => {
        const packing = bestOf(wish, 6, seed);
        expect(new PackingCheck(wish).faults(packing)).toEqual([]);
        wish.pieces.forEach(({ count }, piece) => {
          const laid = laidOf(packing).filter((one) => one.piece === piece).length;
          expect(laid + packing.left[piece]).toBe(count);
        });
        for (const { pieces } of packing.sheets) {
          const polygons = pieces.map((one) => {
            const path = transformPath(wish.pieces[one.piece].outline, packedMatrix(one));
            const [{ points }] = flatten(path, 0.0005);
            return new flattenJs.Polygon(
              Array.from({ length: points.length / 2 }, (_, i) => flattenJs.point(points[2 * i], points[2 * i + 1])),
            );
          });
          const { marginMm, gapMm } = wish;
          polygons.forEach((one, i) => {
            const { xmin, ymin, xmax, ymax } = one.box;
            expect(Math.min(xmin, ymin, 150 - xmax, 110 - ymax)).toBeGreaterThan(marginMm - 0.001);
            for (const other of polygons.slice(i + 1)) {
              if (gapMm === 0) continue;
              const [distance] = one.distanceTo(other);
              expect(distance).toBeGreaterThan(gapMm - 0.001);
              expect(one.contains(other.vertices[0]) || other.contains(one.vertices[0])).toBe(false);
            }
          });
        }
      }),
      { numRuns: 25 },
    );
  });

  test('the same seed, the same packings', () => {
    fc.assert(
      fc.property(wishes, fc.integer({ min: 0, max: 99 }), (wish, seed) => {
        expect(bestOf(wish, 5, seed)).toEqual(bestOf(wish, 5, seed));
      }),
      { numRuns: 6 },
    );
  });

  test('each packing that comes out is better than the one before: no more is left, and no more sheets are taken', () => {
    const random = numbersFrom(5);
    const sizes = Array.from({ length: 30 }, () => [20 + 60 * random(), 20 + 60 * random()]);
    for (const slant of [0, 5]) {
      const outlines = sizes.map(([width, height]) =>
        polygon([0, 0], [width, 0], [width - slant, height], [slant, height]),
      );
      const seen: number[] = [];
      let tries = 80;
      for (const packing of packed(wishOf(outlines), 4)) {
        if (packing)
          seen.push(packing.left.reduce((sum, count, i) => sum + count * (sizes[i][0] - slant) * sizes[i][1], 0));
        if (--tries === 0) break;
      }
      expect(seen.length).toBeGreaterThan(1);
      for (let i = 1; i < seen.length; i++) expect(seen[i]).toBeLessThan(seen[i - 1]);
    }
  });
});

describe('known answers', () => {
  test('a sheet cut into rectangles is put together again, and then it ends by itself', () => {
    const sizes = [
      [180, 120],
      [120, 120],
      [100, 80],
      [200, 50],
      [140, 30],
      [60, 30],
    ];
    const wish = wishOf(sizes.map(([width, height]) => rectangle(width, height)));
    const all = [...packed(wish, 1)].filter((packing) => packing !== null);
    const last = all[all.length - 1];
    expect(last.left.every((count) => count === 0)).toBe(true);
    expect(sheetUses(wish, last)).toEqual([expect.closeTo(1, 9)]);
  });

  test('a sheet cut by slanted lines, too', () => {
    const wish = wishOf([
      polygon([0, 0], [120, 0], [90, 200], [0, 200]),
      polygon([120, 0], [300, 0], [300, 70], [105, 100]),
      polygon([105, 100], [300, 70], [300, 200], [90, 200]),
    ]);
    const all = [...packed(wish, 1)].filter((packing) => packing !== null);
    expect(sheetUses(wish, all[all.length - 1])).toEqual([expect.closeTo(1, 6)]);
  });

  test('as many as fit: squares of 40 with 2 between them, 5 from the edge, in rows of 6 by 4', () => {
    const wish = wishOf([], {
      pieces: [{ id: 'square', outline: rectangle(40, 40), count: null }],
      sheets: [{ id: 'sheet', outline: rectangle(10 + 6 * 40 + 5 * 2, 10 + 4 * 40 + 3 * 2), obstacles: [], count: 1 }],
      gapMm: 2,
      marginMm: 5,
    });
    const packing = bestOf(wish, 3);
    expect(laidOf(packing)).toHaveLength(24);
    expect(packing.left).toEqual([0]);
  });

  test('what is larger than every sheet is left, and keeps nothing else from being laid', () => {
    const wish = wishOf([rectangle(400, 10), rectangle(50, 50)]);
    expect(bestOf(wish, 3).left).toEqual([1, 0]);
    expect(bestOf({ ...wish, turning: 'quarter' }, 3).left).toEqual([1, 0]);
    const high = wishOf([rectangle(190, 290)]);
    expect(bestOf(high, 3).left).toEqual([1]);
    expect(laidOf(bestOf({ ...high, turning: 'quarter' }, 3))).toMatchObject([{ angle: expect.any(Number) }]);
  });

  test('what finds no place at all is left, and it ends there', () => {
    const none = wishOf([polygon([0, 0], [400, 0], [0, 90]), disc(170)]);
    expect([...packed(none, 1)]).toMatchObject([{ sheets: [], left: [1, 1] }]);
    expect([...packed({ ...wishOf([rectangle(20, 20)]), marginMm: 150 }, 1)]).toMatchObject([
      { sheets: [], left: [1] },
    ]);
    expect([...packed(wishOf([]), 1)]).toMatchObject([{ sheets: [], left: [] }]);
    // By its bounds it would go onto the sheet, but not by its outline.
    const corner = polygon([0, 0], [100, 0], [0, 100]);
    const triangle = wishOf([disc(40)], { sheets: [{ id: 'corner', outline: corner, obstacles: [], count: 2 }] });
    expect([...packed(triangle, 1)]).toMatchObject([{ sheets: [], left: [1] }]);
  });

  test('pieces are turned as they may be, and no other way', () => {
    const wedges = Array.from({ length: 8 }, () => polygon([0, 0], [60, 0], [0, 80]));
    const angles = (turning: PackWish['turning'], mirror = false) => {
      const packing = bestOf(wishOf(wedges, { turning, mirror }), 20);
      return new Set(laidOf(packing).map(({ angle, isMirrored }) => `${angle}${isMirrored ? ' mirrored' : ''}`));
    };
    expect([...angles('none')]).toEqual(['0']);
    expect([...angles('half')].every((angle) => ['0', '180'].includes(angle))).toBe(true);
    expect(angles('half').size).toBe(2);
    expect([...angles('quarter')].every((angle) => Number(angle) % 90 === 0)).toBe(true);
    expect([...angles('none', true)].every((angle) => ['0', '0 mirrored'].includes(angle))).toBe(true);
  });

  test('small pieces lie in the holes of large ones where that is wished for', () => {
    const ring: Path[] = [rectangle(280, 180), rectangle(200, 120, 40, 30)];
    const frame: Path = {
      verbs: Uint8Array.from(ring.flatMap(({ verbs }) => [...verbs])),
      coords: Float64Array.from(ring.flatMap(({ coords }) => [...coords])),
    };
    const wish = wishOf([frame, rectangle(90, 90)], { gapMm: 2, marginMm: 5 });
    expect(bestOf(wish, 4).left).toEqual([0, 1]);
    const filled = bestOf({ ...wish, fillsHoles: true }, 4);
    expect(filled.left).toEqual([0, 0]);
    expect(new PackingCheck(wish).faults(filled)).toEqual([]);
  });

  test('on a sheet of any outline, with a place that is forbidden', () => {
    const corner = polygon([0, 0], [200, 0], [200, 80], [80, 80], [80, 200], [0, 200]);
    const hole = rectangle(30, 30, 20, 20);
    const outline: Path = {
      verbs: Uint8Array.from([...corner.verbs, ...hole.verbs]),
      coords: Float64Array.from([...corner.coords, ...hole.coords]),
    };
    const wish = wishOf(
      Array.from({ length: 8 }, () => rectangle(50, 30)),
      { sheets: [{ id: 'offcut', outline, obstacles: [], count: 1 }], gapMm: 2, marginMm: 3, turning: 'quarter' },
    );
    const packing = bestOf(wish, 20);
    expect(new PackingCheck(wish).faults(packing)).toEqual([]);
    expect(laidOf(packing).length).toBeGreaterThanOrEqual(6);
  });

  test('what stays where it is keeps its gap too; where it lies there is room for nothing else', () => {
    const obstacles = [rectangle(100, 192, 100, 4), disc(10)];
    const wish = wishOf(
      Array.from({ length: 40 }, () => rectangle(45, 45)),
      { gapMm: 3, marginMm: 2, sheets: [{ id: 'sheet', outline: rectangle(300, 200), obstacles, count: 1 }] },
    );
    const packing = bestOf(wish, 12);
    expect(new PackingCheck(wish).faults(packing)).toEqual([]);
    // Two columns of four on either side, but for the corner that the disc takes.
    expect(laidOf(packing).length).toBeGreaterThanOrEqual(14);
    expect(laidOf(packing).length).toBeLessThanOrEqual(16);
    const [first] = packing.sheets[0].pieces;
    const moved = { sheets: [{ sheet: 0, pieces: [{ ...first, x: 54, y: 100 }] }] };
    expect(new PackingCheck(wish).faults(moved)).toMatchObject([
      { what: 'on an obstacle', distanceMm: expect.closeTo(1, 6) },
    ]);
  });

  test('the first sheets are filled first; by their areas, two are the least it could take', () => {
    const wish = wishOf(
      Array.from({ length: 10 }, () => rectangle(95, 95)),
      { sheets: [{ id: 'sheet', outline: rectangle(300, 200), obstacles: [], count: null }] },
    );
    expect(leastSheets(wish)).toBe(2);
    const packing = bestOf(wish, 3);
    expect(packing.sheets.map(({ pieces }) => pieces.length)).toEqual([6, 4]);
  });

  test('what is left of the last sheet is one rectangle as large as can be', () => {
    const wish = wishOf(Array.from({ length: 8 }, () => rectangle(60, 50)));
    const packing = bestOf(wish, 400);
    const ends = laidOf(packing).map(({ x, y }) => [x + 60, y + 50]);
    const [wide, high] = [Math.max(...ends.map(([x]) => x)), Math.max(...ends.map(([, y]) => y))];
    expect(Math.max((300 - wide) * 200, 300 * (200 - high))).toBeGreaterThanOrEqual(36_000);
  });
});
