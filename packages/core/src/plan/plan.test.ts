import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Item } from '../document/item.ts';
import { changeSetting } from '../edits/items.ts';
import { switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, machine, shop } from '../fixtures/shop.ts';
import { timeMoves } from './motion.ts';
import { Move, MoveList } from './moves.ts';
import { planJob, stepTitle } from './plan.ts';
import { prepareJob } from './prepare.ts';
import { rampsOf, trapezoidTime } from './ramps.ts';

const planOf = (items: Item[], more = {}) => planJob(prepareJob(jobWith(items, more), shop));

describe('motion', () => {
  test('a move from rest to rest is a trapezoid, or a triangle when it is short', () => {
    expect(trapezoidTime(100, 0, 0, 50, 1000)).toBeCloseTo(100 / 50 + 50 / 1000, 9);
    expect(trapezoidTime(1, 0, 0, 50, 1000)).toBeCloseTo(2 * Math.sqrt(1 / 1000), 9);
    expect(trapezoidTime(10, 50, 50, 50, 1000)).toBeCloseTo(0.2, 9);
  });

  const timed = (points: number[], speedMmPerS: number) => {
    const list = new MoveList({ x: 0, y: 0 });
    for (let i = 0; i < points.length; i += 2) list.to(Move.lit, points[i], points[i + 1]);
    return timeMoves([{ moves: list.build(), speedMmPerS }], machine, { x: 0, y: 0 })[0].reduce((sum, s) => sum + s, 0);
  };

  test('a straight line takes the same time in one piece or in a hundred', () => {
    const pieces = Array.from({ length: 100 }, (_, i) => [(i + 1) * 2, 0]).flat();
    expect(timed(pieces, 80)).toBeCloseTo(timed([200, 0], 80), 4);
  });

  test('a corner costs time, a sharper one more, and turning back stops the head', () => {
    const straight = timed([50, 0, 100, 0], 80);
    const slight = timed([50, 0, 100, 10], 80);
    const square = timed([50, 0, 50, 50], 80);
    const back = timed([50, 0, 0, 0], 80);
    expect(slight).toBeGreaterThan(straight);
    expect(square).toBeGreaterThan(straight + 0.01);
    expect(back).toBeCloseTo(2 * timed([50, 0], 80), 4);
  });

  test('no move is faster than its speed allows', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 300 }), { minLength: 2, maxLength: 40 }), (points) => {
        const list = new MoveList({ x: 0, y: 0 });
        for (let i = 0; i + 1 < points.length; i += 2) list.to(Move.lit, points[i], points[i + 1]);
        const total = list.litMm;
        const time = timed(points.length % 2 ? points.slice(0, -1) : points, 70);
        expect(time).toBeGreaterThanOrEqual(total / 70 - 1e-6);
      }),
    );
  });
});

