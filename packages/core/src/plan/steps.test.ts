import { describe, expect, test } from '@jest/globals';
import { type Item, polylinesOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { type Layer, usualBurning } from '../document/layer.ts';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, line, material, shop } from '../fixtures/shop.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { PathBuilder } from '../geometry/paths/path.ts';
import { usualSettings } from '../settings/settings.ts';
import { Move, MoveList } from './moves.ts';
import { type BurnLine, burnLines, type LineBurning } from './order.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';
import { draftSteps } from './steps.ts';

const layer = (id: string, operation: Layer['operation'], more: Partial<Layer> = {}): Layer => ({
  id,
  name: id,
  operation,
  ...more,
});
const on = (layerId: string, path: ReturnType<typeof box>, more: Partial<Item> = {}) =>
  item(path, 'cut', { pinned: layerId, ...more });

/** What each step burns, by its id and the left edges of its outlines, in order. */
function stepsOf(items: readonly Item[], layers: readonly Layer[], more: Partial<JobDocument> = {}): string[] {
  const prepared = prepareJob(jobWith(items, { layers, ...more }), shop);
  return draftSteps(prepared).flatMap(({ id, fill }) => {
    const { burnt } = fill(new MoveList({ x: 0, y: 0 }));
    const edges = burnt.map(({ line: { points } }) => Math.min(...points.filter((_, i) => i % 2 === 0)));
    return edges.length > 0 ? [`${id}: ${edges.join(' ')}`] : [];
  });
}

describe('the steps of a run', () => {
  test('cut from the inside out over all cut layers, and a layer twice where another lies between', () => {
    const items = [
      on('a', box(10, 10, 100)),
      on('b', box(20, 20, 80)),
      on('a', box(30, 30, 60)),
      on('b', box(40, 40, 40)),
    ];
    const layers = [layer('a', 'cut'), layer('b', 'cut')];
    expect(stepsOf(items, layers)).toEqual(['b inner: 40', 'a inner: 30', 'b inner 2: 20', 'a outer: 10']);
    expect(stepsOf(items.toReversed(), layers)).toEqual(['b inner: 40', 'a inner: 30', 'b inner 2: 20', 'a outer: 10']);
  });

  test('keep a layer’s inner lines together where nothing of another has to come between', () => {
    // b's square at 300 lies beside a's; only the drawing tells them apart.
    const items = [
      on('a', box(10, 10, 100)),
      on('a', box(20, 20, 80)),
      on('a', box(30, 30, 10)),
      on('b', box(300, 10, 100)),
      on('b', box(310, 20, 10)),
    ];
    const steps = stepsOf(items, [layer('a', 'cut'), layer('b', 'cut')]);
    expect(steps).toEqual(['a inner: 30 20', 'b inner: 310', 'a outer: 10', 'b outer: 300']);
  });

  test('put layers of one kind by their rank, those without one after them, as they stand', () => {
    const layers = [
      layer('none', 'score'),
      layer('two', 'score', { rank: 2 }),
      layer('other', 'score'),
      layer('one', 'score', { rank: 1 }),
    ];
    const items = layers.map(({ id }, i) => on(id, line(10 + i, 10, 10 + i, 50)));
    expect(stepsOf(items, layers)).toEqual(['one all: 13', 'two all: 11', 'none all: 10', 'other all: 12']);
  });

  test('burn a layer whose order mixes inside and outside after what lies deeper in another’s', () => {
    const items = [on('outer', box(10, 10, 100)), on('rows', box(20, 20, 10)), on('rows', box(50, 20, 10))];
    const layers = [
      layer('outer', 'cut', { burning: { order: 'rows' } }),
      layer('rows', 'cut', { burning: { order: 'rows' } }),
    ];
    expect(stepsOf(items, layers)).toEqual(['rows all: 20 50', 'outer all: 10']);
  });

  describe('over several cut layers', () => {
    const orders = ['inside-first', 'nearest', 'parts', 'rows'] as const;
    const layersOf = (a: (typeof orders)[number], b: (typeof orders)[number]) => [
      layer('a', 'cut', { burning: { order: a } }),
      layer('b', 'cut', { burning: { order: b } }),
    ];
    // Each layer has a plate with a hole of the other's in it, and one of its own; one has an island in a hole as well.
    const items = [
      on('a', box(10, 10, 60)),
      on('b', box(20, 20, 10)),
      on('a', box(40, 20, 10)),
      on('b', box(100, 10, 60)),
      on('a', box(110, 20, 20)),
      on('b', box(115, 25, 5)),
      on('b', box(140, 20, 10)),
    ];
    test.each(orders.flatMap((a) => orders.map((b) => [a, b] as const)))(
      'whatever their orders (%s and %s), what lies in an outline burns before it',
      (a, b) => {
        for (const drawn of [items, items.toReversed()]) {
          const prepared = prepareJob(jobWith(drawn, { layers: layersOf(a, b) }), shop);
          expect(planJob(prepared).outOfOrder).toEqual([]);
        }
      },
    );
    test('a layer that only lies in others goes first, as a whole', () => {
      const holes = [
        on('a', box(10, 10, 100)),
        on('a', box(20, 20, 80)),
        on('b', box(30, 30, 10)),
        on('b', box(60, 30, 10)),
      ];
      expect(stepsOf(holes, layersOf('inside-first', 'parts'))).toEqual(['b all: 30 60', 'a inner: 20', 'a outer: 10']);
    });
  });

  test('go by the operator’s order; what that does not name follows what it usually follows', () => {
    const layers = ['a', 'b', 'c', 'd'].map((id) => layer(id, 'score'));
    const items = layers.map(({ id }, i) => on(id, line(10 + i, 10, 10 + i, 50)));
    const ids = (order: readonly string[]) => {
      const job = jobWith(items, { layers, order });
      return planJob(prepareJob(job, shop)).steps.map(({ layerId }) => layerId);
    };
    expect(ids([])).toEqual(['a', 'b', 'c', 'd']);
    expect(ids(['c all', 'gone all', 'a all'])).toEqual(['c', 'd', 'a', 'b']);
  });
});

