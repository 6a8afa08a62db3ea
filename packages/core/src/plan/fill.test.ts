import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item, Paint } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { flipFill, setBurning, unflip } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { polylineContains } from '../geometry/paths/flatten.ts';
import { engravedFills, engravedPath, hasOwnFill } from './fill.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';
import { whyFilled } from './why-filled.ts';

const engraved = (x: number, y: number, width: number, height = width) => item(box(x, y, width, height), 'engrave');
const fine = { settings: { engrave: { lineSpacingMm: 0.1 } } };

function preparedOf(
  items: readonly Item[],
  change: (job: JobDocument) => JobDocument = (job) => job,
  key = shop.keys[0],
) {
  return prepareJob(change(jobWith(items, fine)), { ...shop, keys: [key] });
}

/** The area that the plan burns, in mm²: its lit way times the line spacing. */
function burntArea(prepared: ReturnType<typeof preparedOf>): number {
  return planJob(prepared).steps.reduce((sum, step) => sum + (step.operation === 'engrave' ? step.litMm * 0.1 : 0), 0);
}

describe('what gets filled', () => {
  test('overlaps cancel, or unite where the layer says so', () => {
    const two = [engraved(20, 20, 10), engraved(25, 20, 10)];
    expect(burntArea(preparedOf(two))).toBeCloseTo(100, 0);
    expect(burntArea(preparedOf(two, (job) => setBurning(job, 'engrave', { overlaps: 'unite' })))).toBeCloseTo(150, 0);
  });

  test('by the file’s own rule, an outline in another of the same way round is no hole', () => {
    const nested = item(
      {
        verbs: Uint8Array.from([...box(0, 0, 1).verbs, ...box(0, 0, 1).verbs]),
        coords: Float64Array.from([...box(20, 20, 20).coords, ...box(25, 25, 10).coords]),
      },
      'engrave',
    );
    expect(burntArea(preparedOf([nested]))).toBeCloseTo(300, 0);
    const asDrawn = preparedOf([nested], (job) => setBurning(job, 'engrave', { fillRule: 'as-drawn' }));
    expect(burntArea(asDrawn)).toBeCloseTo(400, 0);
  });

  test('a stroke wider than the key’s hairline burns as what it covers, with its corners and ends', () => {
    const key = { ...shop.keys[0], hairlineMm: 0.3 };
    const wide = (more: Partial<Paint>) =>
      item(line(20, 20, 60, 20), 'engrave', {
        paint: { stroke: '#5B3FA0', strokeWidthMm: 2, fill: null, ...more },
      });
    const area = (one: Item) => burntArea(preparedOf([one], undefined, key));
    expect(area(wide({}))).toBeCloseTo(80, 0);
    expect(area(wide({ cap: 'square' }))).toBeCloseTo(84, 0);
    expect(area(wide({ cap: 'round' }))).toBeCloseTo(80 + Math.PI, 0);
    expect(area(wide({ strokeWidthMm: 0.2 }))).toBe(0);
    const frame = item(box(20, 20, 30), 'engrave', { paint: { stroke: '#5B3FA0', strokeWidthMm: 2, fill: null } });
    expect(area(frame)).toBeCloseTo(32 * 32 - 28 * 28, 0);
    expect(burntArea(preparedOf([frame]))).toBeCloseTo(900, 0);
  });

  test('figure and ground swapped: what burns is the border’s inside without the figures, and swapping back is nothing', () => {
    const border = item(box(10, 10, 40), 'cut');
    const figure = engraved(20, 20, 10);
    const flip = (job: JobDocument) => flipFill(job, 'f', [figure.id], border.id, 1);
    expect(burntArea(preparedOf([border, figure], flip))).toBeCloseTo(38 * 38 - 100, 0);
    expect(unflip(flip(jobWith([border, figure])), new Set([figure.id])).flips).toEqual([]);
    // A border that is gone swaps nothing.
    expect(burntArea(preparedOf([figure], flip))).toBeCloseTo(100, 0);
  });

  test('greys burn by how dark they are, in steps or without, the one in front where they overlap', () => {
    const grey = (fill: string, x: number) =>
      item(box(x, 20, 10), 'engrave', { paint: { stroke: null, strokeWidthMm: 0, fill } });
    const greys = [grey('#000000', 20), grey('#777777', 25), grey('#FFFFFF', 60)];
    const pinned = greys.map((one) => ({ ...one, pinned: 'engrave' }));
    const powers = (steps: number | null) => {
      const prepared = preparedOf(pinned, (job) => setBurning(job, 'engrave', { depth: { steps, lightest: 0.2 } }));
      const layer = prepared.layers.find(({ id }) => id === 'engrave');
      if (!layer) throw new Error('no layer');
      return { fills: engravedFills(prepared, layer), plan: planJob(prepared) };
    };
    expect(powers(null).fills.map(({ power }) => power)).toEqual([1, expect.closeTo(0.6, 1), 0.2]);
    expect(powers(3).fills.map(({ power }) => power)).toEqual([1, expect.closeTo(0.6, 9), 0.2]);
    // Of two, the lighter half burns with the least.
    expect(new Set(powers(2).fills.map(({ power }) => power))).toEqual(new Set([1, 0.2]));
    const [black, middle] = powers(3).fills;
    const width = (fill: typeof black) => fill.pieces[0].bounds.maxX - fill.pieces[0].bounds.minX;
    expect([width(black), width(middle)]).toEqual([5, 10].map((mm) => expect.closeTo(mm, 3)));
    const { powers: shares, kinds } = powers(3).plan.steps[0].moves;
    expect([...new Set(kinds.length === shares?.length ? shares : [])].sort()).toEqual(
      [0.2, 0.6, 1].map((share) => Math.fround(share)),
    );
  });

  test('why it is filled says what is around a point, and agrees with what burns', () => {
    const nested = [engraved(20, 20, 60), engraved(30, 30, 40), engraved(40, 40, 20)];
    const prepared = preparedOf(nested);
    fc.assert(
      fc.property(fc.integer({ min: 15, max: 85 }), fc.integer({ min: 15, max: 85 }), (cx, cy) => {
        const [x, y] = [cx + 0.37, cy + 0.41];
        const [why] = whyFilled(prepared, x, y);
        const around = nested.filter((one) => polylineContains({ points: flat(one), closed: true }, x, y));
        expect(why?.around.map(({ item: one }) => one.id) ?? []).toEqual(around.map(({ id }) => id));
        expect(why?.filled ?? false).toBe(around.length % 2 === 1);
      }),
    );
    expect(whyFilled(prepared, 50, 50)[0].because).toBe('3 outlines lie around it on Engrave: an odd number burns.');
    expect(whyFilled(prepared, 50, 50)[0].around.map(({ fills }) => fills)).toEqual([true, false, true]);
    expect(whyFilled(prepared, 50, 50)[0].around.map(({ item: { id } }) => id)).toEqual(nested.map(({ id }) => id));
    const [united, asDrawn] = [{ overlaps: 'unite' as const }, { fillRule: 'as-drawn' as const }].map(
      (how) =>
        whyFilled(
          preparedOf(nested, (job) => setBurning(job, 'engrave', how)),
          35,
          35,
        )[0].because,
    );
    expect(united).toBe('2 outlines lie around it, and overlaps on this layer unite.');
    expect(asDrawn).toBe('2 outlines lie around it, and the layer goes by the fill of its files.');
    expect(whyFilled(prepared, 35, 35)[0].because).toBe(
      '2 outlines lie around it on Engrave: an even number is a hole.',
    );
  });
});

