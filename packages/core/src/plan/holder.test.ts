import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { moveItems } from '../edits/items.ts';
import { followSources } from '../fit/follow.ts';
import { addHolder, type HolderWish, usualHolder } from '../fit/holder.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const badge = item(box(100, 100, 64, 30), 'cut', { id: 'badge' });
const name = item(box(110, 108, 40, 10), 'engrave', { id: 'name' });
const paint = badge.paint;
let next = 0;
const make = (job = jobWith([badge, name]), wish: Partial<HolderWish> = {}, id = 'badge') => {
  const layers = prepareJob(job, shop).meaning.layers;
  const means = { cut: paint, score: paint, guideId: 'guide', layers, newId: () => `h${++next}` };
  return addHolder(job, id, { ...usualHolder, ...wish }, means);
};
const named = (items: readonly Item[], name: string) => items.find((one) => one.name === name) as Item;
const sizeOf = (one: Item) => {
  const { minX, minY, maxX, maxY } = boundsOf(one);
  return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1000) / 1000);
};
const stepsOf = (job: Parameters<typeof prepareJob>[0]) =>
  job.runs.map((run) => [
    run.name,
    ...planJob(prepareJob(job, shop, { runId: run.id })).steps.map(({ layerId, part }) => `${layerId} ${part}`),
  ]);

describe('a holder', () => {
  test('is cut in the first run, pocket before plate; the object burns in the next; its outline is a guide', () => {
    const { job, ids } = make();
    expect(ids).toHaveLength(3);
    const { items } = job.drawing;
    expect(sizeOf(named(items, 'Holder'))).toEqual([85, 85, 179, 145]);
    // The pocket is 0.3 wider; the notches of 12 reach out at both ends.
    expect(sizeOf(named(items, 'Pocket'))).toEqual([94, 99.85, 170, 130.15]);
    expect(items.find(({ id }) => id === 'badge')?.pinned).toBe('guide');
    expect(stepsOf(job)).toEqual([
      ['Holder', 'holder-score all', 'holder-cut inner', 'holder-cut outer'],
      ['Object', 'engrave all'],
    ]);
    expect(job.runs.map(({ stock }) => stock)).toEqual(['fresh', 'in place']);
  });

  test('its pocket follows the object', () => {
    const { job } = make(jobWith([badge, name]), { notchMm: 0 });
    const moved = followSources(job, moveItems(job, new Set(['badge']), 5, 0));
    expect(sizeOf(named(moved.drawing.items, 'Pocket'))).toEqual([104.85, 99.85, 169.15, 130.15]);
  });

  test('a second one is cut in the same run, and a third run stays without them', () => {
    const other = item(outlineOf({ kind: 'ellipse', cx: 300, cy: 100, rx: 20, ry: 20 }), 'cut', { id: 'disc' });
    const first = make(jobWith([badge, name, other])).job;
    const second = make(first, { corners: false }, 'disc');
    expect(second.ids).toHaveLength(2);
    expect(second.job.runs.map(({ name: run }) => run)).toEqual(['Holder', 'Object']);
    expect(stepsOf(second.job)[1]).toEqual(['Object', 'engrave all']);
    expect(new Set(second.job.drawing.items.map(({ id }) => id)).size).toBe(second.job.drawing.items.length);
  });

  test('with a material of its own the object burns with that recipe', () => {
    const { job } = make(jobWith([badge, name]), { materialId: 'bare' });
    expect(job.sheets.at(-1)).toMatchObject({ materialId: 'bare', x: 100, y: 100, width: 64, height: 30 });
    const engraved = prepareJob(job, shop, { runId: job.runs[1].id }).layers.find(
      ({ layer }) => layer.id === 'engrave',
    );
    expect(engraved?.material?.id).toBe('bare');
  });

  test('of an open line there is none', () => {
    const open = jobWith([item(line(0, 0, 10, 0), 'cut', { id: 'badge' })]);
    expect(make(open, { clearanceMm: 0 })).toEqual({ job: open, ids: [] });
    expect(make(open, {}, 'nobody').ids).toEqual([]);
  });
});