describe('stock', () => {
  test('of several sheets of one material the thickest is gone through', () => {
    const sheet = (id: string, materialId: string, thicknessMm?: number, x = 0) => ({
      id,
      materialId,
      x,
      y: 0,
      width: 300,
      height: 200,
      margin: 0,
      ...(thicknessMm === undefined ? {} : { thicknessMm }),
    });
    const usualMm = material.thicknessMm;
    const speedOn = (...sheets: ReturnType<typeof sheet>[]) => {
      const { layers } = prepareJob(jobWith([item(box(10, 10, 20), 'cut')], { sheets }), shop);
      return layers.find(({ layer: { operation } }) => operation === 'cut')?.applied.settings?.speedMmPerS;
    };
    const [as, thick, thicker] = [
      speedOn(sheet('s', 'ply')),
      speedOn(sheet('s', 'ply', usualMm * 1.5)),
      speedOn(sheet('s', 'ply', usualMm * 2)),
    ];
    expect(as).toBe(15);
    expect(thick).toBeLessThan(as as number);
    expect(thicker).toBeLessThan(thick as number);
    expect(speedOn(sheet('s', 'ply', usualMm * 2), sheet('t', 'ply'))).toBe(thicker);
    expect(speedOn(sheet('s', 'ply'), sheet('t', 'ply', usualMm * 2), sheet('u', 'ply', usualMm * 1.5))).toBe(thicker);
    // Another material's does not count.
    expect(speedOn(sheet('s', 'ply'), sheet('t', 'bare', usualMm * 2, 301))).toBe(15);
  });
});

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });

describe('lines', () => {
  const some = item(box(0, 0, 1), 'cut');
  const drawnLine = (points: readonly number[], closed: boolean) => {
    const drawn = item(line(...points, ...(closed ? points.slice(0, 2) : [])), 'cut');
    return { item: drawn, line: polylinesOf(drawn)[0] };
  };
  const burn = (lines: readonly number[][], how: Partial<LineBurning['settings']> = {}, closed = false) => {
    const prepared = prepareJob(jobWith([item(line(10, 10, 20, 10), 'score')]), shop);
    const [{ layer: of, settings }] = draftSteps(prepared);
    const list = new MoveList({ x: 0, y: 0 });
    const group = lines.map(
      (points, place): BurnLine => ({ ...drawnLine(points, closed), nth: 0, place, start: null }),
    );
    const burnt = burnLines(list, [group], { ...of.burning, settings: { ...settings, ...how }, numbered: [] });
    return { moves: list.build(), places: burnt.map(({ place }) => place) };
  };
  const [forth, left, right] = [
    [0, 0, 100, 0],
    [0, 10, 50, 10],
    [100, 10, 150, 10],
  ];

  test('an open line is left at its other end after an odd number of passes, where it began after an even one', () => {
    expect(burn([forth, left, right]).places).toEqual([1, 0, 2]);
    expect(burn([forth, left, right], { passes: 3 }).places).toEqual([1, 0, 2]);
    expect(burn([forth, left, right], { passes: 2 }).places).toEqual([0, 1, 2]);
  });

  test('an open line is burnt there and back, each time as much deeper', () => {
    const { moves } = burn([forth], { passes: 3, focusMm: 1, focusStepMm: 0.5, pierceS: 0.2 });
    const told = [...moves.kinds].map((kind, i) =>
      kind === Move.lit
        ? `${moves.xs[i]}`
        : kind === Move.focus
          ? `z${moves.values?.[i]}`
          : kind === Move.wait
            ? 'pierce'
            : 'go',
    );
    expect(told).toEqual(['z1', 'pierce', '100', 'z0.5', '0', 'z0', '100']);
  });

  test('the beam waits at sharp corners: not at the ends of an open line, not where a closed one closes', () => {
    const waits = ({ moves }: ReturnType<typeof burn>) =>
      [...moves.kinds].flatMap((kind, i) => (kind === Move.wait ? [`${moves.xs[i]},${moves.ys[i]}`] : []));
    const bent = [10, 0, 20, 0, 20, 10, 30, 10.5];
    expect(waits(burn([bent], { cornerWaitS: 0.1 }))).toEqual(['20,0', '20,10']);
    // Turns of less than 0.35 are no corners.
    expect(waits(burn([[10, 0, 20, 0, 30, 3]], { cornerWaitS: 0.1 }))).toEqual([]);
    const square = [10, 0, 20, 0, 20, 10, 10, 10];
    expect(waits(burn([square], { cornerWaitS: 0.1 }, true))).toHaveLength(3);
  });

  test.each([0, 0.05, 0.1, 0.2, 0.6, 1.5])(
    'a wait belongs to the corner as it is drawn, with a kerf of %p mm',
    (kerfMm) => {
      const rounded = new PathBuilder().moveTo(100, 10).lineTo(130, 10).lineTo(130, 25);
      rounded.cubicTo(130, 30, 125, 40, 115, 40).lineTo(115, 25).lineTo(100, 25);
      const items = [
        item(box(20, 20, 30), 'cut'),
        item(rounded.close().build(), 'cut'),
        item(circle(200, 50, 0.8), 'cut'),
      ];
      const settings = { cut: { cornerWaitS: 0.25, kerfMm } };
      const { steps } = planJob(prepareJob(jobWith(items, { settings }), shop));
      const places = steps.flatMap(({ moves }) =>
        [...moves.kinds].flatMap((kind, i) => (kind === Move.wait ? [{ x: moves.xs[i], y: moves.ys[i] }] : [])),
      );
      // Corners of the square and of the other outline, whose arc and the circle have none; not the one it ends at.
      const corners = [
        [20, 20],
        [50, 20],
        [50, 50],
        [20, 50],
        [100, 10],
        [130, 10],
        [115, 40],
        [115, 25],
        [100, 25],
      ];
      const near = corners.map(([x, y]) =>
        places.filter((at) => Math.hypot(at.x - x, at.y - y) <= kerfMm * 0.75 + 0.01),
      );
      expect(near.map((list) => list.length > 1)).not.toContain(true);
      expect(places.length).toBe(near.flat().length);
      expect(places.length).toBeGreaterThanOrEqual(corners.length - 2);
    },
  );

  test('waits stand at the corners of an open line too that has a stray point beside it', () => {
    const stray = new PathBuilder()
      .moveTo(5, 5)
      .lineTo(5, 5)
      .moveTo(10, 10)
      .lineTo(20, 10)
      .lineTo(20, 20)
      .lineTo(10, 20);
    const settings = { score: { cornerWaitS: 0.25 } };
    const { steps } = planJob(prepareJob(jobWith([item(stray.build(), 'score')], { settings }), shop));
    const places = steps.flatMap(({ moves }) =>
      [...moves.kinds].flatMap((kind, i) => (kind === Move.wait ? [[moves.xs[i], moves.ys[i]]] : [])),
    );
    expect(places.sort()).toEqual([
      [20, 10],
      [20, 20],
    ]);
  });

  /** Where an outline begins that is reached from (300, 100). */
  const begins = (points: readonly number[], start: LineBurning['start'], chosen: number | null = null) => {
    const list = new MoveList({ x: 300, y: 100 });
    const how: LineBurning = { ...usualBurning, settings: usualSettings(), numbered: [], start };
    burnLines(list, [[{ ...drawnLine(points, true), nth: 0, place: 0, start: chosen }]], how);
    const { xs, ys } = list.build();
    return [Math.round(xs[0]), Math.round(ys[0])];
  };
  const round = (count: number, radius: (i: number) => number) =>
    Array.from({ length: count }, (_, i) => {
      const angle = (i * 2 * Math.PI) / count;
      return [100 + radius(i) * Math.cos(angle), 100 + radius(i) * Math.sin(angle)];
    }).flat();

  test('an outline starts at a corner where it has one and that is asked, else where it is nearest', () => {
    const bow = Array.from({ length: 13 }, (_, i) => {
      const angle = ((i - 6) * Math.PI) / 12;
      return [100 + 20 * Math.cos(angle), 100 + 20 * Math.sin(angle)];
    }).flat();
    expect(begins(bow, 'nearest')).toEqual([120, 100]);
    expect([
      [100, 80],
      [100, 120],
    ]).toContainEqual(begins(bow, 'corner'));
    expect(begins(bow, 'corner', 3)).toEqual([114, 86]);
    // Turns of 0.17 are no corners; one of 0.52 is.
    expect(
      begins(
        round(36, () => 20),
        'corner',
      ),
    ).toEqual([120, 100]);
    expect(
      begins(
        round(36, (i) => (i === 18 ? 20.6 : 20)),
        'corner',
      ),
    ).toEqual([79, 100]);
  });

  test('rows are lines whose middles stand no further apart than half of the higher one', () => {
    const rowsOf = (boxes: readonly (readonly [number, number, number])[]) => {
      const list = new MoveList({ x: 0, y: 0 });
      const group = boxes.map(
        ([x, y, size], place): BurnLine => ({
          item: some,
          line: flatten(box(x, y, size))[0],
          nth: 0,
          place,
          start: null,
        }),
      );
      const how: LineBurning = { ...usualBurning, settings: usualSettings(), numbered: [], order: 'rows' };
      return burnLines(list, [group], how).map(({ place }) => place);
    };
    expect(
      rowsOf([
        [0, 0, 20],
        [100, 0, 20],
        [30, 10, 20],
      ]),
    ).toEqual([0, 2, 1]);
    expect(
      rowsOf([
        [0, 0, 20],
        [100, 0, 20],
        [30, 10.1, 20],
      ]),
    ).toEqual([0, 1, 2]);
    // The higher of two counts, whichever comes first.
    expect(
      rowsOf([
        [0, 0, 20],
        [100, 0, 20],
        [30, 16, 4],
      ]),
    ).toEqual([0, 2, 1]);
    expect(
      rowsOf([
        [0, 0, 4],
        [100, 0, 4],
        [30, 2, 20],
      ]),
    ).toEqual([0, 2, 1]);
  });
});
