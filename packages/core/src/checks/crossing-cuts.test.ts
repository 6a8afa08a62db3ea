import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Item, pathOf, polylinesOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { changeSetting } from '../edits/items.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { areaOf, excludeAreas, sizeOfArea, subtractAreas, uniteAreas } from '../geometry/areas/area.ts';
import { polylineLength } from '../geometry/paths/flatten.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const crossings = (job: JobDocument) => {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'cuts-cross');
};
const job = (items: readonly Item[], kerfMm = 0.4) => changeSetting(jobWith(items), 'cut', 'kerfMm', kerfMm);
const area = (one: Item) => areaOf(pathOf(one), 'evenodd');
const size = (now: JobDocument) => now.drawing.items.map((one) => Math.round(sizeOfArea(area(one)) * 1000) / 1000);
const mend = (now: JobDocument, words: string) => {
  const found = crossings(now)[0].mends?.find((known) => known.words === words);
  if (!found) throw new Error(`“${words}” is not offered`);
  return mended(now, found);
};

describe('cut outlines that cross', () => {
  /** A slot of 6.35 mm from within a piece over its right edge. */
  const slotOver = () => [item(box(20, 20, 60, 40), 'cut'), item(box(50, 30, 50, 6.35), 'cut')];
  test('block where the kerf moves them, with their places and how many pieces come loose', () => {
    const [found, ...more] = crossings(job(slotOver()));
    expect(more).toEqual([]);
    expect(found).toMatchObject({ level: 'blocks' });
    expect(found.message).toContain('2 cut outlines cross. 3 pieces come loose');
    expect(found.places).toHaveLength(2);
    expect(crossings(job(slotOver(), 0))[0].level).toBe('warns');
  });
  test('one is taken out of the other: the slot is as wide as drawn, and nothing is found any more', () => {
    for (const items of [slotOver(), slotOver().reverse()]) {
      const after = mend(job(items), 'Take the smaller out of the larger');
      expect(size(after)).toEqual([60 * 40 - 30 * 6.35]);
      expect(crossings(after)).toEqual([]);
    }
  });
  test('they are united, or the smaller is trimmed to its line within', () => {
    expect(size(mend(job(slotOver()), 'Unite them'))).toEqual([60 * 40 + 20 * 6.35]);
    const trimmed = mend(job(slotOver()), 'Trim the smaller');
    const [, slot] = trimmed.drawing.items;
    expect(polylinesOf(slot).map(({ closed }) => closed)).toEqual([false]);
    // Each end reaches 0.005 mm over the edge, so that it meets it.
    const length = polylinesOf(slot).reduce((sum, one) => sum + polylineLength(one), 0);
    expect(Math.abs(length - (30 + 6.35 + 30))).toBeLessThan(0.011);
    expect(crossings(trimmed)).toEqual([]);
  });
  test('of several that cross in a row there is one finding, and all unite', () => {
    const chain = [0, 30, 60].map((x) => item(box(20 + x, 20, 40), 'cut'));
    const [found, ...more] = crossings(
      job([...chain, ...slotOver().map((one) => ({ ...one, matrix: [1, 0, 0, 1, 200, 100] as const }))]),
    );
    expect(found.itemIds).toEqual(chain.map(({ id }) => id));
    expect(found.mends?.map(({ words }) => words)).toEqual(['Unite the 3']);
    expect(more).toHaveLength(1);
    expect(size(mend(job(chain), 'Unite the 3'))).toEqual([100 * 40]);
  });
  test.each<[string, Item[]]>([
    ['one within the other', [item(box(20, 20, 60), 'cut'), item(box(30, 30, 10), 'cut')]],
    ['side by side with an edge in common', [item(box(20, 20, 30), 'cut'), item(box(50, 20, 30), 'cut')]],
    ['a score over a cut', [item(box(20, 20, 30), 'cut'), item(box(30, 30, 40), 'score')]],
    ['an open line over an outline', [item(box(20, 20, 30), 'cut'), item(line(10, 30, 90, 30), 'cut')]],
  ])('%s is none', (_, items) => {
    expect(crossings(job(items))).toEqual([]);
  });
  test('whatever two rectangles cross, each mend gives just what it says', () => {
    const side = fc.integer({ min: 3, max: 60 });
    fc.assert(
      fc.property(side, side, side, side, side, side, (x, y, w, h, w2, h2) => {
        const items = [item(box(20, 20, w2 + 20, h2 + 20), 'cut'), item(box(20 + x, 20 + y, w, h), 'cut')];
        const drawn = job(items);
        const [found] = crossings(drawn);
        if (!found) return;
        const [a, b] = items.map(area);
        const [large, small] = sizeOfArea(a) >= sizeOfArea(b) ? [a, b] : [b, a];
        const [taken] = mend(drawn, 'Take the smaller out of the larger').drawing.items;
        const [united] = mend(drawn, 'Unite them').drawing.items;
        expect(sizeOfArea(excludeAreas([area(taken), subtractAreas(large, small)]))).toBeLessThan(0.01);
        expect(sizeOfArea(excludeAreas([area(united), uniteAreas([a, b])]))).toBeLessThan(0.01);
      }),
      { numRuns: 40 },
    );
  });
});
