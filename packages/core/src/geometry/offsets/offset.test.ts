import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf, rectangleOf } from '../../document/shapes.ts';
import { distanceFromLines } from '../../fixtures/line-distance.ts';
import { combineOutlines } from '../areas/combine.ts';
import { flatten, polylineContains, signedArea } from '../paths/flatten.ts';
import { nodeCount, type Path, PathBuilder, pathBounds } from '../paths/path.ts';
import {
  lengthOf,
  nearestOn,
  pathOfSubpaths,
  pointAt,
  reversedSubpath,
  subpathsOf,
  velocityAt,
} from '../paths/segments.ts';
import { type Join, type OffsetSettings, offsetOutlines, plainOffset } from './offset.ts';

const circle = (cx: number, cy: number, r: number, ry = r) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry });
const box = (x: number, y: number, w: number, h: number) =>
  outlineOf(rectangleOf({ minX: x, minY: y, maxX: x + w, maxY: y + h }));
const areaOf = (path: Path) => Math.abs(flatten(path, 1e-5).reduce((sum, line) => sum + signedArea(line), 0));
const segmentsOf = (path: Path) => [...subpathsOf(path)].flatMap(({ segments }) => segments);
const lengthOfAll = (path: Path) => segmentsOf(path).reduce((sum, s) => sum + lengthOf(s), 0);
const offset = (paths: Path | Path[], by: number, more: Partial<OffsetSettings> = {}) =>
  offsetOutlines(
    [paths].flat().map((path) => ({ path, rule: 'evenodd' as const })),
    { ...plainOffset, by, ...more },
  );

/** The distances of points along a path from another, least and most. */
function distancesFrom(source: Path, path: Path): { least: number; most: number } {
  const from = segmentsOf(source);
  const all = segmentsOf(path).flatMap((s) =>
    Array.from({ length: 9 }, (_, i) => {
      const { x, y } = pointAt(s, i / 8);
      return Math.min(...from.map((one) => nearestOn(one, x, y).distance));
    }),
  );
  return { least: Math.min(...all), most: Math.max(...all) };
}

/** The same from straight lines. */
function distancesFromLines(source: Path, path: Path): { least: number; most: number } {
  const away = distanceFromLines(flatten(source));
  const all = segmentsOf(path).flatMap((s) => [0, 0.5].map((t) => away(pointAt(s, t).x, pointAt(s, t).y)));
  return { least: Math.min(...all), most: Math.max(...all) };
}

/** The sharpest turn between segments that are both curves or both lines short of a corner, in degrees. */
function kinks(path: Path): number {
  let most = 0;
  for (const { segments, closed } of subpathsOf(path)) {
    segments.forEach((s, i) => {
      const next = segments[i + 1] ?? (closed ? segments[0] : null);
      if (!next) return;
      const [a, b] = [velocityAt(s, 1), velocityAt(next, 0)];
      most = Math.max(most, Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)));
    });
  }
  return (most * 180) / Math.PI;
}

