import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceFromLines } from '../../fixtures/line-distance.ts';
import { flatten, type Polyline, signedArea } from '../paths/flatten.ts';
import { PathBuilder } from '../paths/path.ts';
import { subpathsOf } from '../paths/segments.ts';
import { offsetOutlines, plainOffset } from './offset.ts';
import { offsetRing } from './ring-offset.ts';

function pathOf(points: ArrayLike<number>) {
  const builder = new PathBuilder().moveTo(points[0], points[1]);
  for (let i = 2; i < points.length; i += 2) builder.lineTo(points[i], points[i + 1]);
  return builder.close().build();
}

const exactly = (points: ArrayLike<number>, by: number) =>
  offsetOutlines([{ path: pathOf(points), rule: 'nonzero' }], { ...plainOffset, by });

/** How far points along some lines are from others, at most. */
function farthest(from: readonly Polyline[], to: readonly Polyline[]): number {
  const away = distanceFromLines(to);
  let most = 0;
  for (const { points } of from) {
    for (let i = 0; i < points.length; i += 2) {
      const j = (i + 2) % points.length;
      for (const t of [0, 0.5]) {
        const x = points[i] + t * (points[j] - points[i]);
        const y = points[i + 1] + t * (points[j + 1] - points[i + 1]);
        most = Math.max(most, away(x, y));
      }
    }
  }
  return most;
}

const ringOf = (count: number, radius: (angle: number, i: number) => number) =>
  Float64Array.from({ length: 2 * count }, (_, k) => {
    const angle = (2 * Math.PI * (k >> 1)) / count;
    return radius(angle, k >> 1) * (k % 2 ? Math.sin(angle) : Math.cos(angle));
  });

describe('the ring beside a ring', () => {
  test('of a square, out and in, has the area it should', () => {
    const square = Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10);
    const area = (by: number) => signedArea({ points: offsetRing(square, by) as Float64Array, closed: true });
    expect(area(-0.1)).toBeCloseTo(9.8 ** 2, 9);
    expect(area(0.1)).toBeCloseTo(100 + 4 + Math.PI * 0.01, 2);
    const turned = Float64Array.of(0, 0, 0, 10, 10, 10, 10, 0);
    expect(signedArea({ points: offsetRing(turned, -0.1) as Float64Array, closed: true })).toBeCloseTo(-(9.8 ** 2), 9);
  });

  test('of rough coasts is the exact one within 0.01 mm both ways, or none', () => {
    let found = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom(0.05, 0.1, 0.25, -0.05, -0.1, -0.25),
        fc.constantFrom(0.02, 0.06, 0.12),
        (seed, by, rough) => {
          let state = seed;
          const random = () => {
            state = (state * 16807) % 2147483647;
            return state / 2147483647;
          };
          const ring = ringOf(240, (angle) => 8 + Math.sin(5 * angle + seed) + rough * (random() - 0.5));
          const way = offsetRing(ring, by);
          if (!way) return;
          found++;
          const exact = flatten(exactly(ring, by), 0.002);
          expect(exact).toHaveLength(1);
          const mine = [{ points: way, closed: true }];
          expect(farthest(mine, exact)).toBeLessThan(0.01);
          expect(farthest(exact, mine)).toBeLessThan(0.01);
        },
      ),
      { numRuns: 24, seed: 7 },
    );
    // Not by giving up.
    expect(found).toBeGreaterThan(15);
  });

  test('steps aside by rounding do not fold it', () => {
    const ring = ringOf(400, (_, i) => 20 + (i % 2 ? 0.0008 : 0));
    const doubled = Float64Array.from(
      [...ring].flatMap((_, k, all) => (k % 2 ? [] : [all[k], all[k + 1], all[k] + 0.001, all[k + 1] - 0.0007])),
    );
    expect(
      farthest(
        [{ points: offsetRing(doubled, 0.1) as Float64Array, closed: true }],
        flatten(exactly(ring, 0.1), 0.001),
      ),
    ).toBeLessThan(0.01);
  });

  test('there is none where far parts come near, or nothing is left', () => {
    // A dumb-bell whose neck is 0.3 wide.
    const neck = Float64Array.of(
      0,
      0,
      10,
      0,
      10,
      4.85,
      20,
      4.85,
      20,
      0,
      30,
      0,
      30,
      10,
      20,
      10,
      20,
      5.15,
      10,
      5.15,
      10,
      10,
      0,
      10,
    );
    expect(offsetRing(neck, -0.2)).toBeNull();
    expect([...subpathsOf(exactly(neck, -0.2))]).toHaveLength(2);
    expect(offsetRing(neck, -0.1)).not.toBeNull();
    expect(offsetRing(Float64Array.of(0, 0, 1, 0, 1, 0.1, 0, 0.1), -0.1)).toBeNull();
    expect(offsetRing(Float64Array.of(0, 0, 1, 0), 0.1)).toBeNull();
    expect(offsetRing(Float64Array.of(0, 0, 5, 0, 0, 0, 0, 5), 0.1)).toBeNull();
  });
});
