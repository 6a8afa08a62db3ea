import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { flatten, polylineLength, signedArea } from '../geometry/paths/flatten.ts';
import type { Path } from '../geometry/paths/path.ts';
import { lengthOf, subpathsOf } from '../geometry/paths/segments.ts';
import { combineItems, releaseCombinations } from './combination.ts';
import { moveItems, scaleItems } from './items.ts';
import { joinEnds } from './join-ends.ts';
import { keepWithin } from './keep-within.ts';
import { simplifyItems } from './refit-items.ts';
import { copyItems } from './repeat.ts';
import { extendTo, nearestPlace, replaceShape, splitAt, trimAt, turnToPoints } from './reshape.ts';

let made = 0;
const newId = () => `new-${++made}`;
const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const ids = (...items: Item[]) => new Set(items.map(({ id }) => id));
const length = (path: Path) =>
  [...subpathsOf(path)].flatMap(({ segments }) => segments).reduce((sum, s) => sum + lengthOf(s), 0);
const total = (job: JobDocument) => job.drawing.items.reduce((sum, one) => sum + length(pathOf(one)), 0);
const areaOf = (path: Path) => Math.abs(flatten(path, 1e-5).reduce((sum, one) => sum + signedArea(one), 0));
const trim = (job: JobDocument, one: Item, x: number, y: number) => {
  const place = nearestPlace(one, x, y);
  if (!place) throw new Error('nothing there');
  return trimAt(job, one.id, place, newId);
};

describe('trimming', () => {
  test('a line loses what lies between two others', () => {
    const rail = item(line(0, 0, 100, 0), 'cut');
    const job = jobWith([rail, item(line(30, -5, 30, 5), 'cut'), item(line(60, -5, 60, 5), 'cut')]);
    const left = trim(job, rail, 45, 0).drawing.items[0];
    expect([...subpathsOf(pathOf(left))].map(({ segments: [s] }) => [s[0], s[6]])).toEqual([
      [0, 30],
      [60, 100],
    ]);
    expect(length(pathOf(trim(job, rail, 10, 0).drawing.items[0]))).toBe(70);
  });

  test('a hole is opened to the edge of the part: the circle and the edge lose what is in each other', () => {
    const part = item(box(0, 0, 40, 20), 'cut');
    const hole = item(circle(40, 10, 3), 'cut');
    const job = jobWith([part, hole]);
    const once = trim(job, part, 40, 10);
    const twice = trim(once, hole, 43, 10);
    const [edge, arc] = twice.drawing.items;
    expect(length(pathOf(edge))).toBeCloseTo(120 - 6, 4);
    expect(length(pathOf(arc))).toBeCloseTo(3 * Math.PI, 4);
    const joined = joinEnds(twice, ids(edge, arc), 0.01);
    expect(joined.report).toMatchObject({ joined: 2, open: [] });
    expect(joined.job.drawing.items).toHaveLength(1);
    expect(areaOf(pathOf(joined.job.drawing.items[0]))).toBeCloseTo(800 - (9 * Math.PI) / 2, 3);
  });

  test('what nothing crosses goes whole', () => {
    const alone = item(circle(10, 10, 5), 'cut');
    expect(trim(jobWith([alone]), alone, 15, 10).drawing.items).toEqual([]);
  });

  test('trim and what was trimmed are the whole', () => {
    const numbers = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(numbers, numbers, numbers, fc.double({ min: 0, max: 360, noNaN: true }), (x, y, x2, turn) => {
        const ring = item(circle(0, 0, 20), 'cut');
        const job = jobWith([ring, item(line(x, y - 40, x2, y + 40), 'cut'), item(box(x - 9, x2 - 9, 18), 'cut')]);
        const at = { x: 20 * Math.cos(turn), y: 20 * Math.sin(turn) };
        const rest = trim(job, ring, at.x, at.y).drawing.items.find(({ id }) => id === ring.id);
        const lost = length(pathOf(ring)) - (rest ? length(pathOf(rest)) : 0);
        expect(lost).toBeGreaterThan(0);
        if (!rest) return;
        // What is left ends where something else crosses, and nothing of it was at the place.
        expect(nearestPlace(rest, at.x, at.y)?.distance ?? 0).toBeGreaterThan(0);
        expect(lost).toBeLessThan(length(pathOf(ring)));
      }),
      { numRuns: 80 },
    );
  });
});

