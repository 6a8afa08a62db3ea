import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import type { Landing } from '../document/run.ts';
import { changeRun } from '../edits/layers.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { applyTo, multiply, type Point, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { throughMarks } from './landing.ts';
import { prepareJob, type RunChoice } from './prepare.ts';

const square = item(box(10, 20, 30, 40), 'cut');
const landedBy = (landing: Landing, choice: RunChoice = {}, job: JobDocument = jobWith([square])) =>
  prepareJob(changeRun(job, job.runs[0].id, { landing }), shop, choice);
const boxBurnt = (...wish: Parameters<typeof landedBy>) => {
  const { minX, minY, maxX, maxY } = boundsOf(landedBy(...wish).burntAt(square));
  return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1000) / 1000);
};
const mm = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
const place = fc.record({ x: mm(0, 600), y: mm(0, 400) });

describe('a landing', () => {
  test('puts any of the nine points of the run at the head', () => {
    const head = { x: 200, y: 100 };
    expect(boxBurnt({ kind: 'head', u: 0, v: 0 }, { head })).toEqual([200, 100, 230, 140]);
    expect(boxBurnt({ kind: 'head', u: 0.5, v: 0.5 }, { head })).toEqual([185, 80, 215, 120]);
    expect(boxBurnt({ kind: 'head', u: 1, v: 0.5 }, { head })).toEqual([170, 80, 200, 120]);
    expect(boxBurnt({ kind: 'head', u: 0.5, v: 1 }, { head })).toEqual([185, 60, 215, 100]);
  });

  test('puts it into a corner of its sheet, also of one that is turned', () => {
    const job = jobWith([square]);
    const [sheet] = job.sheets;
    const laid = { ...job, sheets: [{ ...sheet, x: 50, y: 60, width: 300, height: 200 }] };
    expect(boxBurnt({ kind: 'stock', u: 0, v: 0, inset: 4 }, {}, laid)).toEqual([54, 64, 84, 104]);
    expect(boxBurnt({ kind: 'stock', u: 1, v: 1, inset: 0 }, {}, laid)).toEqual([320, 220, 350, 260]);
    const turned = { ...job, sheets: [{ ...laid.sheets[0], angle: 180 }] };
    expect(boxBurnt({ kind: 'stock', u: 0, v: 0, inset: 0 }, {}, turned)).toEqual([350, 260, 380, 300]);
  });

  test('says what it needs, and leaves the run as it is drawn', () => {
    const marks: Landing = { kind: 'marks', marks: [{ x: 10, y: 20, onBed: null }], isScaled: false };
    const noSheet = { ...jobWith([square]), sheets: [] };
    const cases = [
      [{ kind: 'head', u: 0, v: 0 }, 'head', undefined],
      [{ kind: 'mark', u: 0, v: 0 }, 'mark', undefined],
      [{ kind: 'stock', u: 0, v: 0, inset: 0 }, 'sheet', noSheet],
      [marks, 'marks', undefined],
    ] as const;
    for (const [landing, needs, job] of cases) {
      expect(landedBy(landing, {}, job).landed.needs).toBe(needs);
      expect(boxBurnt(landing, {}, job)).toEqual([10, 20, 40, 60]);
    }
    expect(landedBy({ kind: 'as-drawn' }).landed.needs).toBeNull();
  });

  test('is kept with the job', () => {
    const landing: Landing = {
      kind: 'marks',
      marks: [
        { x: 10, y: 20, onBed: { x: 12, y: 21 } },
        { x: 40, y: 60, onBed: null },
      ],
      isScaled: true,
    };
    const job = jobWith([square]);
    const kept = changeRun(job, job.runs[0].id, { landing });
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(kept)))).runs[0].landing).toEqual(landing);
  });
});

describe('two marks', () => {
  test('of any run that was moved and turned are met to 0.01 mm, and so is every other point of it', () => {
    fc.assert(
      fc.property(place, place, place, mm(-180, 180), mm(-100, 100), mm(-100, 100), (a, b, other, angle, dx, dy) => {
        fc.pre(Math.hypot(b.x - a.x, b.y - a.y) > 5);
        const truth = multiply(translation(dx, dy), rotation(angle, { x: 300, y: 200 }));
        const lies = ({ x, y }: Point) => applyTo(truth, x, y);
        const found = throughMarks(
          [
            { from: a, to: lies(a) },
            { from: b, to: lies(b) },
          ],
          false,
        );
        const [x, y] = [other.x, other.y];
        const lands = applyTo(found?.matrix ?? truth, x, y);
        expect(Math.hypot(lands.x - lies(other).x, lands.y - lies(other).y)).toBeLessThan(0.01);
        expect(found?.errorMm).toBeLessThan(1e-6);
      }),
    );
  });

  test('that are touched further apart share what is left, unless the run is scaled', () => {
    const from = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
    ];
    const to = [
      { x: 10, y: 10 },
      { x: 10, y: 111 },
    ];
    const marks = (isScaled: boolean) =>
      throughMarks(
        [
          { from: from[0], to: to[0] },
          { from: from[1], to: to[1] },
        ],
        isScaled,
      );
    const kept = marks(false);
    expect(kept?.errorMm).toBeCloseTo(0.5, 9);
    expect(applyTo(kept?.matrix ?? scaling(0, 0), 0, 0)).toEqual({ x: 10, y: 10.5 });
    const scaled = marks(true);
    expect(scaled?.errorMm).toBe(0);
    const far = applyTo(scaled?.matrix ?? scaling(0, 0), 100, 0);
    expect([far.x, far.y].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([10, 111]);
  });

  test('in one place say nothing', () => {
    const here = { x: 5, y: 5 };
    expect(
      throughMarks(
        [
          { from: here, to: here },
          { from: { x: 50, y: 5 }, to: { x: 5.5, y: 5 } },
        ],
        true,
      ),
    ).toBeNull();
    expect(
      throughMarks(
        [
          { from: here, to: here },
          { from: { x: 5.5, y: 5 }, to: { x: 50, y: 5 } },
        ],
        true,
      ),
    ).toBeNull();
  });

  test('of a run that is mirrored for the back are mirrored with it', () => {
    const job = jobWith([square]);
    const [{ id }] = job.runs;
    // The sheet is 500 mm wide from 0: what was at x lies at 500 − x.
    const marks = [
      { x: 10, y: 20, onBed: { x: 490, y: 20 } },
      { x: 40, y: 60, onBed: { x: 460, y: 60 } },
    ];
    const turned = changeRun(job, id, { mirrored: true, landing: { kind: 'marks', marks, isScaled: false } });
    const { minX, maxX, minY, maxY } = boundsOf(prepareJob(turned, shop).burntAt(square));
    expect([minX, minY, maxX, maxY].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([460, 20, 490, 60]);
  });
});
