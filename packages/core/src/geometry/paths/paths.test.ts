import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf } from '../../document/shapes.ts';
import { nestDepths } from '../questions/nesting.ts';
import { arcTo } from './arc.ts';
import { boxHeight, boxOf, boxWidth, emptyBox, transformBox } from './box.ts';
import { flatten, polylineContains, polylineLength, signedArea } from './flatten.ts';
import { applyTo, type Matrix, multiply, rotation, scaling, translation } from './matrix.ts';
import { cubicAt, type Path, PathBuilder, pathBounds, pathData, transformPath } from './path.ts';
import { simplifyPolyline } from './simplify.ts';

const coordinate = fc.double({ min: -500, max: 500, noNaN: true });
const matrix = fc
  .tuple(
    fc.double({ min: -360, max: 360, noNaN: true }),
    fc.double({ min: 0.1, max: 10, noNaN: true }),
    coordinate,
    coordinate,
  )
  .map(([turn, scale, x, y]): Matrix => multiply(translation(x, y), multiply(rotation(turn), scaling(scale, scale))));

function circle(r: number, cx = 0, cy = 0): Path {
  return outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
}

describe('matrices', () => {
  test('a product applies its right factor first', () => {
    fc.assert(
      fc.property(matrix, matrix, coordinate, coordinate, (a, b, x, y) => {
        const inner = applyTo(b, x, y);
        const once = applyTo(multiply(a, b), x, y);
        const twice = applyTo(a, inner.x, inner.y);
        expect(Math.hypot(once.x - twice.x, once.y - twice.y)).toBeLessThan(1e-6);
      }),
    );
  });

  test('four quarter turns about a point are exactly nothing', () => {
    const quarter = rotation(90, { x: 12.34, y: 56.78 });
    const whole = multiply(quarter, multiply(quarter, multiply(quarter, quarter)));
    expect(whole.map((value) => Math.round(value * 1e9) / 1e9 || 0)).toEqual([1, 0, 0, 1, 0, 0]);
  });
});

describe('boxes', () => {
  test('a box that a map has moved holds its corners, and no more; an empty one stays empty', () => {
    fc.assert(
      fc.property(matrix, coordinate, coordinate, coordinate, coordinate, (map, x, y, w, h) => {
        const box = boxOf(x, y, Math.abs(w), Math.abs(h));
        const corners = [box.minX, box.maxX].flatMap((cx) => [box.minY, box.maxY].map((cy) => applyTo(map, cx, cy)));
        const moved = transformBox(box, map);
        const [xs, ys] = [corners.map((corner) => corner.x), corners.map((corner) => corner.y)];
        expect(moved.minX).toBeCloseTo(Math.min(...xs), 8);
        expect(moved.maxX).toBeCloseTo(Math.max(...xs), 8);
        expect(moved.minY).toBeCloseTo(Math.min(...ys), 8);
        expect(moved.maxY).toBeCloseTo(Math.max(...ys), 8);
        expect(transformBox(emptyBox, map)).toEqual(emptyBox);
      }),
    );
  });
});