describe('closed forms', () => {
  test.each([2, 0.1, -3, -9.9])('a circle of 10 mm by %p mm is a circle, of no more segments', (by) => {
    const source = circle(50, 40, 10);
    const path = offset(source, by);
    expect(nodeCount(path)).toBeLessThanOrEqual(nodeCount(source));
    for (const s of segmentsOf(path))
      for (const t of [0, 0.2, 0.5, 0.9]) {
        const { x, y } = pointAt(s, t);
        expect(Math.hypot(x - 50, y - 40)).toBeCloseTo(10 + by, 3);
      }
    expect(kinks(path)).toBeLessThan(0.1);
  });

  test.each([-10, -10.001, -15, -21, -30, -100])('a circle of 10 mm by %p mm is nothing', (by) => {
    expect(offset(circle(50, 40, 10), by).verbs).toHaveLength(0);
  });

  test.each<[Join, number, number]>([
    ['miter', 26 * 16, 4],
    ['bevel', 26 * 16 - 4 * 4.5, 8],
    ['round', 26 * 16 - (4 - Math.PI) * 9, 12],
  ])('a rectangle of 20 × 10 mm by 3 mm with %s corners', (join, area, nodes) => {
    const path = offset(box(0, 0, 20, 10), 3, { join });
    expect(areaOf(path)).toBeCloseTo(area, 2);
    expect(nodeCount(path)).toBeLessThanOrEqual(nodes + 4);
    expect(pathBounds(path)).toMatchObject({ minX: -3, minY: -3, maxX: 23, maxY: 13 });
  });

  test('a rectangle inward keeps its corners, and vanishes at half its width', () => {
    const path = offset(box(0, 0, 20, 10), -3);
    expect(pathBounds(path)).toEqual({ minX: 3, minY: 3, maxX: 17, maxY: 7 });
    expect(nodeCount(path)).toBe(4);
    expect(offset(box(0, 0, 20, 10), -5).verbs).toHaveLength(0);
  });

  test('a point longer than its limit is cut across', () => {
    const needle = new PathBuilder().moveTo(0, 0).lineTo(20, 1).lineTo(0, 2).close().build();
    const [pointed, cut] = [100, 4].map((miterLimit) => pathBounds(offset(needle, 1, { join: 'miter', miterLimit })));
    expect(pointed.maxX).toBeCloseTo(20 + Math.hypot(20, 1), 6);
    expect(cut.maxX).toBeCloseTo(20 + 4, 6);
    // What turns back on itself is cut across too, and nowhere nearer than the distance.
    const line = new PathBuilder().moveTo(0, 0).lineTo(10, 0).lineTo(4, 0).build();
    const around = offset(line, 1, { join: 'miter', miterLimit: 1.5, cap: 'flat' });
    expect(pathBounds(around)).toEqual({ minX: 0, minY: -1, maxX: 11.5, maxY: 1 });
  });

  test('a rounded rectangle stays one: its corners grow by the distance', () => {
    const source = outlineOf({ kind: 'rectangle', x: 0, y: 0, width: 54, height: 27, rx: 6.5, ry: 6.5 });
    const grown = outlineOf({ kind: 'rectangle', x: -2, y: -2, width: 58, height: 31, rx: 8.5, ry: 8.5 });
    const path = offset(source, 2);
    expect(areaOf(path)).toBeCloseTo(areaOf(grown), 3);
    expect(nodeCount(path)).toBeLessThanOrEqual(nodeCount(source));
    expect(distancesFrom(grown, path).most).toBeLessThan(1e-3);
  });

  test.each([1.5, -1, -3, 8])('an ellipse by %p mm keeps that distance from it', (by) => {
    const source = circle(0, 0, 12, 7);
    const path = offset(source, by);
    const { least, most } = distancesFrom(source, path);
    expect(Math.abs(by) - least).toBeLessThan(0.005);
    expect(most - Math.abs(by)).toBeLessThan(0.005);
    expect(nodeCount(path)).toBeLessThanOrEqual(2 * nodeCount(source));
  });

  test('a smooth cubic keeps the distance, has no kinks, and no more than twice the segments', () => {
    const source = new PathBuilder()
      .moveTo(0, 0)
      .cubicTo(10, -12, 30, -8, 30, 6)
      .cubicTo(30, 20, 8, 26, 2, 16)
      .cubicTo(-1, 11, -5, 6, 0, 0)
      .close()
      .build();
    for (const by of [1, -1, 2.5]) {
      const path = offset(source, by);
      const { least, most } = distancesFrom(source, path);
      expect(Math.abs(by) - least).toBeLessThan(0.005);
      expect(most - Math.abs(by)).toBeLessThan(0.005);
      expect(segmentsOf(path).length).toBeLessThanOrEqual(2 * 3);
      expect(kinks(path)).toBeLessThan(1);
    }
  });
});

