import { createHash } from 'node:crypto';
import { expect, test } from '@jest/globals';
import type { Item } from '../../document/item.ts';
import type { JobDocument } from '../../document/job.ts';
import { outlineOf } from '../../document/shapes.ts';
import { flipFill, numberItem, orderSteps, setBurning, setStart } from '../../edits/layers.ts';
import { box, item, jobWith, line, machine, shop } from '../../fixtures/shop.ts';
import { PathBuilder } from '../../geometry/paths/path.ts';
import { planJob } from '../../plan/plan.ts';
import { prepareJob } from '../../plan/prepare.ts';
import type { LayerSettings } from '../../settings/settings.ts';
import { programLines } from './write.ts';

/*
 * What drawings of all kinds burn, held line by line by its hash: order, entries, rows, run-ups, speeds. A change that is
 * to change what is burnt changes the snapshot; any other leaves it as it is.
 */

/** Numbers from 0 to 1 that look random, the same for one seed (mulberry32). */
function numbersFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Rings in rings, curves, open lines, dots and filled shapes, strewn over the bed. */
function strewn(seed: number, count: number): Item[] {
  const random = numbersFrom(seed);
  const at = (least: number, most: number) => Math.round((least + random() * (most - least)) * 100) / 100;
  let next = 0;
  return Array.from({ length: count }, () => {
    const [x, y, size] = [at(10, 420), at(10, 250), at(4, 30)];
    const id = `strewn-${next++}`;
    switch (next % 6) {
      case 0:
        return item(box(x, y, size, at(4, 30)), 'cut', { id });
      case 1:
        return item(line(x, y, x + size, y + at(-5, 5), x + size, y + size), 'score', { id });
      case 2:
        return item(outlineOf({ kind: 'ellipse', cx: x, cy: y, rx: size / 2, ry: at(3, 12) }), 'cut', { id });
      case 3:
        return item(box(x, y, size / 2, size / 3), 'engrave', { id });
      case 4: {
        const polygon = {
          kind: 'polygon',
          cx: x,
          cy: y,
          radius: size / 2,
          sides: 7,
          inner: size / 4,
          turn: 10,
        } as const;
        return item(outlineOf(polygon), next % 4 === 0 ? 'engrave' : 'score', { id });
      }
      default: {
        const curve = new PathBuilder().moveTo(x, y).cubicTo(x + size, y, x + size, y + size, x, y + size);
        return item((random() < 0.5 ? curve : curve.close()).build(), random() < 0.5 ? 'cut' : 'score', { id });
      }
    }
  });
}

const nested = (count: number): Item[] =>
  Array.from({ length: count }, (_, i) => item(box(20 + 6 * i, 20 + 5 * i, 200 - 12 * i), 'cut', { id: `ring-${i}` }));
const settings = (cut: Partial<LayerSettings>, engrave: Partial<LayerSettings> = {}) => ({
  settings: { cut, score: cut, engrave: { lineSpacingMm: 0.5, ...engrave } },
});
const plain = jobWith(strewn(1, 90), settings({}));
const few = jobWith(strewn(2, 14), settings({}));

const jobs: Record<string, JobDocument> = {
  'many things of all kinds': plain,
  'a few things': few,
  'a single line': jobWith([item(line(30, 30, 60, 60), 'cut', { id: 'only' })]),
  'rings in rings, and what lies in them': jobWith([...nested(9), ...strewn(3, 30)], settings({})),
  'several passes, open lines left at either end': jobWith(strewn(4, 24), settings({ passes: 3 }, { passes: 2 })),
  'an even number of passes': jobWith(strewn(4, 24), settings({ passes: 2 })),
  'waits at starts and corners, power at corners': jobWith(
    strewn(5, 24),
    settings({ pierceS: 0.2, cornerWaitS: 0.1, cornerPowerPercent: 5 }),
  ),
  'with a kerf': jobWith([...nested(3), ...strewn(6, 18)], settings({ kerfMm: 0.3 })),
  'scan lines turned': jobWith(strewn(7, 30), settings({}, { scanAngle: 30 })),
  'scan lines one way, with a run-up of their own': jobWith(
    strewn(7, 30),
    settings({}, { bothWays: false, runUpMm: 3 }),
  ),
  'engravings at the edge of the bed': jobWith(
    [item(box(0.5, 20, 12), 'engrave', { id: 'left' }), item(box(585, 40, 12), 'engrave', { id: 'right' })],
    settings({}, { speedMmPerS: 450 }),
  ),
  'in the order of parts': setBurning(plain, 'cut', { order: 'parts' }),
  'the nearest next': setBurning(plain, 'score', { order: 'nearest' }),
  'in rows': setBurning(plain, 'cut', { order: 'rows' }),
  'as drawn': setBurning(plain, 'cut', { order: 'as-drawn' }),
  'by hand': setBurning(['strewn-10', 'strewn-1', 'strewn-7'].reduce(numberItem, plain), 'score', { order: 'by-hand' }),
  'steps in another order': orderSteps(plain, ['cut outer', 'engrave', 'score']),
  'clockwise, from corners': setBurning(plain, 'cut', { direction: 'clockwise', start: 'corner' }),
  'anticlockwise, from places chosen': setStart(
    setStart(setBurning(few, 'cut', { direction: 'anticlockwise' }), { itemId: 'strewn-1', subpath: 0, at: 1.5 }),
    { itemId: 'strewn-5', subpath: 0, at: 3 },
  ),
  'overlaps united': setBurning(jobWith(strewn(8, 60), settings({})), 'engrave', { overlaps: 'unite' }),
  'figure and ground swapped': flipFill(few, 'flip', ['strewn-2', 'strewn-8'], 'strewn-5', 1),
  'greys by power': setBurning(
    jobWith(
      ['#202020', '#808080', '#D0D0D0'].map((fill, i) =>
        item(box(20 + 15 * i, 20, 20), 'engrave', {
          id: `grey-${i}`,
          pinned: 'engrave',
          paint: { stroke: null, strokeWidthMm: 0, fill },
        }),
      ),
      settings({}),
    ),
    'engrave',
    { depth: { steps: 4, lightest: 0.2 } },
  ),
};

test.each(Object.entries(jobs))('%s', (_, job) => {
  const found = [machine.id, 'mid'].map((machineId) => {
    const plan = planJob(prepareJob({ ...job, machineId }, { ...shop, materials: shop.materials.map(onEvery) }));
    const program = createHash('sha256');
    for (const { text, seconds } of programLines(plan, 'Held')) program.update(`${text} ${seconds.toFixed(6)}\n`);
    return [
      machineId,
      plan.steps.map(({ id }) => id).join(', '),
      `${plan.timeS.toFixed(4)} s, ${plan.travelMm.toFixed(2)} mm unlit`,
      program.digest('hex').slice(0, 16),
    ].join(': ');
  });
  expect(found).toMatchSnapshot();
});

/** A material whose recipes every machine has. */
function onEvery(material: (typeof shop.materials)[number]) {
  const ids = shop.machines.map(({ id }) => id);
  return { ...material, recipes: ids.flatMap((machineId) => material.recipes.map((one) => ({ ...one, machineId }))) };
}
