import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Ring, ringOf } from '../paths/ring.ts';
import { comeNear, localReach, nearnessOf, ringsComeNear } from './near-rings.ts';

type Points = readonly (readonly [number, number])[];

/** A star-shaped outline around a place: no two of its edges cross. */
const outline: fc.Arbitrary<Points> = fc
  .tuple(
    fc.integer({ min: 0, max: 120 }),
    fc.integer({ min: 0, max: 120 }),
    fc.array(fc.integer({ min: 60, max: 140 }), { minLength: 3, maxLength: 14 }),
  )
  .map(([x, y, radii]) =>
    radii.map((radius, i): [number, number] => {
      const angle = (2 * Math.PI * i) / radii.length;
      return [x + (radius / 10) * Math.cos(angle), y + (radius / 10) * Math.sin(angle)];
    }),
  );

const measured = (points: Points): Ring => ringOf(Float64Array.from(points.flat())) as Ring;

function toSegment([px, py]: readonly number[], [ax, ay]: readonly number[], [bx, by]: readonly number[]): number {
  const [dx, dy] = [bx - ax, by - ay];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / square));
  return Math.hypot(px - ax - t * dx, py - ay - t * dy);
}

function cross(a: readonly number[], b: readonly number[], c: readonly number[]): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}

/** How near two outlines come to each other, edge by edge; 0 where they cross. */
function apart(one: Points, other: Points): number {
  let least = Infinity;
  one.forEach((a, i) => {
    const b = one[(i + 1) % one.length];
    other.forEach((c, j) => {
      const d = other[(j + 1) % other.length];
      const meet = cross(a, b, c) * cross(a, b, d) < 0 && cross(c, d, a) * cross(c, d, b) < 0;
      least = Math.min(
        least,
        meet ? 0 : toSegment(a, c, d),
        toSegment(b, c, d),
        toSegment(c, a, b),
        toSegment(d, a, b),
      );
    });
  });
  return least;
}

describe('outlines that come near each other', () => {
  test('are those that do edge by edge, in the components that this makes of them', () => {
    fc.assert(
      fc.property(fc.array(outline, { minLength: 1, maxLength: 9 }), fc.constantFrom(0.5, 2, 7), (outlines, width) => {
        // Where the nearest is the very width, either answer is right.
        const gaps = outlines.flatMap((one, i) => outlines.slice(i + 1).map((other) => apart(one, other)));
        fc.pre(gaps.every((gap) => Math.abs(gap - width) > 0.01));
        const head = outlines.map((_, i) => i);
        const headOf = (i: number): number => (head[i] === i ? i : headOf(head[i]));
        outlines.forEach((one, i) => {
          outlines.forEach((other, j) => {
            if (j < i && apart(one, other) < width) head[headOf(i)] = headOf(j);
          });
        });
        const expected = new Map<number, number[]>();
        outlines.forEach((_, i) => expected.set(headOf(i), [...(expected.get(headOf(i)) ?? []), i]));
        const { components } = nearnessOf(outlines.map(measured), width);
        const sorted = (all: Iterable<readonly number[]>) =>
          [...all].map((component) => [...component].sort((a, b) => a - b)).sort((a, b) => a[0] - b[0]);
        expect(sorted(components)).toEqual(sorted(expected.values()));
        if (gaps.some((gap) => gap < width)) {
          expect(
            comeNear(
              outlines.map((points) => Float64Array.from(points.flat())),
              width,
            ),
          ).toBe(true);
        }
      }),
      { numRuns: 300 },
    );
  });

  test.each([
    [0.9, false],
    [1.1, true],
  ])('a bar 1 mm wide is near itself by %p mm: %p', (width, near) => {
    const bar: Points = [
      [0, 0],
      [40, 0],
      [40, 1],
      [0, 1],
    ];
    expect(comeNear([Float64Array.from(bar.flat())], width)).toBe(near);
    expect(nearnessOf([measured(bar)], width).nearItself).toEqual([near]);
  });

  test('a ring that winds is near itself where places far apart along it are near each other, and nowhere else', () => {
    const width = 1;
    const winding = fc
      .tuple(
        fc.array(fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 })), {
          minLength: 2,
          maxLength: 5,
        }),
        fc.integer({ min: 40, max: 90 }),
        fc.constantFrom(0.02, 0.05, 0.15),
      )
      .map(
        ([waves, count, size]): Points =>
          Array.from({ length: count }, (_, i) => {
            const t = (2 * Math.PI * i) / count;
            let [x, y] = [9 * Math.cos(t), 9 * Math.sin(t)];
            waves.forEach(([a, b], k) => {
              x += a * size * Math.cos((k + 2) * t + b);
              y += b * size * Math.sin((k + 2) * t + a);
            });
            return [x, y];
          }),
      );
    let [near, clear] = [0, 0];
    fc.assert(
      fc.property(winding, (points) => {
        const ring = measured(points);
        const samples = Array.from({ length: ring.count * 2 }, (_, k) => {
          const [i, share] = [k >> 1, (k % 2) / 2];
          const way = share * ring.sizes[i];
          return [ring.xs[i] + way * ring.dx[i], ring.ys[i] + way * ring.dy[i], ring.along[i] + way];
        });
        const longest = Math.max(...ring.sizes);
        let [isNear, isClear] = [false, true];
        for (const [x, y, at] of samples) {
          for (const [px, py, there] of samples) {
            const way = Math.min(Math.abs(at - there), ring.length - Math.abs(at - there));
            const gap = Math.hypot(px - x, py - y);
            // A whole edge is local to another if their ends are.
            if (gap < width && way > localReach * width + 2 * longest) isNear = true;
            if (gap < width + longest && way > localReach * width - longest / 4) isClear = false;
          }
        }
        const answer = nearnessOf([ring], width).nearItself[0];
        if (isNear) expect([answer, ringsComeNear([ring], width)]).toEqual([true, true]);
        if (isClear) expect([answer, ringsComeNear([ring], width)]).toEqual([false, false]);
        near += Number(isNear);
        clear += Number(isClear);
      }),
      { numRuns: 150, seed: 7 },
    );
    expect(Math.min(near, clear)).toBeGreaterThan(10);
  });

  test('a tight knot of edges local to each other is found where crossings are asked for', () => {
    // A loop 0.2 mm across on a square's edge: near itself only by crossing.
    const loop = Array.from({ length: 24 }, (_, i): [number, number] => {
      const t = (2 * Math.PI * i) / 24;
      return [20 + i / 240 + 0.1 * Math.sin(t), 0.1 - 0.1 * Math.cos(t)];
    });
    const knotted = measured([[0, 0], ...loop, [40, 0], [40, 40], [0, 40]]);
    const plain = measured([
      [0, 0],
      [40, 0],
      [40, 40],
      [0, 40],
    ]);
    expect(ringsComeNear([knotted], 1)).toBe(true);
    expect(ringsComeNear([plain], 1)).toBe(false);
  });

  test('lines of no extent come near nothing', () => {
    expect(comeNear([Float64Array.of(1, 1, 1, 1), Float64Array.of()], 5)).toBe(false);
  });
});
