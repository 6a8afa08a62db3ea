import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box, item } from '../fixtures/shop.ts';
import { boxOf } from '../geometry/paths/box.ts';
import { applyTo, rotation } from '../geometry/paths/matrix.ts';
import { freePlace } from '../picking/free-place.ts';
import { isOnSheet, type Sheet, sheetBox, sheetCorners, sheetHolds, sheetUnder } from './sheet.ts';

const sheet: Sheet = { id: 's', materialId: 'ply', x: 100, y: 50, width: 200, height: 100, margin: 5 };

describe('a sheet', () => {
  test('turned by a quarter stands upright about its own middle', () => {
    const { minX, minY, maxX, maxY } = sheetBox({ ...sheet, angle: 90 });
    expect([minX, minY, maxX, maxY].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([150, 0, 250, 200]);
  });

  test('holds what lies on it, however it is turned', () => {
    fc.assert(
      fc.property(fc.double({ min: -180, max: 180, noNaN: true }), fc.boolean(), (angle, over) => {
        // A piece that keeps 10 mm to every edge, or comes 1 mm over one, turned with the sheet.
        const about = { x: 200, y: 100 };
        const piece = item(box(over ? 99 : 110, 60, 80), 'cut', { matrix: rotation(angle, about) });
        const turned = { ...sheet, angle };
        expect(sheetHolds(turned, piece, 0, 1e-6)).toBe(!over);
        expect(sheetHolds(turned, piece, 9.99)).toBe(!over);
        expect(sheetHolds(turned, piece, 10.01)).toBe(false);
        expect(sheetUnder([turned], piece)).toBe(turned);
      }),
    );
  });

  test('knows its points: each is inside by as much as its inset says', () => {
    const turned = { ...sheet, angle: 33 };
    for (const { x, y } of sheetCorners(turned, 0.01)) expect(isOnSheet(turned, { x, y })).toBe(true);
    for (const { x, y } of sheetCorners(turned, -0.01)) expect(isOnSheet(turned, { x, y })).toBe(false);
    const centre = applyTo(rotation(33), 0, 0);
    expect(isOnSheet(turned, centre)).toBe(false);
  });

  test('of two, an item lies on the one that holds it whole, else on the one on top at its middle', () => {
    const left = { ...sheet, id: 'left', x: 0 };
    const right = { ...sheet, id: 'right', x: 190 };
    expect(sheetUnder([left, right], item(box(185, 60, 10), 'cut'))).toBe(left);
    expect(sheetUnder([left, right], item(box(195, 60, 10), 'cut'))).toBe(right);
    expect(sheetUnder([left, right], item(box(150, 60, 90), 'cut'))).toBe(right);
    expect(sheetUnder([left, right], item(box(500, 60, 9), 'cut'))).toBeNull();
  });
});

describe('a free place', () => {
  const room = boxOf(10, 10, 100, 100);

  test('is as high as there is room, then as far left, clear of what is there', () => {
    expect(freePlace(room, 30, 20, [], 5)).toEqual({ x: 10, y: 10 });
    const besides = freePlace(room, 30, 20, [boxOf(0, 0, 50, 40)], 5);
    expect(besides).toEqual({ x: expect.closeTo(55, 4), y: 10 });
    const below = freePlace(room, 90, 20, [boxOf(0, 0, 50, 40), boxOf(500, 0, 9, 9)], 5);
    expect(below).toEqual({ x: 10, y: expect.closeTo(45, 4) });
    expect(freePlace(room, 90, 90, [boxOf(0, 0, 50, 40)], 5)).toBeNull();
    expect(freePlace(room, 101, 5, [], 5)).toBeNull();
  });
});
