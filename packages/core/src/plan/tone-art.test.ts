import { describe, expect, test } from '@jest/globals';
import { checkJob } from '../checks/check.ts';
import type { Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { croppedPicture } from '../edits/crop.ts';
import { changeSetting } from '../edits/items.ts';
import { setBurning } from '../edits/layers.ts';
import { setTone } from '../edits/tone.ts';
import { greyPicture } from '../fixtures/grey-picture.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { prepareWithPictures } from '../formats/picture/to-burn.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { Move } from './moves.ts';
import { planJob } from './plan.ts';

/** An item that is filled with a colour, on Photo. */
const filled = (path: Path, fill: string, more: Partial<Item> = {}) =>
  item(path, 'photo', { paint: { stroke: null, strokeWidthMm: 0, fill }, pinned: 'photo', ...more });

const picture = (values: readonly number[], width: number, x: number, y: number, mm: number) => ({
  pixels: greyPicture(width, values),
  item: item(box(0, 0, 1), null, {
    shape: { kind: 'picture', pictureId: 'p', width, height: values.length / width },
    matrix: [mm, 0, 0, mm, x, y],
    pinned: 'photo',
  }),
});

const settings: Partial<LayerSettings> = { lineSpacingMm: 0.5, grain: 'true-greys', powerPercent: 40 };

/** What Photo burns of some items: a plan, and the share of power that burns at a place. */
async function photoOf(items: readonly Item[], more: Partial<LayerSettings> = {}, pixels = greyPicture(1, [0])) {
  const said = Object.entries({ ...settings, ...more }) as [keyof LayerSettings, never][];
  const job = said.reduce((now, [name, value]) => changeSetting(now, 'photo', name, value), jobWith(items));
  const prepared = await prepareWithPictures(job, shop, {}, async () => pixels);
  const plan = planJob(prepared);
  const step = plan.steps.find(({ operation }) => operation === 'photo');
  const powerAt = (x: number, y: number): number => {
    if (!step) return 0;
    const { xs, ys, kinds, powers } = step.moves;
    for (let i = 1; i < kinds.length; i++) {
      const [from, to] = [Math.min(xs[i - 1], xs[i]), Math.max(xs[i - 1], xs[i])];
      if (kinds[i] === Move.lit && Math.abs(ys[i] - y) < 0.25 && from < x && x < to) return powers ? powers[i] : 1;
    }
    return 0;
  };
  return { plan, step, powerAt };
}

test('what can be seen through of a picture never burns, be it a negative; what is half seen burns half', async () => {
  const values = [0, 0, 0, 0];
  const seen = greyPicture(4, values, [255, 128, 0, 0]);
  const { item: shown } = picture(values, 4, 10, 10, 4);
  const burnt = async (inverted: boolean) => {
    const job = setTone(jobWith([shown]), new Set([shown.id]), { inverted: inverted || undefined });
    const { powerAt } = await photoOf(job.drawing.items, {}, seen);
    return [12, 16, 20, 24].map((x) => powerAt(x, 12.25));
  };
  expect(await burnt(false)).toEqual([1, 0.5, 0, 0].map((power) => expect.closeTo(power, 1)));
  expect(await burnt(true)).toEqual([0, 0, 0, 0]);
  const white = greyPicture(4, [255, 255, 255, 255], [255, 128, 0, 0]);
  const job = setTone(jobWith([shown]), new Set([shown.id]), { inverted: true });
  const { powerAt } = await photoOf(job.drawing.items, {}, white);
  expect([12, 16, 20, 24].map((x) => powerAt(x, 12.25))).toEqual(
    [1, 0.5, 0, 0].map((power) => expect.closeTo(power, 1)),
  );
});

describe('what is filled on Photo', () => {
  test('burns by its grey, all of it where its colour only says where it goes or it has none', async () => {
    const { powerAt } = await photoOf([
      filled(box(10, 10, 4), '#333333'),
      filled(box(20, 10, 4), '#CCCCCC'),
      item(box(30, 10, 4), 'photo'),
      item(box(40, 10, 4), 'cut', { pinned: 'photo' }),
    ]);
    const powers = [12, 22, 32, 42].map((x) => powerAt(x, 12.25));
    expect(powers).toEqual([0.8, 0.2, 1, 1].map((power) => expect.closeTo(power, 2)));
    expect(powerAt(16, 12.25)).toBe(0);
  });

  test('covers what is behind it, wherever it stands in the file; white makes a hole', async () => {
    const { powerAt } = await photoOf([
      filled(box(10, 10, 20), '#000000'),
      filled(box(12, 12, 4), '#FFFFFF'),
      filled(box(20, 12, 4), '#CCCCCC'),
      filled(box(22, 14, 4), '#333333'),
    ]);
    const powers = [11, 13, 21, 23].map((x) => powerAt(x, 15.25));
    expect(powers).toEqual([1, 0, 0.2, 0.8].map((power) => expect.closeTo(power, 2)));
  });

  test('is filled as its layer says', async () => {
    const builder = new PathBuilder();
    for (const path of [box(10, 10, 20), box(15, 15, 10)]) appendPath(builder, path, true);
    const ring = filled(builder.build(), '#000000');
    expect((await photoOf([ring])).powerAt(20, 20.25)).toBe(0);
    const asDrawn = setBurning(jobWith([ring]), 'photo', { fillRule: 'as-drawn' });
    const prepared = await prepareWithPictures(asDrawn, shop, {}, async () => greyPicture(1, [0]));
    const [whole] = planJob(prepared).steps;
    const [holed] = (await photoOf([ring], { lineSpacingMm: 0.1, grain: 'diffused' })).plan.steps;
    expect(whole.litMm / holed.litMm).toBeCloseTo(400 / 300, 2);
  });

  test('burns where lines at an angle cross it, and edges by as much as they cover', async () => {
    const { step } = await photoOf([filled(box(10, 10, 10), '#000000')], { scanAngle: 30, grain: 'diffused' });
    const { moves } = step as NonNullable<typeof step>;
    for (let i = 0; i < moves.kinds.length; i++) {
      if (moves.kinds[i] !== Move.lit) continue;
      expect(Math.max(Math.abs(moves.xs[i] - 15), Math.abs(moves.ys[i] - 15))).toBeLessThan(5.5);
    }
    expect((step?.litMm ?? 0) * 0.5).toBeGreaterThan(98);
    expect((step?.litMm ?? 0) * 0.5).toBeLessThan(102);
  });

  test('is named where none of its dots burns', async () => {
    const thin = filled(box(10, 10, 5, 0.1), '#888888');
    const { plan } = await photoOf([thin, filled(box(30, 30, 5), '#000000')], { grain: 'threshold' });
    expect(plan.missed.map(({ box }) => box)).toEqual([
      { minX: 10, minY: 10, maxX: expect.closeTo(15, 2), maxY: expect.closeTo(10.1, 2) },
    ]);
    expect((await photoOf([filled(box(30, 30, 5), '#FFFFFF')])).plan.missed).toEqual([]);
    // Where lines are at an angle, the place is that of the shape all the same.
    expect((await photoOf([thin], { grain: 'threshold', scanAngle: 30 })).plan.missed).toMatchObject([
      { box: { minX: 10, minY: 10 } },
    ]);
  });

  test('burns far apart in blocks of their own, and near each other in one', async () => {
    const rows = async (x: number) =>
      new Set((await photoOf([filled(box(10, 10, 4), '#000000'), filled(box(x, 10, 4), '#000000')])).step?.moves.ys);
    const travels = async (x: number) =>
      (await photoOf([filled(box(10, 10, 4), '#000000'), filled(box(x, 10, 4), '#000000')])).step?.moves.kinds.filter(
        (kind) => kind === Move.travel,
      ).length ?? 0;
    expect((await rows(15)).size).toBe(8);
    expect(await travels(15)).toBeLessThan(await travels(400));
  });
});

describe('a picture', () => {
  test('is covered by what lies in front of it, and burns once where two lie on each other', async () => {
    const dark = picture([0, 0, 0, 0], 2, 10, 10, 5);
    const { powerAt, step } = await photoOf(
      [dark.item, filled(box(12, 12, 4), '#CCCCCC'), { ...dark.item, id: 'again' }],
      {},
      dark.pixels,
    );
    expect(powerAt(13, 13.25)).toBeCloseTo(1, 2);
    expect(step?.litMm).toBeCloseTo(20 * 10, 6);
    const behind = await photoOf([dark.item, filled(box(12, 12, 4), '#CCCCCC')], {}, dark.pixels);
    expect(behind.powerAt(13, 13.25)).toBeCloseTo(0.2, 2);
    expect(behind.powerAt(11, 13.25)).toBe(1);
  });

  test('that is white all over is a finding, and no thin part; toned it is not', async () => {
    const white = picture([255, 255, 255, 255], 2, 10, 10, 5);
    const job = jobWith([white.item]);
    const found = async (entry: typeof job) => {
      const prepared = await prepareWithPictures(entry, shop, {}, async () => white.pixels);
      return checkJob(prepared, planJob(prepared)).filter(({ level }) => level !== 'notes');
    };
    const [blank, ...others] = await found(job);
    expect(others).toEqual([]);
    expect(blank).toMatchObject({ code: 'blank-picture', itemIds: [white.item.id], layerId: 'photo' });
    expect(blank.message).toBe(
      '1 picture on Photo would burn nothing: it is white all over, or becomes so by the tone. Change the tone, or say that the stock turns lighter where it burns.',
    );
    expect(await found(setTone(job, new Set([white.item.id]), { lighter: true }))).toEqual([]);
    const negative = setTone(job, new Set([white.item.id]), { lighter: true, inverted: true });
    expect((await found(negative))[0].message).toContain(
      'it is black all over, or becomes so by the tone, and black stays as it is on stock that turns lighter',
    );
  });

  test('burns its light parts where the stock turns lighter, unless somebody says otherwise', async () => {
    const light = picture([255, 255, 0, 0], 2, 10, 10, 5);
    const slate = { ...shop, materials: shop.materials.map((stock) => ({ ...stock, turnsLighter: true })) };
    const litTop = async (book: typeof shop, lighter?: boolean) => {
      const job = setTone(jobWith([light.item]), new Set([light.item.id]), { lighter });
      const [step] = planJob(await prepareWithPictures(job, book, {}, async () => light.pixels)).steps;
      return Math.min(...[...step.moves.ys].filter((_, i) => step.moves.kinds[i] === Move.lit)) < 15;
    };
    expect([await litTop(shop), await litTop(slate)]).toEqual([false, true]);
    expect([await litTop(shop, true), await litTop(slate, false)]).toEqual([true, false]);
  });
});

test('of a cropped picture, what lies in the crop burns, with an edge that is not of pixels', async () => {
  const { pixels, item: whole } = picture([0, 0, 0, 0], 2, 100, 100, 10);
  const cropped = croppedPicture(whole, outlineOf({ kind: 'ellipse', cx: 110, cy: 110, rx: 6, ry: 6 })) as Item;
  const { powerAt, plan } = await photoOf([cropped], { grain: 'true-greys' }, pixels);
  expect([powerAt(110, 110.2), powerAt(115.7, 110.2), powerAt(110.2, 104.6)].every((power) => power > 0.3)).toBe(true);
  expect([powerAt(114.8, 114.8), powerAt(103.4, 110.2), powerAt(101, 101)]).toEqual([0, 0, 0]);
  // The area of the circle, in lit mm of lines half a mm apart.
  expect(plan.steps[0].litMm * 0.5).toBeGreaterThan(Math.PI * 36 * 0.98);
  expect(plan.steps[0].litMm * 0.5).toBeLessThan(Math.PI * 36 * 1.1);
});

test('a picture of more dots than go into memory burns nothing, which keeps the job back', async () => {
  const { pixels, item: large } = picture([0, 255, 255, 0], 2, 10, 10, 150);
  const fine = { lineSpacingMm: 0.1, dotMm: 0.005 };
  const { plan } = await photoOf([large], fine, pixels);
  expect([plan.steps, plan.missed.map(({ dots }) => dots)]).toEqual([[], [180_000_000]]);
  const said = Object.entries(fine) as [keyof LayerSettings, never][];
  const job = said.reduce((now, [name, value]) => changeSetting(now, 'photo', name, value), jobWith([large]));
  const prepared = await prepareWithPictures(job, shop, {}, async () => pixels);
  const [found] = checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'too-many-dots');
  expect(found).toMatchObject({ level: 'blocks', itemIds: [large.id] });
  expect(found.message).toMatch(/^Photo would burn 180 million dots, and at most 100 million are worked out/);
});