describe('splitting, extending, joining', () => {
  test('an open line becomes two, a closed one opens; nothing is lost', () => {
    const rail = item(line(0, 0, 100, 0), 'cut');
    const split = splitAt(jobWith([rail]), rail.id, { subpath: 0, at: 0.25, distance: 0 }, newId);
    expect(split.drawing.items.map((one) => length(pathOf(one)))).toEqual([25, 75]);
    const square = item(box(0, 0, 10), 'cut');
    const opened = splitAt(jobWith([square]), square.id, { subpath: 0, at: 1.5, distance: 0 }, newId);
    expect([...subpathsOf(pathOf(opened.drawing.items[0]))].map(({ closed }) => closed)).toEqual([false]);
    expect(total(opened)).toBeCloseTo(40, 9);
  });

  test('a line goes on to the next it meets; an arc goes on around', () => {
    const rail = item(line(0, 0, 10, 0), 'cut');
    const wall = item(line(25, -5, 25, 5), 'cut');
    const job = jobWith([rail, wall]);
    expect(pathOf(extendTo(job, rail.id, { subpath: 0, at: 0.9, distance: 0 }, newId).drawing.items[0]).coords).toEqual(
      Float64Array.of(0, 0, 25, 0),
    );
    expect(extendTo(job, rail.id, { subpath: 0, at: 0.1, distance: 0 }, newId)).toBe(job);
    const arc = item(outlineOf({ kind: 'arc', cx: 0, cy: 0, radius: 10, from: -90, sweep: 45 }), 'cut');
    const ground = item(line(-20, 0, 20, 0), 'cut');
    const longer = extendTo(jobWith([arc, ground]), arc.id, { subpath: 0, at: 0.9, distance: 0 }, newId);
    expect(length(pathOf(longer.drawing.items[0]))).toBeCloseTo(5 * Math.PI, 3);
  });

  test('ends that nearly meet are joined, and those too far apart are told of', () => {
    const pieces = [line(0, 0, 10, 0), line(10.1, 0, 10, 10), line(10, 10.1, 0, 10), line(0, 10, 0, 2)].map((path) =>
      item(path, 'cut'),
    );
    const job = jobWith(pieces);
    const { job: done, report } = joinEnds(job, ids(...pieces), 0.2);
    expect(report.joined).toBe(3);
    expect(report.widest).toBeCloseTo(0.1, 9);
    expect(report.open.map(({ gap }) => gap)).toEqual([2, 2]);
    expect(done.drawing.items).toHaveLength(1);
    expect(joinEnds(job, ids(...pieces), 0.01).report.joined).toBe(1);
  });

  test('any polygon taken apart is joined to the same again', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 50, noNaN: true }), { minLength: 3, maxLength: 9 }),
        fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }),
        (radii, flips) => {
          const points = radii.map((r, i) => {
            const angle = (i * 2 * Math.PI) / radii.length;
            return [r * Math.cos(angle), r * Math.sin(angle)];
          });
          const edges = points.map(([x, y], i) => {
            const [x2, y2] = points[(i + 1) % points.length];
            return item(flips[i] ? line(x2, y2, x, y) : line(x, y, x2, y2), 'cut');
          });
          const { job, report } = joinEnds(jobWith(edges), ids(...edges), 0.001);
          expect(report.joined).toBe(points.length);
          const whole = flatten(pathOf(job.drawing.items[0]));
          expect(job.drawing.items).toHaveLength(1);
          expect(whole.map(({ closed }) => closed)).toEqual([true]);
          expect(polylineLength(whole[0])).toBeCloseTo(
            edges.reduce((sum, e) => sum + length(pathOf(e)), 0),
            6,
          );
        },
      ),
    );
  });
});

