import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { areaOf, sizeOfArea } from '../geometry/areas/area.ts';
import { multiply, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { cropPictures, croppedPicture, uncropPictures } from './crop.ts';
import { keepWithin } from './keep-within.ts';

/** 40 × 30 pixels of half a mm, turned by a quarter: from x 35 to 50, and y 60 to 80. */
const picture = item(box(0, 0, 1), null, {
  shape: { kind: 'picture', pictureId: 'p', width: 40, height: 30 },
  matrix: multiply(translation(50, 60), multiply(rotation(90), scaling(0.5, 0.5))),
});
const circle = outlineOf({ kind: 'ellipse', cx: 42, cy: 70, rx: 5, ry: 5 });
const ids = new Set([picture.id]);
const sizeOf = (entry: Item | null) => (entry ? sizeOfArea(areaOf(pathOf(entry), 'nonzero')) : 0);
const numbers = (entry: Item | null) => {
  const { minX, minY, maxX, maxY } = boundsOf(entry as Item);
  return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1000) / 1000);
};

describe('a picture that is cropped', () => {
  test('has the outline and the bounds of what is left, wherever it lies', () => {
    const cropped = croppedPicture(picture, circle);
    expect(numbers(cropped)).toEqual([37, 65, 47, 75]);
    expect(sizeOf(cropped)).toBeCloseTo(Math.PI * 25, 0);
    const over = croppedPicture(picture, box(30, 55, 10));
    expect(numbers(over)).toEqual([35, 60, 40, 65]);
  });

  test('is cropped further, and brought back whole', () => {
    const twice = croppedPicture(croppedPicture(picture, circle) as Item, box(42, 60, 20));
    expect(numbers(twice)).toEqual([42, 65, 47, 75]);
    const job = cropPictures(jobWith([picture]), ids, circle);
    const [kept] = jobFromJson(JSON.parse(JSON.stringify(jobToJson(job)))).drawing.items;
    expect(numbers(kept)).toEqual([37, 65, 47, 75]);
    expect(uncropPictures(job, ids).drawing.items).toEqual([picture]);
  });

  test('stays as it is where all of it or nothing of it lies in the outline', () => {
    expect(croppedPicture(picture, box(0, 0, 200))).toBe(picture);
    expect(croppedPicture(picture, box(0, 0, 10))).toBeNull();
    const job = jobWith([picture]);
    expect(cropPictures(job, ids, box(0, 0, 10)).drawing.items).toEqual([picture]);
  });

  test('keeps what lies outside an outline, and is gone where nothing does', () => {
    const ring = keepWithin(jobWith([picture]), ids, circle, 'outside').drawing.items;
    expect(sizeOf(ring[0])).toBeCloseTo(300 - Math.PI * 25, 0);
    expect(numbers(ring[0])).toEqual([35, 60, 50, 80]);
    expect(keepWithin(jobWith([picture]), ids, box(0, 0, 200), 'outside').drawing.items).toEqual([]);
  });
});
