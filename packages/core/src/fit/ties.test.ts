import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item } from '../document/item.ts';
import { type JobDocument, newJob } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import type { Shape } from '../document/shape.ts';
import type { PartTie } from '../document/ties.ts';
import { combineItems } from '../edits/combination.ts';
import { addItems, moveItems, scaleItems } from '../edits/items.ts';
import { replaceShape } from '../edits/reshape.ts';
import { identity, rotation } from '../geometry/paths/matrix.ts';
import { boltDiameter, boltHoles, fitBolts } from './bolts.ts';
import { followSources } from './follow.ts';
import {
  addMeeting,
  followThickness,
  makeMeeting,
  slotsAmong,
  thicknessBy,
  tieChanges,
  tieToThickness,
  untie,
} from './ties.ts';

const item = (id: string, shape: Shape, matrix = identity): Item => ({
  id,
  name: null,
  shape,
  matrix,
  paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null },
  fillRule: 'nonzero',
  groupId: null,
  pinned: null,
  hidden: false,
});
const rect = (x: number, y: number, width: number, height: number): Shape => ({
  kind: 'rectangle',
  x,
  y,
  width,
  height,
  rx: 0,
  ry: 0,
});
const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 600, height: 400, margin: 3 };
const jobWith = (...items: Item[]): JobDocument => ({
  ...addItems(newJob('wren', 'house'), items, []),
  sheets: [sheet],
});
const thicknessOf = thicknessBy([
  { id: 'ply', thicknessMm: 4 },
  { id: 'card', thicknessMm: 2 },
]);
const snug = { fit: 'snug', clearanceMm: 0.05 } as const;
const all = (job: JobDocument) => new Set(job.drawing.items.map(({ id }) => id));
const measured = (job: JobDocument, thicknessMm: number): JobDocument =>
  followThickness({ ...job, sheets: job.sheets.map((one) => ({ ...one, thicknessMm })) }, thicknessOf);
const boxIn = (job: JobDocument, id: string) => {
  const { minX, minY, maxX, maxY } = boundsOf(job.drawing.items.find((one) => one.id === id) as Item);
  return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1e6) / 1e6);
};

