import { expect, test } from '@jest/globals';
import { box, item, jobWith, machine, shop } from '../fixtures/shop.ts';
import { restingPlace } from '../machine/frame.ts';
import { approachS } from './approach.ts';
import { planJob } from './plan.ts';
import { prepareJob } from './prepare.ts';

const plan = planJob(prepareJob(jobWith([item(box(200, 100, 20), 'cut')]), shop));

test('from its resting place a plan takes as long as it says, from nearer by less, from further off more', () => {
  const [{ moves, durations }] = plan.steps;
  const start = { x: moves.xs[0], y: moves.ys[0] };
  expect(approachS(plan, restingPlace(machine))).toBe(0);
  // From where it begins, its first move is left out.
  expect(approachS(plan, start)).toBeCloseTo(-durations[0], 2);
  const far = { x: machine.bedWidth, y: machine.bedHeight };
  const length = Math.hypot(far.x - start.x, far.y - start.y);
  const { travelSpeed: v, acceleration: a } = machine;
  const travelS = length > (v * v) / a ? length / v + v / a : 2 * Math.sqrt(length / a);
  expect(approachS(plan, far)).toBeCloseTo(travelS - durations[0], 3);
});

test('a plan without steps takes no longer from anywhere', () => {
  expect(approachS({ machine, steps: [] }, { x: 100, y: 100 })).toBe(0);
});