describe('holes, several outlines, open lines', () => {
  const ring = combineOutlines(
    [box(0, 0, 30, 20), circle(15, 10, 5)].map((path) => ({ path, rule: 'evenodd' })),
    'subtract',
  );

  test('a hole shrinks as its outline grows, and may be ignored', () => {
    const grown = offset(ring, 1, { join: 'miter' });
    expect(areaOf(grown)).toBeCloseTo(32 * 22 - Math.PI * 16, 2);
    expect([...subpathsOf(offset(ring, 5.1))]).toHaveLength(1);
    expect(areaOf(offset(ring, -1))).toBeCloseTo(28 * 18 - Math.PI * 36, 2);
    expect(areaOf(offset(ring, 1, { join: 'miter', ignoreHoles: true }))).toBeCloseTo(32 * 22, 6);
  });

  test('outlines that come together are one; one that pinches off is two', () => {
    expect([...subpathsOf(offset([box(0, 0, 5, 5), box(7, 0, 5, 5)], 0.9))]).toHaveLength(2);
    expect([...subpathsOf(offset([box(0, 0, 5, 5), box(7, 0, 5, 5)], 1.1))]).toHaveLength(1);
    const bone = offset([box(0, 0, 10, 10), box(20, 0, 10, 10), box(5, 4, 20, 2)], 0);
    expect([...subpathsOf(bone)]).toHaveLength(1);
    expect([...subpathsOf(offset(bone, -1.5))]).toHaveLength(2);
  });

  test('an open line grows on both sides, with each kind of end', () => {
    const line = new PathBuilder().moveTo(0, 0).lineTo(10, 0).build();
    expect(areaOf(offset(line, 2, { cap: 'flat' }))).toBeCloseTo(40, 6);
    expect(areaOf(offset(line, 2, { cap: 'square' }))).toBeCloseTo(56, 6);
    expect(areaOf(offset(line, 2, { cap: 'round' }))).toBeCloseTo(40 + 4 * Math.PI, 3);
    expect(offset(line, -2).verbs).toHaveLength(0);
    // Bent more tightly than the distance, at its end too.
    const hook = new PathBuilder().moveTo(0, 0).lineTo(20, 0).cubicTo(20.5, 0, 21, 0.5, 21, 1).build();
    const around = offset(hook, 5, { cap: 'round' });
    expect([...subpathsOf(around)]).toHaveLength(1);
    const { least, most } = distancesFrom(hook, around);
    expect(5 - least).toBeLessThan(0.01);
    expect(most - 5).toBeLessThan(0.01);
  });

  test('one side of an open line, to the right of its way or to the left', () => {
    const line = new PathBuilder().moveTo(0, 0).lineTo(10, 0).lineTo(10, 10).build();
    const beside = (path: Path, by: number) => offset(path, by, { join: 'miter', side: 'right' });
    const side = (by: number) => beside(line, by);
    // With y down, what lies to the right as the numbers run is above the line.
    expect(segmentsOf(side(2)).map((s) => [s[0], s[1], s[6], s[7]])).toEqual([
      [0, -2, 12, -2],
      [12, -2, 12, 10],
    ]);
    expect(segmentsOf(side(-2)).map((s) => [s[0], s[1], s[6], s[7]])).toEqual([
      [0, 2, 8, 2],
      [8, 2, 8, 10],
    ]);
    expect(segmentsOf(offset(line, 2, { join: 'miter', side: 'left' }))).toEqual(segmentsOf(side(-2)));
    const wave = new PathBuilder().moveTo(0, 0).cubicTo(20, -30, 20, 30, 40, 0).build();
    for (const by of [2, -2]) {
      const path = beside(wave, by);
      expect([...subpathsOf(path)].map(({ closed }) => closed)).toEqual([false]);
      const { least, most } = distancesFrom(wave, path);
      expect(2 - least).toBeLessThan(0.01);
      expect(most - 2).toBeLessThan(0.01);
    }
  });
});