test('why it is filled says where lines are wide enough to burn as areas, and where figure and ground are swapped', () => {
  const key = { ...shop.keys[0], hairlineMm: 0.3 };
  const paint = { stroke: '#5B3FA0', strokeWidthMm: 2, fill: null };
  const because = (items: readonly Item[], x: number, y: number, change?: (job: JobDocument) => JobDocument) =>
    whyFilled(preparedOf(items, change, key), x, y).map((why) => [why.filled, why.around.length, why.because]);
  const frame = item(box(20, 20, 30), 'engrave', { paint });
  const wideLine = [[true, 0, 'A line on Engrave is wide enough to burn as an area of its own.']];
  expect(because([frame], 19.5, 35)).toEqual(wideLine);
  expect(because([item(line(20, 20, 60, 20), 'engrave', { paint })], 40, 20.5)).toEqual(wideLine);
  expect(because([frame], 35, 35)).toEqual([
    [false, 1, '1 outline lies around it on Engrave; its lines are wide enough to burn as areas of their own.'],
  ]);
  const [border, figure] = [item(box(10, 10, 60), 'cut'), engraved(20, 20, 10)];
  const flip = (job: JobDocument) => flipFill(job, 'f', [figure.id], border.id, 1);
  expect(because([border, figure], 50, 50, flip)).toEqual([
    [true, 0, 'It is ground: figure and ground are swapped here.'],
  ]);
  expect(because([border, figure], 25, 25, flip)).toEqual([
    [false, 1, 'It is figure, and figure and ground are swapped here.'],
  ]);
  // A wide line beside the border of swapped figures is no ground.
  expect(because([border, figure, { ...frame, matrix: [1, 0, 0, 1, 200, 0] }], 219.5, 35, flip)).toEqual(wideLine);
});

