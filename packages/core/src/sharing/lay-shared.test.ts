import { describe, expect, test } from '@jest/globals';
import { boundsOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { sheetUnder } from '../document/sheet.ts';
import { box, item, jobWith, line, machine, material, shop } from '../fixtures/shop.ts';
import { boxCentre, boxesMeet, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { bedBox } from '../machine/machine.ts';
import { furtherSheets } from '../packing/further.ts';
import { packed } from '../packing/pack.ts';
import type { Packing } from '../packing/wish.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { layShared, packShared, sharedOutlines } from './lay-shared.ts';
import { mergeJobs } from './merge.ts';

const how = { gapMm: 2, marginMm: 3, turning: 'quarter' } as const;

function shared(jobs: readonly (readonly [JobDocument, number])[], tries = 8) {
  const merged = mergeJobs(
    jobs.map(([job, copies], i) => ({ name: `Job ${i}`, job, copies })),
    shop,
  );
  const sheets = furtherSheets({ sheets: [] }, material, machine).whole;
  const pack = packShared(
    prepareJob(merged, shop),
    jobs.map(([, copies]) => copies),
    sheets,
    how,
  );
  let packing: Packing | null = null;
  for (const better of packed(pack.pack.wish, 1)) {
    packing = better ?? packing;
    if (--tries <= 0) break;
  }
  if (!packing) throw new Error('Nothing came out');
  let next = 0;
  const laying = { bed: bedBox(machine), newId: () => `new-${++next}`, nameRun: (sheet: number) => `Sheet ${sheet}` };
  return { pack, packing, laid: () => layShared(merged, pack, packing as Packing, laying) };
}

describe('jobs on shared sheets', () => {
  const plate = jobWith([
    item(box(400, 200, 80), 'cut'),
    item(box(410, 210, 10), 'cut'),
    item(box(440, 240, 20), 'engrave'),
  ]);
  const two = jobWith([item(box(0, 0, 30), 'cut'), item(box(200, 100, 20), 'cut')]);

  test('lie on a sheet on the bed, each copy of each piece once, none on another, and burn there', () => {
    const { packing, laid } = shared([
      [plate, 2],
      [two, 3],
    ]);
    const job = laid();
    expect(packing.sheets).toHaveLength(1);
    expect(job.sheets).toHaveLength(1);
    const { items } = job.drawing;
    expect(items).toHaveLength(2 * 3 + 3 * 2);
    expect(items.every((drawn) => sheetUnder(job.sheets, drawn) !== null)).toBe(true);
    const cuts = items.filter(({ paint, id }) => paint.stroke !== null && !id.endsWith(plate.drawing.items[1].id));
    cuts.forEach((a, i) => {
      for (const b of cuts.slice(i + 1)) expect(boxesMeet(boundsOf(a), boundsOf(b))).toBe(false);
    });
    expect(planJob(prepareJob(job, shop)).timeS).toBeGreaterThan(0);
  });

  test('what lies in a piece goes with it', () => {
    const { laid } = shared([
      [plate, 2],
      [two, 1],
    ]);
    const { items } = laid().drawing;
    for (const copy of [1, 2]) {
      const [edge, hole, engraved] = items.filter(({ id }) => id.startsWith(`part-1-${copy}:`)).map(boundsOf);
      expect([hole, engraved].every((inner) => boxesMeet(edge, inner))).toBe(true);
      // However it is turned, their middles keep their distance: 35 mm each way.
      const [from, to] = [boxCentre(hole), boxCentre(engraved)];
      expect(Math.abs(from.x - to.x)).toBeCloseTo(35, 6);
      expect(Math.abs(from.y - to.y)).toBeCloseTo(35, 6);
    }
  });

  test('more than one sheet holds go onto further ones, with a run each', () => {
    const large = jobWith([item(box(0, 0, 450, 250), 'cut')]);
    const { laid } = shared([
      [large, 1],
      [large, 1],
    ]);
    const job = laid();
    expect(job.sheets).toHaveLength(2);
    expect(job.runs.map(({ landing: { kind } }) => kind)).toEqual(['as-drawn', 'sheet']);
    const burnt = job.runs.map(({ id }) => prepareJob(job, shop, { runId: id }).layers.flatMap(({ placed }) => placed));
    expect(burnt.map((placed) => placed.length)).toEqual([1, 1]);
    expect(new Set(burnt.flat().map(({ item: drawn }) => drawn.id.slice(0, 8)))).toEqual(
      new Set(['part-1-1', 'part-2-1']),
    );
  });

  test('a job that burns beside its cuts stays together, in the rectangle around it', () => {
    const beside = jobWith([item(box(0, 0, 30), 'cut'), item(line(60, 10, 90, 10), 'score')]);
    const { pack } = shared([
      [two, 1],
      [beside, 2],
    ]);
    expect(pack.owners).toEqual([0, 0, 1]);
    const bounds = pathBounds(pack.pack.pieces[2].outline);
    expect([boxWidth(bounds), boxHeight(bounds)]).toEqual([90, 30]);
    expect(pack.areasMm2).toEqual([30 * 30 + 20 * 20, 2 * 90 * 30]);
  });

  test('the outlines that are shown say whose each is', () => {
    const { pack, packing } = shared([
      [plate, 1],
      [two, 2],
    ]);
    const [{ outline, pieces }] = sharedOutlines(pack, packing);
    expect(boxWidth(pathBounds(outline))).toBeCloseTo(500, 6);
    expect(pieces.map(({ part }) => part).sort()).toEqual([0, 1, 1, 1, 1]);
    for (const piece of pieces) expect(boxesMeet(pathBounds(outline), pathBounds(piece.outline))).toBe(true);
  });

  test('what finds no place is not left out: nothing is laid', () => {
    const huge = jobWith([item(box(0, 0, 590, 390), 'cut')]);
    const { packing, laid } = shared([
      [two, 1],
      [huge, 1],
    ]);
    expect(packing.left).toEqual([0, 0, 1]);
    expect(laid).toThrow(RangeError);
  });
});