describe('engraving', () => {
  const settings = (more: Record<string, number>) => ({ settings: { engrave: { lineSpacingMm: 0.5, ...more } } });

  test('a square is filled by lines of its width, one spacing apart', () => {
    const [step] = planOf([item(box(100, 100, 10), 'engrave')], settings({})).steps;
    expect(step.litMm).toBeCloseTo(200, 6);
    const ys = [...new Set([...step.moves.ys])];
    expect(ys).toHaveLength(20);
    expect(ys[0]).toBeCloseTo(100.25, 6);
    expect(step.moves.kinds.filter((kind) => kind === Move.lit)).toHaveLength(20);
  });

  test('a shape inside a shape is a hole, also when it is another item; overlaps do not burn', () => {
    const lit = (...items: Item[]) => planOf(items, settings({})).steps[0].litMm;
    expect(lit(item(box(100, 100, 10), 'engrave'), item(box(104, 104, 4), 'engrave'))).toBeCloseTo(200 - 32, 6);
    expect(
      lit(item(box(100, 100, 10), 'engrave'), item(box(100, 100, 10), 'engrave'), item(box(200, 200, 1), 'engrave')),
    ).toBeCloseTo(2, 6);
  });

  test('speed is reached before the first lit mm and kept until after the last', () => {
    const { moves, settings: used } = planOf([item(box(100, 100, 10), 'engrave')], settings({})).steps[0];
    const runUp = rampsOf(undefined).runUp(used.speedMmPerS, machine.acceleration);
    expect(runUp).toBe(20);
    let x = 0;
    for (let i = 0; i < moves.kinds.length; i++) {
      if (moves.kinds[i] === Move.dark) expect(Math.abs(moves.xs[i] - x)).toBeCloseTo(runUp, 6);
      x = moves.xs[i];
    }
    expect([...moves.kinds.slice(0, 4)]).toEqual([Move.travel, Move.dark, Move.lit, Move.dark]);
  });

  test('lines run both ways, and stay on the bed even where the run-up does not fit', () => {
    const plan = planOf([item(box(4, 100, 10), 'engrave')], settings({}));
    const { moves, runUpShort } = plan.steps[0];
    expect(runUpShort).toBe(true);
    expect(Math.min(...moves.xs)).toBe(0);
    const directions = [...moves.kinds].flatMap((kind, i) =>
      kind === Move.lit ? [Math.sign(moves.xs[i] - moves.xs[i - 1])] : [],
    );
    expect(directions.slice(0, 4)).toEqual([1, -1, 1, -1]);
  });

  test('pieces far apart are filled one after the other, near ones together', () => {
    const rows = (gap: number) => {
      const items = [item(box(100, 100, 10), 'engrave'), item(box(110 + gap, 100, 10), 'engrave')];
      const { moves } = planOf(items, settings({})).steps[0];
      return [...moves.kinds].filter((kind) => kind === Move.travel).length;
    };
    expect(rows(5)).toBe(20);
    expect(rows(300)).toBe(40);
  });

  test('what is lit is what the outlines hold, for any polygon', () => {
    const polygon = fc.array(fc.tuple(fc.integer({ min: 40, max: 90 }), fc.integer({ min: 40, max: 90 })), {
      minLength: 3,
      maxLength: 9,
    });
    fc.assert(
      fc.property(polygon, (points) => {
        const ring = line(...points.flat(), ...points[0]);
        const plan = planOf([item(ring, 'engrave')], settings({ lineSpacingMm: 0.1 }));
        const step = plan.steps[0];
        // The even-odd area by an independent count of crossings on a grid of 0.5 mm.
        let cells = 0;
        for (let x = 40.25; x < 90; x += 0.5) {
          for (let y = 40.25; y < 90; y += 0.5) if (crossings(points, x, y) % 2) cells++;
        }
        expect(Math.abs((step?.litMm ?? 0) * 0.1 - cells * 0.25)).toBeLessThan(20);
      }),
      { numRuns: 40 },
    );
  });
});

function crossings(points: [number, number][], x: number, y: number): number {
  let count = 0;
  points.forEach(([px, py], i) => {
    const [qx, qy] = points[(i + 1) % points.length];
    if (py > y !== qy > y && x < px + ((y - py) * (qx - px)) / (qy - py)) count++;
  });
  return count;
}

