import { expect, test } from '@jest/globals';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';
import { reportOf } from './report.ts';

const source = {
  file: 'a.svg',
  format: 'svg',
  declaredWidthMm: 100,
  declaredHeightMm: null,
  itemCount: 0,
  warnings: [],
};

function report(...items: Parameters<typeof jobWith>[0]) {
  const prepared = prepareJob(jobWith(items), shop);
  const plan = planJob(prepared);
  return { plan, report: reportOf(source, prepared, plan, checkJob(prepared, plan)) };
}

test('layers, bounds and times are those of what burns', () => {
  const { plan, report: said } = report(
    item(box(20, 20, 30), 'cut'),
    item(line(30, 30, 30, 40), 'score'),
    item(box(60, 60, 10), 'engrave'),
    item(box(900, 900, 5), 'guide'),
  );
  expect(said.bounds).toEqual({ x: 20, y: 20, width: 50, height: 50 });
  expect(said.layers).toMatchObject([
    {
      name: 'Cut',
      operation: 'cut',
      items: 1,
      lengthMm: 120,
      areaMm2: 900,
      powerPercent: 60,
      speedMmPerS: 15,
      passes: 1,
    },
    { name: 'Score', items: 1, lengthMm: 10, areaMm2: 0, lineSpacingMm: null, grain: null },
    { name: 'Engrave', items: 1, lengthMm: 40, areaMm2: 100, speedMmPerS: 400, lineSpacingMm: 0.1, grain: null },
    { name: 'Guide', items: 1, powerPercent: null, timeS: 0 },
  ]);
  expect(said.timeS).toBeCloseTo(plan.timeS, 3);
  expect(said.layers.reduce((sum, { timeS }) => sum + timeS, plan.backS)).toBeCloseTo(plan.timeS, 2);
  expect(said.travelMm).toBeCloseTo(plan.travelMm, 3);
  expect(said.findings).toEqual([]);
});

test('a job in which nothing burns has no bounds and no time, and says why', () => {
  const { report: said } = report(item(box(20, 20, 30), null));
  expect(said).toMatchObject({ bounds: null, layers: [], timeS: 0, travelMm: 0 });
  expect(said.paints).toEqual([{ stroke: '#123456', strokeWidthMm: 0.1, fill: null, items: 1, layer: null }]);
  expect(said.findings).toMatchObject([{ code: 'colour-without-meaning', level: 'blocks', items: 1 }]);
});
