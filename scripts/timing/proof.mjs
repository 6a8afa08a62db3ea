// How well a timing card finds what a machine is like, and how well times hold that are planned by what it found.
import { blocks, checkJob } from '@lambent/core/checks';
import { writeGcode } from '@lambent/core/formats';
import { planJob, prepareJob } from '@lambent/core/plan';
import { fitMotion, secondsOf, timingCard } from '@lambent/core/timing';
import { randomFrom } from '../random.mjs';
import { randomJob } from '../random-job.mjs';
import { lambentMachine, plainMachine } from './machines.mjs';

const bed = { bedWidth: 400, bedHeight: 400, origin: 'top-left', margin: 5 };
const rest = { powerScale: 1000, minLineSpacing: 0.05 };
const gantry = {
  ...bed,
  ...rest,
  id: 'm',
  name: 'Gantry',
  kind: 'co2',
  ratedW: 60,
  topSpeed: 400,
  travelSpeed: 500,
  acceleration: 3000,
  cornerDeviation: 0.02,
  connection: { kind: 'network', host: '127.0.0.1', port: 1, language: 'lambent', buffer: 127 },
};
const desk = {
  ...gantry,
  name: 'Desk',
  kind: 'diode',
  topSpeed: 200,
  travelSpeed: 250,
  acceleration: 1000,
  accelerationY: 600,
  connection: { kind: 'network', host: '127.0.0.1', port: 1, language: 'plain', buffer: 127 },
};
/** What stands with the machine before it is measured. */
const believed = {
  acceleration: 2000,
  accelerationY: undefined,
  travelSpeed: 300,
  cornerDeviation: 0.01,
  jerk: undefined,
  lookAhead: undefined,
  moveMs: undefined,
  characterMs: undefined,
};

/**
 * Measures a stand-in by its timing card.
 * @param language of the stand-in: `lambent` or `plain`
 * @param truth figures of its own
 */
export function measured(language, truth) {
  const machine = { ...(language === 'plain' ? desk : gantry), ...truth };
  const simulated = () => (language === 'plain' ? plainMachine(machine) : lambentMachine(machine));
  const standIn = simulated();
  const believes = { ...machine, ...believed };
  const card = timingCard(believes);
  const seconds = card.map(({ start, lines }) => {
    standIn.seconds(['G21', 'G90', 'M5', `G0X${start.x.toFixed(3)}Y${start.y.toFixed(3)}`, 'M5']);
    return standIn.seconds(lines.map(({ text }) => text));
  });
  const fit = fitMotion(believes, card, seconds);
  const found = { ...believes, ...fit.motion };
  return {
    machine,
    found,
    fit,
    card,
    seconds,
    simulated,
    off: Math.max(...card.map((part, i) => Math.abs(secondsOf(part, found) / seconds[i] - 1))),
  };
}

/** By how much the figures that the card tells are off, as shares: the largest one. */
export function figuresOff({ machine, fit }) {
  const offs = fit.figures.flatMap(({ figure, value, bound }) => {
    if (value === null || bound !== null) return [];
    // An axis without a figure of its own goes by the other one's.
    const truth = figure === 'accelerationY' ? (machine.accelerationY ?? machine.acceleration) : machine[figure];
    return [{ figure, off: truth === undefined ? Infinity : Math.abs(value / truth - 1) }];
  });
  return offs.reduce((worst, next) => (next.off > worst.off ? next : worst));
}

/** By how much planned times of random drawings are off the times that they take, as shares. */
export function timesOff({ machine, found, simulated }, count, seed) {
  const random = randomFrom(seed);
  const offs = [];
  while (offs.length < count) {
    const { job, shop } = randomJob(random);
    const planned = plannedFor(found, job, shop);
    if (!planned || planned.timeS > 600) continue;
    const program = [...writeGcode(planned, 'Held back')];
    offs.push(planned.timeS / simulated(machine).seconds(program) - 1);
  }
  return offs;
}

/** The plan of a random job on a machine; null where a check blocks it. */
function plannedFor(machine, job, shop) {
  const own = { ...machine, id: shop.machines[0].id };
  const prepared = prepareJob(job, { ...shop, machines: [own] });
  const plan = planJob(prepared);
  return plan.steps.length === 0 || blocks(checkJob(prepared, plan)) ? null : plan;
}
