import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item, Keep } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { outlineOf } from '../document/shapes.ts';
import { changeSetting, keepSide } from '../edits/items.ts';
import { setBurning } from '../edits/layers.ts';
import { burntGrowth } from '../fit/kerf.ts';
import { kerfComb, pinRow, slotComb, stepsBetween, type TestPiece } from '../fit/test-pieces.ts';
import { readMoves } from '../fixtures/program-reader.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { writeGcode } from '../formats/gcode/write.ts';
import { combineOutlines } from '../geometry/areas/combine.ts';
import { offsetOutlines, plainOffset } from '../geometry/offsets/offset.ts';
import { flatten, signedArea } from '../geometry/paths/flatten.ts';
import { type Path, PathBuilder, pathBounds } from '../geometry/paths/path.ts';
import { nearestOn, subpathsOf } from '../geometry/paths/segments.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';
import type { Finding } from './finding.ts';

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const withKerf = (items: Item[], kerfMm: number) => changeSetting(jobWith(items), 'cut', 'kerfMm', kerfMm);
const planOf = (job: JobDocument) => planJob(prepareJob(job, shop));

/** Every lit way of a program, as the machine would go it: in bed mm, y down, as the machine of the tests has it. */
function litWays(job: JobDocument): Path[] {
  const ways: Path[] = [];
  let builder: PathBuilder | null = null;
  let [x, y] = [0, 0];
  for (const move of readMoves(writeGcode(planOf(job), 'test'))) {
    if (!move.lit) {
      if (builder) ways.push(builder.close().build());
      builder = null;
    } else builder = (builder ?? new PathBuilder().moveTo(x, y)).lineTo(move.x, move.y);
    ({ x, y } = move);
  }
  if (builder) ways.push(builder.close().build());
  return ways;
}

/** What is left of a sheet between what ways of the beam take away: a piece, its outline smaller, its holes larger. */
const burntPiece = (outer: Path, holes: Path[], kerf: number) => {
  const shrunk = offsetOutlines([{ path: outer, rule: 'nonzero' }], { ...plainOffset, by: -kerf / 2 });
  const grown = holes.map((path) => offsetOutlines([{ path, rule: 'nonzero' }], { ...plainOffset, by: kerf / 2 }));
  return combineOutlines(
    [shrunk, ...grown].map((path) => ({ path, rule: 'nonzero' })),
    'subtract',
  );
};

/** How far points of a path are from the nearest of another, at most. */
const farthest = (from: Path, to: Path) => {
  const edges = [...subpathsOf(to)].flatMap(({ segments }) => segments);
  return Math.max(
    ...flatten(from, 0.001).flatMap(({ points }) =>
      Array.from({ length: points.length / 2 }, (_, i) =>
        Math.min(...edges.map((edge) => nearestOn(edge, points[2 * i], points[2 * i + 1]).distance)),
      ),
    ),
  );
};

