import { describe, expect, test } from '@jest/globals';
import { simplifyPolyline } from './simplify.ts';

/** The farthest that a point of a run lies from the run that is left of it, the kept points being some of its own. */
function farthestOff(points: Float64Array, left: Float64Array): number {
  let most = 0;
  let at = 0;
  for (let i = 0; i + 3 < left.length; i += 2) {
    const [ax, ay, bx, by] = left.subarray(i, i + 4);
    const [dx, dy] = [bx - ax, by - ay];
    const square = dx * dx + dy * dy;
    for (; at < points.length && !(points[at] === bx && points[at + 1] === by); at += 2) {
      const [px, py] = [points[at] - ax, points[at + 1] - ay];
      const t = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square));
      most = Math.max(most, Math.hypot(px - t * dx, py - t * dy));
    }
  }
  return most;
}

const run = (count: number, at: (i: number) => readonly [number, number]) =>
  Float64Array.from(Array.from({ length: count }, (_, i) => at(i)).flat());

describe('a long run', () => {
  const wave = run(20_001, (i) => [i / 100, 10 * Math.sin(i / 500)]);

  test('keeps its ends, and strays no more than it may', () => {
    for (const tolerance of [0.01, 0.2, 5]) {
      const left = simplifyPolyline(wave, tolerance);
      expect([left[0], left[1]]).toEqual([wave[0], wave[1]]);
      expect([left.at(-2), left.at(-1)]).toEqual([wave.at(-2), wave.at(-1)]);
      expect(farthestOff(wave, left)).toBeLessThanOrEqual(tolerance);
    }
    expect(simplifyPolyline(wave, 0.2).length).toBeLessThan(2 * 120);
    expect(simplifyPolyline(wave, 0.2).length).toBeLessThan(simplifyPolyline(wave, 0.01).length / 2);
  });

  test('that is straight comes to its ends', () => {
    expect([
      ...simplifyPolyline(
        run(10_000, (i) => [i, 2 * i]),
        1e-6,
      ),
    ]).toEqual([0, 0, 9999, 19_998]);
    // A step in it stays, with few points more than it takes.
    const step = run(10_000, (i) => [i, i < 7003 ? 0 : 1]);
    const left = simplifyPolyline(step, 0.3);
    expect([farthestOff(step, left) <= 0.3, left.length <= 2 * 16]).toEqual([true, true]);
  });

  test('of a comb of a hundred thousand teeth takes no time, and teeth further apart than it may stray all stay', () => {
    const comb = (pitch: number) => run(200_000, (i) => [(i >> 1) * pitch, i % 4 === 1 || i % 4 === 2 ? 60 : 0]);
    expect(farthestOff(comb(0.001), simplifyPolyline(comb(0.001), 0.5))).toBeLessThanOrEqual(0.5);
    expect(simplifyPolyline(comb(2), 0.5)).toHaveLength(comb(2).length);
  });
});
