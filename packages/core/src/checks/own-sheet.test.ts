import { describe, expect, test } from '@jest/globals';
import { boundsOf } from '../document/item.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { firstRun } from '../document/run.ts';
import { removeSheet } from '../edits/items.ts';
import { addRun, changeRun } from '../edits/layers.ts';
import { itemsOffBed, ontoBed } from '../edits/onto-bed.ts';
import { box, item, jobWith, material, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { priceOf, sheetsUsed } from '../plan/price.ts';
import { freeOfCharge } from '../recipes/book/pricing.ts';
import { checkJob } from './check.ts';

const onBed = item(box(10, 10, 30, 20), 'cut');
const beside = item(box(1010, 20, 30, 20), 'cut');
const base = jobWith([onBed, beside]);
const [sheet] = base.sheets;
const more = { ...sheet, id: 'more', x: 1000, y: 0, width: 120, height: 80 };
const landing = { kind: 'sheet', sheetId: 'more', x: 5, y: 8 } as const;
const job = addRun({ ...base, sheets: [sheet, more] }, { ...firstRun, id: 'run-2', name: 'Sheet 2', landing });
const prepared = (runId: string, from = job) => prepareJob(from, shop, { runId });
const burnt = (runId: string, from = job) =>
  prepared(runId, from).layers.flatMap(({ placed }) => placed.map(({ item: { id } }) => id));

describe('a run on a sheet of its own', () => {
  test('burns what lies on that sheet, where the sheet is laid, and no other run does', () => {
    expect(burnt('run-1')).toEqual([onBed.id]);
    expect(burnt('run-2')).toEqual([beside.id]);
    const { minX, minY } = boundsOf(prepared('run-2').burntAt(beside));
    expect([minX, minY]).toEqual([15, 28]);
  });

  test('has that sheet alone on the bed: it is priced, checked and taken there', () => {
    const second = prepared('run-2');
    expect(second.sheets).toEqual([{ ...more, x: 5, y: 8 }]);
    expect(sheetsUsed(second)).toEqual(second.sheets);
    expect(prepared('run-1').sheets).toEqual([sheet]);
    const found = (runId: string) => {
      const now = prepared(runId);
      return checkJob(now, planJob(now)).map(({ code }) => code);
    };
    for (const code of ['off-bed', 'off-sheet', 'sheet-off-bed', 'layer-in-no-run']) {
      expect(found('run-1')).not.toContain(code);
      expect(found('run-2')).not.toContain(code);
    }
    // Laid too far to the right, the sheet and what is on it are said to lie off the bed.
    const far = changeRun(job, 'run-2', { landing: { ...landing, x: 550 } });
    const now = prepared('run-2', far);
    expect(checkJob(now, planJob(now)).map(({ code }) => code)).toContain('sheet-off-bed');
    // Its stock is paid for, though an earlier run has used some of that material: 30 × 20 mm at 1000 a m².
    const pricing = { ...freeOfCharge, materials: { [material.id]: 1000 } };
    const { parts } = priceOf(planJob(second), second, shop, pricing);
    expect(parts).toEqual([{ kind: 'stock', what: `${material.name}, 6 cm²`, amount: 0.6 }]);
    const again = addRun(job, { ...firstRun, id: 'run-3', stock: 'in place', landing });
    expect(priceOf(planJob(prepared('run-3', again)), prepared('run-3', again), shop, pricing).parts).toEqual([]);
  });

  test('burns with the recipe and the thickness of its own sheet', () => {
    const thick = {
      ...job,
      sheets: [
        { ...sheet, thicknessMm: 3 },
        { ...more, materialId: 'gone' },
      ],
    };
    expect(prepared('run-1', thick).material?.id).toBe(material.id);
    expect(prepared('run-2', thick).material).toBeNull();
    // What was set by hand was set for the material of the job's first sheet.
    const byHand = { cut: { powerPercent: 12 } };
    const other = { ...job, settings: byHand, sheets: [sheet, { ...more, materialId: 'bare' }] };
    const cutting = (runId: string) => prepared(runId, other).layers.find(({ layer }) => layer.id === 'cut');
    expect([cutting('run-1')?.id, cutting('run-1')?.applied.settings?.powerPercent]).toEqual(['cut', 12]);
    expect([cutting('run-2')?.id, cutting('run-2')?.applied.settings]).toEqual(['cut@bare', null]);
  });

  test('is kept with the job, and goes with its sheet', () => {
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job)))).runs[1].landing).toEqual(landing);
    expect(removeSheet(job, 'more').runs.map(({ id }) => id)).toEqual(['run-1']);
    const alone = { ...job, runs: [job.runs[1]] };
    expect(removeSheet(alone, 'more').runs[0].landing).toEqual({ kind: 'as-drawn' });
    // What lay on it is on no sheet then: it is said to lie off the bed.
    expect(burnt('run-1', removeSheet(job, 'more'))).toContain(beside.id);
    const lost = prepared('run-2', { ...job, sheets: [sheet] });
    expect(lost.landed.needs).toBe('sheet');
  });

  test('is left alone where what is drawn is brought onto another bed', () => {
    const bed = { minX: 0, minY: 0, maxX: 300, maxY: 200 };
    expect(itemsOffBed(job, bed)).toEqual([]);
    const alone = { ...job, runs: job.runs.slice(0, 1) };
    expect(itemsOffBed(alone, bed).map(({ id }) => id)).toEqual([beside.id]);
    const centred = ontoBed(job, bed, 0, 'centre');
    const places = centred?.drawing.items.map((entry) => boundsOf(entry).minX);
    expect(places).toEqual([135, 1010]);
  });
});
