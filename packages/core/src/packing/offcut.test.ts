import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import { firstRun } from '../document/run.ts';
import { sheetOutline } from '../document/sheet-outline.ts';
import { addRun } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { areaOf, intersectAreas, sizeOfArea } from '../geometry/areas/area.ts';
import { pathOfSubpaths, reversedSubpath, subpathsOf } from '../geometry/paths/segments.ts';
import { prepareJob } from '../plan/prepare.ts';
import { offcutsLeft } from './offcut.ts';

/** The sheet is 500 × 300 mm; cuts are without a kerf, so that what is left begins 0.1 mm beside them. */
const left = (items: readonly Item[], more: Parameters<typeof jobWith>[1] = {}) => {
  const job = jobWith(items, more);
  return offcutsLeft(prepareJob(job, shop), job.sheets[0]);
};
const areas = (parts: ReturnType<typeof left>) =>
  parts.map((part) => sizeOfArea(areaOf(sheetOutline(part), 'evenodd')));

describe('what is left of a sheet', () => {
  test('all of it, where nothing burnt', () => {
    expect(left([])).toEqual([{ width: 500, height: 300, outline: [expect.any(Array)] }]);
    expect(areas(left([]))).toEqual([150_000]);
  });

  test('less a piece with its hole, and a little around it', () => {
    const [offcut, ...others] = left([item(box(100, 100, 50), 'cut'), item(box(110, 110, 20), 'cut')]);
    expect(others).toEqual([]);
    expect([offcut.width, offcut.height]).toEqual([500, 300]);
    expect(offcut.outline).toHaveLength(2);
    expect(areas([offcut])[0]).toBeCloseTo(150_000 - 50.2 ** 2, 1);
  });

  test('less a piece with its hole, whichever way round that is drawn', () => {
    const [outer, inner] = [box(100, 100, 90), box(110, 110, 70)].map((path) => [...subpathsOf(path)]);
    for (const hole of [inner, inner.map(reversedSubpath)]) {
      const piece = item(pathOfSubpaths([...outer, ...hole]), 'cut');
      expect(areas(left([piece]))).toEqual([expect.closeTo(150_000 - 90.2 ** 2, 1)]);
    }
  });

  test('less the corner that was cut off: its outline is an L', () => {
    const [offcut] = left([item(box(-5, -5, 205, 105), 'cut')], {});
    expect(areas([offcut])[0]).toBeCloseTo(150_000 - 200.1 * 100.1, 1);
    expect(offcut.outline).toHaveLength(1);
    expect(offcut.outline[0]).toHaveLength(12);
  });

  test('in two parts, where a cut goes through, the larger first, each from its own top left', () => {
    const parts = left([item(line(200, -1, 200, 301), 'cut')]);
    expect(parts.map(({ width, height }) => [width, height])).toEqual([
      [299.9, 300],
      [199.9, 300],
    ]);
    for (const { outline } of parts) {
      expect(Math.min(...outline[0].filter((_, i) => i % 2 === 0))).toBe(0);
      expect(Math.min(...outline[0].filter((_, i) => i % 2 === 1))).toBe(0);
    }
  });

  test('what is narrower than 20 mm is no use', () => {
    expect(left([item(box(0, 0, 500, 281), 'cut')])).toEqual([]);
    expect(left([item(box(0, 0, 500, 279), 'cut')])).toHaveLength(1);
  });

  test('less what is marked beside the pieces, and what is blocked', () => {
    const sheet = jobWith([]).sheets[0];
    const blocked = [[0, 0, 20, 0, 20, 10, 0, 10]];
    const [offcut] = left([item(box(100, 100, 30), 'engrave')], { sheets: [{ ...sheet, blocked }] });
    expect(areas([offcut])[0]).toBeCloseTo(150_000 - 30.2 ** 2 - 200, 1);
  });

  test('less what any of the runs burns, and not what none does', () => {
    const [first, second] = [item(box(10, 10, 100), 'cut'), item(box(200, 10, 100), 'cut')];
    const job = jobWith([first, second]);
    const one = { ...job, runs: [{ ...firstRun, only: [first.id] }] };
    const both = addRun(one, { ...firstRun, id: 'run-2', only: [second.id] });
    const size = (of: typeof job) => areas(offcutsLeft(prepareJob(of, shop), of.sheets[0]))[0];
    expect(size(one)).toBeCloseTo(150_000 - 100.2 ** 2, 1);
    expect(size(both)).toBeCloseTo(150_000 - 2 * 100.2 ** 2, 1);
    expect(size({ ...job, runs: [{ ...firstRun, off: ['cut'] }] })).toBe(150_000);
  });

  test('never anything of a piece that burnt on it, however the sheet is turned', () => {
    const along = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
    fc.assert(
      fc.property(along(60, 380), along(60, 200), along(5, 60), along(-180, 180), (x, y, side, angle) => {
        const piece = item(box(x, y, side), 'cut');
        const sheet = { ...jobWith([]).sheets[0], angle };
        const parts = left([piece], { sheets: [sheet] });
        // In the frame of the sheet, a turn about its middle away: the areas add up.
        expect(areas(parts).reduce((sum, area) => sum + area, 0)).toBeLessThan(150_000 - side ** 2 + 0.5);
        expect(areas(parts).reduce((sum, area) => sum + area, 0)).toBeGreaterThan(
          150_000 - (side + 0.3) ** 2 - 400 * 300,
        );
        if (angle !== 0 || parts.length !== 1) return;
        const over = intersectAreas(areaOf(sheetOutline(parts[0]), 'evenodd'), areaOf(box(x, y, side), 'nonzero'));
        expect(sizeOfArea(over)).toBe(0);
      }),
      { numRuns: 40 },
    );
  });
});
