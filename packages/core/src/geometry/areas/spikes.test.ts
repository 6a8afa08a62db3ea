import { describe, expect, test } from '@jest/globals';
import { Clipper, FillRule, type Path64 } from 'clipper2-ts';
import fc from 'fast-check';
import { snapped } from './snap-rings.ts';
import { withoutSpikes, withoutTurnbacks } from './spikes.ts';

const ring = (...points: [number, number][]): Path64 => points.map(([x, y]) => ({ x, y }));
const pairs = (points: Path64) => points.map(({ x, y }) => [x, y]);
/** A ring's points from its lowest on. */
const fromLowest = (points: Path64) => {
  const all = pairs(points);
  const start = all.reduce(
    (best, [x, y], i) => (y < all[best][1] || (y === all[best][1] && x < all[best][0]) ? i : best),
    0,
  );
  return [...all.slice(start), ...all.slice(0, start)];
};
const raster = fc.tuple(fc.nat(8), fc.nat(8)).map(([x, y]): [number, number] => [x * 1000, y * 1000]);
const rings = fc.array(raster, { minLength: 3, maxLength: 12 }).map((points) => ring(...points));
const sizeOf = (all: Path64[]) => Math.abs(Clipper.areaPaths(all));

describe('without turning back', () => {
  test('a ring covers what it did, by either rule, and none of its edges runs back along the one before', () => {
    fc.assert(
      fc.property(rings, fc.constantFrom(FillRule.EvenOdd, FillRule.NonZero), (points, rule) => {
        const plain = withoutTurnbacks(points);
        expect(Clipper.area(plain)).toBeCloseTo(Clipper.area(points), 3);
        plain.forEach((b, i) => {
          const [a, c] = [plain[(i + plain.length - 1) % plain.length], plain[(i + 1) % plain.length]];
          const cross = (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
          expect(cross !== 0 || (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y) > 0).toBe(true);
        });
        const covered = plain.length > 2 ? sizeOf(Clipper.union([plain], rule)) : 0;
        // What a raster of points sees of it: the winding is the same everywhere but on the edges.
        let cells = 0;
        for (let x = 500; x < 8000; x += 1000)
          for (let y = 250; y < 8000; y += 1000) {
            const winding = windingOf(points, x + 3, y + 7);
            expect(windingOf(plain, x + 3, y + 7)).toBe(winding);
            if (rule === FillRule.EvenOdd ? winding % 2 !== 0 : winding !== 0) cells++;
          }
        if (covered === 0) expect(cells).toBe(0);
      }),
      { numRuns: 300 },
    );
  });

  test('nothing is left of what only goes to and fro', () => {
    expect(withoutTurnbacks(ring([0, 0], [10, 0], [20, 0], [5, 0]))).toEqual([]);
    expect(withoutTurnbacks(ring([3, 3], [3, 3]))).toEqual([]);
    expect(withoutTurnbacks([])).toEqual([]);
  });
});

/** How often a ring goes round a point. */
function windingOf(points: Path64, x: number, y: number): number {
  let winding = 0;
  points.forEach((b, i) => {
    const a = points[(i + points.length - 1) % points.length];
    if (a.y > y !== b.y > y && a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x) > x) winding += b.y > a.y ? 1 : -1;
  });
  return winding;
}

describe('without spikes', () => {
  const square = ring([0, 0], [90_000, 0], [90_000, 90_000], [0, 90_000]);

  test('a plain ring is left as it is', () => {
    expect(fromLowest(withoutSpikes(square))).toEqual(pairs(square));
  });

  test.each([
    ['sharp', ring([40_000, 0], [40_001, -50_000], [40_003, 0])],
    ['flat at its tip', ring([40_000, 0], [40_000, -50_000], [40_004, -50_000], [40_003, 0])],
    [
      'in steps',
      ring([40_000, 0], [40_000, -20_000], [40_001, -20_000], [40_001, -50_000], [40_003, -30_000], [40_002, 0]),
    ],
    ['inward', ring([40_000, 0], [40_001, 50_000], [40_003, 0])],
  ])('a spike %s is gone, wherever the ring begins', (_, spike) => {
    const spiked = [square[0], ...spike, ...square.slice(1)];
    for (let start = 0; start < spiked.length; start++) {
      const plain = withoutSpikes([...spiked.slice(start), ...spiked.slice(0, start)]);
      expect(Math.abs(Clipper.area(plain) - 90_000 ** 2)).toBeLessThan(500_000);
      const ys = plain.map(({ y }) => y);
      expect([Math.min(...ys), plain.filter(({ x, y }) => x > 39_000 && x < 41_000 && y > 10 && y < 89_000)]).toEqual([
        expect.closeTo(0, -1),
        [],
      ]);
    }
  });

  test('a needle keeps its sides on their lines: only what is too thin goes', () => {
    const needle = ring([0, 0], [100_000, 1000], [0, 2000]);
    expect(fromLowest(withoutSpikes(needle))).toEqual(pairs(needle));
    // One side in short chords, which would be cut again and again.
    const steps = Array.from({ length: 2001 }, (_, i): [number, number] => [i * 50, Math.round(i * 0.5)]);
    const chords = withoutSpikes(ring(...steps, [0, 2000]));
    for (const { x, y } of chords)
      expect(Math.min(Math.abs(y - x / 100), Math.abs(y - 2000 + x / 100))).toBeLessThan(2);
    expect(Math.max(...chords.map(({ x }) => x))).toBeGreaterThan(97_500);
  });
});

test('rings whose edges lie over each other but for rounding meet in the same points', () => {
  const [a, b] = snapped([
    [ring([0, 0], [10_000, 3000], [5000, 9000])],
    [ring([2000, 601], [8000, 2399], [5000, -4000]), ring([10_001, 3000], [20_000, 3000], [20_000, 9000])],
  ]);
  expect(a.map(pairs)).toEqual([
    [
      [0, 0],
      [2000, 601],
      [8000, 2399],
      [10_000, 3000],
      [5000, 9000],
    ],
  ]);
  expect(b.map(pairs)).toEqual([
    [
      [2000, 601],
      [8000, 2399],
      [5000, -4000],
    ],
    [
      [10_000, 3000],
      [20_000, 3000],
      [20_000, 9000],
    ],
  ]);
  expect(snapped([[], []])).toEqual([[], []]);
});