describe('laws', () => {
  /** A convex outline: an ellipse or a box, turned. */
  const convex = fc
    .tuple(fc.boolean(), fc.integer({ min: 200, max: 3000 }), fc.integer({ min: 200, max: 3000 }))
    .map(([round, w, h]) => (round ? circle(0, 0, w / 100, h / 100) : box(0, 0, w / 100, h / 100)));
  const distance = fc.integer({ min: 5, max: 1000 }).map((hundredths) => hundredths / 100);

  test('a convex area grows as its length times the distance and a circle (Steiner)', () => {
    fc.assert(
      fc.property(convex, distance, (path, by) => {
        const wanted = areaOf(path) + lengthOfAll(path) * by + Math.PI * by * by;
        expect(Math.abs(areaOf(offset(path, by)) - wanted)).toBeLessThan(0.004 * (lengthOfAll(path) + 7 * by));
      }),
      { numRuns: 40 },
    );
  });

  test('out and back in returns a convex outline', () => {
    fc.assert(
      fc.property(convex, distance, (path, by) => {
        const back = offset(offset(path, by), -by);
        expect(distancesFrom(path, back).most).toBeLessThan(0.01);
        expect(distancesFrom(back, path).most).toBeLessThan(0.01);
      }),
      { numRuns: 25 },
    );
  });

  /** A smooth closed outline, with dents, of cubics through points around a middle. */
  const smooth = fc.array(fc.integer({ min: 600, max: 1400 }), { minLength: 4, maxLength: 9 }).map((radii) => {
    const at = (i: number) => {
      const [angle, radius] = [(2 * Math.PI * i) / radii.length, radii[(i + radii.length) % radii.length] / 100];
      return { x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
    };
    const slope = (i: number) => ({ x: (at(i + 1).x - at(i - 1).x) / 6, y: (at(i + 1).y - at(i - 1).y) / 6 });
    const builder = new PathBuilder().moveTo(at(0).x, at(0).y);
    for (let i = 0; i < radii.length; i++) {
      const [a, b, u, v] = [at(i), at(i + 1), slope(i), slope(i + 1)];
      builder.cubicTo(a.x + u.x, a.y + u.y, b.x - v.x, b.y - v.y, b.x, b.y);
    }
    return builder.close().build();
  });

  test('every point of an offset is at the distance, whatever folds or pinches off', () => {
    fc.assert(
      fc.property(smooth, fc.integer({ min: -900, max: 600 }), (path, hundredths) => {
        const by = hundredths / 100;
        const out = offset(path, by);
        if (out.verbs.length === 0 || by === 0) return;
        const { least, most } = distancesFrom(path, out);
        expect(Math.abs(by) - least).toBeLessThan(0.01);
        expect(most - Math.abs(by)).toBeLessThan(0.01);
      }),
      { numRuns: 80 },
    );
  });

  test('what lies further in than the distance is inside, and nothing else', () => {
    fc.assert(
      fc.property(smooth, fc.integer({ min: 50, max: 500 }), (path, hundredths) => {
        const by = hundredths / 100;
        const inner = offset(path, -by);
        const edges = segmentsOf(path);
        const inside = (of: Path, x: number, y: number) =>
          flatten(of, 1e-3).reduce((sum, { points }) => sum + crossings(points, x, y), 0) % 2 === 1;
        for (let x = -15; x <= 15; x += 1.7)
          for (let y = -15; y <= 15; y += 1.9) {
            const away = Math.min(...edges.map((s) => nearestOn(s, x, y).distance));
            if (Math.abs(away - by) < 0.02) continue;
            expect([x, y, inside(inner, x, y)]).toEqual([x, y, inside(path, x, y) && away > by]);
          }
      }),
      { numRuns: 20 },
    );
  });
});

describe('outlines among each other', () => {
  /** Boxes and circles of random places and sizes, some turning the other way: apart, in each other, or overlapping. */
  const scene = fc.array(
    fc.record({
      round: fc.boolean(),
      turned: fc.boolean(),
      x: fc.integer({ min: 0, max: 40 }),
      y: fc.integer({ min: 0, max: 40 }),
      size: fc.integer({ min: 2, max: 20 }),
    }),
    { minLength: 1, maxLength: 6 },
  );
  const pathOf = (shapes: typeof scene extends fc.Arbitrary<infer T> ? T : never) =>
    pathOfSubpaths(
      shapes.flatMap(({ round, turned, x, y, size }) => {
        const path = round ? circle(x + 0.3, y + 0.2, size / 1.7) : box(x, y, size, size * 1.1);
        return [...subpathsOf(path)].map((one) => (turned ? reversedSubpath(one) : one));
      }),
    );

  test.each(['evenodd', 'nonzero'] as const)(
    'what is covered by the rule %s grows and shrinks as it should',
    (rule) => {
      fc.assert(
        fc.property(scene, fc.constantFrom(-2.3, -0.6, 0.7, 2.9), (shapes, by) => {
          const path = pathOf(shapes);
          const out = offsetOutlines([{ path, rule }], { ...plainOffset, by });
          const covered = offsetOutlines([{ path, rule }], { ...plainOffset, by: 0 });
          const fromCovered = distanceFromLines(flatten(covered, 1e-3));
          const fill = flatten(path, 1e-3);
          const grown = flatten(out, 1e-3);
          for (let x = -6; x <= 66; x += 4.1)
            for (let y = -6; y <= 66; y += 3.7) {
              const away = fromCovered(x, y);
              if (Math.abs(away - Math.abs(by)) < 0.02 || away < 0.02) continue;
              const winding = fill.reduce(
                (sum, line) => sum + (polylineContains(line, x, y) ? Math.sign(signedArea(line)) : 0),
                0,
              );
              const count = fill.filter((line) => polylineContains(line, x, y)).length;
              const isIn = rule === 'evenodd' ? count % 2 === 1 : winding !== 0;
              const wanted = by > 0 ? isIn || away < by : isIn && away > -by;
              const found = grown.filter((line) => polylineContains(line, x, y)).length % 2 === 1;
              expect([x, y, found]).toEqual([x, y, wanted]);
            }
        }),
        { numRuns: 20 },
      );
    },
  );

  test('points reach further than the distance: what they come to is one', () => {
    const corners = [box(0, 0, 10, 10), box(13, 13, 10, 10)];
    expect([...subpathsOf(offset(corners, 2, { join: 'miter' }))]).toHaveLength(1);
    expect(areaOf(offset(corners, 2, { join: 'miter' }))).toBeCloseTo(2 * 14 * 14 - 1, 6);
    expect([...subpathsOf(offset(corners, 2))]).toHaveLength(2);
    // A point that runs into another part of its own outline.
    const hook = new PathBuilder();
    const points = [0, 0, 40, 0, 40, 30, 30, 30, 30, 10, 20, 12, 10, 10, 10, 30, 0, 30];
    for (let i = 0; i < points.length; i += 2)
      if (i === 0) hook.moveTo(points[0], points[1]);
      else hook.lineTo(points[i], points[i + 1]);
    const source = hook.close().build();
    for (const by of [3, -3]) {
      const path = offset(source, by, { join: 'miter', miterLimit: 10 });
      expect(distancesFromLines(source, path).least).toBeGreaterThan(2.99);
    }
  });

  test('a hole and what lies in it go by what lies around them, far off', () => {
    const scene = [box(0, 0, 100, 100), box(40, 40, 20, 20), box(42, 42, 16, 16)];
    const path = pathOfSubpaths(scene.flatMap((one) => [...subpathsOf(one)]));
    const sizes = (by: number, ignoreHoles = false) =>
      [...subpathsOf(offset(path, by, { join: 'miter', ignoreHoles }))]
        .map((one) => areaOf(pathOfSubpaths([one])))
        .sort((a, b) => b - a)
        .map((area) => Math.round(area * 1e6) / 1e6);
    expect(sizes(0.5)).toEqual([101 ** 2, 19 ** 2, 17 ** 2]);
    expect(sizes(-0.5)).toEqual([99 ** 2, 21 ** 2, 15 ** 2]);
    // Grown together they fill the hole.
    expect(sizes(1.5)).toEqual([103 ** 2]);
    expect(sizes(0.5, true)).toEqual([101 ** 2]);
  });

  test('one that crosses itself in a small loop is not taken for a plain one', () => {
    const points: [number, number][] = Array.from({ length: 600 }, (_, i) => {
      const angle = (2 * Math.PI * i) / 600;
      return [20 * Math.cos(angle), 20 * Math.sin(angle)];
    });
    // A loop of 0.5 mm that the rest knows nothing of.
    points.splice(300, 0, [-20, 0.1], [-20.4, -0.2], [-20.4, 0.2], [-20, -0.1]);
    const builder = new PathBuilder().moveTo(...points[0]);
    for (const point of points.slice(1)) builder.lineTo(...point);
    const source = builder.close().build();
    const path = offset(source, 1);
    const { least, most } = distancesFromLines(source, path);
    expect([...subpathsOf(path)]).toHaveLength(1);
    expect(1 - least).toBeLessThan(0.01);
    expect(most - 1).toBeLessThan(0.01);
  });

  test('of many nodes, straight and rough: at the distance, round its corners in arcs, and nothing is lost', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.constantFrom(1, -1, 0.4, -2.5), (seed, by) => {
        const builder = new PathBuilder();
        for (let i = 0; i < 700; i++) {
          const angle = (2 * Math.PI * i) / 700;
          const rough = 0.35 * Math.sin(61 * angle + seed) + 0.1 * Math.sin(seed * i);
          const radius = 18 + 3 * Math.sin(5 * angle + seed) + rough;
          const [x, y] = [radius * Math.cos(angle), radius * Math.sin(angle)];
          if (i === 0) builder.moveTo(x, y);
          else builder.lineTo(x, y);
        }
        const source = builder.close().build();
        const path = offset(source, by);
        const { least, most } = distancesFromLines(source, path);
        expect(Math.abs(by) - least).toBeLessThan(0.01);
        expect(most - Math.abs(by)).toBeLessThan(0.01);
        // The general way, which a mitre on a node more is made by, has the same area.
        const generally = offset([source, box(500, 0, 9, 9), box(500, 0, 9, 9)], by);
        const away = areaOf(offset(box(500, 0, 9, 9), by));
        expect(Math.abs(areaOf(generally) - away - areaOf(path))).toBeLessThan(0.01 * lengthOfAll(path));
      }),
      { numRuns: 4, seed: 5 },
    );
  });
});

