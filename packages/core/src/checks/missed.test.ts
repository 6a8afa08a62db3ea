import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { mended } from '../mends/mend.ts';
import { Move } from '../plan/moves.ts';
import { type BurnPlan, planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

function closed(...points: [number, number][]): Path {
  const builder = new PathBuilder();
  points.forEach(([x, y], i) => (i === 0 ? builder.moveTo(x, y) : builder.lineTo(x, y)));
  return builder.close().build();
}
const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const engraved = (lineSpacingMm: number, more = {}) => ({ settings: { engrave: { lineSpacingMm, ...more } } });

/** The lit moves of a plan, from left to right. */
function litOf(plan: BurnPlan): { from: number; to: number; y: number }[] {
  return plan.steps.flatMap(({ moves: { kinds, xs, ys } }) =>
    [...kinds].flatMap((kind, i) =>
      kind === Move.lit ? [{ from: Math.min(xs[i - 1], xs[i]), to: Math.max(xs[i - 1], xs[i]), y: ys[i] }] : [],
    ),
  );
}

function checked(job: ReturnType<typeof jobWith>) {
  const prepared = prepareJob(job, shop);
  const plan = planJob(prepared);
  return { plan, found: checkJob(prepared, plan).filter(({ code }) => code === 'missed-by-beam') };
}

describe('what lies between two scan lines', () => {
  test('is found just where no line is lit, and finer lines burn it', () => {
    const bar = fc.tuple(fc.integer({ min: 8, max: 40 }), fc.integer({ min: 0, max: 100 }));
    fc.assert(
      fc.property(fc.array(bar, { minLength: 1, maxLength: 20 }), fc.constantFrom(0.1, 0.25, 0.5), (bars, spacing) => {
        const items = bars.map(([thick, place], i) => item(box(30 + 5 * i, 50 + place / 7, 3, thick / 100), 'engrave'));
        const job = jobWith(items, engraved(spacing));
        const { plan, found } = checked(job);
        const lit = plan.steps.flatMap(({ moves: { kinds, xs, ys } }) =>
          [...kinds].flatMap((kind, i) => (kind === Move.lit ? [{ x: (xs[i - 1] + xs[i]) / 2, y: ys[i] }] : [])),
        );
        const without = bars.flatMap(([thick, place], i) => {
          const [left, top] = [30 + 5 * i, 50 + place / 7];
          const isLit = lit.some(
            ({ x, y }) => x > left && x < left + 3 && y > top - 0.001 && y < top + thick / 100 + 0.001,
          );
          return isLit ? [] : [items[i].id];
        });
        expect(found.flatMap(({ itemIds }) => itemIds)).toEqual(without);
        if (without.length === 0) return;
        // What is scored instead leaves others, and lines that lie otherwise.
        const others = (found[0].mends ?? []).filter(({ step }) => step.kind !== 'put on layer');
        for (const mend of others) expect(checked(mended(job, mend)).found).toEqual([]);
      }),
    );
  });

  test('is told with its size and its place, and may be scored instead', () => {
    const thin = item(box(60, 60.2, 5, 0.08), 'engrave');
    const job = jobWith([item(box(50, 50, 3, 20), 'engrave'), thin], engraved(0.25));
    const [found] = checked(job).found;
    expect(found).toMatchObject({ level: 'warns', itemIds: [thin.id], layerId: 'engrave' });
    expect(found.message).toBe(
      '1 thin part on Engrave lies between two scan lines and would not burn: the thinnest is 0.08 mm, and lines are 0.25 mm apart. Give each a line of its own, take finer lines, or score what is so thin.',
    );
    expect(found.places).toEqual([{ minX: 60, minY: 60.2, maxX: 65, maxY: expect.closeTo(60.28, 9) }]);
    expect(found.mends?.map(({ words }) => words)).toEqual(['A line through it', 'Lines of 0.08 mm', 'Score it']);
    const [, , score] = found.mends ?? [];
    const scored = checked(mended(job, score));
    expect(scored.found).toEqual([]);
    expect(scored.plan.steps.map(({ operation }) => operation)).toEqual(['engrave', 'score']);
  });

  test('is found under turned lines as well, where it lies on the bed', () => {
    const thin = item(box(60.2, 60, 0.08, 5), 'engrave');
    const job = jobWith([item(box(50, 50, 30, 3), 'engrave'), thin], engraved(0.25, { scanAngle: 90 }));
    const [found] = checked(job).found;
    expect(found.itemIds).toEqual([thin.id]);
    const [place] = found.places ?? [];
    expect([place.minX, place.maxX]).toEqual([expect.closeTo(60.2, 6), expect.closeTo(60.28, 6)]);
  });

  test('is found of a part of a letter as well, which a line of its own then burns from end to end', () => {
    // An E of 4 by 5 mm, its middle arm 0.1 mm thin between the lines at 50.125 + 0.25 k.
    const letter = item(
      closed(
        [50, 50],
        [54, 50],
        [54, 51],
        [51, 51],
        [51, 52.4],
        [54, 52.4],
        [54, 52.5],
        [51, 52.5],
        [51, 54],
        [54, 54],
        [54, 55],
        [50, 55],
      ),
      'engrave',
    );
    const job = jobWith([letter], engraved(0.25));
    const { found, plan } = checked(job);
    expect(found).toHaveLength(1);
    expect(found[0].places).toHaveLength(1);
    const [place] = found[0].places ?? [];
    expect([place.minY, place.maxY]).toEqual([expect.closeTo(52.4, 9), expect.closeTo(52.5, 9)]);
    expect([place.minX, place.maxX]).toEqual([expect.closeTo(51, 0), expect.closeTo(54, 0)]);
    expect(found[0].mends?.map(({ words }) => words)).toEqual(['A line through it', 'Lines of 0.10 mm']);
    const mend = found[0].mends?.[0];
    if (!mend) throw new Error('no mend');
    const after = checked(mended(job, mend));
    expect(after.found).toEqual([]);
    const own = litOf(after.plan).filter(({ y }) => y > 52.4 && y < 52.5);
    expect(own).toHaveLength(1);
    expect(own[0].y).toBeCloseTo(52.45, 9);
    expect(own[0].from).toBeGreaterThanOrEqual(50.5);
    expect(own[0].from).toBeLessThan(51.4);
    expect(own[0].to).toBeGreaterThan(53.6);
    expect(own[0].to).toBeLessThanOrEqual(54);
    expect(litOf(after.plan)).toHaveLength(litOf(plan).length + 1);
    expect(after.plan.timeS).toBeGreaterThan(plan.timeS);
  });

  test('lines through thin parts burn in them alone, wherever they lie and however they bend', () => {
    const wave = fc.tuple(
      fc.double({ min: 0.02, max: 0.09, noNaN: true }),
      fc.double({ min: 0, max: 0.3, noNaN: true }),
      fc.double({ min: 0, max: 6, noNaN: true }),
    );
    fc.assert(
      fc.property(wave, ([thick, high, phase]) => {
        const middle = (x: number) => 60 + high * Math.sin(x / 2 + phase);
        const along = Array.from({ length: 81 }, (_, i) => 60 + i / 4);
        const wavy = closed(
          ...along.map((x): [number, number] => [x, middle(x) - thick / 2]),
          ...along.toReversed().map((x): [number, number] => [x, middle(x) + thick / 2]),
        );
        const drawn = jobWith([item(box(50, 50, 3, 20), 'engrave'), item(wavy, 'engrave')], engraved(0.25));
        const job = setBurning(drawn, 'engrave', { thinParts: 'line' });
        const { plan, found } = checked(job);
        expect(found).toEqual([]);
        const own = litOf(plan).filter(({ from }) => from > 58);
        // From one column to the next, a line may leave the curve by as much as it rises there.
        for (const { from, to, y } of own) {
          for (const x of [from, (from + to) / 2, to]) expect(Math.abs(y - middle(x))).toBeLessThan(thick / 2 + 0.03);
        }
        const lit = own.reduce((sum, { from, to }) => sum + to - from, 0);
        expect(lit).toBeGreaterThan(0.5 * 20);
      }),
      { numRuns: 60 },
    );
  });

  test('a hole that is too low is none of it: all around it burns', () => {
    const hole = item(box(55, 60.2, 5, 0.05), 'engrave');
    expect(checked(jobWith([item(box(50, 50, 20), 'engrave'), hole], engraved(0.25))).found).toEqual([]);
  });

  test('finer lines are not offered where the machine does not hold them', () => {
    const job = jobWith([item(box(50, 50, 3, 20), 'engrave'), item(box(60, 60.2, 5, 0.03), 'engrave')], engraved(0.25));
    expect(checked(job).found[0].mends?.map(({ words }) => words)).toEqual(['A line through it', 'Score it']);
  });
});

describe('lines that come to no move', () => {
  test.each([0.2, 0.2005, 0.201])(
    'a round hole of %p mm under a kerf of 0.2 mm is said, whatever is left of it',
    (width) => {
      const plate: Item[] = [item(box(50, 50, 40), 'cut'), item(circle(70, 70, width / 2), 'cut')];
      const job = jobWith(plate, { settings: { cut: { kerfMm: 0.2 } } });
      const prepared = prepareJob(job, shop);
      const plan = planJob(prepared);
      const said = checkJob(prepared, plan).filter(({ code }) => code === 'missed-by-beam' || code === 'kerf-swallows');
      expect(said).toHaveLength(1);
      expect(said[0].itemIds).toEqual([plate[1].id]);
    },
  );
});
