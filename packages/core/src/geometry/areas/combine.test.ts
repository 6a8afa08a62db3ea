import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { flatten, polylineLength, signedArea } from '../paths/flatten.ts';
import { nodeCount, type Path, PathBuilder, pathBounds, Verb } from '../paths/path.ts';
import { lengthOf, nearestOn, pieceOf, pointAt, type Segment, subpathsOf } from '../paths/segments.ts';
import { crossingsOf } from '../questions/crossings.ts';
import { type Combining, combineOutlines } from './combine.ts';

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const box = (x: number, y: number, w: number, h: number) =>
  outlineOf(rectangleOf({ minX: x, minY: y, maxX: x + w, maxY: y + h }));
const perimeterOf = (path: Path) => flatten(path).reduce((sum, line) => sum + polylineLength(line), 0);
const areaOf = (path: Path) => Math.abs(flatten(path, 1e-5).reduce((sum, line) => sum + signedArea(line), 0));
const combine = (how: Combining, ...paths: Path[]) =>
  combineOutlines(
    paths.map((path) => ({ path, rule: 'evenodd' as const })),
    how,
  );
const kindsOf = (path: Path) => [...path.verbs].filter((verb) => verb !== Verb.close).length;
const segmentsOf = (path: Path) => [...subpathsOf(path)].flatMap(({ segments }) => segments);

