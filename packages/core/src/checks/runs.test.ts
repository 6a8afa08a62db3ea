import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOfAll } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { firstRun } from '../document/run.ts';
import { pinItems, setMark } from '../edits/items.ts';
import { addRun, changeRun, moveRun, orderSteps, removeRun, setLayer, switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, material, shop } from '../fixtures/shop.ts';
import { Move } from '../plan/moves.ts';
import { type BurnPlan, planJob, stepTitle } from '../plan/plan.ts';
import { prepareJob, type RunChoice } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const plan = (job: JobDocument, choice: RunChoice = {}, of = shop) => planJob(prepareJob(job, of, choice));
const titles = ({ steps }: BurnPlan) => steps.map(stepTitle);
const second = { ...firstRun, id: 'run-2', name: 'Engrave' };

/** The box of all that is lit. */
function litBox({ steps }: BurnPlan): number[] {
  const [xs, ys]: number[][] = [[], []];
  for (const { moves } of steps) {
    moves.kinds.forEach((kind, i) => {
      if (kind !== Move.lit) return;
      xs.push(moves.xs[i]);
      ys.push(moves.ys[i]);
    });
  }
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map((mm) => Math.round(mm * 1000) / 1000);
}

describe('runs', () => {
  const frame = item(box(100, 50, 60, 40), 'cut');
  const name = item(box(110, 60, 10, 5), 'score');
  const job = switchLayer(addRun(jobWith([frame, name]), { ...second, off: ['cut'] }), 'score', false);

  test('each burns what it is not told to leave out', () => {
    expect(titles(plan(job))).toEqual(['Cut · outside']);
    expect(titles(plan(job, { runId: 'run-2' }))).toEqual(['Score']);
    const one = changeRun(job, 'run-2', { off: [], only: [frame.id] });
    expect(titles(plan(one, { runId: 'run-2' }))).toEqual(['Cut · outside']);
    expect(plan(job, { runId: 'no such run' })).toEqual(plan(job));
  });

  test('what burns in none is found; so is a landing at a mark that is not there', () => {
    const codes = (of: JobDocument, runId?: string) => {
      const prepared = prepareJob(of, shop, runId ? { runId } : {});
      return checkJob(prepared, planJob(prepared)).map(({ code }) => code);
    };
    expect(codes(job)).not.toContain('layer-in-no-run');
    expect(codes(changeRun(job, 'run-2', { off: ['cut', 'score'] }))).toContain('layer-in-no-run');
    const landing = { kind: 'mark', u: 0, v: 0 } as const;
    expect(codes(changeRun(job, 'run-1', { landing }))).toContain('no-landing');
    expect(codes(setMark(changeRun(job, 'run-1', { landing }), { x: 20, y: 20 }))).not.toContain('no-landing');
  });

  test('mirrored for the back: left for right within the sheet, twice is nothing', () => {
    // The sheet is 500 mm wide from 0.
    const mirrored = changeRun(job, 'run-1', { mirrored: true });
    expect(litBox(plan(mirrored))).toEqual([340, 50, 400, 90]);
    const turned = { ...mirrored, sheets: [{ ...job.sheets[0], angle: 90 }] };
    expect(litBox(plan(turned))).toEqual([100, 210, 160, 250]);
    const bare = { ...mirrored, sheets: [] };
    expect(prepareJob(bare, shop).burntAt(frame).matrix).toEqual([-1, 0, 0, 1, 600, 0]);
  });

  test('lands with a point of its bounds at the mark, or at the head', () => {
    const at = (kind: 'mark' | 'head', u: number, v: number) => changeRun(job, 'run-1', { landing: { kind, u, v } });
    expect(litBox(plan(setMark(at('mark', 0, 0), { x: 10, y: 20 })))).toEqual([10, 20, 70, 60]);
    expect(litBox(plan(at('head', 0.5, 1), { head: { x: 300, y: 200 } }))).toEqual([270, 160, 330, 200]);
    // Where nobody knows the head, it burns as drawn.
    expect(litBox(plan(at('head', 0.5, 1)))).toEqual([100, 50, 160, 90]);
  });

  test('are added, moved and taken away, the last one stays; and last in the stored job', () => {
    expect(moveRun(job, 'run-2', -1).runs.map(({ id }) => id)).toEqual(['run-2', 'run-1']);
    expect(moveRun(moveRun(job, 'run-2', -1), 'run-2', 1)).toEqual(job);
    const alone = removeRun(job, 'run-1');
    expect(alone.runs.map(({ id }) => id)).toEqual(['run-2']);
    expect(removeRun(alone, 'run-2')).toBe(alone);
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))))).toEqual(job);
    // A job of an earlier version keeps what it had switched off.
    const { runs: _, version: __, ...old } = JSON.parse(JSON.stringify(jobToJson(job)));
    expect(jobFromJson({ ...old, off: ['cut'] }).runs).toEqual([{ ...firstRun, off: ['cut'] }]);
  });
});