describe('the way of the beam', () => {
  test('outlines grow and holes shrink by half the kerf, at every depth; the drawing stays', () => {
    // A plate, a hole in it, a disc in the hole, a hole in the disc.
    const items = [box(20, 20, 80), box(30, 30, 60), circle(60, 60, 20), circle(60, 60, 8)].map((path) =>
      item(path, 'cut'),
    );
    const job = withKerf(items, 0.2);
    const sizes = litWays(job)
      .map(pathBounds)
      .map(({ minX, maxX }) => maxX - minX)
      .sort((a, b) => b - a);
    [80.2, 59.8, 40.2, 15.8].forEach((size, i) => {
      expect(Math.abs(sizes[i] - size)).toBeLessThan(0.01);
    });
    expect(job.drawing.items).toEqual(items);
  });

  test('one path with holes is the same as several', () => {
    const plate = combineOutlines(
      [box(20, 20, 80), circle(60, 60, 20)].map((path) => ({ path, rule: 'nonzero' })),
      'subtract',
    );
    const sizes = litWays(withKerf([item(plate, 'cut')], 0.3)).map(
      (way) => pathBounds(way).maxX - pathBounds(way).minX,
    );
    expect(sizes.sort((a, b) => a - b)).toEqual([expect.closeTo(39.7, 1), expect.closeTo(80.3, 2)]);
  });

  test('the piece that is burnt is the piece that was drawn, within 0.01 mm, corners and all', () => {
    const kerfs = fc.integer({ min: 5, max: 60 }).map((hundredths) => hundredths / 100);
    fc.assert(
      fc.property(kerfs, fc.integer({ min: 10, max: 60 }), fc.integer({ min: 10, max: 60 }), (kerf, w, h) => {
        const outer = box(50, 50, w + 20, h + 20);
        const hole = circle(60 + w / 2, 60 + h / 2, Math.min(w, h) / 3);
        const job = withKerf([item(outer, 'cut'), item(hole, 'cut')], kerf);
        const [way, inner] = litWays(job).sort((a, b) => signedAreaOf(b) - signedAreaOf(a));
        const piece = burntPiece(way, [inner], kerf);
        const nominal = combineOutlines(
          [outer, hole].map((path) => ({ path, rule: 'nonzero' })),
          'subtract',
        );
        expect(farthest(piece, nominal)).toBeLessThan(0.01);
        expect(farthest(nominal, piece)).toBeLessThan(0.01);
      }),
      { numRuns: 12 },
    );
  });

  test('open cuts, scores and a kerf of 0 are burnt along the line', () => {
    const items = [item(line(10, 10, 60, 10), 'cut'), item(box(20, 20, 30), 'score')];
    const plain = planOf(jobWith(items)).steps.map(({ operation, litMm }) => [operation, litMm]);
    expect(planOf(withKerf(items, 0.4)).steps.map(({ operation, litMm }) => [operation, litMm])).toEqual(plain);
    const closed = [item(box(20, 20, 30), 'cut')];
    expect(planOf(withKerf(closed, 0)).steps[0].moves).toEqual(planOf(jobWith(closed)).steps[0].moves);
    expect(planOf(withKerf(closed, 0.4)).steps[0].litMm).toBeCloseTo(120 + 0.4 * Math.PI, 1);
  });

  test('a hole narrower than the kerf is not burnt, and said', () => {
    const slot = box(40, 40, 30, 0.15);
    const job = withKerf([item(box(20, 20, 80), 'cut'), item(slot, 'cut'), item(circle(30, 30, 3), 'cut')], 0.2);
    const prepared = prepareJob(job, shop);
    const plan = planJob(prepared);
    expect(plan.steps.map(({ part }) => part)).toEqual(['inner', 'outer']);
    expect(checkJob(prepared, plan)).toContainEqual(
      expect.objectContaining({ code: 'kerf-swallows', level: 'blocks', itemIds: [job.drawing.items[1].id] }),
    );
    const narrow = prepareJob(changeSetting(job, 'cut', 'kerfMm', 0.1), shop);
    expect(checkJob(narrow, planJob(narrow)).map(({ code }) => code)).not.toContain('kerf-swallows');
  });

  test('a kerf beyond what a beam takes away keeps the layer from burning, and is said', () => {
    const [cut] = prepareJob(withKerf([item(box(20, 20, 80), 'cut')], 3), shop).layers.filter(({ id }) => id === 'cut');
    expect(cut.beyond).toEqual([
      { setting: 'kerfMm', sentence: 'Kerf is 3 mm; a beam takes away from 0 to 2 mm.', nearest: 2 },
    ]);
    expect(cut.burns).toBe(false);
  });

  test('a recipe’s kerf applies where it was measured', () => {
    const [material, ...others] = shop.materials;
    const recipes = material.recipes.map((recipe) => ({ ...recipe, kerfMm: recipe.operation === 'cut' ? 0.25 : null }));
    const measured = { ...shop, materials: [{ ...material, recipes }, ...others] };
    const layers = prepareJob(jobWith([item(box(20, 20, 80), 'cut'), item(box(5, 5, 5), 'score')]), measured).layers;
    const kerfOf = (operation: string) =>
      layers.find(({ layer }) => layer.operation === operation)?.applied.settings?.kerfMm;
    expect([kerfOf('cut'), kerfOf('score')]).toEqual([0.25, 0]);
  });
});

