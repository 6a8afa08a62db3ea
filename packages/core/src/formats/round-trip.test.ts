import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, type Drawing, type Item, type Paint, pathOf, polylinesOf } from '../document/item.ts';
import type { Shape } from '../document/shape.ts';
import { outlineOf } from '../document/shapes.ts';
import { idFor, testFonts, testTools } from '../fixtures/files.ts';
import { distanceFromLines } from '../fixtures/line-distance.ts';
import { flatten, polylineLength } from '../geometry/paths/flatten.ts';
import { identity, type Matrix, multiply, rotation, scaling } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { writeDxf } from './dxf/write.ts';
import type { Outgoing } from './outgoing.ts';
import { writePdf } from './pdf/write.ts';
import { readDrawingFile } from './read.ts';
import { writeSvg } from './svg/write.ts';

const page = { minX: 0, minY: 0, maxX: 300, maxY: 200 };
/** Well inside the page: what is off it is another test’s business. */
const coordinate = fc.integer({ min: 1000, max: 190_000 }).map((value) => value / 1000);
const colour = fc
  .integer({ min: 0, max: 0xffffff })
  .map((value) => `#${value.toString(16).padStart(6, '0').toUpperCase()}`);

const lined = fc.array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 6 }).chain((points) =>
  fc.tuple(fc.boolean(), fc.boolean()).map(([curved, close]): Shape => {
    const builder = new PathBuilder().moveTo(...points[0]);
    for (let i = 1; i < points.length; i++) {
      if (curved && i + 1 < points.length) builder.cubicTo(...points[i - 1], ...points[i + 1], ...points[i]);
      else builder.lineTo(...points[i]);
    }
    if (close) builder.close();
    return { kind: 'path', path: builder.build() };
  }),
);
const rounded = fc.tuple(coordinate, coordinate, coordinate, coordinate, fc.integer({ min: 0, max: 10 })).map(
  ([x, y, width, height, r]): Shape => ({
    kind: 'rectangle',
    x: x / 2,
    y: y / 2,
    width: width / 2,
    height: height / 2,
    rx: r,
    ry: r,
  }),
);
const round = fc
  .tuple(coordinate, coordinate, fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 }))
  .map(([cx, cy, rx, ry]): Shape => ({ kind: 'ellipse', cx: 70 + cx / 2, cy: 65 + cy / 3, rx, ry }));
const paint = fc.oneof(
  colour.map((stroke): Paint => ({ stroke, strokeWidthMm: 0.1, fill: null })),
  colour.map((fill): Paint => ({ stroke: null, strokeWidthMm: 0, fill })),
);
let count = 0;
const item = fc.tuple(fc.oneof(lined, rounded, round), paint, fc.constantFrom('nonzero', 'evenodd')).map(
  ([shape, paint, fillRule]): Item => ({
    id: `i${count++}`,
    name: null,
    shape,
    matrix: [1, 0, 0, 1, 0, 0],
    paint,
    fillRule: fillRule as Item['fillRule'],
    groupId: null,
    pinned: null,
    hidden: false,
  }),
);
const names = ['Cut', 'Score', 'Řez 切断'];
const outgoing = fc.array(fc.array(item, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 3 }).map(
  (layers): Outgoing => ({
    page,
    layers: layers.map((items, i) => ({ name: names[i], meant: null, colour: '#000000', items })),
    pictures: new Map(),
  }),
);

/** By layer: what is drawn there, with its paint. */
function byLayer({ items, groups }: Drawing) {
  const names = new Map(groups.map(({ id, name }) => [id, name]));
  return items.map((one) => ({ item: one, layer: names.get(one.groupId ?? '') ?? null }));
}

/** How far one path strays from the other: the most that some sixty of its points a subpath are off the other's line. */
function apart(a: Path, b: Path): number {
  const away = distanceFromLines(flatten(b, 0.001));
  let most = 0;
  for (const { points } of flatten(a, 0.05)) {
    const step = 2 * Math.ceil(points.length / 120);
    for (let i = 0; i < points.length; i += step) most = Math.max(most, away(points[i], points[i + 1]));
  }
  return most;
}

describe.each<[string, (out: Outgoing) => Promise<Uint8Array>, number]>([
  ['SVG', async (out) => new TextEncoder().encode(writeSvg(out)), 20],
  ['SVG in inches', async (out) => new TextEncoder().encode(writeSvg(out, 'in')), 8],
  ['DXF', async (out) => new TextEncoder().encode(writeDxf(out)), 20],
  ['DXF in inches', async (out) => new TextEncoder().encode(writeDxf(out, 'in')), 12],
  ['PDF', (out) => writePdf([out], 'Test'), 12],
])('%s', (_, write, runs) => {
  test('what is written and read again is the same drawing: paints, layers, and every point within 0.005 mm', async () => {
    await fc.assert(
      fc.asyncProperty(outgoing, async (out) => {
        const { drawing } = await readDrawingFile(await write(out), idFor, testTools);
        const again = byLayer(drawing);
        const first = out.layers.flatMap(({ name, items }) => items.map((one) => ({ item: one, layer: name })));
        // Formats may break an outline of several subpaths up; here each has one.
        expect(again.map(({ layer }) => layer)).toEqual(first.map(({ layer }) => layer));
        again.forEach(({ item: is }, i) => {
          const was = first[i].item;
          expect([is.paint.stroke, is.paint.fill]).toEqual([was.paint.stroke, was.paint.fill]);
          expect(Math.max(apart(pathOf(is), pathOf(was)), apart(pathOf(was), pathOf(is)))).toBeLessThan(0.005);
        });
      }),
      { numRuns: runs },
    );
  });
});

