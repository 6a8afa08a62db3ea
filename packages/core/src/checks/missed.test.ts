import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { mended } from '../mends/mend.ts';
import { Move } from '../plan/moves.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const engraved = (lineSpacingMm: number, more = {}) => ({ settings: { engrave: { lineSpacingMm, ...more } } });

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
        const [finer] = found[0].mends ?? [];
        if (finer) expect(checked(mended(job, finer)).found).toEqual([]);
      }),
    );
  });

  test('is told with its size and its place, and may be scored instead', () => {
    const thin = item(box(60, 60.2, 5, 0.08), 'engrave');
    const job = jobWith([item(box(50, 50, 3, 20), 'engrave'), thin], engraved(0.25));
    const [found] = checked(job).found;
    expect(found).toMatchObject({ level: 'warns', itemIds: [thin.id], layerId: 'engrave' });
    expect(found.message).toBe(
      '1 shape on Engrave lies between two scan lines and would not burn: the thinnest is 0.08 mm, and lines are 0.25 mm apart. Take finer lines, or score what is so thin.',
    );
    expect(found.places).toEqual([{ minX: 60, minY: 60.2, maxX: 65, maxY: expect.closeTo(60.28, 9) }]);
    expect(found.mends?.map(({ words }) => words)).toEqual(['Lines of 0.08 mm', 'Score it']);
    const [, score] = found.mends ?? [];
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

  test('a hole that is too low is none of it: all around it burns', () => {
    const hole = item(box(55, 60.2, 5, 0.05), 'engrave');
    expect(checked(jobWith([item(box(50, 50, 20), 'engrave'), hole], engraved(0.25))).found).toEqual([]);
  });

  test('finer lines are not offered where the machine does not hold them', () => {
    const job = jobWith([item(box(50, 50, 3, 20), 'engrave'), item(box(60, 60.2, 5, 0.03), 'engrave')], engraved(0.25));
    expect(checked(job).found[0].mends?.map(({ words }) => words)).toEqual(['Score it']);
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
