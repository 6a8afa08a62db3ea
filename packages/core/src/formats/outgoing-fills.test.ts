import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { setBurning } from '../edits/layers.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { type Area, areaOf, excludeAreas, sizeOfArea, uniteAreas } from '../geometry/areas/area.ts';
import { engravedFills, engravedPath } from '../plan/fill.ts';
import { prepareJob } from '../plan/prepare.ts';
import { gatherOutgoing, type OutgoingChoices } from './outgoing.ts';

const page = { minX: 0, minY: 0, maxX: 500, maxY: 300 };
const choices: OutgoingChoices = { paints: 'as-came', guides: true, only: null, onlyBurnt: false };
const outOf = (job: JobDocument, more = {}) =>
  gatherOutgoing(prepareJob(job, shop), page, { ...choices, ...more }).layers.flatMap(({ items }) => items);
/** What items look like, drawn one over the other. */
const seen = (items: readonly Item[]): Area => uniteAreas(items.map((one) => areaOf(pathOf(one), one.fillRule)));
/** What the plan burns of the engraved layer. */
function burnt(job: JobDocument): Area {
  const prepared = prepareJob(job, shop);
  const layer = prepared.layers.find((entry) => entry.layer.id === 'engrave');
  const fills = layer ? engravedFills(prepared, layer) : [];
  return uniteAreas(fills.map((fill) => areaOf(engravedPath(fill), 'evenodd')));
}
const differ = (a: Area, b: Area) => sizeOfArea(excludeAreas([a, b]));
const engraving = (x: number, y: number, size: number, more: Partial<Item> = {}) =>
  item(box(x, y, size), 'engrave', more);

describe('the fills that go out are the fills that burn', () => {
  test('whatever lies on what, by whatever rule', () => {
    const square = fc.tuple(
      fc.integer({ min: 0, max: 60 }),
      fc.integer({ min: 0, max: 60 }),
      fc.integer({ min: 3, max: 40 }),
    );
    fc.assert(
      fc.property(
        fc.array(square, { minLength: 1, maxLength: 6 }),
        fc.constantFrom('cancel' as const, 'unite' as const),
        fc.constantFrom('even-odd' as const, 'as-drawn' as const),
        (squares, overlaps, fillRule) => {
          const items = squares.map(([x, y, size]) => engraving(x, y, size));
          const job = setBurning(jobWith(items), 'engrave', { overlaps, fillRule });
          expect(differ(seen(outOf(job)), burnt(job))).toBeLessThan(0.01);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('figure and ground swapped: the ground goes out', () => {
    const [figure, border] = [engraving(20, 20, 10), item(box(0, 0, 60), 'cut')];
    const flips = [{ id: 'f', itemIds: [figure.id], borderId: border.id, insetMm: 5 }];
    const job = jobWith([figure, border], { flips });
    const engraved = gatherOutgoing(prepareJob(job, shop), page, choices).layers.find(({ name }) => name === 'Engrave');
    expect(differ(seen(engraved?.items ?? []), burnt(job))).toBeLessThan(0.01);
    expect(sizeOfArea(burnt(job))).toBeCloseTo(50 * 50 - 100, 6);
  });
  test('what lies apart stays as it is, curves and all; what overlaps is one outline with exact edges', () => {
    const [a, b, c] = [engraving(0, 0, 20), engraving(10, 10, 20), engraving(100, 0, 20, { name: 'apart' })];
    const items = outOf(jobWith([a, b, c]));
    expect(items).toHaveLength(2);
    expect(items[0].fillRule).toBe('evenodd');
    expect(sizeOfArea(seen([items[0]]))).toBeCloseTo(600, 6);
    expect(items[1]).toMatchObject({ id: c.id, name: 'apart', shape: c.shape });
  });
  test('of a selection, what is in it', () => {
    const [a, b] = [engraving(0, 0, 20), engraving(10, 10, 20)];
    expect(outOf(jobWith([a, b]), { only: new Set([a.id]) }).map(({ id }) => id)).toEqual([a.id]);
  });
  test('touching squares are not one', () => {
    expect(outOf(jobWith([engraving(0, 0, 20), engraving(20, 0, 20)]))).toHaveLength(2);
  });
});
