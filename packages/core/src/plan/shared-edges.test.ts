import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { Move } from './moves.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const once = (items: readonly Item[], more = {}) => setBurning(jobWith(items, more), 'cut', { sharedEdges: 'once' });
const planOf = (job: JobDocument) => planJob(prepareJob(job, shop));
const litMm = (job: JobDocument) => planOf(job).steps.reduce((sum, step) => sum + step.litMm, 0);

/** How often the lit moves go over a place that lies on a level or upright line. */
function timesBurnt(job: JobDocument, x: number, y: number): number {
  return planOf(job).steps.flatMap(({ moves: { kinds, xs, ys } }) =>
    [...kinds].filter((kind, i) => {
      if (kind !== Move.lit) return false;
      const [ax, bx] = [xs[i - 1], xs[i]].sort((a, b) => a - b);
      const [ay, by] = [ys[i - 1], ys[i]].sort((a, b) => a - b);
      return ax <= x + 0.002 && bx >= x - 0.002 && ay <= y + 0.002 && by >= y - 0.002;
    }),
  ).length;
}

describe('edges that parts share are cut once', () => {
  const grid = (columns: number, rows: number, size: number) =>
    Array.from({ length: columns * rows }, (_, i) =>
      item(box(20 + size * (i % columns), 20 + size * Math.floor(i / columns), size), 'cut'),
    );

  test('in a grid of squares, each edge of it once and none left out, in any order', () => {
    const wish = fc.record({
      columns: fc.integer({ min: 1, max: 4 }),
      rows: fc.integer({ min: 1, max: 4 }),
      size: fc.constantFrom(7, 10.3, 20),
      order: fc.constantFrom('inside-first' as const, 'nearest' as const, 'parts' as const, 'as-drawn' as const),
    });
    fc.assert(
      fc.property(wish, ({ columns, rows, size, order }) => {
        const squares = grid(columns, rows, size);
        const job = setBurning(once(squares), 'cut', { order });
        expect(litMm(job)).toBeCloseTo(size * (columns * (rows + 1) + rows * (columns + 1)), 1);
        for (let i = 0; i < columns * rows; i++) {
          const [x, y] = [20 + size * (i % columns), 20 + size * Math.floor(i / columns)];
          for (const [px, py] of [
            [x + size / 2, y],
            [x, y + size / 2],
            [x + size, y + size / 2],
            [x + size / 2, y + size],
          ])
            expect(timesBurnt(job, px, py)).toBe(1);
        }
      }),
      { numRuns: 30 },
    );
  });

  test('takes little more than half the time of a hundred squares', () => {
    const squares = grid(10, 10, 25);
    const [each, together] = [jobWith(squares), once(squares)].map((job) => planOf(job).timeS);
    expect(together / each).toBeLessThan(0.6);
  });

  test('edges that lie on each other in part are burnt in part', () => {
    const job = once([item(box(20, 20, 40), 'cut'), item(box(60, 35, 10), 'cut')]);
    expect(litMm(job)).toBeCloseTo(160 + 30, 2);
    expect([timesBurnt(job, 60, 25), timesBurnt(job, 60, 40), timesBurnt(job, 70, 40)]).toEqual([1, 1, 1]);
  });

  test('parts that stand the kerf apart share the path of the beam', () => {
    const pair = (gap: number) => [item(box(20, 20, 30), 'cut'), item(box(50 + gap, 20, 30), 'cut')];
    const kerf = { settings: { cut: { kerfMm: 0.2 } } };
    const [each, shared] = [jobWith(pair(0.2), kerf), once(pair(0.2), kerf)].map(litMm);
    // The edge, and as much of the round corners at its ends as lies within the beam.
    expect(each - shared).toBeGreaterThan(29.9);
    expect(each - shared).toBeLessThan(30.2);
    expect(litMm(once(pair(0.5), kerf))).toBeCloseTo(each, 3);
  });

  test('lines apart, curves, open lines and outlines with tabs stay as they are', () => {
    const items = [
      item(outlineOf({ kind: 'ellipse', cx: 60, cy: 60, rx: 20, ry: 10 }), 'cut'),
      item(line(100, 20, 130, 20, 130, 50), 'cut'),
      item(box(150, 20, 20), 'cut'),
    ];
    expect(planOf(once(items)).steps.map(({ moves }) => moves)).toEqual(
      planOf(jobWith(items)).steps.map(({ moves }) => moves),
    );
    const held = { settings: { cut: { tabs: 2 } } };
    expect(litMm(once(grid(2, 1, 20), held))).toBeCloseTo(litMm(jobWith(grid(2, 1, 20), held)), 6);
    const along = once([item(box(20, 20, 40), 'cut'), item(line(20, 60, 60, 60, 80, 60), 'cut')]);
    expect(litMm(along)).toBeCloseTo(160 + 20, 2);
  });

  test('a double is burnt once', () => {
    expect(litMm(once([item(box(20, 20, 40), 'cut'), item(box(20, 20, 40), 'cut')]))).toBeCloseTo(160, 6);
  });
});
