import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Shape } from '../../document/shape.ts';
import { outlineOf } from '../../document/shapes.ts';
import { type Corner, largestCorner, shapeCorners } from './corners.ts';
import { flatten, signedArea } from './flatten.ts';
import {
  addNode,
  breakAt,
  cornerNodes,
  deleteNodes,
  isSmooth,
  moveHandle,
  moveNode,
  nodesOf,
  pathOfNodes,
  smoothNodes,
} from './nodes.ts';
import { type Path, PathBuilder, pathBounds, pathData } from './path.ts';
import { lengthOf, subpathsOf } from './segments.ts';

const box = new PathBuilder().moveTo(0, 0).lineTo(40, 0).lineTo(40, 20).lineTo(0, 20).close().build();
const round = (x: number, y: number, size: number): Corner => ({ x, y, kind: 'round', size });
const length = (path: Path) =>
  [...subpathsOf(path)].flatMap(({ segments }) => segments).reduce((sum, s) => sum + lengthOf(s), 0);
const areaOf = (path: Path) => Math.abs(flatten(path, 1e-5).reduce((sum, line) => sum + signedArea(line), 0));

describe('corners', () => {
  test('a rounded corner loses what its arc leaves of the square', () => {
    const shaped = shapeCorners(box, [round(40, 0, 6)]);
    expect(areaOf(shaped)).toBeCloseTo(800 - 36 * (1 - Math.PI / 4), 3);
    expect(length(shaped)).toBeCloseTo(120 - 12 + 3 * Math.PI, 3);
    expect(pathBounds(shaped)).toEqual(pathBounds(box));
  });

  test('a corner cut off loses a triangle', () => {
    expect(areaOf(shapeCorners(box, [{ x: 0, y: 20, kind: 'cut', size: 5 }]))).toBeCloseTo(800 - 12.5, 9);
  });

  test('the corner where an outline begins, and all of them', () => {
    const corners = [round(0, 0, 4), round(40, 0, 4), round(40, 20, 4), round(0, 20, 4)];
    expect(areaOf(shapeCorners(box, corners))).toBeCloseTo(800 - 64 + 16 * Math.PI, 3);
  });

  test('one that is too large is as large as its edges allow, which is said', () => {
    expect(largestCorner(box, { x: 40, y: 0 }, 'round')).toBeCloseTo(20, 9);
    expect(largestCorner(box, { x: 40, y: 0 }, 'cut')).toBeCloseTo(20, 9);
    expect(largestCorner(box, { x: 20, y: 0 }, 'round')).toBe(0);
    expect(areaOf(shapeCorners(box, [round(40, 0, 500)]))).toBeCloseTo(800 - 400 * (1 - Math.PI / 4), 2);
  });

  test('between a line and an arc the fillet touches both', () => {
    const half: Shape = { kind: 'arc', cx: 0, cy: 0, radius: 20, from: 180, sweep: 180 };
    const [arc] = subpathsOf(outlineOf(half));
    const builder = new PathBuilder().moveTo(-20, 0);
    for (const [, , x1, y1, x2, y2, x, y] of arc.segments) builder.cubicTo(x1, y1, x2, y2, x, y);
    const lid = builder.close().build();
    const shaped = shapeCorners(lid, [round(20, 0, 3)]);
    // Its centre is 3 mm above the line, and 3 mm inside the arc.
    const cx = Math.sqrt(17 * 17 - 9);
    const segments = [...subpathsOf(shaped)].flatMap((line) => line.segments);
    const on = segments.filter((s) => Math.abs(Math.hypot(s[0] - cx, s[1] + 3) - 3) < 1e-3);
    expect(on.length).toBeGreaterThanOrEqual(3);
    expect(pathBounds(shaped).maxX).toBeLessThan(20);
  });

  test('a square’s rounded area follows from the radius', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 20, noNaN: true }), (r) => {
        expect(areaOf(shapeCorners(box, [round(40, 20, r)]))).toBeCloseTo(800 - r * r * (1 - Math.PI / 4), 2);
      }),
    );
  });
});

describe('points', () => {
  const lines = () => nodesOf(box);

  test('a path taken to points and back is the same path', () => {
    for (const path of [box, outlineOf({ kind: 'ellipse', cx: 5, cy: 6, rx: 7, ry: 3 })]) {
      expect(pathData(pathOfNodes(nodesOf(path)), 6)).toBe(pathData(path, 6));
    }
  });

  test('adding one changes nothing that shows; deleting it neither', () => {
    const circle = nodesOf(outlineOf({ kind: 'ellipse', cx: 0, cy: 0, rx: 10, ry: 10 }));
    const more = addNode(circle, { line: 0, node: 2 }, 0.3);
    expect(more[0].nodes).toHaveLength(circle[0].nodes.length + 1);
    expect(areaOf(pathOfNodes(more))).toBeCloseTo(areaOf(pathOfNodes(circle)), 6);
    const straight = addNode(lines(), { line: 0, node: 0 }, 0.5);
    expect(straight[0].nodes[1]).toEqual({ x: 20, y: 0, before: null, after: null });
    expect(pathData(pathOfNodes(deleteNodes(straight, [{ line: 0, node: 1 }])))).toBe(pathData(box));
  });

  test('moved, smoothed, sharpened, broken', () => {
    const place = { line: 0, node: 1 };
    expect(pathBounds(pathOfNodes(moveNode(lines(), place, 50, -5)))).toEqual({
      minX: 0,
      minY: -5,
      maxX: 50,
      maxY: 20,
    });
    const smooth = smoothNodes(lines(), [place]);
    expect(isSmooth(smooth[0].nodes[1])).toBe(true);
    const bent = moveHandle(smooth, place, 'after', { x: 40, y: 10 });
    expect(isSmooth(bent[0].nodes[1])).toBe(true);
    expect(pathData(pathOfNodes(cornerNodes(smooth, [place, { line: 0, node: 0 }, { line: 0, node: 2 }])))).toBe(
      pathData(box),
    );
    const open = breakAt(lines(), place);
    expect(open.map(({ closed, nodes }) => [closed, nodes.length])).toEqual([[false, 5]]);
    expect(length(pathOfNodes(open))).toBe(120);
    expect(breakAt(open, { line: 0, node: 2 }).map(({ nodes }) => nodes.length)).toEqual([3, 3]);
  });
});
