import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { boxOf } from '../geometry/paths/box.ts';
import { type SnapField, type SnapKind, snapKinds, snapPoint } from './snap.ts';
import { snapBox } from './snap-box.ts';

const field = (items: Item[], more: Partial<SnapField> = {}): SnapField => ({
  drawing: jobWith(items).drawing,
  skip: new Set(),
  boxes: [],
  guides: [],
  gridMm: null,
  kinds: new Set(snapKinds),
  ...more,
});
const square = item(box(10, 10, 20), 'cut');
const circle = item(outlineOf({ kind: 'ellipse', cx: 100, cy: 50, rx: 20, ry: 20 }), 'cut', {
  shape: { kind: 'ellipse', cx: 100, cy: 50, rx: 20, ry: 20 },
});

describe('what catches a point', () => {
  test.each<[SnapKind, number, number, number, number]>([
    ['end', 10.4, 9.7, 10, 10],
    ['middle', 20.3, 10.4, 20, 10],
    ['centre', 100.5, 49.6, 100, 50],
    ['quadrant', 119.6, 50.3, 120, 50],
    ['line', 14, 10.4, 14, 10],
  ])('%s', (kind, x, y, toX, toY) => {
    const found = snapPoint(field([square, circle]), { x, y }, 1);
    expect(found?.kind).toBe(kind);
    expect([found?.x, found?.y]).toEqual([expect.closeTo(toX, 6), expect.closeTo(toY, 6)]);
  });

  test('crossings, but nothing of what is moved, hidden or switched off', () => {
    const across = item(line(0, 15, 40, 15), 'cut');
    expect(snapPoint(field([square, across]), { x: 30.3, y: 15.4 }, 1)).toEqual({ x: 30, y: 15, kind: 'crossing' });
    expect(snapPoint(field([square], { skip: new Set([square.id]) }), { x: 10, y: 10 }, 1)).toBeNull();
    expect(snapPoint(field([{ ...square, hidden: true }]), { x: 10, y: 10 }, 1)).toBeNull();
    expect(snapPoint(field([square], { kinds: new Set(['middle']) }), { x: 10, y: 10 }, 1)).toBeNull();
  });

  test('a tangent and a perpendicular from where the line begins', () => {
    const from = { x: 100 + 20 * Math.SQRT2, y: 50 };
    const touch = { x: 100 + 10 * Math.SQRT2, y: 50 + 10 * Math.SQRT2 };
    const tangent = snapPoint(field([circle]), { x: touch.x + 0.2, y: touch.y }, 1, from);
    expect(tangent?.kind).toBe('tangent');
    expect(Math.hypot((tangent?.x ?? 0) - touch.x, (tangent?.y ?? 0) - touch.y)).toBeLessThan(0.001);
    expect(snapPoint(field([square]), { x: 24.2, y: 10.3 }, 1, { x: 24, y: -40 })).toEqual({
      x: expect.closeTo(24, 9),
      y: 10,
      kind: 'perpendicular',
    });
  });

  test('edges of sheets and bed, guides and where they cross, and the grid', () => {
    const around = field([], {
      boxes: [boxOf(0, 0, 600, 400)],
      guides: [
        { id: 'g', axis: 'x', at: 33 },
        { id: 'h', axis: 'y', at: 44 },
      ],
      gridMm: 10,
    });
    expect(snapPoint(around, { x: 0.4, y: 399.5 }, 1)).toEqual({ x: 0, y: 400, kind: 'edge' });
    expect(snapPoint(around, { x: 0.4, y: 123 }, 1)).toEqual({ x: 0, y: 123, kind: 'edge' });
    expect(snapPoint(around, { x: 33.3, y: 43.8 }, 1)).toEqual({ x: 33, y: 44, kind: 'guide' });
    expect(snapPoint(around, { x: 33.3, y: 100 }, 1)).toEqual({ x: 33, y: 100, kind: 'guide' });
    expect(snapPoint(around, { x: 69.6, y: 120.2 }, 1)).toEqual({ x: 70, y: 120, kind: 'grid' });
    expect(snapPoint(around, { x: 66, y: 126 }, 1)).toBeNull();
  });

  test('a box that is moved is caught by its own corners', () => {
    const caught = snapBox(field([square]), boxOf(30.4, 10.3, 15, 8), null, 1);
    expect(caught).toMatchObject({ dx: expect.closeTo(-0.4, 9), dy: expect.closeTo(-0.3, 9), snap: { kind: 'end' } });
  });

  test('of the grid and an edge or a line the nearer catches', () => {
    const around = field([square], { boxes: [boxOf(0, 0, 600, 400)], gridMm: 5 });
    expect(snapPoint(around, { x: 599.4, y: 217 }, 4)).toEqual({ x: 600, y: 217, kind: 'edge' });
    expect(snapPoint(around, { x: 596, y: 216 }, 4)).toEqual({ x: 595, y: 215, kind: 'grid' });
    // A point that is had by itself goes before both.
    expect(snapPoint(around, { x: 13, y: 13 }, 5)).toEqual({ x: 10, y: 10, kind: 'end' });
  });

  test('a box is caught in a corner of bed or sheet by both edges, whichever is nearer', () => {
    const around = field([], { boxes: [boxOf(0, 0, 600, 400), boxOf(50, 60, 300, 200)] });
    expect(snapBox(around, boxOf(50.9, 60.2, 40, 30), null, 1)).toMatchObject({
      dx: expect.closeTo(-0.9, 9),
      dy: expect.closeTo(-0.2, 9),
      snap: { x: 50, y: 60, kind: 'edge' },
    });
    expect(snapBox(around, boxOf(560.5, 369.2, 40, 30), null, 1)).toMatchObject({
      dx: expect.closeTo(-0.5, 9),
      dy: expect.closeTo(0.8, 9),
      snap: { x: 600, y: 400, kind: 'edge' },
    });
    // An edge that it is not beside does not catch it.
    expect(snapBox(around, boxOf(50.9, 300, 40, 30), null, 1)).toBeNull();
    // Its middle comes to the middle of the sheet, its edges do not.
    expect(snapBox(around, boxOf(199.5, 100, 40, 30), null, 1)).toBeNull();
    expect(snapBox(around, boxOf(180.5, 100, 40, 30), null, 1)).toMatchObject({ dx: expect.closeTo(-0.5, 9), dy: 0 });
  });

  test('a box is caught by an edge along one axis and by a guide or the grid along the other', () => {
    const guides = [{ id: 'g', axis: 'y' as const, at: 100 }];
    const around = field([], { boxes: [boxOf(0, 0, 600, 400)], guides });
    expect(snapBox(around, boxOf(0.4, 99.3, 40, 30), null, 1)).toMatchObject({
      dx: expect.closeTo(-0.4, 9),
      dy: expect.closeTo(0.7, 9),
    });
    const grid = field([], { boxes: [boxOf(0, 0, 600, 400)], gridMm: 25 });
    expect(snapBox(grid, boxOf(0.4, 124.3, 40, 33), null, 1)).toMatchObject({
      dx: expect.closeTo(-0.4, 9),
      dy: expect.closeTo(0.7, 9),
    });
  });
});