test('a file in inches says so, and where it lies', () => {
  const item: Item = {
    id: 'a',
    name: null,
    shape: { kind: 'rectangle', x: 0, y: 0, width: 25.4, height: 50.8, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: '#FF0000', strokeWidthMm: 0.1, fill: null },
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  };
  const layers = [{ name: 'Cut', meant: null, colour: '#FF0000', items: [item] }];
  const out = { page: { minX: 0, minY: 0, maxX: 254, maxY: 127 }, layers, pictures: new Map() };
  expect(writeSvg(out, 'in')).toContain('width="10in" height="5in" viewBox="0 0 254 127"');
  const dxf = writeDxf(out, 'in').split(/\r?\n/);
  expect(dxf[dxf.indexOf('$INSUNITS') + 2].trim()).toBe('1');
  const at = dxf.indexOf('LWPOLYLINE');
  const along = dxf.slice(at).flatMap((code, i, all) => (code.trim() === '10' ? [Number(all[i + 1])] : []));
  expect(Math.max(...along.slice(0, 4))).toBeCloseTo(1, 12);
});

describe('DXF keeps what curves are', () => {
  const one = (shape: Shape): Item => ({
    id: 'a',
    name: null,
    shape,
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: '#FF0000', strokeWidthMm: 0.1, fill: null },
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  });
  const dxfOf = (shape: Shape) =>
    writeDxf({
      page,
      layers: [{ name: 'Cut', meant: null, colour: '#FF0000', items: [one(shape)] }],
      pictures: new Map(),
    });
  const count = (text: string, name: string) => text.split(/\r?\n/).filter((line) => line.trim() === name).length;

  test('rounded corners go out as one bulge each, not as many points', () => {
    const text = dxfOf({ kind: 'rectangle', x: 10, y: 10, width: 60, height: 40, rx: 8, ry: 8 });
    expect(count(text, 'LWPOLYLINE')).toBe(1);
    expect(text).toMatch(/^\s*90\r?\n\s*8\r?$/m);
    expect(count(text, 'SPLINE')).toBe(0);
  });

  test('a free curve goes out as a spline, and comes back with as many segments', async () => {
    const path = new PathBuilder()
      .moveTo(10, 10)
      .cubicTo(20, 60, 50, -20, 80, 30)
      .cubicTo(90, 50, 95, 60, 99, 40)
      .build();
    const text = dxfOf({ kind: 'path', path });
    expect(count(text, 'SPLINE')).toBe(1);
    const { drawing } = await readDrawingFile(new TextEncoder().encode(text), idFor, {
      fonts: testFonts,
      assets: testTools.assets,
    });
    expect(pathOf(drawing.items[0]).verbs).toEqual(path.verbs);
    const length = (item: Item) => polylinesOf(item).reduce((sum, line) => sum + polylineLength(line), 0);
    expect(length(drawing.items[0])).toBeCloseTo(length(one({ kind: 'path', path })), 3);
    expect(boundsOf(drawing.items[0]).minX).toBeCloseTo(10, 9);
  });

  test('circles, arcs and ellipses go out as such, turned and stretched as they are', async () => {
    const ellipse: Shape = { kind: 'ellipse', cx: 40, cy: 30, rx: 20, ry: 20 };
    const arc = (sweep: number): Shape => ({ kind: 'arc', cx: 40, cy: 30, radius: 20, from: 20, sweep });
    const cases: [string, Shape, Matrix][] = [
      ['CIRCLE', ellipse, identity],
      ['CIRCLE', ellipse, multiply(rotation(30), scaling(2, -2))],
      ['ELLIPSE', ellipse, multiply(rotation(30), scaling(2, 1))],
      ['ELLIPSE', ellipse, [1, 0.2, 0.7, 1.3, 4, 5]],
      ['ELLIPSE', { ...ellipse, rx: 4, ry: 15 }, rotation(70)],
      ['CIRCLE', { kind: 'path', path: outlineOf(ellipse) }, rotation(10)],
      ['ARC', arc(70), identity],
      ['ARC', arc(-250), rotation(10)],
    ];
    for (const [kind, shape, matrix] of cases) {
      const item = { ...one(shape), matrix: multiply([1, 0, 0, 1, 100, 80], matrix) };
      const layers = [{ name: 'Cut', meant: null, colour: '#FF0000', items: [item] }];
      const text = writeDxf({ page, layers, pictures: new Map() });
      expect([kind, count(text, kind)]).toEqual([kind, 1]);
      const { drawing } = await readDrawingFile(new TextEncoder().encode(text), idFor, testTools);
      const [was, is] = [pathOf(item), pathOf(drawing.items[0])];
      expect(Math.max(apart(is, was), apart(was, is))).toBeLessThan(0.001);
    }
  });

  test('a closed curve says that it is closed, whether it ends by closing or where it began', () => {
    const curve = () =>
      new PathBuilder().moveTo(10, 10).cubicTo(20, 60, 50, -20, 80, 30).cubicTo(90, 50, 95, 60, 10, 10);
    for (const path of [curve().build(), curve().close().build()]) {
      expect(dxfOf({ kind: 'path', path })).toMatch(/AcDbSpline\r?\n\s*70\r?\n9\r?\n/);
    }
  });
});
