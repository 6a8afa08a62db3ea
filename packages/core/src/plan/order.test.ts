import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { box, line } from '../fixtures/shop.ts';
import { flatten, type Polyline, polylineLength } from '../geometry/flatten.ts';
import { Move, MoveList } from './moves.ts';
import { burnNearestNext } from './order.ts';

const place = fc.integer({ min: 0, max: 400 });
const polyline: fc.Arbitrary<Polyline> = fc.oneof(
  fc.tuple(place, place, fc.integer({ min: 1, max: 60 })).map(([x, y, size]) => flatten(box(x, y, size))[0]),
  fc
    .uniqueArray(fc.tuple(place, place), { minLength: 2, maxLength: 7, selector: ([x, y]) => `${x} ${y}` })
    .map((points) => flatten(line(...points.flat()))[0]),
);

function burn(lines: readonly Polyline[], passes: number) {
  const list = new MoveList({ x: 0, y: 0 });
  burnNearestNext(list, lines, passes);
  return { list, moves: list.build() };
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

describe('burning the nearest next', () => {
  test('burns every line whole, exactly as many times as there are passes', () => {
    fc.assert(
      fc.property(fc.array(polyline, { maxLength: 12 }), fc.integer({ min: 1, max: 4 }), (lines, passes) => {
        const { list, moves } = burn(lines, passes);
        const length = lines.reduce((sum, one) => sum + polylineLength(one), 0);
        expect(list.litMm).toBeCloseTo(length * passes, 6);
        const once = litEdges(burn(lines, 1).moves);
        for (const [edge, times] of litEdges(moves)) expect(times).toBe((once.get(edge) ?? 0) * passes);
      }),
    );
  });

  test('travels once to each line at most, and never lit', () => {
    fc.assert(
      fc.property(fc.array(polyline, { minLength: 1, maxLength: 12 }), (lines) => {
        const { moves } = burn(lines, 2);
        expect([...moves.kinds].filter((kind) => kind === Move.travel).length).toBeLessThanOrEqual(lines.length);
        expect([...moves.kinds]).not.toContain(Move.dark);
      }),
    );
  });

  test('is no longer on the way than going back and forth over the bed for each', () => {
    const rows = Array.from({ length: 100 }, (_, i) => flatten(box((i * 37) % 400, (i * 91) % 400, 5))[0]);
    const drawn = rows.reduce(
      ({ x, y, sum }, { points }) => ({
        x: points[0],
        y: points[1],
        sum: sum + Math.hypot(points[0] - x, points[1] - y),
      }),
      { x: 0, y: 0, sum: 0 },
    );
    expect(burn(rows, 1).list.unlitMm).toBeLessThan(drawn.sum / 3);
  });

  test('points without extent are no lines', () => {
    expect(burn([{ points: Float64Array.of(3, 4), closed: false }], 1).moves.kinds).toHaveLength(0);
  });
});
