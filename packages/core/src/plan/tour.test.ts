import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Stops, type Tour, tourLength } from './stops.ts';
import { improveTour } from './tour.ts';

const zero = { x: 0, y: 0 };

function closedStops(points: readonly [number, number][]): Stops {
  const xs = Float64Array.from(points, ([x]) => x);
  const ys = Float64Array.from(points, ([, y]) => y);
  return { entryX: xs, entryY: ys, exitX: xs, exitY: ys };
}

function openStops(ends: readonly [number, number, number, number][]): Stops {
  const of = (i: number) => Float64Array.from(ends, (end) => end[i]);
  return { entryX: of(0), entryY: of(1), exitX: of(2), exitY: of(3) };
}

const asGiven = (count: number): Tour => ({
  order: Int32Array.from({ length: count }, (_, i) => i),
  flipped: new Uint8Array(count),
});

/** The shortest way there is, by trying every order and every turn. */
function shortest(stops: Stops, end: typeof zero | null): number {
  const count = stops.entryX.length;
  let best = Infinity;
  const walk = (order: number[], flips: number[]) => {
    if (order.length === count) {
      const flipped = new Uint8Array(count);
      order.forEach((stop, i) => {
        flipped[stop] = flips[i];
      });
      best = Math.min(best, tourLength(stops, { order: Int32Array.from(order), flipped }, zero, end));
      return;
    }
    for (let stop = 0; stop < count; stop++) {
      if (order.includes(stop)) continue;
      for (const flip of [0, 1]) walk([...order, stop], [...flips, flip]);
    }
  };
  walk([], []);
  return best;
}

const place = fc.integer({ min: 0, max: 100 });

describe('a way through stops', () => {
  test('visits each once, and is never longer than it was', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, place, place), { minLength: 9, maxLength: 60 }),
        fc.boolean(),
        (ends, back) => {
          const stops = openStops(ends);
          const end = back ? zero : null;
          const first = asGiven(ends.length);
          const better = improveTour(stops, first, zero, end, 50);
          expect(Array.from(better.order).sort((a, b) => a - b)).toEqual(Array.from(first.order));
          expect(tourLength(stops, better, zero, end)).toBeLessThanOrEqual(tourLength(stops, first, zero, end) + 1e-6);
        },
      ),
    );
  });

  test('of few stops is the shortest there is, lines gone through either way', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place, place, place), { minLength: 1, maxLength: 4 }),
        fc.boolean(),
        (ends, back) => {
          const stops = openStops(ends);
          const end = back ? zero : null;
          const found = tourLength(stops, improveTour(stops, asGiven(ends.length), zero, end, 0), zero, end);
          expect(found).toBeCloseTo(shortest(stops, end), 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('around a ring of points is the ring, and the same each time', () => {
    const ring = Array.from({ length: 200 }, (_, i): [number, number] => {
      const angle = ((i * 77) % 200) * ((2 * Math.PI) / 200);
      return [100 + 100 * Math.cos(angle), 100 + 100 * Math.sin(angle)];
    });
    const stops = closedStops(ring);
    const start = { x: 200, y: 100 };
    const once = improveTour(stops, asGiven(200), start, start, 400);
    expect(tourLength(stops, once, start, start)).toBeCloseTo(200 * 200 * Math.sin(Math.PI / 200), 6);
    expect(improveTour(stops, asGiven(200), start, start, 400)).toEqual(once);
  });

  test('nothing to visit, and one stop, are ways too', () => {
    expect(improveTour(closedStops([]), asGiven(0), zero, zero, 10).order).toHaveLength(0);
    expect(
      tourLength(closedStops([[3, 4]]), improveTour(closedStops([[3, 4]]), asGiven(1), zero, zero, 10), zero, zero),
    ).toBe(10);
  });
});
