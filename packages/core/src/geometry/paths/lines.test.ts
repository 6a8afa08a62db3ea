import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf } from '../../document/shapes.ts';
import {
  areaOf,
  boxArea,
  fillWithin,
  intersectAreas,
  lineWithin,
  pathOfArea,
  sizeOfArea,
  uniteAreas,
} from '../areas/area.ts';
import { boxOf } from './box.ts';
import { dashPath } from './dash.ts';
import { flatten, polylineLength } from './flatten.ts';
import { joinLines } from './join.ts';
import { type Path, PathBuilder, pathBounds } from './path.ts';

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const lengthOf = (path: Path) => flatten(path, 0.0005).reduce((sum, line) => sum + polylineLength(line), 0);
const rectangle = fc
  .tuple(...Array.from({ length: 4 }, () => fc.integer({ min: 1, max: 80 })))
  .map(([x, y, width, height]) => boxOf(x, y, width, height));

describe('areas', () => {
  test('of known shapes, by either rule', () => {
    expect(sizeOfArea(areaOf(circle(0, 0, 10), 'nonzero'))).toBeCloseTo(100 * Math.PI, 0);
    const twice = new PathBuilder();
    for (let i = 0; i < 2; i++) twice.moveTo(0, 0).lineTo(10, 0).lineTo(10, 10).lineTo(0, 10).close();
    expect(sizeOfArea(areaOf(twice.build(), 'nonzero'))).toBeCloseTo(100, 6);
    expect(sizeOfArea(areaOf(twice.build(), 'evenodd'))).toBe(0);
  });

  test('what two have in common and what they cover together come to what each is', () => {
    fc.assert(
      fc.property(rectangle, rectangle, (a, b) => {
        const [p, q] = [boxArea(a), boxArea(b)];
        const sum = sizeOfArea(intersectAreas(p, q)) + sizeOfArea(uniteAreas([p, q]));
        expect(sum).toBeCloseTo(sizeOfArea(p) + sizeOfArea(q), 6);
      }),
    );
  });

  test('a line along the edge is kept; a curve is cut where it crosses', () => {
    const area = boxArea(boxOf(0, 0, 50, 50));
    const edge = new PathBuilder().moveTo(0, 0).lineTo(50, 0).build();
    expect(lineWithin(edge, pathBounds(edge), area)).toEqual({ left: 'all' });
    const round = circle(50, 25, 10);
    const cut = lineWithin(round, pathBounds(round), area);
    expect(cut.left === 'part' && lengthOf(cut.path)).toBeCloseTo(10 * Math.PI, 1);
    const filled = fillWithin(round, pathBounds(round), 'nonzero', area);
    expect(filled.left === 'part' && sizeOfArea(areaOf(filled.path, 'evenodd'))).toBeCloseTo(50 * Math.PI, 0);
    const away = circle(90, 90, 5);
    expect(lineWithin(away, pathBounds(away), area)).toEqual({ left: 'nothing' });
    expect(pathOfArea(area).verbs.length).toBe(5);
  });
});

describe('dashes', () => {
  test('of a straight line, from where the pattern stands', () => {
    const line = new PathBuilder().moveTo(0, 0).lineTo(20, 0).build();
    const parts = (lengths: number[], offset = 0) =>
      flatten(dashPath(line, lengths, offset) as Path).map(({ points }) => [points[0], points[points.length - 2]]);
    expect(parts([4, 6])).toEqual([
      [0, 4],
      [10, 14],
    ]);
    expect(parts([4, 6], 2)).toEqual([
      [0, 2],
      [8, 12],
      [18, 20],
    ]);
    expect(parts([4, 6], -3)).toEqual([
      [3, 7],
      [13, 17],
    ]);
    expect(parts([5])).toEqual([
      [0, 5],
      [10, 15],
    ]);
    expect(dashPath(line, [0, 0], 0)).toBeNull();
    expect(dashPath(line, [1e-5], 0)).toBeNull();
  });

  test('of any circle come to their share of its length, and stay curves', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 50 }), fc.integer({ min: 1, max: 9 }), (r, dash) => {
        const whole = 2 * Math.PI * r;
        const period = whole / 12;
        const on = (period * dash) / 10;
        const path = dashPath(circle(0, 0, r), [on, period - on], 0) as Path;
        expect(Math.abs(lengthOf(path) - whole * (dash / 10))).toBeLessThan(0.02 * r);
        expect(path.verbs).toContain(2);
      }),
      { numRuns: 40 },
    );
  });
});

test('a polygon cut into its edges, turned and mixed up, is joined to itself', () => {
  const corner = fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 500 }));
  fc.assert(
    fc.property(
      fc.uniqueArray(corner, { minLength: 3, maxLength: 12, selector: String }).chain((corners) =>
        fc.tuple(
          fc.constant(corners),
          fc.shuffledSubarray(
            corners.map((_, i) => i),
            { minLength: corners.length },
          ),
          fc.infiniteStream(fc.boolean()),
        ),
      ),
      ([corners, order, flips]) => {
        const edges = order.map((i) => {
          const ends = [corners[i], corners[(i + 1) % corners.length]];
          const [a, b] = flips.next().value ? ends : ends.toReversed();
          return new PathBuilder()
            .moveTo(...a)
            .lineTo(...b)
            .build();
        });
        const joined = joinLines(edges, 0.01);
        expect(joined).toHaveLength(1);
        expect([...joined[0].members].sort((a, b) => a - b)).toEqual(edges.map((_, i) => i));
        const [line, ...others] = flatten(joined[0].path);
        expect(others).toHaveLength(0);
        expect(line.closed).toBe(true);
        expect(polylineLength(line)).toBeCloseTo(
          edges.reduce((sum, edge) => sum + lengthOf(edge), 0),
          6,
        );
      },
    ),
    { numRuns: 100 },
  );
});
