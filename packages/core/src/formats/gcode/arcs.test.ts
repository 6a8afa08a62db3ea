import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outlineOf } from '../../document/shapes.ts';
import { distanceFromLines } from '../../fixtures/line-distance.ts';
import { readMoves, readProgram } from '../../fixtures/program-reader.ts';
import { box, item, jobWith, line, machine, material, shop } from '../../fixtures/shop.ts';
import { flatten, type Polyline } from '../../geometry/paths/flatten.ts';
import { type Path, PathBuilder } from '../../geometry/paths/path.ts';
import { fromMachine } from '../../machine/frame.ts';
import type { Machine, Origin } from '../../machine/machine.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { continueProgram } from './continue.ts';
import { programWays } from './ways.ts';
import { programLines, writeGcode } from './write.ts';

/** As far as arcs may be off, and as far as the raster of programs is. */
const within = 0.01 + 0.0008;
const able = (more: Partial<Machine> = {}): Machine => ({ ...machine, arcsWithin: 0.002, ...more });
const planOf = (paths: readonly Path[], own: Machine, operation: 'score' | 'cut' = 'score', kerfMm = 0) =>
  planJob(
    prepareJob(
      jobWith(
        paths.map((path) => item(path, operation)),
        { settings: { cut: { kerfMm } } },
      ),
      { ...shop, machines: [own], materials: [material] },
    ),
  );
const programOf = (paths: readonly Path[], own: Machine, operation?: 'score' | 'cut', kerfMm?: number) => [
  ...writeGcode(planOf(paths, own, operation, kerfMm), 'Round'),
];
const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });

/** Where the beam of a program goes, on the bed, as lines. */
function litLines(lines: readonly string[], own: Machine): Polyline[] {
  const found: number[][] = [];
  let [before, wasLit] = [{ x: 0, y: 0 }, false];
  for (const { lit, x, y } of readMoves(lines)) {
    const place = fromMachine(own, x, y);
    if (lit && !wasLit) found.push([before.x, before.y]);
    if (lit) found.at(-1)?.push(place.x, place.y);
    [before, wasLit] = [place, lit];
  }
  return found.map((points) => ({ points: Float64Array.from(points), closed: false }));
}

/** How far lines and outlines are from each other at most, both ways. */
function farthest(burnt: readonly Polyline[], paths: readonly Path[]): number {
  const drawn = paths.flatMap((path) => flatten(path, 0.0005));
  const most = (from: readonly Polyline[], to: readonly Polyline[]) => {
    const distance = distanceFromLines(to);
    let off = 0;
    for (const { points } of from)
      for (let i = 0; i < points.length; i += 2) off = Math.max(off, distance(points[i], points[i + 1]));
    return off;
  };
  return Math.max(most(burnt, drawn), most(drawn, burnt));
}

const arcLines = (lines: readonly string[]) => lines.filter((text) => /I-?[\d.]+J/.test(text));

