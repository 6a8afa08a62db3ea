import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { changeSetting } from '../drawing/edits.ts';
import type { Item } from '../drawing/item.ts';
import type { JobDocument } from '../drawing/job.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { writeGcode } from '../formats/gcode/write.ts';
import { combineOutlines } from '../geometry/combine.ts';
import { flatten, signedArea } from '../geometry/flatten.ts';
import { offsetOutlines, plainOffset } from '../geometry/offset.ts';
import { type Path, PathBuilder, pathBounds } from '../geometry/path.ts';
import { outlineOf } from '../geometry/shapes.ts';
import { nearestOn, subpathsOf } from '../geometry/stretches.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const circle = (cx: number, cy: number, r: number) => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });
const withKerf = (items: Item[], kerfMm: number) => changeSetting(jobWith(items), 'cut', 'kerfMm', kerfMm);
const planOf = (job: JobDocument) => planJob(prepareJob(job, shop));

/** Every lit way of a program, as the machine would go it: in bed mm, y down, as the machine of the tests has it. */
function litWays(job: JobDocument): Path[] {
  const ways: Path[] = [];
  let builder: PathBuilder | null = null;
  let [x, y] = [0, 0];
  for (const words of writeGcode(planOf(job), 'test')) {
    const move = /^G([01])\b/.exec(words);
    if (!move) continue;
    const at = (letter: string, before: number) =>
      Number(new RegExp(`${letter}(-?[\\d.]+)`).exec(words)?.[1] ?? before);
    const [toX, toY] = [at('X', x), at('Y', y)];
    if (move[1] === '0') {
      if (builder) ways.push(builder.close().build());
      builder = null;
    } else builder = (builder ?? new PathBuilder().moveTo(x, y)).lineTo(toX, toY);
    [x, y] = [toX, toY];
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
  const edges = [...subpathsOf(to)].flatMap(({ stretches }) => stretches);
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
    expect(cut.beyond).toEqual(['Kerf is 3 mm; a beam takes away from 0 to 2 mm.']);
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

function signedAreaOf(path: Path): number {
  return Math.abs(flatten(path, 0.01).reduce((sum, one) => sum + signedArea(one), 0));
}
