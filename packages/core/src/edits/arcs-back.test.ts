import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf } from '../document/shapes.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { findArcs } from '../geometry/paths/find-arcs.ts';
import { flatten, polylineLength } from '../geometry/paths/flatten.ts';
import { nodeCount, PathBuilder } from '../geometry/paths/path.ts';
import { arcsBack } from './refit-items.ts';

/** A circle as a conversion leaves it: many short lines. */
function faceted(cx: number, cy: number, r: number, count: number, turn = 2 * Math.PI) {
  const builder = new PathBuilder();
  for (let i = 0; i <= count; i++) {
    const angle = (i / count) * turn;
    const [x, y] = [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
    if (i === 0) builder.moveTo(x, y);
    else builder.lineTo(x, y);
  }
  return turn === 2 * Math.PI ? builder.close().build() : builder.build();
}

describe('arcs found again', () => {
  test('a circle of short lines is a circle with its numbers', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 200, noNaN: true }), fc.integer({ min: 80, max: 400 }), (r, count) => {
        const ring = item(faceted(30, -7, r, count), 'cut');
        const { job, found } = arcsBack(jobWith([ring]), new Set([ring.id]), 0.2);
        expect(found).toBe(1);
        expect(job.drawing.items[0].shape).toMatchObject({
          kind: 'ellipse',
          cx: expect.closeTo(30, 3),
          cy: expect.closeTo(-7, 3),
          rx: expect.closeTo(r, 3),
        });
      }),
    );
  });

  test('a rounded rectangle of short lines has its four corners again, and its sides stay lines', () => {
    const drawn = outlineOf({ kind: 'rectangle', x: 0, y: 0, width: 80, height: 40, rx: 10, ry: 10 });
    const [{ points }] = flatten(drawn, 0.005);
    const builder = new PathBuilder().moveTo(points[0], points[1]);
    for (let i = 2; i < points.length; i += 2) builder.lineTo(points[i], points[i + 1]);
    const broken = builder.close().build();
    const { path, arcs } = findArcs(broken, 0.02);
    expect(arcs.map(({ radius }) => radius)).toEqual([10, 10, 10, 10].map((r) => expect.closeTo(r, 2)));
    expect(nodeCount(path)).toBeLessThan(nodeCount(broken) / 3);
    expect(polylineLength(flatten(path)[0])).toBeCloseTo(2 * (60 + 20) + 20 * Math.PI, 1);
  });

  test('what is not round is left as it is', () => {
    for (const path of [box(0, 0, 30), line(0, 0, 10, 0, 20, 1, 30, 0), line(0, 0, 10, 0, 20, 0, 30, 0)]) {
      expect(findArcs(path, 0.05).arcs).toEqual([]);
    }
  });

  test('a part of a circle keeps its ends', () => {
    const arc = item(faceted(0, 0, 50, 40, 2), 'score');
    const { job } = arcsBack(jobWith([arc]), new Set([arc.id]), 0.1);
    expect(job.drawing.items[0].shape).toMatchObject({
      kind: 'arc',
      radius: expect.closeTo(50, 3),
      from: expect.closeTo(0, 3),
    });
  });
});
