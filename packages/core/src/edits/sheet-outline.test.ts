import { describe, expect, test } from '@jest/globals';
import { type Sheet, sheetFrame } from '../document/sheet.ts';
import { sheetOutline } from '../document/sheet-outline.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { areaOf, sizeOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { blockPlaces, outlineSheet, outlinesAmong, straightenSheet, unblockPlaces } from './sheet-outline.ts';

const around = item(box(100, 50, 80, 40), 'cut');
const hole = item(box(120, 60, 10), 'cut');
const open = item(line(0, 0, 50, 0), 'cut');
const job = jobWith([around, hole, open]);
const ids = new Set(job.drawing.items.map(({ id }) => id));
const onBed = (sheet: Sheet): Path => transformPath(sheetOutline(sheet), sheetFrame(sheet));
const areaOfSheet = (sheet: Sheet) => areaOf(onBed(sheet), 'evenodd');

describe('the outline of a sheet', () => {
  test.each([0, 25, -90])('is where it was drawn, with its holes, on a sheet turned by %d°', (angle) => {
    const turned = { ...job, sheets: [{ ...job.sheets[0], angle }] };
    const shaped = outlineSheet(turned, 's', ids);
    expect(shaped.drawing.items.map(({ id }) => id)).toEqual([open.id]);
    const area = areaOfSheet(shaped.sheets[0]);
    expect(sizeOfArea(area)).toBeCloseTo(80 * 40 - 100, 0);
    expect(sizeOfArea(subtractAreas(area, areaOf(box(99.99, 49.99, 80.02, 40.02), 'nonzero')))).toBe(0);
    expect(sizeOfArea(subtractAreas(area, areaOf(box(120.01, 60.01, 9.98), 'nonzero')))).toBeCloseTo(
      sizeOfArea(area),
      1,
    );
  });

  test('is taken from closed outlines alone; without any, nothing is changed', () => {
    expect(outlinesAmong(job, ids).map(({ id }) => id)).toEqual([around.id, hole.id]);
    expect(outlineSheet(job, 's', new Set([open.id]))).toBe(job);
    expect(outlineSheet(job, 'gone', ids)).toBe(job);
  });

  test('goes again: the sheet is a rectangle of that size', () => {
    const straight = straightenSheet(outlineSheet(job, 's', ids), 's');
    expect(straight.sheets[0]).toEqual({ ...job.sheets[0], x: 100, y: 50, width: 80, height: 40 });
    expect(straightenSheet(job, 's')).toBe(job);
  });
});

describe('blocked places', () => {
  test('are added to those there are, stay where they are when the sheet is given an outline, and go again', () => {
    const once = blockPlaces(job, 's', new Set([hole.id]));
    expect(once.drawing.items.map(({ id }) => id)).toEqual([around.id, open.id]);
    const twice = outlineSheet(once, 's', new Set([around.id]));
    const [sheet] = twice.sheets;
    const blocked = areaOf(
      transformPath(sheetOutline({ ...sheet, outline: sheet.blocked }), sheetFrame(sheet)),
      'evenodd',
    );
    expect(blocked.bounds).toEqual({ minX: 120, minY: 60, maxX: 130, maxY: 70 });
    const more = blockPlaces(jobWith([around], { sheets: once.sheets }), 's', new Set([around.id]));
    expect(more.sheets[0].blocked).toHaveLength(2);
    expect(unblockPlaces(more, 's').sheets[0]).toEqual(job.sheets[0]);
    expect(unblockPlaces(job, 's')).toBe(job);
  });
});