describe('which side is kept', () => {
  const widths = (job: JobDocument) =>
    litWays(job)
      .map((way) => pathBounds(way).maxX - pathBounds(way).minX)
      .sort((a, b) => b - a);
  const ring = combineOutlines(
    [box(20, 20, 40), box(30, 30, 20)].map((path) => ({ path, rule: 'nonzero' })),
    'subtract',
  );

  test('an item’s own word goes over its layer’s, and that over nesting; its holes are holes of what is kept', () => {
    const kept = (own: Keep | null, layer: Keep | 'nesting') => {
      const one = item(ring, 'cut');
      const job = setBurning(withKerf([one], 0.4), 'cut', { keep: layer });
      return widths(keepSide(job, new Set([one.id]), own)).map((width) => Math.round(width * 100) / 100);
    };
    expect(kept(null, 'nesting')).toEqual([40.4, 19.6]);
    expect(kept(null, 'line')).toEqual([40, 20]);
    expect(kept(null, 'outside')).toEqual([39.6, 20.4]);
    expect(kept('inside', 'outside')).toEqual([40.4, 19.6]);
    expect(kept('line', 'inside')).toEqual([40, 20]);
  });

  test('what is to be kept inside comes out true within a hole, too', () => {
    const disc = item(circle(60, 60, 10), 'cut', { keep: 'inside' });
    expect(widths(withKerf([item(box(20, 20, 80), 'cut'), disc], 0.4))[1]).toBeCloseTo(20.4, 1);
    const told = withKerf([item(box(20, 20, 80), 'cut'), item(circle(60, 60, 10), 'cut')], 0.4);
    expect(widths(told)[1]).toBeCloseTo(19.6, 1);
  });

  test('along the line, pieces measure less and holes more, by the kerf', () => {
    const one = item(box(0, 0, 10), 'cut', { keep: 'line' });
    expect([burntGrowth(one, 0, 0.2), burntGrowth(one, 1, 0.2)]).toEqual([-0.2, 0.2]);
    expect(burntGrowth(item(box(0, 0, 10), 'cut'), 0, 0.2)).toBe(0);
  });

  test('it is stored, and a word that is none is refused', () => {
    const job = setBurning(jobWith([item(ring, 'cut', { keep: 'outside', also: 'score' })]), 'cut', { keep: 'line' });
    const json = JSON.parse(JSON.stringify(jobToJson(job)));
    expect(jobFromJson(json)).toEqual(job);
    json.drawing.items[0].keep = 'both';
    expect(() => jobFromJson(json)).toThrow('item 0: keep must be inside, outside, line');
  });
});