describe('slots that go by the thickness of the stock', () => {
  test('are as wide as that and the fit, about their middle, on their narrower side', () => {
    const slot: Shape = { kind: 'slot', x1: 100, y1: 100, x2: 140, y2: 100, width: 3 };
    const job = jobWith(item('tall', rect(10, 10, 3, 40)), item('flat', rect(50, 10, 40, 3)), item('round', slot));
    const tied = tieToThickness(job, all(job), snug, thicknessOf);
    expect(boxIn(tied, 'tall')).toEqual([9.475, 10, 13.525, 50]);
    expect(boxIn(tied, 'flat')).toEqual([50, 9.475, 90, 13.525]);
    expect(boxIn(tied, 'round')[3] - boxIn(tied, 'round')[1]).toBeCloseTo(4.05, 9);
    const thicker = measured(tied, 4.2);
    expect(boxIn(thicker, 'tall')).toEqual([9.375, 10, 13.625, 50]);
    expect(tieChanges(tied, thicker)).toEqual(
      ['tall', 'flat', 'round'].map((itemId) => ({
        itemId,
        what: 'slot',
        fromMm: expect.closeTo(4.05, 9),
        toMm: expect.closeTo(4.25, 9),
      })),
    );
    expect(followThickness(thicker, thicknessOf)).toBe(thicker);
    expect(boxIn(measured(untie(tied, all(tied)), 6), 'tall')).toEqual(boxIn(tied, 'tall'));
  });

  test('selected with their plate, only they are slots; a piece by itself is what it is told to be', () => {
    const plate = item('plate', rect(0, 0, 180, 60));
    const slots = [item('a', rect(20, 30, 4, 30)), item('b', rect(60, 30, 9, 30)), item('c', rect(90, 30, 1, 30))];
    expect(slotsAmong([plate, ...slots], 4).map(({ id }) => id)).toEqual(['a', 'b']);
    expect(slotsAmong([plate], 4)).toEqual([plate]);
  });

  test('follow within a combination that is turned and scaled, and by the sheet they lie on', () => {
    const divider = jobWith(item('plate', rect(0, 0, 80, 40)), item('notch', rect(38, 20, 3, 20)));
    const tied = tieToThickness(divider, new Set(['notch']), snug, thicknessOf);
    const one = combineItems(tied, all(tied), 'subtract', 'divider');
    const turned = scaleItems(
      {
        ...one,
        drawing: {
          ...one.drawing,
          items: one.drawing.items.map((part) => ({ ...part, matrix: rotation(90, { x: 40, y: 40 }) })),
        },
      },
      new Set(['divider']),
      2,
      2,
      { x: 40, y: 40 },
    );
    const followed = measured(turned, 4.5);
    const [{ shape, matrix }] = followed.drawing.items;
    if (shape.kind !== 'combined' || shape.parts[1].shape.kind !== 'rectangle') throw new Error('no notch');
    expect(shape.parts[1].shape.width * Math.hypot(matrix[0], matrix[1])).toBeCloseTo(4.55, 9);

    const card = { ...sheet, id: 'c', materialId: 'card', x: 300 };
    const two = {
      ...jobWith(item('a', rect(10, 10, 9, 40)), item('b', rect(400, 10, 9, 40))),
      sheets: [{ ...sheet, width: 250 }, card],
    };
    const both = tieToThickness(two, all(two), snug, thicknessOf);
    expect([boxIn(both, 'a'), boxIn(both, 'b')].map(([x0, , x1]) => Math.round((x1 - x0) * 1000) / 1000)).toEqual([
      4.05, 2.05,
    ]);
  });

  test('scaled by hand they go by it no more; a fit tighter than the stock leaves them as they are', () => {
    const job = jobWith(item('a', rect(10, 10, 3, 40)));
    const tied = tieToThickness(job, all(job), snug, thicknessOf);
    const wide = scaleItems(tied, all(tied), 2, 1, { x: 10, y: 10 });
    expect(boxIn(measured(wide, 9), 'a')).toEqual(boxIn(wide, 'a'));
    const none = tieToThickness(job, all(job), { fit: 'press', clearanceMm: -5 }, thicknessOf);
    expect(boxIn(none, 'a')).toEqual(boxIn(job, 'a'));
    expect(tieToThickness({ ...job, sheets: [] }, all(job), snug, thicknessOf).drawing.items[0].shape).toMatchObject({
      width: 3,
    });
  });
});

