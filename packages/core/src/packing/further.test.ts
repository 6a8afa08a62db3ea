import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { boundsOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { firstRun } from '../document/run.ts';
import { sheetHolds, sheetUnder } from '../document/sheet.ts';
import { addRun } from '../edits/layers.ts';
import { box, item, jobWith, machine, material, shop } from '../fixtures/shop.ts';
import { bedBox } from '../machine/machine.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { Material } from '../recipes/book/material.ts';
import type { StockedSheet } from '../recipes/book/stock.ts';
import { furtherSheets } from './further.ts';
import { layPacked } from './lay.ts';
import { type JobPackChoices, packOfJob } from './of-job.ts';
import { packed } from './pack.ts';
import type { Packing } from './wish.ts';

const whole: StockedSheet = { id: 'whole', width: 500, height: 300, count: 4, price: 5 };
const small: StockedSheet = { id: 'small', width: 130, height: 110, count: 2, price: null, offcut: true };
const ell = [[0, 0, 100, 0, 100, 200, 200, 200, 200, 250, 0, 250]];
const corner: StockedSheet = {
  id: 'corner',
  width: 200,
  height: 250,
  count: 1,
  price: null,
  offcut: true,
  outline: ell,
};
const stocked = (...stock: StockedSheet[]): Material => ({ ...material, stock });

const base = { gapMm: 2, marginMm: 3, turning: 'none', mirror: false, fillsHoles: false, isOneCut: false } as const;

function pack(job: JobDocument, choices: Partial<JobPackChoices> = {}, tries = 3) {
  const ids = new Set(job.drawing.items.map(({ id }) => id));
  const further = { before: [], after: [] };
  const wanted = packOfJob(prepareJob(job, shop), { ids, keepsGroups: false, count: 1, further, ...base, ...choices });
  let packing: Packing | null = null;
  for (const better of packed(wanted.wish, 1)) {
    packing = better ?? packing;
    if (--tries <= 0) break;
  }
  if (!packing) throw new Error('Nothing came out');
  let next = 0;
  const laying = {
    bed: bedBox(machine),
    newId: () => `new-${++next}`,
    nameRun: (sheet: number, { name }: { name: string }, isOnly: boolean) =>
      isOnly ? `Sheet ${sheet}` : `Sheet ${sheet}, ${name}`,
  };
  return { packing, laid: layPacked(job, wanted, packing, laying) };
}

const burntIn = (job: JobDocument, runId: string) =>
  prepareJob(job, shop, { runId }).layers.flatMap(({ placed }) => placed.map(({ item: { id } }) => id));

/** Each cut in one run, on the sheet of that run, and on the bed. */
function expectWellLaid(job: JobDocument) {
  const seen = new Map<string, string>();
  for (const { id: runId } of job.runs) {
    const prepared = prepareJob(job, shop, { runId });
    for (const { placed } of prepared.layers) {
      for (const { item: burnt } of placed) {
        expect(seen.has(burnt.id)).toBe(false);
        seen.set(burnt.id, runId);
        const sheet = sheetUnder(prepared.sheets, burnt);
        expect(sheet && sheetHolds(sheet, burnt, 2.999, 0.005)).toBe(true);
        const { minX, minY, maxX, maxY } = boundsOf(burnt);
        expect(Math.min(minX, minY, machine.bedWidth - maxX, machine.bedHeight - maxY)).toBeGreaterThan(0);
      }
    }
  }
  return seen;
}

describe('the sheets that a shop has besides those on the bed', () => {
  const laid = { sheets: [{ ...jobWith([]).sheets[0], x: 10, y: 20, stockId: 'whole' }] };
  test('its offcuts, the smallest first, and its whole ones, less what lies there already', () => {
    const found = furtherSheets(laid, stocked(corner, whole, small), machine);
    expect(found.offcuts.map(({ sheet, count }) => [sheet.stockId, count])).toEqual([
      ['small', 2],
      ['corner', 1],
    ]);
    expect(found.offcuts[1].sheet).toMatchObject({ width: 200, height: 250, outline: ell, x: 10, y: 20, margin: 3 });
    expect(found.whole).toMatchObject([{ count: 3, sheet: { width: 500, height: 300 } }]);
  });

  test('of the usual size, as many as it takes, where none are counted; none where all are used up', () => {
    const usual = furtherSheets(laid, stocked(small), machine).whole;
    expect(usual).toMatchObject([{ count: null, sheet: { width: material.sheetWidth, height: material.sheetHeight } }]);
    expect(furtherSheets(laid, stocked({ ...whole, count: 1 }), machine).whole).toEqual([]);
  });
});

describe('packed onto further sheets', () => {
  const plates = (count: number): Item[] =>
    Array.from({ length: count }, (_, i) => item(box(5 * i, 5 * i, 240, 140), 'cut'));
  const further = (job: JobDocument, ...stock: StockedSheet[]) => {
    const { offcuts, whole: sheets } = furtherSheets(job, stocked(...stock), machine);
    return { before: offcuts, after: sheets };
  };

  test('each further sheet is burnt in a run of its own, every piece once', () => {
    const job = jobWith(plates(9));
    const { laid, packing } = pack(job, { further: further(job, whole) });
    expect(packing.left.every((count) => count === 0)).toBe(true);
    expect(laid.sheets).toHaveLength(3);
    expect(laid.runs.map(({ name }) => name)).toEqual(['Run 1', 'Sheet 2', 'Sheet 3']);
    expect(expectWellLaid(laid).size).toBe(9);
  });

  test('a job of two runs has both on each of them', () => {
    const job = addRun(jobWith(plates(5)), { ...firstRun, id: 'run-2', name: 'Again', stock: 'in place' });
    const { laid } = pack(job, { further: further(job, whole) });
    expect(laid.runs.map(({ name, stock }) => [name, stock])).toEqual([
      ['Run 1', 'fresh'],
      ['Again', 'in place'],
      ['Sheet 2, Run 1', 'fresh'],
      ['Sheet 2, Again', 'in place'],
    ]);
    expect(burntIn(laid, laid.runs[2].id)).toEqual(burntIn(laid, laid.runs[3].id));
    expect(burntIn(laid, laid.runs[2].id)).toHaveLength(1);
  });

  test('an offcut takes the place of the sheet on the bed where all goes onto it; what stays keeps its sheet', () => {
    const tags = [item(box(0, 0, 80, 40), 'cut'), item(box(100, 0, 80, 40), 'cut')];
    const job = jobWith(tags);
    const { laid } = pack(job, { further: further(job, whole, small) });
    expect(laid.sheets).toMatchObject([{ stockId: 'small', width: 130, height: 110, x: 0, y: 0 }]);
    expect(laid.runs).toEqual(job.runs);
    expectWellLaid(laid);

    const stays = jobWith([...tags, { ...item(box(300, 100, 20), 'cut'), locked: true }]);
    const beside = pack(stays, { further: further(stays, whole, small) }).laid;
    expect(beside.sheets.map(({ stockId }) => stockId)).toEqual([undefined, 'small']);
    expect(expectWellLaid(beside).size).toBe(3);
  });

  test('sheets of other stock stay, whatever takes the place of the one that is packed', () => {
    const card = { ...jobWith([]).sheets[0], id: 'card', materialId: 'bare', x: 510, width: 80, height: 80 };
    const onCard = item(box(520, 10, 40), 'cut');
    const job = jobWith([item(box(0, 0, 80, 40), 'cut'), onCard]);
    const both = { ...job, sheets: [...job.sheets, card] };
    const { laid } = pack(both, { further: further(both, whole, small) });
    expect(laid.sheets.map(({ id, stockId }) => stockId ?? id)).toEqual(['small', 'card']);
    expect(laid.drawing.items).toContain(onCard);
  });

  test('offcuts of any outline are filled within it', () => {
    const job = jobWith(Array.from({ length: 12 }, (_, i) => item(box(10 * i, 0, 44, 44), 'cut')));
    const { laid, packing } = pack(job, { further: further(job, whole, corner) }, 6);
    const onto = laid.sheets.find(({ stockId }) => stockId === 'corner');
    expect(packing.sheets[0].pieces.length).toBeGreaterThanOrEqual(8);
    expect(onto?.outline).toEqual(ell);
    expect(expectWellLaid(laid).size).toBe(12);
  });

  test('packed again onto fewer sheets, those that are emptied go, and their runs', () => {
    const job = jobWith(plates(5));
    const { laid } = pack(job, { further: further(job, whole) });
    expect(laid.sheets).toHaveLength(2);
    const fewer = { ...laid, drawing: { ...laid.drawing, items: laid.drawing.items.slice(0, 3) } };
    const again = pack(fewer).laid;
    expect(again.sheets).toHaveLength(1);
    expect(again.runs.map(({ id }) => id)).toEqual(['run-1']);
    expect(expectWellLaid(again).size).toBe(3);
  });

  test('what was parked before burns where it has a place now, and so do its copies', () => {
    const [large, small] = [item(box(5, 5, 490, 290), 'cut'), item(box(700, 0, 100, 50), 'cut', { parked: true })];
    const job = jobWith([large, small]);
    const { laid } = pack(job, { further: further(job, whole), ids: new Set([small.id]), count: 2 });
    expect(laid.sheets).toHaveLength(2);
    expect(expectWellLaid(laid).size).toBe(3);
  });

  test('where only some items burn in a run, their copies do so too', () => {
    const [one, two] = plates(2);
    const job = { ...jobWith([one, two]), runs: [{ ...firstRun, only: [one.id] }] };
    const { laid } = pack(job, { count: 2 });
    expect(laid.drawing.items).toHaveLength(4);
    expect(burntIn(laid, 'run-1')).toHaveLength(2);
  });
});

describe('one cut for two', () => {
  test('pieces lie a kerf apart, and edges between them are cut once, by as much less', () => {
    const job = jobWith(
      Array.from({ length: 4 }, (_, i) => item(box(60 * i, 0, 50), 'cut')),
      { settings: { cut: { kerfMm: 0.2 } } },
    );
    const cutMm = (of: JobDocument) => planJob(prepareJob(of, shop)).steps.reduce((sum, { litMm }) => sum + litMm, 0);
    const apart = pack(job).laid;
    const { laid } = pack(job, { isOneCut: true }, 60);
    expect(cutMm(apart)).toBeCloseTo(4 * (200 + 0.2 * Math.PI), 1);
    // Two by two, or four in a row: three edges or four are shared.
    const shared = (cutMm(apart) - cutMm(laid)) / 50;
    expect(Math.round(shared)).toBeGreaterThanOrEqual(3);
    expect(shared).toBeCloseTo(Math.round(shared), 1);
    expect(laid.burning.cut).toMatchObject({ sharedEdges: 'once' });
  });
});
