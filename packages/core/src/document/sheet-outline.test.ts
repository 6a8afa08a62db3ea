import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import { applyTo, invert } from '../geometry/paths/matrix.ts';
import { transformPath } from '../geometry/paths/path.ts';
import { jobFromJson, jobToJson } from './json.ts';
import { isOnSheet, type Sheet, sheetFrame, sheetHolds } from './sheet.ts';
import { ringsOf, sheetOutline, sheetVoids, sheetWithin } from './sheet-outline.ts';

/** An L: 100 × 100, without its upper right quarter; with a hole of 10 × 10 near its foot. */
const ell: Sheet = {
  ...{ id: 's', materialId: 'ply', x: 20, y: 30, width: 100, height: 100, margin: 0 },
  outline: [
    [0, 0, 50, 0, 50, 50, 100, 50, 100, 100, 0, 100],
    [20, 70, 30, 70, 30, 80, 20, 80],
  ],
};
/** A square in the frame of the L, as it lies on the bed. */
const square = (x: number, y: number, side: number, sheet = ell) =>
  item(transformPath(box(x, y, side), sheetFrame(sheet)), 'cut');

describe('a sheet with an outline', () => {
  test('holds what lies in it, and in none of its holes', () => {
    for (const angle of [0, 30, 180]) {
      const sheet = { ...ell, angle };
      const holds = (x: number, y: number, side: number, inset = 0) =>
        sheetHolds(sheet, square(x, y, side, sheet), inset, 0.005);
      expect(holds(5, 5, 40)).toBe(true);
      expect(holds(45, 5, 20)).toBe(false);
      expect(holds(60, 20, 10)).toBe(false);
      expect(holds(60, 60, 30)).toBe(true);
      expect(holds(25, 75, 20)).toBe(false);
      expect(holds(22, 72, 6)).toBe(false);
      // An edge along its edge is in it; one that is nearer than the margin is not.
      expect(holds(0, 0, 50)).toBe(true);
      expect(holds(5, 5, 40, 5)).toBe(true);
      expect(holds(5, 5, 40, 5.1)).toBe(false);
      expect(holds(31, 60, 10, 1)).toBe(true);
      expect(holds(31, 60, 10, 1.1)).toBe(false);
    }
  });

  test('a margin goes round the corner that points inwards: its diagonal is kept off by the margin', () => {
    // The corner at 50, 50 points inwards: at 45° from it, 10 mm away, something may lie with a margin of 10.
    const at = 50 - 10 / Math.SQRT2;
    expect(sheetHolds(ell, square(at - 1, 100 - at, 1), 9.98, 0.005)).toBe(true);
    expect(sheetHolds(ell, square(at - 1, 100 - at, 1), 10.02, 0.005)).toBe(false);
  });

  test('a point lies on it as its area says', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 99 }), (px, py) => {
        const [x, y] = [px + 0.5, py + 0.5];
        const inHole = x > 20 && x < 30 && y > 70 && y < 80;
        const place = applyTo(sheetFrame({ ...ell, angle: 40 }), x, y);
        expect(isOnSheet({ ...ell, angle: 40 }, place)).toBe((x < 50 || y > 50) && !inHole);
      }),
    );
  });

  test('its holes and its blocked places are where nothing burns', () => {
    const voids = sheetVoids({ ...ell, blocked: [[60, 60, 80, 60, 80, 70, 60, 70]] });
    expect(voids && sizeOfArea(voids)).toBeCloseTo(100 + 200, 6);
    expect(sheetVoids({ width: 10, height: 10 })).toBeNull();
    expect(sheetVoids({ ...ell, outline: [ell.outline?.[0] ?? []] })).toBeNull();
  });

  test('what lies within its margin: of a rectangle too, and nothing where the margin leaves none', () => {
    const size = (sheet: Parameters<typeof sheetWithin>[0], margin: number) =>
      sizeOfArea(areaOf(sheetWithin(sheet, margin), 'evenodd'));
    expect(size({ width: 100, height: 60 }, 10)).toBeCloseTo(80 * 40, 6);
    expect(size({ width: 100, height: 60 }, 30)).toBe(0);
    expect(size(ell, 60)).toBe(0);
    expect(size({ ...ell, outline: [[0, 0, 100, 0, 100, 100, 0, 100]] }, 5)).toBeCloseTo(90 * 90, 6);
  });

  test('is kept with its job, and refused where it is none', () => {
    const job = { ...jobWith([]), sheets: [{ ...ell, blocked: [[1, 1, 2, 1, 2, 2]] }] };
    const again = jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))));
    expect(again.sheets).toEqual(job.sheets);
    const withOutline = (outline: unknown) => ({
      ...(jobToJson(job) as object),
      sheets: [{ ...ell, outline }],
    });
    expect(() => jobFromJson(withOutline([[0, 0, 1, 1]]))).toThrow('three points or more');
    expect(() => jobFromJson(withOutline([new Array(100_002).fill(1)]))).toThrow('may have 50000 points');
  });

  test('what is drawn becomes rings that enclose the same, to the thousandth', () => {
    const drawn = transformPath(sheetOutline(ell), sheetFrame({ ...ell, angle: 20 }));
    const back = invert(sheetFrame({ ...ell, angle: 20 }));
    const rings = back && ringsOf(transformPath(drawn, back));
    expect(rings).toHaveLength(2);
    expect(rings && sizeOfArea(areaOf(sheetOutline({ ...ell, outline: rings }), 'evenodd'))).toBeCloseTo(7400, 1);
  });
});
