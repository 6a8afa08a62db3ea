import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { cubicAt, PathBuilder, pathBounds } from '../geometry/paths/path.ts';
import { mostItems, mostVerbs, tooMuchOf, tooMuchWithCopies, verbsOf } from './drawing-size.ts';
import { boundsOf, type Item, pathOf, unpainted } from './item.ts';
import { newJob } from './job.ts';
import { jobFromJson, jobToJson } from './json.ts';
import type { Shape } from './shape.ts';
import { outlineOf, verbsIn } from './shapes.ts';

const pathOfVerbs = (count: number): Shape => ({
  kind: 'path',
  path: { verbs: new Uint8Array(count).fill(1), coords: new Float64Array(2 * count) },
});
const circle: Shape = { kind: 'ellipse', cx: 1, cy: 2, rx: 3, ry: 4 };

const drawingFromJson = (drawing: unknown) => jobFromJson({ ...jobToJson(newJob('wren', 'house')), drawing }).drawing;

describe('how much a drawing may hold', () => {
  test('so many lines and curves are taken, one more is not, and the sentence says how many there are', () => {
    expect(tooMuchOf([{ shape: pathOfVerbs(mostVerbs) }])).toBeNull();
    expect(tooMuchOf([{ shape: pathOfVerbs(mostVerbs - 10) }, { shape: pathOfVerbs(11) }])).toBe(
      'holds 1,000,001 lines and curves; Lambent takes up to 1,000,000',
    );
  });

  test('so many items are taken, and one more is not', () => {
    const items = Array.from({ length: mostItems }, () => ({ shape: pathOfVerbs(0) }));
    expect(tooMuchOf(items)).toBeNull();
    expect(tooMuchOf([...items, items[0]])).toBe('holds 200,001 items; Lambent takes up to 200,000');
  });

  test('copies are counted before they are made', () => {
    const [small, large] = [{ shape: pathOfVerbs(10) }, { shape: pathOfVerbs(1000) }];
    expect(tooMuchWithCopies([small], [small], mostItems - 1)).toContain('lines and curves');
    expect(tooMuchWithCopies([small], [small], mostItems)).toBe('holds 200,001 items; Lambent takes up to 200,000');
    expect(tooMuchWithCopies([large, small], [large], 998)).toBeNull();
    expect(tooMuchWithCopies([large, small], [large], 1000)).toBe(
      'holds 1,001,010 lines and curves; Lambent takes up to 1,000,000',
    );
  });

  test('a stored drawing that holds more is not read', () => {
    const items = new Array(mostItems + 1).fill({});
    expect(() => drawingFromJson({ items, groups: [] })).toThrow('the drawing holds 200,001 items');
    const item = {
      id: 'a',
      name: null,
      shape: { kind: 'path', verbs: 'ML'.repeat(300_000), coords: new Array(1_200_000).fill(1) },
      matrix: [1, 0, 0, 1, 0, 0],
      paint: { stroke: null, strokeWidthMm: 0, fill: null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    };
    expect(drawingFromJson({ items: [item], groups: [] }).items).toHaveLength(1);
    expect(() => drawingFromJson({ items: [item, { ...item, id: 'b' }], groups: [] })).toThrow(
      'the drawing holds 1,200,000 lines and curves; Lambent takes up to 1,000,000',
    );
  });

  test('simple shapes are counted about as their outlines are, combinations by their parts', () => {
    for (const shape of [
      circle,
      { kind: 'polygon', cx: 0, cy: 0, radius: 5, sides: 30, inner: 2, turn: 0 } as const,
      { kind: 'rectangle', x: 0, y: 0, width: 5, height: 6, rx: 0, ry: 0 } as const,
    ]) {
      expect(Math.abs(verbsIn(shape) - outlineOf(shape).verbs.length)).toBeLessThan(3);
    }
    const part = { name: null, shape: pathOfVerbs(40), matrix: [1, 0, 0, 1, 0, 0] as Matrix, rule: 'nonzero' as const };
    const combined: Shape = { kind: 'combined', how: 'unite', parts: [part, { ...part, shape: circle }] };
    expect(verbsIn(combined)).toBe(40 + verbsIn(circle));
    expect(verbsOf([{ shape: combined }, { shape: circle }])).toBe(40 + 2 * verbsIn(circle));
  });
});

describe('bounds', () => {
  const number = fc.integer({ min: -1000, max: 1000 }).map((value) => value / 8);
  const size = fc.integer({ min: 1, max: 800 }).map((value) => value / 8);
  const path = fc
    .array(fc.tuple(fc.constantFrom('L', 'C'), fc.array(number, { minLength: 6, maxLength: 6 })), {
      minLength: 1,
      maxLength: 6,
    })
    .map((verbs) => {
      const builder = new PathBuilder().moveTo(0, 0);
      for (const [verb, [a, b, c, d, e, f]] of verbs) {
        if (verb === 'L') builder.lineTo(a, b);
        else builder.cubicTo(a, b, c, d, e, f);
      }
      return builder.close().build();
    });

  test('hold the whole of a path, and touch it on all four sides', () => {
    fc.assert(
      fc.property(path, (drawn) => {
        const box = pathBounds(drawn);
        const seen = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
        const see = (x: number, y: number) => {
          seen.minX = Math.min(seen.minX, x);
          seen.minY = Math.min(seen.minY, y);
          seen.maxX = Math.max(seen.maxX, x);
          seen.maxY = Math.max(seen.maxY, y);
        };
        const { verbs, coords: c } = drawn;
        let [x, y, at] = [0, 0, 0];
        for (const verb of verbs) {
          if (verb === 3) continue;
          const points = verb === 2 ? 3 : 1;
          if (verb === 2) {
            for (let i = 0; i <= 400; i++) {
              const t = i / 400;
              see(cubicAt(x, c[at], c[at + 2], c[at + 4], t), cubicAt(y, c[at + 1], c[at + 3], c[at + 5], t));
            }
          }
          at += 2 * points;
          [x, y] = [c[at - 2], c[at - 1]];
          see(x, y);
        }
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) {
          const beyond = side.startsWith('min') ? box[side] - seen[side] : seen[side] - box[side];
          expect(beyond).toBeLessThan(1e-9);
          expect(beyond).toBeGreaterThan(-0.05);
        }
      }),
    );
  });

  test('of an item are those of its outline, however it is turned, mirrored, moved and stretched', () => {
    const shape: fc.Arbitrary<Shape> = fc.oneof(
      path.map((drawn): Shape => ({ kind: 'path', path: drawn })),
      fc.record({ kind: fc.constant('ellipse' as const), cx: number, cy: number, rx: size, ry: size }),
      fc.record({ kind: fc.constant('picture' as const), pictureId: fc.constant('p'), width: size, height: size }),
      fc.record({
        kind: fc.constant('rectangle' as const),
        x: number,
        y: number,
        width: size,
        height: size,
        rx: size,
        ry: size,
      }),
    );
    const matrix = fc
      .tuple(fc.constantFrom('straight', 'quarter', 'any'), fc.array(number, { minLength: 6, maxLength: 6 }))
      .map(([kind, [a, b, c, d, e, f]]): Matrix => {
        if (kind === 'straight') return [a, 0, 0, d, e, f];
        return kind === 'quarter' ? [0, b, c, 0, e, f] : [a, b, c, d, e, f];
      });
    fc.assert(
      fc.property(shape, matrix, (drawn, placed) => {
        const item: Item = {
          id: 'a',
          name: null,
          shape: drawn,
          matrix: placed,
          paint: unpainted,
          fillRule: 'nonzero',
          groupId: null,
          pinned: null,
          hidden: false,
        };
        const [found, exact] = [boundsOf(item), pathBounds(pathOf(item))];
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(found[side]).toBeCloseTo(exact[side], 6);
      }),
    );
  });
});