describe('order', () => {
  const frame = item(box(100, 100, 100), 'cut');
  const ring = item(box(120, 120, 60), 'cut');
  const pip = item(box(140, 140, 10), 'cut');
  const fold = item(line(110, 150, 190, 150), 'score');
  const name = item(box(150, 110, 20, 5), 'engrave');

  test('engrave, score, inner cuts from the inside out, outside edges', () => {
    const { steps } = planOf([frame, ring, pip, fold, name]);
    expect(steps.map(stepTitle)).toEqual(['Engrave', 'Score', 'Cut · inside', 'Cut · outside']);
    const inner = steps[2].moves;
    expect(inner.xs[0]).toBeLessThanOrEqual(150);
    expect([inner.xs[0], inner.ys[0]].every((value) => value >= 140 && value <= 150)).toBe(true);
    expect(steps.map(({ litMm }) => Math.round(litMm))).toEqual([1000, 80, 280, 400]);
  });

  test('passes burn every lit mm that many times, and an open line goes there and back', () => {
    const { steps } = planOf([frame, fold], { settings: { cut: { passes: 3 }, score: { passes: 2 } } });
    expect(steps.map(({ litMm }) => litMm)).toEqual([160, 1200]);
    expect(steps[0].moves.kinds.filter((kind) => kind === Move.travel)).toHaveLength(1);
  });

  test('nothing that contains is ever burnt before what it contains, whatever the drawing', () => {
    const squares = fc.array(
      fc.tuple(fc.integer({ min: 10, max: 300 }), fc.integer({ min: 10, max: 200 }), fc.integer({ min: 2, max: 90 })),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(squares, (list) => {
        const { steps } = planOf(list.map(([x, y, size]) => item(box(x, y, size), 'cut')));
        const order: { x: number; y: number; size: number }[] = [];
        for (const { moves } of steps) {
          moves.kinds.forEach((kind, i) => {
            if (kind !== Move.travel && !(i === 0 || moves.kinds[i - 1] === Move.travel)) return;
            const from = kind === Move.travel ? i + 1 : i;
            const xs = moves.xs.slice(from, from + 4);
            const ys = moves.ys.slice(from, from + 4);
            const size = Math.max(...xs) - Math.min(...xs);
            order.push({ x: Math.min(...xs), y: Math.min(...ys), size });
          });
        }
        order.forEach((outer, i) => {
          for (const inner of order.slice(i + 1)) {
            const holds =
              inner.x > outer.x &&
              inner.y > outer.y &&
              inner.x + inner.size < outer.x + outer.size &&
              inner.y + inner.size < outer.y + outer.size;
            expect(holds).toBe(false);
          }
        });
      }),
    );
  });

  test('the nearest comes next, so that a row is burnt along the row', () => {
    const shuffled = [300, 100, 400, 200].map((x) => item(box(x, 50, 10), 'cut'));
    const { moves } = planOf(shuffled).steps[0];
    const starts = [...moves.kinds].flatMap((kind, i) => (kind === Move.travel ? [Math.floor(moves.xs[i] / 100)] : []));
    expect(starts).toEqual([1, 2, 3, 4]);
  });

  test('the head starts at the machine’s zero, and goes back to it with its focus on the stock, which counts too', () => {
    const far = item(box(100, 100, 20), 'cut');
    const focused = { ...machine, focus: { lowest: -5, highest: 5, speed: 2 } };
    const lower = { ...shop, machines: [{ ...focused, origin: 'bottom-left' as const, id: 'm' }] };
    const plan = planJob(prepareJob(jobWith([far], { settings: { cut: { focusMm: -3 } } }), lower));
    const [{ moves, unlitMm, timeS }] = plan.steps;
    const start = { x: moves.xs[1], y: moves.ys[1] };
    expect(unlitMm).toBeCloseTo(Math.hypot(start.x, start.y - 400), 6);
    const { back } = plan;
    expect([...back.kinds]).toEqual([Move.focus, Move.travel]);
    expect([back.values?.[0], back.xs[1], back.ys[1]]).toEqual([0, 0, 400]);
    // 3 mm at 2 mm/s, then the way from where the outline ends.
    const way = Math.hypot(start.x, start.y - 400);
    expect(plan.backS).toBeCloseTo(1.5 + trapezoidTime(way, 0, 0, machine.travelSpeed, machine.acceleration), 4);
    expect(plan.timeS).toBeCloseTo(timeS + plan.backS, 4);
    expect(plan.travelMm).toBeCloseTo(2 * way, 4);
  });

  test('a step that lights nothing is none', () => {
    const dot = item(line(50, 50, 50, 50), 'cut');
    expect(planOf([dot]).steps).toEqual([]);
    expect(planOf([dot, frame]).steps).toHaveLength(1);
  });

  test('a layer that is off, has no recipe or is beyond the machine is left out', () => {
    const items = [frame, fold];
    const job = jobWith(items);
    const layersOf = (changed: typeof job) => planJob(prepareJob(changed, shop)).steps.map(({ layerId }) => layerId);
    expect(layersOf(switchLayer(job, 'score', false))).toEqual(['cut']);
    expect(layersOf(changeSetting(job, 'cut', 'speedMmPerS', 501))).toEqual(['score']);
    expect(layersOf({ ...job, sheets: [{ ...job.sheets[0], materialId: 'bare' }] })).toEqual([]);
    expect(layersOf({ ...job, sheets: [{ ...job.sheets[0], materialId: 'poison' }] })).toEqual([]);
    expect(layersOf(jobWith([]))).toEqual([]);
  });

  test('of several machines and keys the job’s own are taken; where they are gone, the first', () => {
    const several = { ...shop, keys: [{ ...shop.keys[0], id: 'other' }, shop.keys[0]] };
    const taken = (more: Partial<ReturnType<typeof jobWith>>) => {
      const { key, machine: on } = prepareJob({ ...jobWith([frame]), ...more }, several);
      return [key.id, on.id];
    };
    expect(taken({})).toEqual(['house', 'm']);
    expect(taken({ machineId: 'low' })).toEqual(['house', 'low']);
    expect(taken({ machineId: 'gone', keyId: 'gone' })).toEqual(['other', 'm']);
  });

  test('long planning tells how far it has come, always more, and ends when that throws', () => {
    const squares = Array.from({ length: 400 }, (_, i) => {
      const [x, y] = [5 + (i % 20) * 7, 5 + Math.floor(i / 20) * 7];
      return item(box(x, y, 5), 'cut');
    });
    const prepared = prepareJob(jobWith([...squares, frame]), shop);
    const told: number[] = [];
    const plan = planJob(prepared, (share) => told.push(share));
    expect(plan).toEqual(planJob(prepared));
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.length).toBeGreaterThan(50);
    expect(told[0]).toBeGreaterThan(0);
    expect(told.at(-1)).toBeLessThan(1);
    const gaps = told.slice(1).map((share, i) => share - told[i]);
    expect(Math.max(...gaps)).toBeLessThan(0.25);
    const enough = new Error('enough');
    expect(() =>
      planJob(prepared, (share) => {
        if (share > 0.5) throw enough;
      }),
    ).toThrow(enough);
  });
});