describe('outlines that meet a part', () => {
  const meets = (role: PartTie['role'], clearanceMm = 0.3): PartTie => ({ role, fit: 'loose', clearanceMm });
  const base = () => jobWith(item('base', rect(20, 20, 60, 40)));
  const sizeOf = (job: JobDocument, id: string) => {
    const [x0, y0, x1, y1] = boxIn(job, id);
    return [x1 - x0, y1 - y0].map((mm) => Math.round(mm * 1000) / 1000);
  };
  const edit = (job: JobDocument, change: (job: JobDocument) => JobDocument) =>
    followSources(job, followThickness(change(job), thicknessOf));

  test.each<[PartTie['role'], number[], number[]]>([
    ['pocket', [60.3, 40.3], [80.3, 40.3]],
    ['insert', [59.7, 39.7], [79.7, 39.7]],
    // Walls of 4 mm on both sides, and room between.
    ['lid', [68.3, 48.3], [88.3, 48.3]],
  ])('a %s has its size, which follows, and a place of its own', (role, size, grown) => {
    const { job, id } = addMeeting(base(), 'base', meets(role), 4, () => 'met');
    expect(id).toBe('met');
    expect(sizeOf(job, 'met')).toEqual(size);
    expect(boxIn(job, 'met')[0]).toBeCloseTo(85, 6);
    const wider = edit(job, (before) => replaceShape(before, 'base', [rect(20, 20, 80, 40)], () => 'x'));
    expect(sizeOf(wider, 'met')).toEqual(grown);
    const away = edit(wider, (before) => moveItems(before, new Set(['met']), 100, 50));
    const still = edit(away, (before) => moveItems(before, new Set(['base']), -7, 3));
    expect(boxIn(still, 'met')).toEqual(boxIn(away, 'met'));
    expect(sizeOf(still, 'met')).toEqual(grown);
  });

  test('a lid follows the thickness, and says so', () => {
    const { job } = addMeeting(base(), 'base', meets('lid'), 4, () => 'met');
    const thicker = edit(job, (before) => ({ ...before, sheets: [{ ...sheet, thicknessMm: 4.4 }] }));
    expect(sizeOf(thicker, 'met')).toEqual([69.1, 49.1]);
    expect(tieChanges(job, thicker)).toEqual([
      { itemId: 'met', what: 'lid', fromMm: expect.closeTo(68.3, 6), toMm: expect.closeTo(69.1, 6) },
    ]);
  });

  test('an outline that is there becomes one, where it is; copies of it follow too', () => {
    const job = jobWith(
      item('thing', { kind: 'ellipse', cx: 20, cy: 20, rx: 10, ry: 10 }),
      item('hole', rect(100, 100, 5, 5)),
    );
    const met = makeMeeting(job, 'hole', 'thing', meets('pocket'), 4);
    expect(boxIn(met, 'hole')).toEqual([92.35, 92.35, 112.65, 112.65]);
    expect(makeMeeting(job, 'hole', 'hole', meets('pocket'), 4)).toBe(job);
    const copied = edit(met, (before) => {
      const [, hole] = before.drawing.items;
      return addItems(before, [{ ...hole, id: 'copy', matrix: [1, 0, 0, 1, 200, 200] }], []);
    });
    const grown = edit(copied, (before) =>
      replaceShape(before, 'thing', [{ kind: 'ellipse', cx: 20, cy: 20, rx: 15, ry: 15 }], () => 'x'),
    );
    expect(sizeOf(grown, 'copy')).toEqual([30.3, 30.3]);
    const back = jobFromJson(JSON.parse(JSON.stringify(jobToJson(grown))));
    expect(back).toEqual(grown);
  });

  test('what leaves nothing is not made', () => {
    const small = jobWith(item('base', rect(0, 0, 0.2, 0.2)));
    expect(addMeeting(small, 'base', meets('insert'), 4, () => 'met')).toEqual({ job: small, id: null });
  });
});

describe('holes for bolts', () => {
  test('have the diameters of the standards, wider for more room', () => {
    expect(boltDiameter({ size: 'M4', room: 'normal' })).toBe(4.5);
    expect(boltDiameter({ size: '1/4 in', room: 'close' })).toBeCloseTo(6.747, 3);
    expect(boltDiameter({ size: 'M99', room: 'close' })).toBeNull();
    for (const { close, normal, wide } of boltHoles)
      expect([close, normal, wide].every((d, i, all) => i === 0 || d > all[i - 1])).toBe(true);
  });

  test('are made of circles about their centres, scaled ones too, and not of ellipses; scaled by hand they are plain', () => {
    const job = jobWith(
      item('round', { kind: 'ellipse', cx: 50, cy: 50, rx: 10, ry: 10 }, [2, 0, 0, 2, 0, 0]),
      item('oval', { kind: 'ellipse', cx: 50, cy: 50, rx: 10, ry: 5 }),
    );
    const fitted = fitBolts(job, all(job), { size: 'M3', room: 'close' });
    expect(boxIn(fitted, 'round')).toEqual([98.4, 98.4, 101.6, 101.6]);
    expect(fitted.drawing.items[1]).toBe(job.drawing.items[1]);
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(fitted))))).toEqual(fitted);
    const scaled = scaleItems(fitted, new Set(['round']), 3, 3, { x: 0, y: 0 }).drawing.items[0].shape;
    expect(scaled).not.toHaveProperty('bolt');
    const broken = JSON.parse(JSON.stringify(jobToJson(fitted)).replace('"close"', '"roomy"'));
    expect(() => jobFromJson(broken)).toThrow('bolt room must be close, normal, wide');
  });
});
