import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Run } from '../document/run.ts';
import { sheetBox } from '../document/sheet.ts';
import { box, item, jobWith, line, machine, shop } from '../fixtures/shop.ts';
import { bedBox } from '../machine/machine.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { layPacked } from './lay.ts';
import { type JobPackChoices, packOfJob } from './of-job.ts';
import { packed } from './pack.ts';
import type { Packing } from './wish.ts';

const how = { gapMm: 2, marginMm: 3, turning: 'none', mirror: false, fillsHoles: false } as const;
const bed = bedBox(machine);
const nameRun = (sheet: number, { name }: Run) => `${name}, sheet ${sheet}`;
const none = { before: [], after: [] };
const idsOf = (items: readonly Item[]) => items.map(({ id }) => id).sort();

/** Packs a job's items and lays them, with what comes out within so many tries. */
function packedJob(job: JobDocument, choices: Partial<JobPackChoices> = {}, tries = 5) {
  const ids = new Set(job.drawing.items.map(({ id }) => id));
  const pack = packOfJob(prepareJob(job, shop), {
    ids,
    keepsGroups: false,
    count: 1,
    further: none,
    isOneCut: false,
    ...how,
    ...choices,
  });
  let packing: Packing | null = null;
  for (const better of packed(pack.wish, 1)) {
    packing = better ?? packing;
    if (--tries <= 0) break;
  }
  if (!packing) throw new Error('Nothing came out');
  let next = 0;
  return { pack, packing, laid: layPacked(job, pack, packing, { bed, newId: () => `new-${++next}`, nameRun }) };
}

describe('what is packed of a job', () => {
  const plate = item(box(400, 200, 80), 'cut');
  const hole = item(box(410, 210, 10), 'cut');
  const score = item(line(430, 230, 470, 230), 'score');
  const engraved = item(box(440, 240, 20), 'engrave');
  const other = item(box(100, 100, 50), 'cut');
  const loose = item(line(300, 20, 340, 20), 'score');
  const job = jobWith([plate, hole, score, engraved, other, loose]);

  test('what cuts part, with all that burns in it: what is engraved within is no hole', () => {
    const { pack } = packedJob(job);
    expect(pack.pieces.map(({ items }) => idsOf(items))).toEqual([idsOf([plate, hole, score, engraved]), [other.id]]);
    expect([...pack.pieces[0].outline.verbs].filter((verb) => verb === 0)).toHaveLength(2);
    expect(idsOf(pack.loose)).toEqual([loose.id]);
  });

  test('it comes to lie on the sheet, moved as one, and what stays is left alone', () => {
    const { laid } = packedJob(job, { ids: new Set([plate, hole, score, engraved].map(({ id }) => id)) });
    const now = (id: string) => boundsOf(laid.drawing.items.find((entry) => entry.id === id) as Item);
    const before = (entry: Item) => boundsOf(entry);
    const [dx, dy] = [now(plate.id).minX - before(plate).minX, now(plate.id).minY - before(plate).minY];
    for (const entry of [hole, score, engraved]) {
      expect(now(entry.id).minX - before(entry).minX).toBeCloseTo(dx, 9);
      expect(now(entry.id).minY - before(entry).minY).toBeCloseTo(dy, 9);
    }
    expect(now(other.id)).toEqual(before(other));
    expect(now(loose.id)).toEqual(before(loose));
  });

  test('copies are copies of all of it, and the plan cuts each', () => {
    const { laid, pack } = packedJob(jobWith([plate, hole, score]), { count: 4 });
    expect(laid.drawing.items).toHaveLength(12);
    const sheet = sheetBox(pack.targets[0].sheet);
    for (const entry of laid.drawing.items) {
      const { minX, minY, maxX, maxY } = boundsOf(entry);
      expect(Math.min(minX - sheet.minX, minY - sheet.minY, sheet.maxX - maxX, sheet.maxY - maxY)).toBeGreaterThan(
        2.999,
      );
    }
    const plan = planJob(prepareJob(laid, shop));
    expect(plan.steps.reduce((sum, step) => sum + (step.operation === 'cut' ? step.litMm : 0), 0)).toBeGreaterThan(
      4 * 350,
    );
  });

  test('of two materials, what lies on that of the first piece is packed, onto sheets of it', () => {
    const [ply] = jobWith([]).sheets;
    const card = { ...ply, id: 'card', materialId: 'bare', x: 0, y: 250, width: 200, height: 100 };
    const onCard = item(box(20, 270, 40), 'cut');
    const both = jobWith([other, onCard], { sheets: [{ ...ply, height: 240 }, card] });
    const packOf = (...ids: string[]) =>
      packOfJob(prepareJob(both, shop), {
        ids: new Set(ids),
        keepsGroups: false,
        count: 1,
        further: none,
        isOneCut: false,
        ...how,
      });
    const all = packOf(other.id, onCard.id);
    expect(all.pieces.map(({ items }) => idsOf(items))).toEqual([[other.id]]);
    expect(all.targets.map(({ sheet }) => sheet.id)).toEqual(['s']);
    const cards = packOf(onCard.id);
    expect(cards.pieces.map(({ items }) => idsOf(items))).toEqual([[onCard.id]]);
    expect(cards.targets.map(({ sheet }) => sheet.id)).toEqual(['card']);
  });

  test('locked pieces stay, and are in the way', () => {
    const locked = { ...other, locked: true as const };
    const { pack } = packedJob(jobWith([plate, locked]));
    expect(pack.pieces.map(({ items }) => idsOf(items))).toEqual([[plate.id]]);
    expect(pack.wish.sheets[0].obstacles).toHaveLength(1);
  });

  test('what found no place is laid beside the bed, and does not burn', () => {
    const large = item(box(160, 0, 310), 'cut');
    const { laid, packing } = packedJob(jobWith([large, other]));
    expect(packing.left).toEqual([1, 0]);
    const parked = laid.drawing.items.filter((entry) => entry.parked);
    expect(idsOf(parked)).toEqual([large.id]);
    expect(boundsOf(parked[0]).minX).toBeGreaterThan(bedBox(machine).maxX);
    expect(prepareJob(laid, shop).parked).toEqual(new Set([large.id]));
  });

  test('on a sheet that is turned, it lies turned with the sheet', () => {
    const turned = jobWith([other], {
      sheets: [{ id: 's', materialId: 'ply', x: 100, y: 50, width: 200, height: 100, margin: 3, angle: 90 }],
    });
    const { laid, pack } = packedJob(turned);
    const { minX, minY, maxX, maxY } = boundsOf(laid.drawing.items[0]);
    const sheet = sheetBox(pack.targets[0].sheet);
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(50, 6), expect.closeTo(50, 6)]);
    expect(Math.min(minX - sheet.minX, minY - sheet.minY, sheet.maxX - maxX, sheet.maxY - maxY)).toBeCloseTo(3, 3);
  });
});