describe('test pieces', () => {
  const cutsOf = ({ cuts }: TestPiece) =>
    cuts.map(({ shape, keep }) => item(outlineOf(shape), 'cut', keep ? { keep } : {}));
  /** How wide an opening of a comb is once burnt, a little below its upper edge: between the ways of the beam, and half a kerf on both sides. */
  const openings = (way: Path, y: number, kerf: number) => {
    const xs = flatten(way, 0.001).flatMap(({ points }) => {
      const found: number[] = [];
      for (let i = 0; i < points.length; i += 2) {
        const j = (i + 2) % points.length;
        const [y0, y1] = [points[i + 1], points[j + 1]];
        if (y0 < y === y1 < y) continue;
        found.push(points[i] + ((y - y0) / (y1 - y0)) * (points[j] - points[i]));
      }
      return found;
    });
    xs.sort((a, b) => a - b);
    // The outer edges of the plate are the first and the last.
    return Array.from({ length: xs.length / 2 - 1 }, (_, i) => xs[2 * i + 2] - xs[2 * i + 1] + kerf);
  };

  test('the kerf comb’s tongue goes into the openings marked with the kerf and less, whatever the layer’s kerf says', () => {
    const piece = kerfComb(stepsBetween(0.05, 0.4, 0.05));
    expect(piece.steps).toEqual([0.4, 0.35, 0.3, 0.25, 0.2, 0.15, 0.1, 0.05]);
    for (const told of [0, 0.3]) {
      const [comb, tongue] = litWays(withKerf(cutsOf(piece), told)).sort((a, b) => signedAreaOf(b) - signedAreaOf(a));
      const trueKerf = 0.2;
      const { minX, maxX } = pathBounds(tongue);
      const width = maxX - minX - trueKerf;
      const goesInto = openings(comb, 6, trueKerf).map((opening) => opening >= width - 1e-6);
      expect(goesInto).toEqual(piece.steps.map((kerf) => kerf <= trueKerf));
    }
  });

  test('the slot comb’s openings measure the thickness and what they are marked with, once burnt', () => {
    const piece = slotComb(4.1, stepsBetween(-0.1, 0.1, 0.05));
    const [way] = litWays(withKerf(cutsOf(piece), 0.2));
    const burnt = openings(way, 6, 0.2);
    expect(burnt).toHaveLength(5);
    burnt.forEach((width, i) => {
      expect(Math.abs(width - 4.1 - piece.steps[i])).toBeLessThan(0.01);
    });
    expect(piece.labels.map(({ words }) => words)).toEqual(['-0.10', '-0.05', '0.00', '+0.05', '+0.10']);
  });

  test('the pin and its holes', () => {
    const piece = pinRow(8, [0.2, -0.1]);
    expect(piece.cuts.map(({ shape }) => (shape.kind === 'ellipse' ? 2 * shape.rx : null))).toEqual([
      null,
      7.9,
      8.2,
      8,
    ]);
    expect(piece.labels.map(({ words }) => words)).toEqual(['-0.10', '+0.20']);
    for (const { cuts, width, height } of [piece, kerfComb([0.1, 0.2]), slotComb(3, [0])]) {
      for (const { shape } of cuts) {
        const { minX, minY, maxX, maxY } = pathBounds(outlineOf(shape));
        expect(minX >= 0 && minY >= 0 && maxX <= width + 1e-9 && maxY <= height + 1e-9).toBe(true);
      }
    }
  });

  test('steps that make no sense are none', () => {
    expect([stepsBetween(1, 0, 0.1), stepsBetween(0, 1, 0), stepsBetween(0, 1e9, 1e-3).length]).toEqual([[], [], 60]);
    expect(slotComb(0.2, [-0.3, 0]).steps).toEqual([0]);
  });
});

