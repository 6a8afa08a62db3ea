import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { placeTabs, setBurning, setStart } from '../edits/layers.ts';
import { tabPoints, usualTabs } from '../fit/tabs.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { Move } from './moves.ts';
import { type BurnPlan, planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

/** The lit moves of a plan's cuts, as segments. */
function litOf(plan: BurnPlan) {
  return plan.steps.flatMap(({ moves: { kinds, xs, ys } }) =>
    [...kinds].flatMap((kind, i) =>
      kind === Move.lit ? [{ ax: xs[i - 1], ay: ys[i - 1], bx: xs[i], by: ys[i] }] : [],
    ),
  );
}
type Lit = ReturnType<typeof litOf>[number];

const planOf = (job: JobDocument) => planJob(prepareJob(job, shop));
const lengthOf = ({ ax, ay, bx, by }: Lit) => Math.hypot(bx - ax, by - ay);
const litMm = (plan: BurnPlan) => litOf(plan).reduce((sum, lit) => sum + lengthOf(lit), 0);

/** How near the lit moves come to a place, in mm. */
function distanceTo(lit: readonly Lit[], x: number, y: number): number {
  return Math.min(
    ...lit.map(({ ax, ay, bx, by }) => {
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
      return Math.hypot(ax + t * dx - x, ay + t * dy - y);
    }),
  );
}

describe('where tabs lie', () => {
  test('on a square in the middles of its sides, on a circle evenly', () => {
    const square = item(box(50, 50, 40), 'cut');
    expect(tabPoints(square, 0, usualTabs(square, 0, 4))).toEqual([
      { x: 70, y: 50 },
      { x: 90, y: 70 },
      { x: 70, y: 90 },
      { x: 50, y: 70 },
    ]);
    const round = item(outlineOf({ kind: 'ellipse', cx: 100, cy: 100, rx: 20, ry: 20 }), 'cut');
    const [a, b, c] = tabPoints(round, 0, usualTabs(round, 0, 3));
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ]) {
      expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeCloseTo(20 * Math.sqrt(3), 1);
    }
    expect(usualTabs(item(line(0, 0, 10, 0), 'cut'), 0, 4)).toEqual([]);
  });

  test('never at a corner, however many sides and tabs', () => {
    const shape = fc.record({ sides: fc.integer({ min: 3, max: 9 }), count: fc.integer({ min: 1, max: 6 }) });
    fc.assert(
      fc.property(shape, ({ sides, count }) => {
        const path = outlineOf({ kind: 'polygon', cx: 100, cy: 100, radius: 60, sides, inner: null, turn: 0 });
        const places = usualTabs(item(path, 'cut'), 0, count);
        expect(places).toHaveLength(count);
        for (const at of places) expect(Math.abs(at - Math.round(at))).toBeGreaterThan(0.01);
      }),
    );
  });
});

describe('a cut with tabs', () => {
  const held = (kerfMm: number, tabs: number, tabWidthMm = 0.6, more = {}) => ({
    settings: { cut: { kerfMm, tabs, tabWidthMm, ...more } },
  });

  test('leaves each tab as wide as is asked, whatever its start, its way round, its passes and its kerf', () => {
    const wish = fc.record({
      kerf: fc.constantFrom(0, 0.1, 0.25),
      tabs: fc.integer({ min: 1, max: 7 }),
      width: fc.constantFrom(0.3, 0.6, 1.5),
      passes: fc.integer({ min: 1, max: 3 }),
      direction: fc.constantFrom('either' as const, 'clockwise' as const, 'anticlockwise' as const),
      start: fc.double({ min: 0, max: 3.99, noNaN: true }),
    });
    const square = item(box(50, 50, 40, 30), 'cut');
    fc.assert(
      fc.property(wish, ({ kerf, tabs, width, passes, direction, start }) => {
        const plain = jobWith([square], { settings: { cut: { kerfMm: kerf, passes } } });
        const job = setStart(setBurning(jobWith([square], held(kerf, tabs, width, { passes })), 'cut', { direction }), {
          itemId: square.id,
          subpath: 0,
          at: start,
        });
        const plan = planOf(job);
        const lit = litOf(plan);
        for (const { x, y } of tabPoints(square, 0, usualTabs(square, 0, tabs))) {
          // From the drawn edge it is half the kerf to the path, and half of tab and kerf along that to where it is lit.
          const expected = Math.hypot(kerf / 2, (width + kerf) / 2);
          expect(distanceTo(lit, x, y)).toBeCloseTo(expected, 2);
        }
        expect(litMm(plan)).toBeCloseTo(litMm(planOf(plain)) - passes * tabs * (width + kerf), 1);
      }),
      { numRuns: 60 },
    );
  });

  test('takes as long as the head does, and stands again behind each tab to go through', () => {
    const square = item(box(50, 50, 40), 'cut');
    const waits = (tabs: number) => {
      const plan = planOf(jobWith([square], held(0, tabs, 0.6, { pierceS: 0.5 })));
      return plan.steps.flatMap(({ moves }) => [...moves.kinds].filter((kind) => kind === Move.wait)).length;
    };
    expect([waits(0), waits(1), waits(4)]).toEqual([1, 2, 5]);
    const timed = planOf(jobWith([square], held(0, 4, 0.6, { pierceS: 0.5 })));
    const untimed = planOf(jobWith([square], held(0, 4)));
    expect(timed.timeS - untimed.timeS).toBeGreaterThan(2.5);
  });

  test('goes by tabs that were placed by hand, and by none where they were taken away', () => {
    const [moved, bare, usual] = [box(50, 50, 40), box(120, 50, 40), box(190, 50, 40)].map((path) => item(path, 'cut'));
    const job = placeTabs(jobWith([moved, bare, usual], held(0, 4)), [
      { itemId: moved.id, subpath: 0, at: [0.25] },
      { itemId: bare.id, subpath: 0, at: [] },
    ]);
    const lit = litOf(planOf(job));
    expect(distanceTo(lit, 60, 50)).toBeCloseTo(0.3, 3);
    expect(distanceTo(lit, 70, 50)).toBeCloseTo(0, 3);
    expect(distanceTo(lit, 140, 50)).toBeCloseTo(0, 3);
    expect(distanceTo(lit, 210, 50)).toBeCloseTo(0.3, 3);
  });

  test('keeps half of a small outline to cut, and open lines whole', () => {
    const small = item(box(50, 50, 1), 'cut');
    const plan = planOf(jobWith([small, item(line(60, 60, 90, 60), 'cut')], held(0, 8, 0.6)));
    const [, , open] = [0, 0, litOf(plan).filter(({ ay }) => ay === 60)];
    expect(open.reduce((sum, lit) => sum + lengthOf(lit), 0)).toBeCloseTo(30, 6);
    expect(litMm(plan) - 30).toBeCloseTo(4 - 3 * 0.6, 2);
  });

  test('tabs that meet are one, around the beginning as well, and none left out leaves all unlit', () => {
    const square = item(box(50, 50, 10), 'cut');
    const at = (places: number[], width: number) =>
      planOf(placeTabs(jobWith([square], held(0, 0, width)), [{ itemId: square.id, subpath: 0, at: places }]));
    expect(litMm(at([0.02, 0.04, 3.98], 0.6))).toBeCloseTo(40 - 1.2, 2);
    const all = at([0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5], 6);
    expect(all.steps).toEqual([]);
    expect(all.missed).toHaveLength(1);
  });
});
