import { expect, test } from '@jest/globals';
import { numbersFrom } from '../plan/random.ts';
import { Crowd } from './crowd.ts';
import { shapeOf } from './edges.ts';
import { separate } from './separate.ts';

/** The largest radius of so many equal discs in a square of side 1, as far as is known (as published for many counts, found by several authors). */
const knownRadii: readonly (readonly [number, number])[] = [
  [7, 0.1744576302],
  [10, 0.1482043226],
];

test.each(knownRadii)(
  '%i discs that lie anyhow find room in a square 2 %% larger than the best known',
  (count, known) => {
    const [radius, sides] = [50, 32];
    const side = (1.02 * radius) / known;
    const reach = radius / Math.cos(Math.PI / sides);
    const ring = Float64Array.from({ length: 2 * sides }, (_, i) => {
      const angle = (2 * Math.PI * (Math.floor(i / 2) + 0.5)) / sides;
      return reach * (i % 2 === 0 ? Math.cos(angle) : Math.sin(angle));
    });
    const random = numbersFrom(3);
    const room = { box: { minX: 0, minY: 0, maxX: side, maxY: side }, free: null };
    const crowd = new Crowd(room, [[shapeOf([ring])]], random);
    let isApart = false;
    for (let tries = 0; tries < 6 && !isApart; tries++) {
      const anywhere = () => reach + random() * (side - 2 * reach);
      crowd.reset(Array.from({ length: count }, () => ({ piece: 0, turn: 0, x: anywhere(), y: anywhere() })));
      isApart = separate(crowd, 4000, random).isApart;
    }
    expect(isApart).toBe(true);
    // As true discs.
    for (let i = 0; i < count; i++) {
      for (let k = 0; k < i; k++) {
        const apart = Math.hypot(crowd.xs[i] - crowd.xs[k], crowd.ys[i] - crowd.ys[k]);
        expect(apart).toBeGreaterThan(2 * radius - 1e-6);
      }
    }
  },
);
