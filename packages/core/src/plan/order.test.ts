import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { usualBurning } from '../document/layer.ts';
import { box, item, line } from '../fixtures/shop.ts';
import { flatten, type Polyline, polylineLength, signedArea } from '../geometry/paths/flatten.ts';
import { nestDepths } from '../geometry/questions/nesting.ts';
import { usualSettings } from '../settings/settings.ts';
import { Move, MoveList } from './moves.ts';
import { type BurnLine, burnLines, type LineBurning } from './order.ts';

const place = fc.integer({ min: 0, max: 400 });
const polyline: fc.Arbitrary<Polyline> = fc.oneof(
  fc.tuple(place, place, fc.integer({ min: 1, max: 60 })).map(([x, y, size]) => flatten(box(x, y, size))[0]),
  fc
    .uniqueArray(fc.tuple(place, place), { minLength: 2, maxLength: 7, selector: ([x, y]) => `${x} ${y}` })
    .map((points) => flatten(line(...points.flat()))[0]),
);

const some = item(box(0, 0, 1), 'cut');
const usual: LineBurning = { ...usualBurning, settings: usualSettings(), numbered: [] };

function burn(lines: readonly Polyline[], { passes = 1, ...how }: Partial<LineBurning> & { passes?: number } = {}) {
  const list = new MoveList({ x: 0, y: 0 });
  const depths = nestDepths(lines);
  const byDepth: BurnLine[][] = [];
  lines.forEach((one, i) => {
    byDepth[depths[i]] ??= [];
    byDepth[depths[i]].push({ item: { ...some, id: `line-${i}` }, line: one, nth: 0, place: i, start: null });
  });
  const burnt = burnLines(
    list,
    Array.from(byDepth, (group) => group ?? []),
    { ...usual, settings: { ...usualSettings(), passes }, ...how },
  );
  return { list, moves: list.build(), burnt, places: burnt.map(({ place: at }) => at) };
}

/** Every lit edge, whichever way it was burnt, with how often. */
function litEdges({ kinds, xs, ys }: ReturnType<MoveList['build']>): Map<string, number> {
  const edges = new Map<string, number>();
  kinds.forEach((kind, i) => {
    if (kind !== Move.lit) return;
    // The head starts at (0, 0).
    const from = i === 0 ? '0,0' : `${xs[i - 1]},${ys[i - 1]}`;
    const ends = [from, `${xs[i]},${ys[i]}`].sort().join(' ');
    edges.set(ends, (edges.get(ends) ?? 0) + 1);
  });
  return edges;
}

const orders = ['inside-first', 'nearest', 'parts', 'rows', 'as-drawn', 'by-hand'] as const;
const manner = fc.record({
  order: fc.constantFrom(...orders),
  direction: fc.constantFrom('either' as const, 'clockwise' as const, 'anticlockwise' as const),
  start: fc.constantFrom('nearest' as const, 'corner' as const),
  passes: fc.integer({ min: 1, max: 4 }),
});

describe('burning lines, whatever their order', () => {
  test('burns every line whole, exactly as many times as there are passes', () => {
    fc.assert(
      fc.property(fc.array(polyline, { maxLength: 12 }), manner, (lines, how) => {
        const { list, moves } = burn(lines, how);
        const length = lines.reduce((sum, one) => sum + polylineLength(one), 0);
        expect(list.litMm).toBeCloseTo(length * how.passes, 6);
        const once = litEdges(burn(lines).moves);
        for (const [edge, times] of litEdges(moves)) expect(times).toBe((once.get(edge) ?? 0) * how.passes);
      }),
    );
  });

  test('travels once to each line at most, and never lit', () => {
    fc.assert(
      fc.property(fc.array(polyline, { minLength: 1, maxLength: 12 }), manner, (lines, how) => {
        const { moves } = burn(lines, how);
        expect([...moves.kinds].filter((kind) => kind === Move.travel).length).toBeLessThanOrEqual(lines.length);
        expect([...moves.kinds]).not.toContain(Move.dark);
      }),
    );
  });

  test('is no longer on the way than going back and forth over the bed for each', () => {
    const rows = Array.from({ length: 100 }, (_, i) => flatten(box((i * 37) % 400, (i * 91) % 400, 5))[0]);
    const drawn = burn(rows, { order: 'as-drawn' }).list.unlitMm;
    expect(burn(rows).list.unlitMm).toBeLessThan(drawn / 3);
  });

  test('points without extent are no lines', () => {
    expect(burn([{ points: Float64Array.of(3, 4), closed: false }]).moves.kinds).toHaveLength(0);
  });
});

