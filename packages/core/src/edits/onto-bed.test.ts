import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOfAll } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { boxContains, boxOf } from '../geometry/paths/box.ts';
import { itemsOffBed, ontoBed, waysOntoBed } from './onto-bed.ts';

const bed = boxOf(0, 0, 400, 300);
const drawn = (x: number, y: number, width: number, height: number) => jobWith([item(box(x, y, width, height), 'cut')]);
const placed = (job: JobDocument | null) => {
  if (!job) return null;
  const { minX, minY, maxX, maxY } = boundsOfAll(job.drawing.items);
  return [minX, minY, maxX - minX, maxY - minY].map((mm) => Math.round(mm * 1000) / 1000);
};

test('what lies off a bed is found, but for what is hidden or parked', () => {
  const [on, off, hidden, parked] = [
    box(10, 10, 50, 50),
    box(380, 10, 50, 50),
    box(500, 0, 5, 5),
    box(500, 9, 5, 5),
  ].map((path) => item(path, 'cut'));
  const job = jobWith([on, off, { ...hidden, hidden: true }, { ...parked, parked: true }]);
  expect(itemsOffBed(job, bed)).toEqual([job.drawing.items[1]]);
  expect(itemsOffBed(drawn(0, 0, 400.004, 300), bed)).toEqual([]);
});

test('it is moved as little as it takes, centred, turned or made smaller, or does not fit so', () => {
  expect(placed(ontoBed(drawn(390, -20, 100, 50), bed, 5, 'move'))).toEqual([295, 5, 100, 50]);
  expect(placed(ontoBed(drawn(390, 100, 100, 50), bed, 5, 'centre'))).toEqual([150, 125, 100, 50]);
  // Too high as it is, and just right when it is turned.
  expect(placed(ontoBed(drawn(0, 0, 100, 390), bed, 5, 'move'))).toBeNull();
  expect(placed(ontoBed(drawn(0, 0, 100, 390), bed, 5, 'centre'))).toBeNull();
  expect(placed(ontoBed(drawn(0, 0, 100, 390), bed, 5, 'turn'))).toEqual([5, 100, 390, 100]);
  expect(placed(ontoBed(drawn(0, 0, 100, 391), bed, 5, 'turn'))).toBeNull();
  expect(placed(ontoBed(drawn(0, 0, 780, 100), bed, 5, 'scale'))).toEqual([5, 125, 390, 50]);
  // What fits is not made smaller.
  expect(ontoBed(drawn(0, 0, 390, 290), bed, 5, 'scale')).toBeNull();
  expect(ontoBed(jobWith([]), bed, 5, 'move')).toBeNull();
  expect(ontoBed(drawn(0, 0, 10, 10), bed, 150, 'move')).toBeNull();
});

test('whatever way it is brought, it lies on the bed within its margin', () => {
  const mm = (most: number) => fc.double({ min: 1, max: most, noNaN: true });
  fc.assert(
    fc.property(mm(800), mm(800), mm(800), mm(600), fc.constantFrom(...waysOntoBed), (x, y, width, height, way) => {
      const job = ontoBed(drawn(x, y, width, height), bed, 5, way);
      if (!job) return;
      expect(boxContains(boxOf(5, 5, 390, 290), boundsOfAll(job.drawing.items), 0.01)).toBe(true);
      expect(itemsOffBed(job, bed)).toEqual([]);
    }),
  );
});
