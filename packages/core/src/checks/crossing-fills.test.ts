import { describe, expect, test } from '@jest/globals';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const fill = (path: ReturnType<typeof box>) => item(path, 'engrave');
const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });

function checked(job: ReturnType<typeof jobWith>) {
  const prepared = prepareJob(job, shop);
  const plan = planJob(prepared);
  return {
    litMm: plan.steps[0]?.litMm ?? 0,
    found: checkJob(prepared, plan).find(({ code }) => code === 'fills-cross'),
  };
}

describe('engravings that cross', () => {
  test('are found with the places where they do, and burn whole once they are united', () => {
    const [across, down, apart] = [fill(box(50, 60, 60, 20)), fill(box(70, 50, 20, 40)), fill(box(150, 50, 20))];
    const job = jobWith([across, down, apart]);
    const { litMm, found } = checked(job);
    expect(found).toMatchObject({ level: 'warns', layerId: 'engrave', itemIds: [across.id, down.id] });
    expect(found?.message).toContain('2 engravings on Engrave cross, and where they overlap neither burns');
    expect(found?.places).toHaveLength(4);
    const [mend] = found?.mends ?? [];
    const after = checked(mended(job, mend));
    expect(after.found).toBeUndefined();
    // The overlap of 20 × 20 mm burns now, in lines 0.1 mm apart.
    expect(after.litMm - litMm).toBeCloseTo(200 * 20, 0);
  });

  test.each([
    ['a hole in a plate', [box(50, 50, 60), box(60, 60, 10)]],
    ['neighbours that share an edge', [box(50, 50, 20), box(70, 50, 20)]],
    ['a shape that leans on another from inside', [box(50, 50, 60), box(50, 60, 10)]],
    ['corners that touch', [box(50, 50, 20), box(70, 70, 20)]],
    ['round ones that only touch', [circle(60, 60, 10), circle(80, 60, 10)]],
    ['the same outline twice, which is said of its own', [box(50, 50, 20), box(50, 50, 20)]],
  ])('are not %s', (_, paths) => {
    expect(checked(jobWith(paths.map(fill))).found).toBeUndefined();
  });

  test('round ones that overlap by a tenth of a millimetre are', () => {
    expect(checked(jobWith([fill(circle(60, 60, 10)), fill(circle(79.9, 60, 10))])).found?.places).toHaveLength(2);
  });
});
