import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { thinPlaces } from '../offsets/thin.ts';
import { arcOfCubic, centreThrough } from './arc-of.ts';
import { flatten } from './flatten.ts';
import { type Path, PathBuilder } from './path.ts';
import { fitPoints, simplifyPath } from './refit.ts';
import { addSpline, isSound, type Spline, splineStart } from './spline.ts';
import { Walk } from './walk.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('an arc in a cubic', () => {
  /** A circular arc as the usual cubic, which strays from it by less than 0.03 % of its radius up to a quarter. */
  const arcAs = (cx: number, cy: number, radius: number, from: number, span: number) => {
    const k = (4 / 3) * Math.tan(span / 4) * radius;
    const [a, b] = [from, from + span];
    const [x0, y0] = [cx + radius * Math.cos(a), cy + radius * Math.sin(a)];
    const [x3, y3] = [cx + radius * Math.cos(b), cy + radius * Math.sin(b)];
    return Float64Array.of(
      ...[x0, y0, x0 - k * Math.sin(a), y0 + k * Math.cos(a)],
      ...[x3 + k * Math.sin(b), y3 - k * Math.cos(b), x3, y3],
    );
  };

  test('is found with its centre, its radius and which way round it goes', () => {
    fc.assert(
      fc.property(
        ...[number(-50, 50), number(-50, 50), number(0.5, 100), number(0, 6.28), number(0.1, 1.57), fc.boolean()],
        (cx, cy, radius, from, size, back) => {
          const span = back ? -size : size;
          const arc = arcOfCubic(arcAs(cx, cy, radius, from, span) as never, radius * 0.001);
          expect(arc?.cx).toBeCloseTo(cx, 1);
          expect(arc?.cy).toBeCloseTo(cy, 1);
          expect(arc?.radius).toBeCloseTo(radius, 1);
          expect(arc?.span).toBeCloseTo(span, 4);
        },
      ),
    );
  });

  test('is not found in a wave, nor in a straight line', () => {
    expect(arcOfCubic(Float64Array.of(0, 0, 10, 10, 20, -10, 30, 0) as never, 0.01)).toBeNull();
    expect(arcOfCubic(Float64Array.of(0, 0, 10, 0, 20, 0, 30, 0) as never, 0.01)).toBeNull();
  });

  test('a circle’s centre is as far from any three of its points', () => {
    fc.assert(
      fc.property(number(0, 6), number(0.1, 3), number(0.1, 3), number(1, 80), (a, more, still, radius) => {
        const [b, c] = [a + more, a + more + still];
        const at = (t: number) => ({ x: 7 + radius * Math.cos(t), y: -3 + radius * Math.sin(t) });
        const centre = centreThrough(at(a), at(b), at(c));
        expect(centre?.x).toBeCloseTo(7, 6);
        expect(centre?.y).toBeCloseTo(-3, 6);
      }),
    );
    expect(centreThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toBeNull();
  });
});

/** How far the points of a path's flattened line are from a circle about (0, 0). */
function strayFrom(path: Path, radius: number): number {
  return Math.max(
    ...flatten(path, 0.001).flatMap(({ points }) =>
      Array.from({ length: points.length / 2 }, (_, i) =>
        Math.abs(Math.hypot(points[2 * i], points[2 * i + 1]) - radius),
      ),
    ),
  );
}

describe('points that a pen left', () => {
  test('on a circle become few curves within the tolerance', () => {
    const radius = 30;
    const points = Float64Array.from(
      Array.from({ length: 400 }, (_, i) => [
        radius * Math.cos((2 * Math.PI * i) / 400),
        radius * Math.sin((2 * Math.PI * i) / 400),
      ]).flat(),
    );
    const fitted = fitPoints(points, true, 0.05);
    expect(strayFrom(fitted, radius)).toBeLessThan(0.06);
    expect(fitted.verbs.length).toBeLessThan(24);
  });

  test('a square of many points is four lines again, its corners where they were', () => {
    const builder = new PathBuilder().moveTo(0, 0);
    for (let i = 1; i <= 20; i++) builder.lineTo(i, 0);
    for (let i = 1; i <= 20; i++) builder.lineTo(20, i);
    for (let i = 1; i <= 20; i++) builder.lineTo(20 - i, 20);
    for (let i = 1; i < 20; i++) builder.lineTo(0, 20 - i);
    const [line] = flatten(simplifyPath(builder.close().build(), 0.05), 0.001);
    const corners = Array.from({ length: line.points.length / 2 }, (_, i) => [
      line.points[2 * i],
      line.points[2 * i + 1],
    ]);
    for (const corner of [
      [0, 0],
      [20, 0],
      [20, 20],
      [0, 20],
    ]) {
      expect(corners).toContainEqual(corner);
    }
    expect(corners.length).toBeLessThanOrEqual(5);
  });
});