describe('putting outlines together', () => {
  test('two squares that overlap', () => {
    const [a, b] = [box(0, 0, 10, 10), box(5, 5, 10, 10)];
    expect(areaOf(combine('unite', a, b))).toBeCloseTo(175, 6);
    expect(areaOf(combine('intersect', a, b))).toBeCloseTo(25, 6);
    expect(areaOf(combine('subtract', a, b))).toBeCloseTo(75, 6);
    expect(areaOf(combine('exclude', a, b))).toBeCloseTo(150, 6);
    expect(nodeCount(combine('unite', a, b))).toBe(8);
    expect(nodeCount(combine('subtract', a, b))).toBe(6);
  });

  test('squares that share an edge become one without a seam', () => {
    const united = combine('unite', box(0, 0, 10, 10), box(10, 0, 5, 10));
    expect(nodeCount(united)).toBe(4);
    expect(pathBounds(united)).toEqual({ minX: 0, minY: 0, maxX: 15, maxY: 10 });
  });

  test('a circle out of a square: curves stay curves, corners stay exact', () => {
    const cut = combine('subtract', box(0, 0, 20, 20), circle(20, 10, 5));
    // The half circle is four pieces of at most 45°, the square five lines.
    expect(kindsOf(cut)).toBeLessThanOrEqual(11);
    expect(areaOf(cut)).toBeCloseTo(400 - (Math.PI * 25) / 2, 3);
    for (const y of [5, 15]) {
      const nearest = Math.min(...segmentsOf(cut).map((s) => Math.hypot(s[0] - 20, s[1] - y)));
      expect(nearest).toBeLessThan(1e-9);
    }
  });

  test('a hole stays a hole, and apart stays apart', () => {
    const ring = combine('subtract', circle(0, 0, 10), circle(0, 0, 4));
    expect([...subpathsOf(ring)]).toHaveLength(2);
    expect(areaOf(ring)).toBeCloseTo(Math.PI * 84, 2);
    expect([...subpathsOf(combine('unite', box(0, 0, 1, 1), box(5, 0, 1, 1)))]).toHaveLength(2);
    expect(combine('intersect', box(0, 0, 1, 1), box(5, 0, 1, 1)).verbs).toHaveLength(0);
    expect(combine('subtract', box(0, 0, 1, 1), box(0, 0, 1, 1)).verbs).toHaveLength(0);
    expect(combineOutlines([], 'unite').verbs).toHaveLength(0);
  });

  test('an outline that crosses itself', () => {
    const bow = new PathBuilder().moveTo(0, 0).lineTo(10, 10).lineTo(10, 0).lineTo(0, 10).close().build();
    const united = combine('unite', bow);
    expect(areaOf(united)).toBeCloseTo(50, 6);
    expect(Math.min(...segmentsOf(united).map((s) => Math.hypot(s[0] - 5, s[1] - 5)))).toBeLessThan(1e-9);
  });

  const shape = fc
    .tuple(
      fc.boolean(),
      fc.integer({ min: 0, max: 4000 }),
      fc.integer({ min: 0, max: 4000 }),
      fc.integer({ min: 300, max: 3000 }),
      fc.integer({ min: 300, max: 3000 }),
    )
    .map(([round, x, y, w, h]) =>
      round
        ? outlineOf({ kind: 'ellipse', cx: x / 100, cy: y / 100, rx: w / 100, ry: h / 100 })
        : box(x / 100, y / 100, w / 100, h / 100),
    );

  test('areas obey inclusion and exclusion', () => {
    fc.assert(
      fc.property(shape, shape, (a, b) => {
        const [united, both] = [areaOf(combine('unite', a, b)), areaOf(combine('intersect', a, b))];
        // Where outlines meet at a grazing angle, a point of them within 0.003 mm is all that there is: an area is as
        // exact as its outline is long.
        const off = 0.0003 * (perimeterOf(a) + perimeterOf(b));
        expect(Math.abs(united + both - areaOf(a) - areaOf(b))).toBeLessThan(off);
        expect(Math.abs(areaOf(combine('subtract', a, b)) + both - areaOf(a))).toBeLessThan(off);
        expect(Math.abs(areaOf(combine('exclude', a, b)) + both - united)).toBeLessThan(off);
      }),
      { numRuns: 150 },
    );
  });

  test('every piece of the answer lies on an outline that came in, and there are few of them', () => {
    fc.assert(
      fc.property(shape, shape, (a, b) => {
        const sources = [...segmentsOf(a), ...segmentsOf(b)];
        const pieces = segmentsOf(combine('unite', a, b));
        expect(pieces.length).toBeLessThanOrEqual(sources.length + 16);
        for (const piece of pieces) {
          for (const t of [0, 0.3, 0.7]) {
            const { x, y } = pointAt(piece, t);
            expect(Math.min(...sources.map((s) => nearestOn(s, x, y).distance))).toBeLessThan(0.003);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('segments', () => {
  const curve: Segment = [0, 0, 10, 30, 40, -20, 50, 10];

  test('a piece of a curve is that piece, either way round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (from, to) => {
          const piece = pieceOf(curve, from, to);
          for (const t of [0, 0.25, 0.5, 1]) {
            const [p, q] = [pointAt(piece, t), pointAt(curve, from + t * (to - from))];
            expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-9);
          }
        },
      ),
    );
  });

  test('lengths', () => {
    expect(lengthOf([0, 0, 0, 0, 3, 4, 3, 4])).toBe(5);
    const quarter = segmentsOf(circle(0, 0, 10)).reduce((sum, s) => sum + lengthOf(s), 0);
    expect(quarter).toBeCloseTo(20 * Math.PI, 3);
    expect(lengthOf(curve)).toBeCloseTo(lengthOf(pieceOf(curve, 0, 0.4)) + lengthOf(pieceOf(curve, 0.4, 1)), 6);
  });

  test('crossings of a line and a circle are exact', () => {
    const line: Segment = [-20, 3, -20, 3, 20, 3, 20, 3];
    const found = crossingsOf([line], segmentsOf(circle(0, 0, 5)));
    expect(found.map(({ x }) => x).sort((p, q) => p - q)).toEqual([expect.closeTo(-4, 4), expect.closeTo(4, 4)]);
    expect(crossingsOf([line], [[-20, 4, -20, 4, 20, 4, 20, 4]])).toEqual([]);
  });

  test('a curve that loops crosses itself once; a joint is no crossing', () => {
    const loop: Segment[] = [
      ...subpathsOf(new PathBuilder().moveTo(0, 0).cubicTo(30, 20, -20, 20, 10, 0).build()),
    ].flatMap(({ segments }) => segments);
    expect(crossingsOf(loop)).toHaveLength(1);
    expect(crossingsOf(segmentsOf(box(0, 0, 5, 5)))).toEqual([]);
  });
});
