import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { moveItems, removeItems, rotateItems, scaleItems, setDimension } from '../edits/items.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { besideAt, type DimensionMark, endAt, placeDimension } from './dimension.ts';
import { jobFromJson, jobToJson } from './json.ts';

const plate = item(box(10, 20, 40, 30), 'cut');
const ids = new Set([plate.id]);

/** A mark along the plate's top edge, 5 mm above it. */
const top: DimensionMark = {
  id: 'd',
  from: endAt([plate], { x: 10, y: 20 }),
  to: endAt([plate], { x: 50, y: 20 }),
  axis: 'straight',
  beside: 5,
};

describe('a dimension mark', () => {
  test('measures between what it holds on to, and stands beside it', () => {
    expect(placeDimension(jobWith([plate]).drawing, top)).toEqual({
      from: { x: 10, y: 20 },
      to: { x: 50, y: 20 },
      lineFrom: { x: 10, y: 15 },
      lineTo: { x: 50, y: 15 },
      valueMm: 40,
    });
  });

  test('follows: moving and turning change nothing, scaling changes it alike', () => {
    const value = (job: ReturnType<typeof jobWith>) => placeDimension(job.drawing, top)?.valueMm;
    const number = fc.double({ min: -200, max: 200, noNaN: true });
    fc.assert(
      fc.property(number, number, fc.double({ min: 0.1, max: 9, noNaN: true }), (dx, turn, factor) => {
        const job = jobWith([plate]);
        expect(value(moveItems(job, ids, dx, 3))).toBeCloseTo(40, 6);
        expect(value(rotateItems(job, ids, turn, { x: 0, y: 0 }))).toBeCloseTo(40, 6);
        expect(value(scaleItems(job, ids, factor, 1, { x: 5, y: 5 }))).toBeCloseTo(40 * factor, 6);
      }),
    );
  });

  test('across and down are measured apart', () => {
    const slanted = { ...top, to: endAt([plate], { x: 50, y: 50 }) };
    const at = (axis: DimensionMark['axis']) => placeDimension(jobWith([plate]).drawing, { ...slanted, axis })?.valueMm;
    expect([at('straight'), at('x'), at('y')]).toEqual([50, 40, 30]);
  });

  test('goes with what it measures, and lasts in the stored job', () => {
    const job = setDimension(jobWith([plate]), top);
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job)))).dimensions).toEqual([top]);
    expect(removeItems(job, ids).dimensions).toEqual([]);
    expect(placeDimension({ items: [], groups: [] }, top)).toBeNull();
  });

  test('an end takes hold of a line anywhere along it, else of the bed', () => {
    expect(endAt([plate], { x: 22.5, y: 20 })).toMatchObject({ kind: 'outline', itemId: plate.id });
    expect(endAt([plate], { x: 30, y: 35 })).toMatchObject({ kind: 'bounds', u: 0.5, v: 0.5 });
    expect(endAt([plate], { x: 0, y: 0 })).toEqual({ kind: 'point', x: 0, y: 0 });
  });

  test('is as far beside as the point it is drawn through', () => {
    const [from, to] = [
      { x: 0, y: 0 },
      { x: 30, y: 40 },
    ];
    for (const axis of ['straight', 'x', 'y'] as const) {
      const beside = besideAt(from, to, axis, { x: 12, y: -7 });
      const placed = placeDimension(
        { items: [], groups: [] },
        { from: { kind: 'point', ...from }, to: { kind: 'point', ...to }, axis, beside },
      );
      const { lineFrom: a, lineTo: b } = placed as NonNullable<typeof placed>;
      expect((b.x - a.x) * (-7 - a.y) - (b.y - a.y) * (12 - a.x)).toBeCloseTo(0, 6);
    }
  });
});