describe('curves', () => {
  test('a circle stays within 0.01 mm of its radius up to a radius of 1 m, and closes to the letter', () => {
    for (const r of [0.5, 36, 1000]) {
      const [line] = flatten(circle(r));
      expect(line.closed).toBe(true);
      for (let i = 0; i < line.points.length; i += 2) {
        expect(Math.abs(Math.hypot(line.points[i], line.points[i + 1]) - r)).toBeLessThan(0.01);
      }
      expect(Math.abs(polylineLength(line) - 2 * Math.PI * r)).toBeLessThan(0.02 * Math.sqrt(r) + 0.01);
    }
  });

  test('the bounds of a curve are its extremes, not its handles', () => {
    const path = new PathBuilder().moveTo(0, 0).cubicTo(0, 40, 30, 40, 30, 0).build();
    expect(pathBounds(path)).toEqual({ minX: 0, minY: 0, maxX: 30, maxY: 30 });
  });

  test('every point of a curve lies in its bounds and within the tolerance of its flattening', () => {
    fc.assert(
      fc.property(fc.array(coordinate, { minLength: 8, maxLength: 8 }), (c) => {
        const path = new PathBuilder().moveTo(c[0], c[1]).cubicTo(c[2], c[3], c[4], c[5], c[6], c[7]).build();
        const bounds = pathBounds(path);
        const [line] = flatten(path, 0.01);
        for (let t = 0; t <= 1; t += 1 / 37) {
          const x = cubicAt(c[0], c[2], c[4], c[6], t);
          const y = cubicAt(c[1], c[3], c[5], c[7], t);
          expect(x > bounds.minX - 1e-6 && x < bounds.maxX + 1e-6).toBe(true);
          expect(y > bounds.minY - 1e-6 && y < bounds.maxY + 1e-6).toBe(true);
          expect(distance(line.points, x, y)).toBeLessThan(0.0101);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('arcs take the way that their flags say, and grow when they are too small', () => {
    const arc = (large: boolean, sweep: boolean) => {
      const b = new PathBuilder().moveTo(0, 0);
      arcTo(b, 10, 10, 0, large, sweep, 10, 10);
      return flatten(b.build(), 1e-4)[0];
    };
    expect(polylineLength(arc(false, true))).toBeCloseTo(5 * Math.PI, 3);
    expect(polylineLength(arc(true, true))).toBeCloseTo(15 * Math.PI, 3);
    expect(pathBounds(new PathBuilder().moveTo(0, 0).build())).toEqual({ minX: 0, minY: 0, maxX: 0, maxY: 0 });
    const small = new PathBuilder().moveTo(0, 0);
    arcTo(small, 1, 1, 0, false, true, 20, 0);
    expect(boxHeight(pathBounds(small.build()))).toBeCloseTo(10, 4);
  });

  test('a rounded rectangle has the area its numbers say', () => {
    const [line] = flatten(outlineOf({ kind: 'rectangle', x: 3, y: 4, width: 54, height: 27, rx: 6.5, ry: 6.5 }), 1e-4);
    expect(signedArea(line)).toBeCloseTo(54 * 27 - (4 - Math.PI) * 6.5 ** 2, 1);
    expect(
      signedArea(flatten(outlineOf({ kind: 'rectangle', x: 0, y: 0, width: 5, height: 4, rx: 0, ry: 0 }))[0]),
    ).toBe(20);
  });

  test('turning and moving changes no length', () => {
    fc.assert(
      fc.property(fc.double({ min: -360, max: 360, noNaN: true }), coordinate, (turn, dx) => {
        const moved = transformPath(circle(20), multiply(translation(dx, -dx), rotation(turn)));
        expect(polylineLength(flatten(moved)[0])).toBeCloseTo(polylineLength(flatten(circle(20))[0]), 6);
        expect(boxWidth(pathBounds(moved))).toBeCloseTo(40, 3);
      }),
    );
  });
});

describe('outlines', () => {
  test('a close joins the last point to the first, and drawing goes on from there', () => {
    const path = new PathBuilder().moveTo(1, 1).lineTo(5, 1).lineTo(5, 5).close().lineTo(9, 9).build();
    const lines = flatten(path);
    expect(lines.map(({ closed }) => closed)).toEqual([true, false]);
    expect([...lines[1].points]).toEqual([1, 1, 9, 9]);
    expect(pathData(path)).toBe('M1 1L5 1L5 5ZM1 1L9 9');
  });

  test('nesting counts what an outline lies in', () => {
    const rings = [40, 30, 20, 10].map((r) => flatten(circle(r))[0]);
    const beside = flatten(circle(5, 100, 0))[0];
    expect([...nestDepths([...rings, beside])]).toEqual([0, 1, 2, 3, 0]);
    // Drawn twice: one of the two lies in the other, and what is in them lies in both.
    expect([...nestDepths([rings[0], flatten(circle(40))[0], rings[3]])]).toEqual([0, 1, 2]);
    expect(polylineContains(rings[0], 39, 0)).toBe(true);
    expect(polylineContains(rings[0], 41, 0)).toBe(false);
  });

  test('thinning keeps within its tolerance, and keeps the ends', () => {
    const [line] = flatten(circle(30), 0.001);
    const thin = simplifyPolyline(line.points, 0.2);
    expect(thin.length).toBeLessThan(line.points.length / 4);
    expect([thin[0], thin[1]]).toEqual([line.points[0], line.points[1]]);
    for (let i = 0; i < line.points.length; i += 2) {
      expect(distance(thin, line.points[i], line.points[i + 1])).toBeLessThan(0.2001);
    }
  });
});

function distance(points: Float64Array, x: number, y: number): number {
  let least = Infinity;
  for (let i = 2; i < points.length; i += 2) {
    const dx = points[i] - points[i - 2];
    const dy = points[i + 1] - points[i - 1];
    const along = ((x - points[i - 2]) * dx + (y - points[i - 1]) * dy) / (dx * dx + dy * dy || 1);
    const t = Math.max(0, Math.min(1, along));
    least = Math.min(least, Math.hypot(x - points[i - 2] - t * dx, y - points[i - 1] - t * dy));
  }
  return least;
}