describe('a spline', () => {
  const pathOf = (spline: Spline) => {
    const { x, y } = splineStart(spline);
    const builder = new PathBuilder().moveTo(x, y);
    addSpline(builder, spline, 0.001);
    return builder.build();
  };

  test('of degree 3 with no knots within is the cubic of its points', () => {
    const point = fc.record({ x: number(-50, 50), y: number(-50, 50) });
    fc.assert(
      fc.property(point, point, point, point, (...points) => {
        const path = pathOf({ degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], points, weights: [] });
        const coords = points.flatMap(({ x, y }) => [x, y]);
        expect(path.verbs).toHaveLength(2);
        [...path.coords].forEach((coord, i) => {
          expect(coord).toBeCloseTo(coords[i], 9);
        });
      }),
    );
  });

  test('with weights is the quarter of a circle that it says', () => {
    const points = [
      { x: 25, y: 0 },
      { x: 25, y: 25 },
      { x: 0, y: 25 },
    ];
    const path = pathOf({ degree: 2, knots: [0, 0, 0, 1, 1, 1], points, weights: [1, Math.SQRT1_2, 1] });
    expect(strayFrom(path, 25)).toBeLessThan(0.003);
  });

  test('whose numbers do not go together is not sound', () => {
    const points = Array.from({ length: 4 }, (_, i) => ({ x: i, y: 0 }));
    const sound: Spline = { degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], points, weights: [] };
    expect(isSound(sound)).toBe(true);
    expect(isSound({ ...sound, knots: [0, 1] })).toBe(false);
    expect(isSound({ ...sound, knots: [0, 0, 0, 2, 1, 1, 1, 1] })).toBe(false);
    expect(isSound({ ...sound, weights: [1, 1, 0, 1] })).toBe(false);
    expect(isSound({ ...sound, degree: 4 })).toBe(false);
  });
});

describe('thin places', () => {
  const rectangle = (x: number, y: number, width: number, height: number) => ({
    points: Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height),
    closed: true,
  });

  test('a wall is found where it is thinner than asked, and a gap between two', () => {
    fc.assert(
      fc.property(number(0.2, 3), number(0.2, 3), (thick, asked) => {
        fc.pre(Math.abs(thick - asked) > 0.02);
        const wall = thinPlaces([rectangle(0, 0, 40, thick)], asked);
        expect(wall.walls.length > 0).toBe(thick < asked);
        for (const { widthMm } of wall.walls) expect(widthMm).toBeCloseTo(thick, 2);
        expect(wall.gaps).toEqual([]);
        const between = thinPlaces([rectangle(0, 0, 40, 20), rectangle(0, 20 + thick, 40, 20)], asked);
        expect(between.gaps.length > 0).toBe(thick < asked);
        expect(between.walls).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  test('a thin bar is found whatever else there is, and however far off', () => {
    const bars = fc.record({
      thick: number(0.03, 0.19),
      long: number(0.6, 30),
      others: fc.integer({ min: 0, max: 40 }),
      apart: number(12, 90),
    });
    fc.assert(
      fc.property(bars, ({ thick, long, others, apart }) => {
        const figures = Array.from({ length: others }, (_, i) =>
          rectangle(100 + apart * (i % 6), apart * Math.floor(i / 6), 5, 7),
        );
        expect(thinPlaces([...figures, rectangle(0, 0, long, thick)], 0.2).walls).toHaveLength(1);
        expect(thinPlaces([...figures, rectangle(0, 0, thick, long)], 0.2).walls).toHaveLength(1);
      }),
      { numRuns: 60 },
    );
  });

  test('a narrow neck is found where it is', () => {
    const neck = {
      points: Float64Array.from([
        0, 0, 20, 0, 20, 9.7, 40, 9.7, 40, 0, 60, 0, 60, 20, 40, 20, 40, 10.3, 20, 10.3, 20, 20, 0, 20,
      ]),
      closed: true,
    };
    const { walls } = thinPlaces([neck], 1);
    expect(walls).toHaveLength(1);
    const [{ box, widthMm }] = walls;
    expect(box.minX).toBeGreaterThan(18);
    expect(box.maxX).toBeLessThan(42);
    expect(box.maxX - box.minX).toBeGreaterThan(18);
    expect(widthMm).toBeCloseTo(0.6, 1);
  });
});

describe('walking a line', () => {
  test('one is as far along a circle as one walked, facing the way it goes', () => {
    const count = 720;
    const points = Float64Array.from(
      Array.from({ length: count }, (_, i) => {
        const angle = (2 * Math.PI * i) / count;
        return [10 * Math.cos(angle), 10 * Math.sin(angle)];
      }).flat(),
    );
    const walk = new Walk({ points, closed: true });
    expect(walk.total).toBeCloseTo(20 * Math.PI, 2);
    fc.assert(
      fc.property(number(0, 1), (share) => {
        const place = walk.pointAt(share * walk.total);
        const angle = 2 * Math.PI * share;
        expect(place?.x).toBeCloseTo(10 * Math.cos(angle), 1);
        expect(place?.y).toBeCloseTo(10 * Math.sin(angle), 1);
        const facing = ((place?.degrees ?? 0) * Math.PI) / 180;
        expect(Math.cos(facing - angle - Math.PI / 2)).toBeGreaterThan(0.999);
      }),
    );
    expect([walk.pointAt(-0.001), walk.pointAt(walk.total + 0.001)]).toEqual([null, null]);
  });

  test('the frame at a place stands back and below as asked', () => {
    const walk = new Walk({ points: Float64Array.of(0, 0, 100, 0), closed: false });
    const frame = walk.frameAt(40, 5, 2);
    expect([frame?.[4], frame?.[5]]).toEqual([35, 2]);
  });
});