describe('orders', () => {
  const squares = (...list: [number, number, number][]) => list.map(([x, y, size]) => flatten(box(x, y, size))[0]);

  test('nothing burns before what lies in it, unless told', () => {
    const square = fc.tuple(place, place, fc.integer({ min: 1, max: 200 }));
    fc.assert(
      fc.property(fc.array(square, { maxLength: 14 }), fc.constantFrom(...orders.slice(0, 4)), (list, order) => {
        const lines = squares(...list);
        const { places } = burn(lines, { order });
        const depths = nestDepths(lines);
        places.forEach((outer, i) => {
          for (const inner of places.slice(i + 1)) {
            const [a, b] = [list[outer], list[inner]];
            const holds = b[0] > a[0] && b[1] > a[1] && b[0] + b[2] < a[0] + a[2] && b[1] + b[2] < a[1] + a[2];
            // Outlines that cross lie in nothing.
            if (holds && depths[inner] > depths[outer]) expect(holds).toBe(false);
          }
        });
      }),
    );
  });

  // Two plates, each with two holes, and a third plate below the first.
  const plates = squares([0, 0, 50], [5, 5, 4], [30, 5, 4], [100, 0, 50], [105, 5, 4], [130, 30, 4], [0, 100, 50]);

  test('part by part: each plate after its own holes', () => {
    const { places } = burn(plates, { order: 'parts' });
    const edge = (plate: number) => places.indexOf(plate);
    expect(places.slice(edge(0) - 2, edge(0)).sort()).toEqual([1, 2]);
    expect(places.slice(edge(3) - 2, edge(3)).sort()).toEqual([4, 5]);
  });

  test('inside first: all holes, then all plates', () => {
    expect(burn(plates).places.slice(0, 4).sort()).toEqual([1, 2, 4, 5]);
  });

  test('rows go to the right and come back', () => {
    const grid = squares([0, 0, 5], [20, 0, 5], [40, 0, 5], [0, 30, 5], [20, 30, 5], [40, 30, 5], [0, 60, 5]);
    const shuffled = [4, 2, 6, 0, 5, 3, 1].map((i) => grid[i]);
    const { burnt } = burn(shuffled, { order: 'rows' });
    expect(burnt.map(({ line: { points } }) => `${points[0]} ${points[1]}`)).toEqual([
      '0 0',
      '20 0',
      '40 0',
      '40 30',
      '20 30',
      '0 30',
      '0 60',
    ]);
  });

  test('as drawn, and by the numbers given; what has none comes last', () => {
    expect(burn(plates, { order: 'as-drawn' }).places).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(burn(plates, { order: 'by-hand', numbered: ['line-4', 'line-6', 'line-0'] }).places).toEqual([
      4, 6, 0, 1, 2, 3, 5,
    ]);
  });

  test('outlines go round the way they are told', () => {
    for (const direction of ['clockwise', 'anticlockwise'] as const) {
      const { moves } = burn(plates, { direction });
      let ring: number[] = [];
      const areas: number[] = [];
      const close = () => {
        if (ring.length > 0) areas.push(signedArea({ points: Float64Array.from(ring), closed: true }));
        ring = [];
      };
      moves.kinds.forEach((kind, i) => {
        if (kind === Move.travel) close();
        else ring.push(moves.xs[i], moves.ys[i]);
      });
      close();
      expect(areas.every((area) => area > 0 === (direction === 'clockwise'))).toBe(true);
    }
  });

  test('a start that was chosen is where it starts; a corner is one', () => {
    const round = flatten(box(50, 50, 20))[0];
    const { points } = round;
    const list = new MoveList({ x: 0, y: 0 });
    burnLines(list, [[{ item: some, line: round, nth: 0, place: 0, start: 2 }]], usual);
    expect([list.build().xs[0], list.build().ys[0]]).toEqual([points[4], points[5]]);
  });
});