test('keeping inside and keeping outside share the line between them', () => {
  const rail = item(circle(0, 0, 10), 'cut');
  const square = box(0, -20, 40);
  const job = jobWith([rail]);
  const inside = keepWithin(job, ids(rail), square, 'inside');
  const outside = keepWithin(job, ids(rail), square, 'outside');
  expect(total(inside)).toBeCloseTo(10 * Math.PI, 3);
  expect(total(inside) + total(outside)).toBeCloseTo(total(job), 6);
  const plate = item(box(-10, -10, 20), 'engrave');
  const half = keepWithin(jobWith([plate]), ids(plate), square, 'inside').drawing.items[0];
  expect(areaOf(pathOf(half))).toBeCloseTo(200, 6);
  expect(keepWithin(job, ids(rail), box(100, 100, 5), 'inside').drawing.items).toEqual([]);
  expect(keepWithin(job, ids(rail), box(100, 100, 5), 'outside').drawing.items[0]).toBe(rail);
});

describe('combinations', () => {
  const plate = item(box(0, 0, 40, 20), 'cut');
  const hole = item(circle(20, 10, 5), 'cut');
  const job = jobWith([plate, hole]);
  const combined = combineItems(job, ids(plate, hole), 'subtract', 'c');

  test('show what is left, move as one, and give their parts back', () => {
    const [one] = combined.drawing.items;
    expect(combined.drawing.items).toHaveLength(1);
    expect(areaOf(pathOf(one))).toBeCloseTo(800 - 25 * Math.PI, 2);
    const moved = moveItems(combined, new Set(['c']), 5, 6);
    const released = releaseCombinations(moved, new Set(['c']), newId);
    expect(released.drawing.items.map((part) => boundsOf(part).minX)).toEqual([5, expect.closeTo(20, 6)]);
    expect(combineItems(job, ids(plate), 'unite', 'c')).toBe(job);
  });

  test('are plain outlines once turned to points', () => {
    const [one] = turnToPoints(combined, new Set(['c'])).drawing.items;
    expect(one.shape.kind).toBe('path');
    expect(areaOf(pathOf(one))).toBeCloseTo(800 - 25 * Math.PI, 2);
  });
});

test('a shape keeps its numbers through scaling, and linked copies change together', () => {
  const plate = item(box(0, 0, 1), 'cut', {
    shape: { kind: 'rectangle', x: 0, y: 0, width: 40, height: 20, rx: 2, ry: 2 },
  });
  const job = scaleItems(jobWith([plate]), ids(plate), 2, 1.5, { x: 0, y: 0 });
  expect(job.drawing.items[0].shape).toEqual({ kind: 'rectangle', x: 0, y: 0, width: 80, height: 30, rx: 4, ry: 3 });
  const { job: copied, copies } = copyItems(job, ids(plate), [[1, 0, 0, 1, 100, 0]], newId, 'all');
  const changed = replaceShape(copied, plate.id, [{ kind: 'ellipse', cx: 5, cy: 5, rx: 5, ry: 5 }], newId);
  const copy = changed.drawing.items.find(({ id }) => id === copies[0][0]) as Item;
  expect([boxWidth(boundsOf(copy)), boxHeight(boundsOf(copy)), boundsOf(copy).minX].map((n) => n.toFixed(3))).toEqual([
    '10.000',
    '10.000',
    '100.000',
  ]);
});

test('simplifying keeps within its tolerance and says how many nodes there were', () => {
  const points: number[] = [];
  for (let i = 0; i < 400; i++) points.push(30 * Math.cos(i / 64), 30 * Math.sin(i / 64));
  const wavy = item(line(...points), 'score');
  const { job, before, after } = simplifyItems(jobWith([wavy]), ids(wavy), 0.05);
  expect(before).toBe(400);
  expect(after).toBeLessThan(30);
  for (const [x, y] of [
    [30, 0],
    [30 * Math.cos(3), 30 * Math.sin(3)],
  ]) {
    expect(nearestPlace(job.drawing.items[0], x, y)?.distance).toBeLessThan(0.05);
  }
  for (let i = 0; i < points.length; i += 14) {
    expect(nearestPlace(job.drawing.items[0], points[i], points[i + 1])?.distance).toBeLessThan(0.05);
  }
});
