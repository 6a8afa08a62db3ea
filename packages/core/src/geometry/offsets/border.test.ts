import { describe, expect, test } from '@jest/globals';
import { outlineOf } from '../../document/shapes.ts';
import type { Outline } from '../areas/combine.ts';
import { outlineOfMask } from '../areas/mask.ts';
import { areaWithin } from '../areas/trace.ts';
import { flatten } from '../paths/flatten.ts';
import { type Path, pathBounds } from '../paths/path.ts';
import { subpathsOf } from '../paths/segments.ts';
import { nearestOnLine } from '../questions/distance.ts';
import { polylineBounds } from '../questions/nesting.ts';
import { type BorderSettings, borderAround, loopPlace } from './border.ts';

const plain: BorderSettings = { by: 3, bridgeGap: 0, bridgeWidth: 4, inletWidth: 0, innerRadius: 0, loop: null };
const nonzero = (path: Path): Outline => ({ path, rule: 'nonzero' });
const circle = (cx: number, cy: number, r: number) => nonzero(outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r }));
const box = (x: number, y: number, width: number, height = width) =>
  nonzero(outlineOf({ kind: 'rectangle', x, y, width, height, rx: 0, ry: 0 }));
const rings = (path: Path) => flatten(path, 0.0002);
const areaOf = (path: Path) =>
  rings(path).reduce((sum, { points }) => {
    const to = (i: number) => points[i % points.length];
    return (
      points.reduce((twice, x, i) => (i % 2 ? twice : twice + x * to(i + 3) - to(i + 2) * points[i + 1]), 0) / 2 + sum
    );
  }, 0);

describe('a border', () => {
  test('around one outline is its parallel curve, holes filled', () => {
    const letter: Outline = { path: outlineOf({ kind: 'ellipse', cx: 0, cy: 0, rx: 10, ry: 10 }), rule: 'evenodd' };
    const ring = borderAround([letter, circle(0, 0, 4)], plain);
    expect(ring).toMatchObject({ pieces: 1, openGap: 0 });
    expect(areaOf(ring.path)).toBeCloseTo(Math.PI * 13 ** 2, 1);
  });

  test('says how wide the gaps are that keep it in pieces, and bridges them where told to', () => {
    const letters = [circle(0, 0, 5), circle(30, 0, 5), circle(50, 0, 5)];
    const apart = borderAround(letters, plain);
    expect([apart.pieces, apart.openGap]).toEqual([3, expect.closeTo(14, 2)]);
    const partly = borderAround(letters, { ...plain, bridgeGap: 5 });
    expect([partly.pieces, partly.openGap]).toEqual([2, expect.closeTo(14, 2)]);
    const whole = borderAround(letters, { ...plain, bridgeGap: 15 });
    expect([whole.pieces, whole.openGap]).toEqual([1, 0]);
    // The bar is as wide as asked, halfway between the two.
    const across = rings(whole.path).flatMap((line) => [nearestOnLine(line, 15, -1), nearestOnLine(line, 15, 1)]);
    expect(across.map(({ distance }) => distance)).toEqual([expect.closeTo(1, 6), expect.closeTo(1, 6)]);
  });

  test('that would hang together by a thread is made as wide there as a bridge', () => {
    const letters = [circle(0, 0, 5), circle(15.99, 0, 5)];
    const edge = rings(borderAround(letters, { ...plain, bridgeGap: 1 }).path);
    expect(nearestOnLine(edge[0], 7.995, 0).distance).toBeCloseTo(2, 1);
  });

  test('has no inner corner tighter than asked, and no narrower inlet', () => {
    // An L: its inner corner's circle of 4 leaves (1 − π/4) 4² more inside.
    const ell = [box(0, 0, 30, 10), box(0, 0, 10, 30)];
    const sharp = areaOf(borderAround(ell, plain).path);
    const rounded = areaOf(borderAround(ell, { ...plain, innerRadius: 4 }).path);
    expect(rounded - sharp).toBeCloseTo((1 - Math.PI / 4) * 16, 1);
    // A U whose inlet is 2 wide once the border is around it.
    const u = [box(0, 0, 10, 30), box(18, 0, 10, 30), box(0, 0, 28, 5)];
    expect(nearestOnLine(rings(borderAround(u, plain).path)[0], 14, 9).distance).toBeLessThan(1.5);
    const filled = rings(borderAround(u, { ...plain, inletWidth: 2.2 }).path)[0];
    expect(nearestOnLine(filled, 14, 9).distance).toBeGreaterThan(10);
  });

  test('carries a loop where it was clicked, with its hole outside the border proper', () => {
    const disc = [circle(0, 0, 10)];
    const place = loopPlace(disc, { x: 0.001, y: -14 });
    expect(place).toEqual({ u: expect.closeTo(0.5, 3), v: expect.closeTo(-0.2, 6) });
    const { path, pieces } = borderAround(disc, { ...plain, loop: { ...place, holeMm: 4, rimMm: 2 } });
    expect(pieces).toBe(1);
    const [outer, hole] = rings(path).map(polylineBounds);
    expect([outer.minY, outer.maxY]).toEqual([expect.closeTo(-19, 2), expect.closeTo(13, 2)]);
    expect([hole.minY, hole.maxY, hole.minX]).toEqual([
      expect.closeTo(-17, 1),
      expect.closeTo(-13, 1),
      expect.closeTo(-2, 0),
    ]);
    expect(areaOf(path)).toBeLessThan(areaOf(borderAround(disc, plain).path) + Math.PI * 16);
  });

  test('around nothing is nothing', () => {
    expect(borderAround([], { ...plain, loop: { u: 0, v: 0, holeMm: 3, rimMm: 2 } })).toEqual({
      path: { verbs: new Uint8Array(), coords: new Float64Array() },
      pieces: 0,
      openGap: 0,
    });
  });
});

describe('the outlines of a mask', () => {
  const maskOf = (...rows: string[]) => Uint8Array.from(rows.join(''), (cell) => (cell === '#' ? 1 : 0));
  const outlines = (width: number, ...rows: string[]) => outlineOfMask(maskOf(...rows), width, rows.length);

  test('are exact for blocks, holes turn the other way, corners that touch are apart', () => {
    const ring = outlines(5, '#####', '#   #', '#   #', '#   #', '#####');
    expect([...subpathsOf(ring)].map(({ segments }) => areaWithin(segments))).toEqual([25, -9]);
    expect([...subpathsOf(outlines(4, '##  ', '##  ', '  ##', '  ##'))]).toHaveLength(2);
    expect(pathBounds(outlines(3, '   ', ' # ', '   '))).toEqual({ minX: 1, minY: 1, maxX: 2, maxY: 2 });
    expect(outlines(2, '  ').verbs).toHaveLength(0);
  });

  test('are lines along slanted edges', () => {
    const size = 60;
    const mask = new Uint8Array(size * size);
    for (let y = 0; y < size; y++) mask.fill(1, y * size, y * size + y + 1);
    const [{ segments }] = [...subpathsOf(outlineOfMask(mask, size, size))];
    expect(segments.length).toBeLessThan(8);
    expect(areaWithin(segments)).toBeGreaterThan((size * size) / 2 - 1);
  });
});