test('a layer is filled otherwise than even-odd for each of its reasons alone', () => {
  const [one, border] = [engraved(20, 20, 10), item(box(10, 10, 60), 'cut')];
  const own = (
    change: (job: JobDocument) => JobDocument,
    items: readonly Item[] = [one, border],
    key = shop.keys[0],
  ) => {
    const prepared = preparedOf(items, change, key);
    const layer = prepared.layers.find(({ id }) => id === 'engrave');
    return layer ? hasOwnFill(prepared, layer) : null;
  };
  const burning = (how: Parameters<typeof setBurning>[2]) => (job: JobDocument) => setBurning(job, 'engrave', how);
  expect(own((job) => job)).toBe(false);
  expect(own(burning({ overlaps: 'unite' }))).toBe(true);
  expect(own(burning({ fillRule: 'as-drawn' }))).toBe(true);
  expect(own(burning({ depth: { steps: null, lightest: 0.1 } }))).toBe(true);
  expect(own((job) => flipFill(job, 'f', [one.id], border.id, 0))).toBe(true);
  const wide = item(line(20, 60, 60, 60), null, {
    pinned: 'engrave',
    paint: { stroke: '#123456', strokeWidthMm: 2, fill: null },
  });
  expect(own((job) => job, [one, wide], { ...shop.keys[0], hairlineMm: 0.5 })).toBe(true);
  expect(own((job) => job, [one, wide])).toBe(false);
});

test('what a layer engraves is shown as the outlines that it burns', () => {
  const prepared = preparedOf([engraved(20, 20, 10, 5), engraved(40, 20, 5)], (job) =>
    setBurning(job, 'engrave', { overlaps: 'unite' }),
  );
  const layer = prepared.layers.find(({ id }) => id === 'engrave');
  const fills = layer ? engravedFills(prepared, layer) : [];
  const shown = fills.map((one) => {
    const { verbs, coords } = engravedPath(one);
    return { verbs: [...verbs], coords: [...coords].map(Math.round) };
  });
  const corners = (outline: number) => new Set(shown[0].coords.slice(8 * outline, 8 * outline + 8));
  expect(shown[0].verbs).toEqual([0, 1, 1, 1, 3, 0, 1, 1, 1, 3]);
  expect([corners(0), corners(1)]).toEqual([new Set([20, 30, 25]), new Set([40, 45, 20, 25])]);
});

function flat(one: Item): Float64Array {
  if (one.shape.kind !== 'path') throw new Error('a path');
  return one.shape.path.coords;
}
