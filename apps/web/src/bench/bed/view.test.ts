import { describe, expect, test } from '@jest/globals';
import { applyTo, type Matrix, multiply, rotation, scaling, translation } from '@lambent/core/geometry';
import fc from 'fast-check';
import { keptView, leastScale, mostScale, screenMapToBed, toBed, toScreen, viewOf, zoomAt } from './view.ts';

const pixel = fc.double({ min: -2000, max: 2000, noNaN: true });
const view = fc.record({ scale: fc.double({ min: leastScale, max: mostScale, noNaN: true }), x: pixel, y: pixel });

describe('the view', () => {
  test('goes from bed to screen and back', () => {
    fc.assert(
      fc.property(view, pixel, pixel, (shown, x, y) => {
        const bed = toBed(shown, x, y);
        const again = toScreen(shown, bed.x, bed.y);
        expect(Math.hypot(again.x - x, again.y - y)).toBeLessThan(1e-6);
      }),
    );
  });

  test('zooms about the pointer: what is under it stays there, within the limits', () => {
    fc.assert(
      fc.property(view, pixel, pixel, fc.double({ min: 0.01, max: 100, noNaN: true }), (shown, x, y, factor) => {
        const before = toBed(shown, x, y);
        const next = zoomAt(shown, x, y, factor);
        const after = toBed(next, x, y);
        expect(next.scale).toBeGreaterThanOrEqual(leastScale);
        expect(next.scale).toBeLessThanOrEqual(mostScale);
        expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeLessThan(1e-6 * (1 + Math.abs(before.x)));
      }),
    );
  });

  test('shows a box whole, in the middle, as large as it goes', () => {
    const shown = viewOf({ minX: 100, minY: 50, maxX: 300, maxY: 150 }, 840, 700, 20);
    expect(shown.scale).toBe(4);
    expect(toScreen(shown, 100, 50)).toEqual({ x: 20, y: 150 });
    expect(toScreen(shown, 300, 150)).toEqual({ x: 820, y: 550 });
  });

  test('shows even a point, and a box larger than the world, within its limits', () => {
    expect(viewOf({ minX: 5, minY: 5, maxX: 5, maxY: 5 }, 800, 600).scale).toBeLessThanOrEqual(mostScale);
    expect(viewOf({ minX: 0, minY: 0, maxX: 1e7, maxY: 1e7 }, 800, 600).scale).toBe(leastScale);
  });

  test('a map of the screen does on the bed what it does on the screen', () => {
    const map: Matrix = multiply(translation(30, -20), multiply(rotation(25, { x: 100, y: 80 }), scaling(2, 0.5)));
    fc.assert(
      fc.property(view, pixel, pixel, (shown, x, y) => {
        const moved = applyTo(map, x, y);
        const bed = toBed(shown, x, y);
        const movedOnBed = applyTo(screenMapToBed(shown, map), bed.x, bed.y);
        const seen = toScreen(shown, movedOnBed.x, movedOnBed.y);
        expect(Math.hypot(seen.x - moved.x, seen.y - moved.y)).toBeLessThan(1e-5);
      }),
    );
  });

  test('stays on the screen where what is beside it folds, and in the middle where the window grows', () => {
    const frame = { left: 400, top: 60, width: 800, height: 600, windowWidth: 1280, windowHeight: 800 };
    const shown = { scale: 2, x: 30, y: 40 };
    expect(keptView(shown, frame, { ...frame, left: 104, width: 1096 })).toEqual({ scale: 2, x: 326, y: 40 });
    expect(keptView(shown, frame, { ...frame, top: 100, height: 560 })).toEqual({ scale: 2, x: 30, y: 0 });
    const grown = { ...frame, width: 1000, height: 700, windowWidth: 1480, windowHeight: 900 };
    expect(keptView(shown, frame, grown)).toEqual({ scale: 2, x: 130, y: 90 });
  });
});