describe('arcs in programs', () => {
  test('a circle is two of them, around its very middle, whichever way the machine counts', () => {
    for (const origin of ['top-left', 'bottom-left', 'centre'] as Origin[]) {
      const own = able({ origin });
      const lines = programOf([circle(100.5, 80.25, 20)], own);
      const burns = readProgram(lines);
      expect(burns).toHaveLength(2);
      for (const { arc } of burns) {
        const middle = fromMachine(own, arc?.cx ?? 0, arc?.cy ?? 0);
        expect(Math.hypot(middle.x - 100.5, middle.y - 80.25)).toBeLessThan(0.002);
      }
      expect(burns[0].lit + burns[1].lit).toBeCloseTo(40 * Math.PI, 2);
      expect(farthest(litLines(lines, own), [circle(100.5, 80.25, 20)])).toBeLessThan(0.003);
      expect(arcLines(lines)).toHaveLength(2);
      // The second says no code again, and no power.
      expect(arcLines(lines)[1]).toMatch(/^X[\d.-]+Y[\d.-]+I[\d.-]+J[\d.-]+$/);
    }
    expect(arcLines(programOf([circle(100, 80, 20)], machine))).toEqual([]);
  });

  test('they go round the way that outlines are told to: where Y counts down, G3 is clockwise on screen', () => {
    const own = able();
    for (const [direction, isG2] of [
      ['clockwise', false],
      ['anticlockwise', true],
    ] as const) {
      const job = jobWith([item(circle(100, 80, 20), 'score')], { burning: { score: { direction } } });
      const plan = planJob(prepareJob(job, { ...shop, machines: [own], materials: [material] }));
      const lines = [...writeGcode(plan, 'Round')];
      expect(readProgram(lines).map(({ arc }) => arc?.clockwise)).toEqual([isG2, isG2]);
      expect(farthest(litLines(lines, own), [circle(100, 80, 20)])).toBeLessThan(0.003);
    }
  });

  const place = fc.integer({ min: 20_000, max: 280_000 }).map((n) => n / 1000);
  const size = fc.integer({ min: 200, max: 15_000 }).map((n) => n / 1000);
  const roundShape = fc.oneof(
    fc.record({ kind: fc.constant('ellipse' as const), cx: place, cy: place, rx: size, ry: size }),
    fc.tuple(place, place, size).map(([cx, cy, r]) => ({ kind: 'ellipse' as const, cx, cy, rx: r, ry: r })),
    fc.tuple(place, place, size, size).map(([x, y, width, r]) => ({
      kind: 'rectangle' as const,
      x,
      y,
      width: width + 2 * r,
      height: 3 * r,
      rx: r,
      ry: r,
    })),
    // Polygons of so many sides that they are nearly round.
    fc.tuple(place, place, size, fc.integer({ min: 3, max: 400 })).map(([cx, cy, radius, sides]) => ({
      kind: 'polygon' as const,
      cx,
      cy,
      radius,
      sides,
      inner: null,
      turn: 0,
    })),
  );

  test('are within 0.01 mm of what is drawn, scored as drawn and cut beside it', () => {
    fc.assert(
      fc.property(roundShape, fc.constantFrom('score' as const, 'cut' as const), (shape, operation) => {
        const path = outlineOf(shape);
        const own = able({ arcsWithin: 0.004 });
        const plain = planOf([path], machine, operation);
        const plan = planOf([path], own, operation);
        expect(farthest(litLines([...writeGcode(plan, 'Round')], own), [path])).toBeLessThan(within);
        // As many steps, and as long.
        expect(Math.abs(plan.steps[0].litMm - plain.steps[0].litMm)).toBeLessThan(0.1);
        expect(plan.cuts).toHaveLength(plain.cuts.length);
      }),
      { numRuns: 60 },
    );
  });

  test('beside a kerf they are half of it away from what is drawn, to 0.01 mm', () => {
    fc.assert(
      fc.property(place, place, size, (cx, cy, r) => {
        const own = able();
        const lines = programOf([circle(cx, cy, r)], own, 'cut', 0.2);
        expect(arcLines(lines).length).toBeGreaterThan(0);
        expect(farthest(litLines(lines, own), [circle(cx, cy, r + 0.1)])).toBeLessThan(within);
      }),
      { numRuns: 30 },
    );
  });

  test('curves that are no circles, and wavy hand-drawn lines, are too', () => {
    const step = fc.integer({ min: -6000, max: 6000 }).map((n) => n / 1000);
    fc.assert(
      fc.property(fc.array(fc.tuple(step, step, step, step, step, step), { minLength: 1, maxLength: 4 }), (curves) => {
        const builder = new PathBuilder().moveTo(100, 100);
        let [x, y] = [100, 100];
        for (const [a, b, c, d, e, f] of curves) {
          builder.cubicTo(x + a, y + b, x + c, y + d, x + e, y + f);
          [x, y] = [x + e, y + f];
        }
        const path = builder.build();
        expect(farthest(litLines(programOf([path], able()), able()), [path])).toBeLessThan(within);
      }),
      { numRuns: 25 },
    );
  });

  test('straight lines, corners and outlines of few corners are left as they are', () => {
    const paths = [box(20, 20, 30), line(60, 20, 90, 20, 90, 50, 120, 50), line(100, 100, 130, 100)];
    expect(programOf(paths, able())).toEqual(programOf(paths, machine));
  });

  test('no arc goes on from one line into the next, and none leaves the bed', () => {
    const half = new PathBuilder().moveTo(50, 50);
    for (let i = 1; i <= 60; i++)
      half.lineTo(70 - 20 * Math.cos((i * Math.PI) / 60), 50 + 20 * Math.sin((i * Math.PI) / 60));
    const otherHalf = new PathBuilder().moveTo(90, 50);
    for (let i = 1; i <= 60; i++)
      otherHalf.lineTo(70 + 20 * Math.cos((i * Math.PI) / 60), 50 - 20 * Math.sin((i * Math.PI) / 60));
    expect(arcLines(programOf([half.build(), otherHalf.build()], able()))).toHaveLength(2);
    // Around a circle that touches the edge of the bed, all chords are on it.
    const own = able({ margin: 0 });
    for (const r of [3.3, 17.77, 41.234]) {
      const { bounds } = planOf([circle(r, r, r)], own).steps[0].moves;
      expect(Math.min(bounds.minX, bounds.minY)).toBeGreaterThanOrEqual(0);
    }
  });

  test('a program of them is far shorter', () => {
    const rings = Array.from({ length: 30 }, (_, i) => circle(200, 150, 2 + i * 3));
    const [short, long] = [programOf(rings, able()), programOf(rings, machine)];
    expect(short.length).toBeLessThan(long.length / 20);
  });

  test('it goes on from any line, each stretch burnt once, with a run-up along the tangent', () => {
    const own = able({ origin: 'bottom-left' });
    const slot = outlineOf({ kind: 'slot', x1: 100, y1: 100, x2: 140, y2: 100, width: 20 });
    const timed = [...programLines(planOf([slot, circle(250, 200, 30)], own), 'Round')];
    const lines = timed.map(({ text }) => text);
    expect(arcLines(lines).length).toBeGreaterThanOrEqual(4);
    const burnt = (texts: readonly string[]) => readProgram(texts).map(({ title: _, ...burn }) => JSON.stringify(burn));
    for (let from = 1; from <= lines.length; from++) {
      const rest = [...continueProgram(timed, from, own)].map(({ text }) => text);
      expect([...burnt(lines.slice(0, from - 1)), ...burnt(rest)]).toEqual(burnt(lines));
    }
    // From the last arc on: the run-up touches it where it begins.
    const from = lines.indexOf(arcLines(lines).at(-1) ?? '') + 1;
    const rest = [...continueProgram(timed, from, own)].map(({ text }) => text);
    const upAt = rest.findIndex((text) => /^G1.*S0$/.test(text));
    const places = [...readMoves(rest.slice(0, upAt + 1))];
    const [start, end] = places.slice(-2);
    const centre = readProgram(lines).at(-1)?.arc;
    const radius = [end.x - (centre?.cx ?? 0), end.y - (centre?.cy ?? 0)];
    const runUp = [end.x - start.x, end.y - start.y];
    expect(Math.hypot(...runUp)).toBeGreaterThan(0.5);
    const cosine = (radius[0] * runUp[0] + radius[1] * runUp[1]) / (Math.hypot(...radius) * Math.hypot(...runUp));
    expect(Math.abs(cosine)).toBeLessThan(0.002);
    // It runs up the way the arc goes on: clockwise is to the right of the radius.
    const side = radius[0] * runUp[1] - radius[1] * runUp[0];
    expect(side < 0).toBe(centre?.clockwise);
  });

  test('its ways are drawn as arcs, each of one line', () => {
    const own = able({ origin: 'centre' });
    const lines = programOf([circle(150, 120, 25)], own);
    const ways = programWays(lines.join('\n'), own);
    const lit = [...ways.lit.keys()].filter((i) => ways.lit[i] === 1);
    expect(new Set(lit.map((i) => ways.lines[i]))).toEqual(
      new Set(arcLines(lines).map((text) => lines.indexOf(text) + 1)),
    );
    for (const i of lit) expect(Math.hypot(ways.xs[i] - 150, ways.ys[i] - 120)).toBeCloseTo(25, 2);
    expect(ways.pieces).toHaveLength(1);
  });
});