/** How many edges of a ring a ray to the right crosses. */
function crossings(points: Float64Array, x: number, y: number): number {
  let count = 0;
  for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [points[j], points[j + 1], points[i], points[i + 1]];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) count++;
  }
  return count;
}

describe('hostile outlines', () => {
  test.each<[string, string, number, number]>([
    ['points that stand twice', '0,0 0,0 10,0 10,0 10,10 0,10 0,10', 1, 140 + Math.PI],
    ['points along a straight edge', '0,0 2,0 5,0 9.999,0 10,0 10,10 5,10 0,10 0,5', 1, 140 + Math.PI],
    ['a spike of no width', '0,0 10,0 10,5 18,5 10,5 10,10 0,10', -1, 64],
    ['a bow that crosses itself', '0,0 10,10 10,0 0,10', -20, 0],
    ['a ring that touches itself', '0,0 5,0 5,5 5,0 10,0 10,10 0,10', 1, 140 + Math.PI],
    ['a millionth of a millimetre', '0,0 0.000001,0 0.000001,0.000001', 1, 0],
    ['a kilometre', '0,0 1000000,0 1000000,1000000 0,1000000', 1, 1e12 + 4e6 + Math.PI],
    ['all in one line', '0,0 10,0 20,0', -1, 0],
  ])('%s', (_, points, by, area) => {
    const builder = new PathBuilder();
    points.split(' ').forEach((point, i) => {
      const [x, y] = point.split(',').map(Number);
      if (i === 0) builder.moveTo(x, y);
      else builder.lineTo(x, y);
    });
    const path = offset(builder.close().build(), by);
    expect(Math.abs(areaOf(path) - area)).toBeLessThan(Math.max(0.02, area * 1e-8));
    expect([...path.coords].every(Number.isFinite)).toBe(true);
  });

  test.each([2, -0.4])('a curve with a cusp in its middle, by %p mm', (by) => {
    const cusp = new PathBuilder()
      .moveTo(0, 0)
      .cubicTo(10, 10, 0, 10, 10, 0)
      .lineTo(10, -4)
      .lineTo(0, -4)
      .close()
      .build();
    const path = offset(cusp, by);
    const { least, most } = distancesFrom(cusp, path);
    expect(Math.abs(by) - least).toBeLessThan(0.01);
    expect(most - Math.abs(by)).toBeLessThan(0.01);
  });

  test('thousands of outlines over each other', () => {
    const rings = Array.from({ length: 3000 }, (_, i) => {
      const [x, y] = [(i % 100) * 3, Math.floor(i / 100) * 4];
      return i % 2 ? circle(x, y, 2) : box(x - 2, y - 2.5, 3.5, 4);
    });
    const path = offset(rings, 0.5);
    expect([...subpathsOf(path)].length).toBeGreaterThan(0);
    expect(pathBounds(path)).toEqual({
      minX: expect.closeTo(-2.5, 3),
      minY: expect.closeTo(-3, 3),
      maxX: expect.closeTo(299.5, 3),
      maxY: expect.closeTo(118.5, 3),
    });
  });

  test.each([0.5, -0.3, 0])('how much is done is said, more each time, up to all of it, by %p mm', (by) => {
    const told: number[] = [];
    const outlines = Array.from({ length: 50 }, (_, i) => ({ path: circle(i * 9, 0, 5, 4), rule: 'evenodd' as const }));
    offsetOutlines(outlines, { ...plainOffset, by }, (share) => told.push(share));
    expect(told.every((share, i) => i === 0 || share > told[i - 1])).toBe(true);
    expect(told.at(-1)).toBe(1);
    if (by !== 0) expect(told.length).toBeGreaterThan(4);
  });

  test('nothing comes to nothing, and 0 mm leaves outlines as they are', () => {
    expect(offset([], 3).verbs).toHaveLength(0);
    expect(areaOf(offset(box(0, 0, 3, 4), 0))).toBeCloseTo(12, 9);
  });
});

test('a line whose end is its start is offset as the outline it is', () => {
  const builder = new PathBuilder().moveTo(0, 0).lineTo(10, 0).lineTo(10, 10).lineTo(0, 10).lineTo(0, 0);
  const inside = offsetOutlines([{ path: builder.build(), rule: 'nonzero' }], { ...plainOffset, by: -1 });
  expect(pathBounds(inside)).toEqual({ minX: 1, minY: 1, maxX: 9, maxY: 9 });
});
