import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item } from '@lambent/core/document';
import { rotateItems } from '@lambent/core/edits';
import fc from 'fast-check';
import { benchWith } from '../fixtures/bench.ts';
import { jobOf } from '../state/document.ts';
import { ownSizeOf, resizeOwn } from './own-size.ts';

const drawn = (body: string, degrees = 0) => {
  const { actions } = benchWith(body);
  const job = jobOf(actions.get());
  const [{ id }] = job.drawing.items;
  return rotateItems(job, new Set([id]), degrees, { x: 50, y: 40 });
};
const rounded = '<rect x="20" y="30" width="60" height="20" rx="5" fill="none" stroke="#D0481E"/>';
const radii = { rx: expect.closeTo(5, 9), ry: expect.closeTo(5, 9) };
const disc = '<ellipse cx="50" cy="40" rx="20" ry="20" fill="none" stroke="#D0481E"/>';

describe('the size of a thing along its own sides', () => {
  test('is its own however it is turned', () => {
    for (const degrees of [0, 30, 90, 217]) {
      expect(ownSizeOf(drawn(rounded, degrees).drawing.items[0])).toEqual({
        width: expect.closeTo(60, 9),
        height: expect.closeTo(20, 9),
      });
    }
    expect(ownSizeOf(drawn(disc).drawing.items[0])).toEqual({ width: 40, height: 40 });
    expect(ownSizeOf(drawn('<path d="M0 0H9" stroke="#D0481E"/>').drawing.items[0])).toBeNull();
  });

  test('is given to one side: the other, the corners and the anchored point of its frame stay', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(rounded, disc),
        fc.integer({ min: -180, max: 180 }),
        fc.constantFrom('width' as const, 'height' as const),
        fc.double({ min: 11, max: 300, noNaN: true }),
        fc.constantFrom(0, 0.5, 1),
        fc.constantFrom(0, 0.5, 1),
        (body, degrees, side, mm, u, v) => {
          const job = drawn(body, degrees);
          const [before] = job.drawing.items;
          const [after] = resizeOwn(job, before, side, mm, { u, v }).drawing.items;
          const other = side === 'width' ? 'height' : 'width';
          expect(ownSizeOf(after)?.[side]).toBeCloseTo(mm, 6);
          expect(ownSizeOf(after)?.[other]).toBeCloseTo(ownSizeOf(before)?.[other] ?? 0, 6);
          const point = ({ minX, minY, maxX, maxY }: ReturnType<typeof boundsOf>) => [
            minX + u * (maxX - minX),
            minY + v * (maxY - minY),
          ];
          const [was, is] = [point(boundsOf(before)), point(boundsOf(after))];
          expect(Math.hypot(was[0] - is[0], was[1] - is[1])).toBeLessThan(1e-6);
          if (before.shape.kind === 'rectangle') expect(after.shape).toMatchObject(radii);
        },
      ),
    );
  });

  test('that is typed goes by the stock’s thickness no more, on the side that did', () => {
    const job = drawn(rounded);
    const [plain] = job.drawing.items;
    const shape = { ...plain.shape, tied: { side: 'width', fit: 'snug', clearanceMm: 0 } };
    const tied = { ...plain, shape } as Item;
    const tiedJob = { ...job, drawing: { ...job.drawing, items: [tied] } };
    const resized = (side: 'width' | 'height') =>
      resizeOwn(tiedJob, tied, side, 33, { u: 0, v: 0 }).drawing.items[0].shape;
    expect('tied' in resized('width')).toBe(false);
    expect('tied' in resized('height')).toBe(true);
  });
});
