import { expect, test } from '@jest/globals';
import { changeSetting } from '../edits/items.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { basisChanges, basisOf, takesSamePrograms } from './basis.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const items = [item(box(10, 20, 30), 'cut'), item(line(60, 60, 80, 90), 'score')];
const basis = (job = jobWith(items), from = shop) => {
  const prepared = prepareJob(job, from);
  return basisOf(prepared, planJob(prepared), 'Tags', { x: 1, y: 2 });
};

test('a basis holds what burns, with what, in which order, and the figures of the machine', () => {
  const { machine, layers, steps, head } = basis();
  expect(layers.map(({ name, operation, material }) => [name, operation, material])).toEqual([
    ['Cut', 'cut', 'Plywood 3 mm'],
    ['Score', 'score', 'Plywood 3 mm'],
  ]);
  expect(layers[0].settings).toMatchObject({ powerPercent: 60, speedMmPerS: 15 });
  expect(steps.map(({ title }) => title)).toEqual(['Score', 'Cut · outside']);
  expect(machine).toMatchObject({ bedWidth: 600, acceleration: shop.machines[0].acceleration });
  expect(machine).not.toHaveProperty('connection');
  expect(head).toEqual({ x: 1, y: 2 });
});

test('what has changed since is said, machine and layers apart', () => {
  const before = basis();
  expect(basisChanges(before, basis())).toEqual([]);
  expect(basisChanges(before, basis(changeSetting(jobWith(items), 'cut', 'speedMmPerS', 12)))).toEqual([
    'Cut: speed 15 mm/s → 12 mm/s.',
  ]);
  const [machine] = shop.machines;
  const slower = { ...shop, machines: [{ ...machine, acceleration: 1000, connection: null }] };
  expect(basisChanges(before, basis(jobWith(items), slower))).toEqual([
    `The machine: acceleration ${machine.acceleration} mm/s² → 1000 mm/s².`,
  ]);
  expect(basisChanges(before, basis(jobWith(items.slice(0, 1))))).toEqual(['Score burnt then, and does not now.']);
  expect(basisChanges(basis(jobWith(items.slice(0, 1))), before)).toEqual(['Score burns, and did not then.']);
});

test('a machine whose bed, zero, scale, focus or air is another does not take the same programs', () => {
  const { machine } = basis();
  expect(takesSamePrograms(machine, { ...machine, acceleration: 7, topSpeed: 9 })).toBe(true);
  for (const change of [
    { bedWidth: 599 },
    { bedHeight: 1 },
    { origin: 'centre' as const },
    { powerScale: 255 },
    { focus: { lowest: 0, highest: 1, speed: 1 } },
    { air: { levels: [], mostBar: null } },
    { axes: { x: 1.001, y: 1, lean: 0 } },
  ]) {
    expect(takesSamePrograms(machine, { ...machine, ...change })).toBe(false);
  }
  const round = { ...machine, arcsWithin: 0.002 };
  expect([takesSamePrograms(machine, round), takesSamePrograms(round, machine)]).toEqual([true, false]);
});