describe('what the kerf does not leave', () => {
  const findings = (items: Item[], kerf: number) => {
    const prepared = prepareJob(withKerf(items, kerf), shop);
    return checkJob(prepared, planJob(prepared)).filter(({ code }) =>
      ['thin-wall', 'narrow-gap', 'sharp-corner', 'shared-cut', 'line-drawn-twice'].includes(code),
    );
  };
  const codes = (items: Item[], kerf = 0.2) => findings(items, kerf).map(({ code }) => code);

  test('a wall between two holes, from both sides of its width', () => {
    const plate = (wall: number) => [
      item(box(20, 20, 80), 'cut'),
      item(box(30, 30, 20), 'cut'),
      item(box(50 + wall, 30, 20), 'cut'),
    ];
    const [thin] = findings(plate(0.19), 0.2);
    // The beam goes within the holes: the wall between them stays as wide as it is drawn.
    expect(thin).toMatchObject({ code: 'thin-wall', level: 'notes' });
    expect(thin.message).toContain('it stays, 0.19 mm wide at the thinnest');
    expect(thin.itemIds).toHaveLength(2);
    const [place] = thin.places ?? [];
    expect([place.minX, place.maxX]).toEqual([expect.closeTo(50, 1), expect.closeTo(50.19, 1)]);
    expect(codes(plate(0.21))).toEqual([]);
    // Along the lines it takes half its width from either side.
    const [gone] = findings(
      plate(0.19).map((entry) => ({ ...entry, keep: 'line' as const })),
      0.2,
    );
    expect(gone).toMatchObject({ code: 'thin-wall', level: 'warns' });
    expect(gone.message).toContain('would burn away');
    const half = plate(0.19).map((entry, i) => (i === 1 ? { ...entry, keep: 'line' as const } : entry));
    expect(findings(half, 0.2)[0]).toMatchObject({ level: 'notes', message: expect.stringContaining('0.09 mm wide') });
  });

  test('a strip that is nothing but wall, however few points it has', () => {
    const strip = (wide: number, more = {}) => [item(box(20, 20, 60, wide), 'cut', more)];
    expect(findings(strip(0.15), 0.2)[0]).toMatchObject({ code: 'thin-wall', level: 'notes' });
    expect(findings(strip(0.15, { keep: 'line' }), 0.2)[0]).toMatchObject({ code: 'thin-wall', level: 'warns' });
    expect(codes(strip(0.25))).toEqual([]);
  });

  test('a slot, a gap between parts, and a keyhole whose neck is too narrow, but not the corners of a rectangle', () => {
    const gapped = (gap: number) => [item(box(20, 20, 30), 'cut'), item(box(50 + gap, 20, 30), 'cut')];
    expect(codes(gapped(0.15))).toEqual(['narrow-gap']);
    expect(codes(gapped(0.25))).toEqual([]);
    const keyhole = combineOutlines(
      [circle(60, 60, 5), box(59.95, 60, 0.1, 20)].map((path) => ({ path, rule: 'nonzero' })),
      'unite',
    );
    expect(codes([item(box(20, 20, 80), 'cut'), item(keyhole, 'cut')])).toContain('narrow-gap');
    expect(codes([item(box(20, 20, 80), 'cut'), item(box(30, 30, 20), 'cut')], 0.8)).not.toContain('narrow-gap');
  });

  test('an edge for two parts, instead of a line drawn twice', () => {
    const shared = findings([item(box(20, 20, 30), 'cut'), item(box(50, 20, 30), 'cut')], 0.2);
    expect(shared.map(({ code }) => code)).toEqual(['shared-cut']);
    expect(shared[0].message).toMatch(/^30\.0 mm of edge is shared by parts.*each part loses 0\.1 mm/);
    expect(codes([item(box(20, 20, 30), 'cut'), item(box(50, 20, 30), 'cut')], 0)).toEqual(['line-drawn-twice']);
  });

  test('sharp inner corners, by how much stays in them; outer ones are cut as drawn', () => {
    // A triangular hole of 30° at its tip: 1 / sin 15° − 1 = 2.864 half kerfs stay.
    const tip = (30 * Math.PI) / 180;
    const hole = line(40, 60, 70, 60, 40 + 30 * Math.cos(tip), 60 - 30 * Math.sin(tip), 40, 60);
    const sharp = findings([item(box(20, 20, 80), 'cut'), item(hole, 'cut')], 0.2).find(
      ({ code }) => code === 'sharp-corner',
    ) as Finding;
    expect(sharp).toMatchObject({ code: 'sharp-corner', level: 'notes' });
    expect(sharp.message).toMatch(/^In 1 inner corner the beam, being round, leaves up to 0\.29 mm/);
    expect(codes([item(hole, 'cut')])).not.toContain('sharp-corner');
    expect(codes([item(box(20, 20, 80), 'cut'), item(box(30, 30, 20), 'cut')], 0.3)).toEqual([]);
  });
});

function signedAreaOf(path: Path): number {
  return Math.abs(flatten(path, 0.01).reduce((sum, one) => sum + signedArea(one), 0));
}
