import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { appendPath, PathBuilder } from '../geometry/paths/path.ts';
import { mended } from '../mends/mend.ts';
import { operationOf } from '../operations/operations.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';
import type { Finding } from './finding.ts';

const plate = item(box(20, 20, 200), 'cut');

function found(job: JobDocument, code: Finding['code']): Finding[] {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter((entry) => entry.code === code);
}

const layers = ['score', null] as const;

describe('before colours mean anything, and after', () => {
  test.each(layers)('ends that nearly meet are found with their places, and joined (%p)', (operation) => {
    const [a, b] = [item(line(30, 30, 60, 30), operation), item(line(60.12, 30, 90, 30), operation)];
    const far = item(line(30, 40, 60, 40, 60, 70), operation);
    const job = jobWith([plate, a, far, b]);
    const [gap] = found(job, 'tiny-gap');
    expect(gap).toMatchObject({ level: 'notes', itemIds: [a.id, b.id] });
    expect(gap.message).toContain('1 pair of ends nearly meets: the widest gap is 0.12 mm');
    expect(gap.places?.map(({ minX, maxX, minY }) => [minX + 1, maxX - 1, minY + 1])).toEqual([[60.06, 60.06, 30]]);
    const [join] = gap.mends ?? [];
    expect(join).toMatchObject({ words: 'Join ends within 0.12 mm', isSafe: true });
    const after = mended(job, join);
    expect(after.drawing.items.map(({ id }) => id)).toEqual([plate.id, a.id, far.id]);
    expect(found(after, 'tiny-gap')).toEqual([]);
  });

  test('rows of hatch lines, fans and ends that meet are no gaps', () => {
    const row = fc.record({
      step: fc.double({ min: 0.02, max: 0.5, noNaN: true }),
      count: fc.integer({ min: 3, max: 30 }),
    });
    fc.assert(
      fc.property(row, ({ step, count }) => {
        const rows = Array.from({ length: count }, (_, i) => item(line(30, 30 + i * step, 60, 30 + i * step), 'score'));
        expect(found(jobWith([plate, ...rows]), 'tiny-gap')).toEqual([]);
      }),
      { numRuns: 40 },
    );
    const fan = [0, 1, 2].map((i) => item(line(100 + i / 20, 100, 150, 100 + 20 * i), 'score'));
    const met = [item(line(30, 150, 60, 150), 'score'), item(line(60, 150, 60, 190), 'score')];
    expect(found(jobWith([plate, ...fan, ...met]), 'tiny-gap')).toEqual([]);
  });

  test.each(layers)('points and specks go; what they are part of stays (%p)', (operation) => {
    const speck = item(box(40, 40, 0.03), operation);
    const point = item(new PathBuilder().moveTo(60, 60).lineTo(60, 60).build(), operation);
    const builder = new PathBuilder();
    for (const path of [line(70, 70, 90, 70), line(95, 95, 95.01, 95)]) appendPath(builder, path, true);
    const mixed = item(builder.build(), operation);
    const small = item(box(50, 50, 0.06), operation);
    const job = jobWith([plate, speck, point, mixed, small]);
    const [left] = found(job, 'left-over');
    expect(left).toMatchObject({ level: 'notes', itemIds: [speck, point, mixed].map(({ id }) => id) });
    expect(left.message).toContain('3 stray points');
    const [remove] = left.mends ?? [];
    expect(remove).toMatchObject({ words: 'Remove the 3', isSafe: true });
    const after = mended(job, remove);
    expect(after.drawing.items.map(({ id }) => id)).toEqual([plate.id, mixed.id, small.id]);
    expect(after.drawing.items[1].shape).toEqual({ kind: 'path', path: line(70, 70, 90, 70) });
    expect(found(after, 'left-over')).toEqual([]);
  });

  test('a line drawn twice is found where its colour means nothing, and a fill over its stroke is none', () => {
    const [once, again] = [item(line(30, 30, 90, 30), null), item(line(90, 30, 30, 30), null)];
    const [twice] = found(jobWith([plate, once, again]), 'line-drawn-twice');
    expect(twice).toMatchObject({ itemIds: [once.id, again.id], mends: [{ words: 'Remove 1 double' }] });
    const fill = item(box(40, 40, 9), null, { paint: { stroke: null, strokeWidthMm: 0, fill: '#123456' } });
    expect(found(jobWith([plate, item(box(40, 40, 9), null), fill]), 'line-drawn-twice')).toEqual([]);
  });
});

describe('colours', () => {
  const painted = (stroke: string): Item =>
    item(line(30, 30, 90, 30), null, { paint: { stroke, strokeWidthMm: 0.1, fill: null } });
  const { colour } = operationOf('score');

  test('one that is nearly a meaning is taken for it on a press, or noted', () => {
    const near = `${colour.slice(0, 5)}${(Number.parseInt(colour.slice(5), 16) ^ 4).toString(16).padStart(2, '0')}`;
    const job = jobWith([plate, painted(near.toUpperCase())]);
    const narrow = {
      ...shop,
      keys: shop.keys.map((key) => ({ ...key, rules: key.rules.map((rule) => ({ ...rule, tolerance: 0 })) })),
    };
    const prepared = prepareJob(job, narrow);
    const [open] = checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'colour-without-meaning');
    expect(open.mends?.map(({ words, isSafe }) => [words, isSafe])).toEqual([
      ['Treat as Score', true],
      ['Note, not burnt', false],
    ]);
    for (const mend of open.mends ?? []) {
      const after = prepareJob(mended(job, mend), narrow);
      expect(checkJob(after, planJob(after)).map(({ code }) => code)).not.toContain('colour-without-meaning');
    }
  });

  test('one that is near nothing can only be noted here', () => {
    const [open] = found(jobWith([plate, painted('#9ACD00')]), 'colour-without-meaning');
    expect(open.mends?.map(({ words }) => words)).toEqual(['Note, not burnt']);
  });
});
