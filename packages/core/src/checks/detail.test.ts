import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith, material, shop } from '../fixtures/shop.ts';
import { boxWidth } from '../geometry/paths/box.ts';
import { appendPath, PathBuilder } from '../geometry/paths/path.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { checkJob } from './check.ts';

const leastSizes = { cut: { detailMm: 1, letterMm: 0 }, engrave: { detailMm: 0.4, letterMm: 2 } };
const learnt: Shop = { ...shop, materials: [{ ...material, leastSizes }, ...shop.materials.slice(1)] };

function fineIn(job: JobDocument, within = learnt) {
  const prepared = prepareJob(job, within);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'fine-detail' || code === 'small-letters');
}

/** A text whose capitals are so high on the bed, drawn as one bar. */
function text(mm: number, scale = 1): Item {
  const setting = {
    words: 'AB',
    family: 'Any',
    bold: false,
    italic: false,
    height: mm / scale,
    align: 'left' as const,
    spacing: 0,
    leading: 1,
    width: null,
  };
  const drawn = item(box(0, 0, 8 / scale, 3 / scale), 'engrave');
  const path = pathOf(drawn);
  return { ...drawn, shape: { kind: 'text', text: setting, path }, matrix: [scale, 0, 0, scale, 60, 60] };
}

describe('details finer than the material holds', () => {
  test('a wall between two cuts, with its width; one that is wide enough is none', () => {
    const plate = (wall: number) => [
      item(box(20, 20, 80), 'cut'),
      item(box(30, 30, 20), 'cut'),
      item(box(50 + wall, 30, 20), 'cut'),
    ];
    const [thin, ...others] = fineIn(jobWith(plate(0.7)));
    expect(others).toEqual([]);
    expect(thin).toMatchObject({ code: 'fine-detail', level: 'warns', layerId: 'cut' });
    expect(thin.message).toBe(
      '1 wall or bridge is thinner than Plywood holds on Cut: 0.70 mm at the thinnest, and it holds from 1 mm.',
    );
    expect(thin.itemIds).toHaveLength(2);
    expect(fineIn(jobWith(plate(1.05)))).toEqual([]);
    expect(fineIn(jobWith(plate(0.7)), shop)).toEqual([]);
  });

  test('one that the kerf check tells is not told twice', () => {
    const strip = jobWith([item(box(20, 20, 60, 0.15), 'cut')], { settings: { cut: { kerfMm: 0.2 } } });
    expect(fineIn(strip)).toEqual([]);
  });

  test('an engraved bar is made as thick as is needed', () => {
    const thin = item(box(60, 60, 20, 0.25), 'engrave');
    const job = jobWith([item(box(20, 20, 10), 'engrave'), thin]);
    const [found] = fineIn(job);
    expect(found).toMatchObject({ itemIds: [thin.id], mends: [{ words: 'Thicken by 0.16 mm', isSafe: false }] });
    const after = mended(job, found.mends?.[0] as never);
    const { minY, maxY } = boundsOf(after.drawing.items[1]);
    expect(maxY - minY).toBeCloseTo(0.41, 3);
    expect(after.drawing.items[0]).toBe(job.drawing.items[0]);
    expect(fineIn(after)).toEqual([]);
  });

  test('a hole keeps its place and becomes smaller where its shape is made thicker', () => {
    const builder = new PathBuilder();
    appendPath(builder, box(60, 60, 20), true);
    appendPath(builder, box(60.3, 60.3, 10), true);
    const frame = item(builder.build(), 'engrave', { fillRule: 'evenodd' });
    const job = jobWith([frame]);
    const [found] = fineIn(job);
    const after = mended(job, found.mends?.[0] as never);
    expect(boxWidth(boundsOf(after.drawing.items[0]))).toBeGreaterThan(20);
    expect(fineIn(after)).toEqual([]);
  });
});

describe('letters too small to read', () => {
  test.each([1, 2])(
    'are found by how high they are on the bed, and enlarged about their middle (scale %p)',
    (scale) => {
      const [small, large] = [text(1.25, scale), text(2, scale)];
      const job = jobWith([item(box(20, 20, 100), 'cut'), small, large]);
      const [found] = fineIn(job);
      expect(found).toMatchObject({
        code: 'small-letters',
        itemIds: [small.id],
        mends: [{ words: 'Enlarge to 2 mm' }],
      });
      expect(found.message).toBe('1 text has capitals 1.25 mm high; of Plywood letters hold from 2 mm on Engrave.');
      const after = mended(job, found.mends?.[0] as never);
      const [was, is] = [job, after].map((entry) => boundsOf(entry.drawing.items[1]));
      expect(boxWidth(is)).toBeCloseTo(boxWidth(was) * 1.6, 6);
      expect(is.minX + is.maxX).toBeCloseTo(was.minX + was.maxX, 6);
      expect(fineIn(after)).toEqual([]);
    },
  );
});
