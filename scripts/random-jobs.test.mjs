// Random jobs on the stand-in: what the checks let through burns without an alarm, whatever its kerf, corners and bed.
import { expect, test } from '@jest/globals';
import { blocks, checkJob } from '@lambent/core/checks';
import { writeGcode } from '@lambent/core/formats';
import { planJob, prepareJob } from '@lambent/core/plan';
import { randomFrom } from './random.mjs';
import { randomJob } from './random-job.mjs';
import { lambentMachine, plainMachine } from './timing/machines.mjs';

const wanted = 200;
const seed = 20_261_128;

/** Whether a line says where the centre of an arc is. */
const isArc = (text) => /I-?[\d.]+J/.test(text);

/** Burns a program. @returns the seconds that it took, or why it was refused, or stands in alarm */
function burnt(simulated, program) {
  try {
    return { trouble: null, tookS: simulated.seconds([...program]) };
  } catch (error) {
    return { trouble: error.message, tookS: 0 };
  }
}

test(`${wanted} random jobs that nothing blocks run to their end, in the time that was planned`, () => {
  const random = randomFrom(seed);
  const troubles = [];
  let green = 0;
  let refused = 0;
  let atEdge = 0;
  let withArcs = 0;
  while (green < wanted) {
    const { job, machine, shop } = randomJob(random);
    const prepared = prepareJob(job, shop);
    const plan = planJob(prepared);
    if (blocks(checkJob(prepared, plan))) {
      refused++;
      expect(refused).toBeLessThan(20 * wanted);
      continue;
    }
    green++;
    const { xs, ys } = plan.steps[0].moves;
    if (Math.min(...xs, ...ys) < 0.01) atEdge++;
    const program = [...writeGcode(plan, 'Random')];
    if (program.some(isArc)) withArcs++;
    const { trouble, tookS } = burnt(lambentMachine(machine), program);
    if (trouble) troubles.push({ green, trouble });
    else if (Math.abs(tookS / plan.timeS - 1) > 0.001) troubles.push({ green, plannedS: plan.timeS, tookS });
  }
  expect(troubles).toEqual([]);
  // The jobs are hard ones: many are refused, and many of the others go right up to an edge.
  expect(refused).toBeGreaterThan(wanted / 4);
  expect(atEdge).toBeGreaterThan(wanted / 20);
  expect(withArcs).toBeGreaterThan(wanted / 10);
});

/** The same machine, its controller a small one on a serial line. */
function smallController(machine, random) {
  const pick = (list) => list[Math.floor(random() * list.length)];
  const own = {
    origin: machine.origin === 'centre' ? 'bottom-left' : machine.origin,
    accelerationY: pick([300, 1000, machine.acceleration]),
    lookAhead: pick([2, 16, 40]),
    moveMs: pick([0.5, 2, 5]),
    ...pick([{}, { jerk: pick([5000, 100_000]) }]),
    ...pick([{ arcsWithin: undefined }, { arcsWithin: pick([0.001, 0.002, 0.004]) }]),
    connection: { kind: 'serial', path: '/dev/ttyS0', baud: 115_200, buffer: 127 },
  };
  return { ...machine, ...own };
}

test('on small controllers as well, with few moves ahead and a time for each line', () => {
  const random = randomFrom(seed + 1);
  let green = 0;
  let withArcs = 0;
  while (green < 40) {
    const { job, machine, shop } = randomJob(random);
    const small = smallController(machine, random);
    const prepared = prepareJob(job, { ...shop, machines: [small] });
    const plan = planJob(prepared);
    if (plan.timeS > 600 || blocks(checkJob(prepared, plan))) continue;
    green++;
    const program = [...writeGcode(plan, 'Random')];
    if (program.some(isArc)) withArcs++;
    const { trouble, tookS } = burnt(plainMachine(small), program);
    expect(trouble).toBeNull();
    // The clock here goes in ms.
    expect(Math.abs(tookS - plan.timeS)).toBeLessThan(0.003);
  }
  expect(withArcs).toBeGreaterThan(5);
});