describe('sheets of different materials', () => {
  const cork = {
    ...material,
    id: 'cork',
    name: 'Cork',
    recipes: material.recipes.map((r) => ({ ...r, powerPercent: 33 })),
  };
  const two = { ...shop, materials: [...shop.materials, cork] };
  const [left, right] = [item(box(20, 20, 30), 'cut'), item(box(320, 20, 30), 'cut')];
  const sheet = (id: string, materialId: string, x: number) => ({
    id,
    materialId,
    x,
    y: 0,
    width: 250,
    height: 200,
    margin: 3,
  });
  const job = { ...jobWith([left, right]), sheets: [sheet('a', 'ply', 0), sheet('b', 'cork', 300)] };

  test('each piece burns with the recipe of the sheet it lies on', () => {
    const { steps } = plan(job, {}, two);
    expect(steps.map(({ preparedId, settings }) => [preparedId, settings.powerPercent])).toEqual([
      ['cut', 60],
      ['cut@cork', 33],
    ]);
    expect(steps.reduce((sum, { litMm }) => sum + litMm, 0)).toBeCloseTo(240, 6);
    const byHand = { ...job, settings: { 'cut@cork': { powerPercent: 40 } } };
    expect(plan(byHand, {}, two).steps.map(({ settings }) => settings.powerPercent)).toEqual([60, 40]);
  });

  test('one that must never be lasered blocks, the other sheet notwithstanding', () => {
    const poison = { ...job, sheets: [job.sheets[0], sheet('b', 'poison', 300)] };
    const prepared = prepareJob(poison, two);
    expect(checkJob(prepared, planJob(prepared)).map(({ code }) => code)).toContain('forbidden-stock');
    expect(planJob(prepared).steps.map(({ preparedId }) => preparedId)).toEqual(['cut']);
  });
});

describe('the order of steps', () => {
  const outer = item(box(100, 100, 100), 'cut');
  const hole = item(box(120, 120, 10), 'cut');
  const fold = item(line(110, 150, 190, 150), 'score');
  const name = item(box(150, 110, 20, 5), 'engrave');
  const job = jobWith([outer, hole, fold, name]);
  const broken = (of: JobDocument) =>
    plan(of)
      .outOfOrder.map(({ itemId }) => itemId)
      .sort();

  test('is the operator’s where there is one, and what it breaks is found', () => {
    expect(broken(job)).toEqual([]);
    const turned = orderSteps(job, ['cut outer', 'cut inner', 'engrave all']);
    expect(titles(plan(turned))).toEqual(['Cut · outside', 'Cut · inside', 'Engrave', 'Score']);
    expect(broken(turned)).toEqual([hole.id, fold.id, name.id].sort());
    const prepared = prepareJob(turned, shop);
    const found = checkJob(prepared, planJob(prepared)).find(({ code }) => code === 'order-broken');
    expect(found).toMatchObject({ level: 'warns', itemIds: expect.arrayContaining([hole.id, fold.id, name.id]) });
    expect(plan(orderSteps(turned, []))).toEqual(plan(job));
    // Steps that an order names and that are no longer there do not matter.
    expect(titles(plan(orderSteps(job, ['no such step'])))).toEqual(titles(plan(job)));
  });

  test('is not broken by outlines that touch or cross, though the paths of the beam do', () => {
    for (const [x, y] of [
      [130, 100],
      [120, 110],
      [130, 130],
    ]) {
      const beside = jobWith([item(box(100, 100, 30), 'cut'), item(box(x, y, 30), 'cut')]);
      for (const kerfMm of [0, 0.2]) expect(broken({ ...beside, settings: { cut: { kerfMm } } })).toEqual([]);
    }
    // A square that leans on the outline from inside does lie in it.
    const inside = item(box(100, 120, 20), 'cut');
    expect(broken(orderSteps(jobWith([outer, inside]), ['cut outer', 'cut inner']))).toEqual([inside.id]);
  });

  test('over several cut layers too nothing is cut before what lies in it', () => {
    const square = fc.tuple(
      fc.integer({ min: 0, max: 300 }),
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: 3, max: 150 }),
      fc.nat(2),
    );
    fc.assert(
      fc.property(fc.array(square, { minLength: 2, maxLength: 12 }), fc.nat(4), (list, order) => {
        const ids = ['cut', 'fine', 'thick'];
        const orders = ['inside-first', 'nearest', 'parts', 'rows', 'inside-first'] as const;
        const items = list.map(([x, y, size]) => item(box(x, y, size), 'cut'));
        let many = jobWith(items);
        for (const id of ids.slice(1))
          many = setLayer(many, { id, name: id, operation: 'cut', rank: id === 'fine' ? 1 : 2 });
        many = { ...many, burning: { cut: { order: orders[order] } } };
        list.forEach(([, , , layer], i) => {
          many = pinItems(many, new Set([items[i].id]), ids[layer]);
        });
        const found = plan(many);
        expect(found.steps.reduce((sum, { litMm }) => sum + litMm, 0)).toBeCloseTo(
          list.reduce((sum, [, , size]) => sum + 4 * size, 0),
          5,
        );
        // Layers whose inside and outside are one step can only hold each other's if they are drawn so.
        if (order === 0 || order === 4) {
          const wrong = found.outOfOrder.filter(({ itemId, cutItemId }) => {
            const [a, b] = [itemId, cutItemId].map((id) => boundsOfAll(items.filter((one) => one.id === id)));
            return a.minX > b.minX && a.minY > b.minY && a.maxX < b.maxX && a.maxY < b.maxY;
          });
          expect(wrong).toEqual([]);
        }
      }),
    );
  });
});
