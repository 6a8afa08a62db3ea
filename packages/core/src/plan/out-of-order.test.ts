import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { outlineOf } from '../document/shapes.ts';
import { switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import type { Operation } from '../operations/operations.ts';
import type { BurnLine } from './order.ts';
import { outOfOrder } from './out-of-order.ts';
import { countPieces, cutPieces, piecesBySize } from './pieces.ts';
import { planJob } from './plan.ts';
import { type PreparedLayer, prepareJob } from './prepare.ts';

const square = (x: number, y: number, size: number) => item(box(x, y, size), 'cut');
const linesOf = (one: Item): BurnLine[] =>
  one.shape.kind === 'path'
    ? flatten(one.shape.path).map((outline, nth) => ({ item: one, line: outline, nth, place: 0, start: null }))
    : [];
/** A step that burns items in this order; an engraving has no lines. */
const step = (operation: Operation, ...items: Item[]) => ({
  layer: {
    layer: { operation },
    placed: items.map((one) => ({ item: one, parts: ['stroke'] })),
  } as unknown as PreparedLayer,
  burnt: operation === 'engrave' ? [] : items.flatMap(linesOf),
});
const found = (...steps: ReturnType<typeof step>[]) =>
  outOfOrder(steps).map(({ itemId, cutItemId }) => [itemId, cutItemId]);

describe('what burns after the cut that holds it', () => {
  const [outer, inner] = [square(10, 10, 100), square(30, 30, 10)];

  test('is found by the order of lines, within a step and over steps', () => {
    expect(found(step('cut', inner, outer))).toEqual([]);
    expect(found(step('cut', outer, inner))).toEqual([[inner.id, outer.id]]);
    expect(found(step('cut', outer), step('cut', inner))).toEqual([[inner.id, outer.id]]);
    expect(found(step('cut', outer), step('cut', square(200, 10, 10)))).toEqual([]);
  });

  test('is found of scores and engravings too; what they lie in counts, not what lies in them', () => {
    const fold = item(line(20, 50, 90, 50), 'score');
    const name = item(box(40, 40, 10), 'engrave');
    expect(found(step('score', fold), step('engrave', name), step('cut', outer))).toEqual([]);
    expect(found(step('cut', outer), step('score', fold), step('engrave', name))).toEqual([
      [fold.id, outer.id],
      [name.id, outer.id],
    ]);
    // An outline that is scored, or a cut that does not close, lets nothing drop.
    expect(found(step('score', outer), step('cut', inner))).toEqual([]);
    const open = item(line(10, 10, 110, 10, 110, 110, 10, 110), 'cut');
    expect(found(step('cut', open), step('cut', inner))).toEqual([]);
    // An engraving with nothing in it is nowhere.
    expect(found(step('cut', outer), step('engrave', item(new PathBuilder().build(), 'engrave')))).toEqual([]);
  });

  test('lies in the outline, not only within its bounds', () => {
    const notched = new PathBuilder().moveTo(10, 10).lineTo(110, 10).lineTo(110, 110).lineTo(60, 110);
    const closed = item(notched.lineTo(60, 60).lineTo(10, 60).close().build(), 'cut');
    const inNotch = square(20, 80, 10);
    expect(found(step('cut', closed, inNotch))).toEqual([]);
    const inArm = square(70, 80, 10);
    expect(found(step('cut', closed, inArm))).toEqual([[inArm.id, closed.id]]);
    expect(found(step('cut', outer, closed, inArm))).toEqual([
      [closed.id, outer.id],
      [inArm.id, expect.any(String)],
    ]);
  });

  test('is not the same outline drawn twice, but one of the same size inside is', () => {
    expect(found(step('cut', outer, square(10, 10, 100)))).toEqual([]);
    // As large, and as far at the top or at the side only: neither lies in the other.
    for (const [x, y] of [
      [10, 60],
      [60, 10],
      [60, 60],
      [110, 10],
    ]) {
      expect(found(step('cut', outer, square(x, y, 100)))).toEqual([]);
    }
    const lower = item(box(10, 10, 100, 50), 'cut');
    expect(found(step('cut', outer, lower))).toEqual([[lower.id, outer.id]]);
  });

  test('is looked for where it begins, which is not as far down as it is across', () => {
    const [low, deep] = [item(box(10, 300, 60, 60), 'cut'), item(line(20, 310, 60, 310), 'score')];
    expect(found(step('cut', low), step('score', deep))).toEqual([[deep.id, low.id]]);
  });

  test('is named once each, and no more than two hundred', () => {
    const around = square(5, 5, 110);
    expect(found(step('cut', around, outer, inner)).filter(([id]) => id === inner.id)).toHaveLength(1);
    const many = Array.from({ length: 201 }, (_, i) => square(12 + (i % 20) * 4, 12 + Math.floor(i / 20) * 4, 2));
    expect(found(step('cut', outer, ...many))).toHaveLength(200);
    expect(found(step('cut', outer, ...many.slice(0, 199)))).toHaveLength(199);
  });
});

describe('what comes free by cutting', () => {
  const pieces = (items: readonly Item[], change = (job: ReturnType<typeof jobWith>) => job) => {
    const prepared = prepareJob(change(jobWith(items)), shop);
    const { pieces: count, fallsOut } = countPieces(piecesBySize(prepared));
    const { holes, depths } = cutPieces(prepared);
    return { count, fallsOut, holes: holes.length, depths: items.map(({ id }) => depths.get(id)) };
  };
  const [a, b, c] = [square(10, 10, 100), square(30, 30, 60), square(50, 50, 20)];

  test('outlines are pieces and holes by turns, from outside in', () => {
    expect(pieces([a])).toEqual({ count: 1, fallsOut: 0, holes: 0, depths: [0] });
    expect(pieces([a, b])).toEqual({ count: 1, fallsOut: 1, holes: 1, depths: [0, 1] });
    expect(pieces([c, b, a])).toEqual({ count: 2, fallsOut: 1, holes: 2, depths: [2, 1, 0] });
    const d = square(55, 55, 5);
    expect(pieces([a, b, c, d])).toEqual({ count: 2, fallsOut: 2, holes: 3, depths: [0, 1, 2, 3] });
  });

  test('open lines, other operations and layers that are off free nothing', () => {
    const [open, scored] = [item(line(20, 20, 60, 20, 60, 60), 'cut'), item(box(200, 10, 20), 'score')];
    expect(pieces([a, open, scored])).toEqual({ count: 1, fallsOut: 0, holes: 0, depths: [0, undefined, undefined] });
    expect(pieces([a, b], (job) => switchLayer(job, 'cut', false))).toEqual({
      count: 0,
      fallsOut: 0,
      holes: 0,
      depths: [undefined, undefined],
    });
  });

  test('pieces and what falls out are listed by the size they come out in', () => {
    const plate = square(10, 10, 100);
    const holes = [20, 50].map((x) => item(outlineOf({ kind: 'ellipse', cx: x, cy: 30, rx: 5, ry: 5 }), 'cut'));
    const loose = [square(200, 10, 30), square(240, 10, 30)];
    const listed = (kerfMm: number, more = {}) =>
      piecesBySize(
        prepareJob(jobWith([plate, ...holes, ...loose], { settings: { cut: { kerfMm } }, ...more }), shop),
      ).map(({ count, widthMm, heightMm, isWaste, isHeld, itemIds }) => [
        `${count} × ${widthMm} × ${heightMm}${isWaste ? ' waste' : ''}${isHeld ? ' held' : ''}`,
        itemIds.length,
      ]);
    expect(listed(0)).toEqual([
      ['1 × 100 × 100', 1],
      ['2 × 30 × 30', 2],
      ['2 × 10 × 10 waste', 2],
    ]);
    // Pieces and holes come out as drawn; what falls out is smaller by the kerf on every side.
    expect(listed(0.2).map(([words]) => words)).toEqual(['1 × 100 × 100', '2 × 30 × 30', '2 × 9.6 × 9.6 waste']);
    // Cut on the line, all lose half of it.
    expect(listed(0.2, { burning: { cut: { keep: 'line' } } }).map(([words]) => words)).toEqual([
      '1 × 99.8 × 99.8',
      '2 × 29.8 × 29.8',
      '2 × 9.8 × 9.8 waste',
    ]);
    const tabs = [{ itemId: loose[0].id, subpath: 0, at: [0.5] }];
    expect(listed(0, { tabs }).map(([words]) => words)).toEqual([
      '1 × 100 × 100',
      '1 × 30 × 30 held',
      '1 × 30 × 30',
      '2 × 10 × 10 waste',
    ]);
  });

  test('what is drawn twice comes out once, and is cut on one side both times', () => {
    const [hole, again] = [square(30, 30, 20), square(30, 30, 20)];
    const inHole = square(35, 35, 5);
    const twice = prepareJob(
      jobWith([a, square(10, 10, 100), hole, again, inHole], { settings: { cut: { kerfMm: 0.2 } } }),
      shop,
    );
    expect(piecesBySize(twice).map(({ count, widthMm, isWaste }) => [count, widthMm, isWaste])).toEqual([
      [1, 100, false],
      [1, 5, false],
      [1, 19.6, true],
    ]);
    const xs = planJob(twice).steps.flatMap(({ moves }) => [...moves.xs].filter((x) => x > 29 && x < 31));
    expect([...new Set(xs)]).toEqual([30.1]);
  });

  test('outlines that cross part each other: each part has its own size', () => {
    const sizes = (items: readonly Item[], more = {}) =>
      piecesBySize(prepareJob(jobWith(items, more), shop)).map(
        ({ count, widthMm, heightMm, isWaste, isRough }) =>
          `${count} × ${widthMm} × ${heightMm}${isWaste ? ' waste' : ''}${isRough ? ' rough' : ''}`,
      );
    // A slot over the edge of a plate, and a hole in what is left of that.
    const [slot, hole] = [item(box(100, 50, 20, 6), 'cut'), item(box(20, 20, 10, 10), 'cut')];
    expect(sizes([a, slot, hole])).toEqual(['1 × 100 × 100', '1 × 10 × 6', '1 × 10 × 10 waste', '1 × 10 × 6 waste']);
    // A bar across cuts the plate in two.
    const bar = item(box(0, 40, 120, 10), 'cut');
    expect(sizes([a, bar])).toEqual(['1 × 100 × 60', '1 × 100 × 30', '2 × 10 × 10', '1 × 100 × 10 waste']);
    const onLines = { settings: { cut: { kerfMm: 0.2 } }, burning: { cut: { keep: 'line' } } };
    expect(sizes([a, bar], onLines)[0]).toBe('1 × 99.8 × 59.8');
    // So many are not parted, and said to be rough.
    const row = Array.from({ length: 41 }, (_, i) => item(box(10 + 6 * i, 10, 10, 10), 'cut'));
    expect(sizes(row)).toEqual(['41 × 10 × 10 rough']);
    expect(sizes(row.slice(1))).toEqual(['2 × 6 × 10', '38 × 2 × 10', '39 × 4 × 10 waste']);
  });

  test('of an item of several outlines each has its own size, curves to 0.01 mm', () => {
    const builder = new PathBuilder();
    appendPath(builder, box(10, 10, 60, 40), true);
    appendPath(builder, outlineOf({ kind: 'ellipse', cx: 40, cy: 30, rx: 12.345, ry: 7 }), true);
    expect(piecesBySize(prepareJob(jobWith([item(builder.build(), 'cut')]), shop))).toMatchObject([
      { widthMm: 60, heightMm: 40, isWaste: false },
      { widthMm: 24.69, heightMm: 14, isWaste: true },
    ]);
  });

  test('an item of several outlines lies as deep as its outermost', () => {
    const ring = (...sizes: [number, number][]): Path => {
      const builder = new PathBuilder();
      for (const [at, size] of sizes) {
        builder
          .moveTo(at, at)
          .lineTo(at + size, at)
          .lineTo(at + size, at + size)
          .lineTo(at, at + size)
          .close();
      }
      return builder.build();
    };
    const both = item(ring([50, 20], [30, 60]), 'cut');
    expect(pieces([a, both]).depths).toEqual([0, 1]);
    const turned = item(ring([30, 60], [50, 20]), 'cut');
    expect(pieces([a, turned])).toEqual({ count: 2, fallsOut: 1, holes: 2, depths: [0, 1] });
  });
});
