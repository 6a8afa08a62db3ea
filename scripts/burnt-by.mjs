// What a job burns on a stand-in, in the clock's own time.
import { operationColourKey } from '@lambent/core/colours';
import { writeGcode } from '@lambent/core/formats';
import { planJob, prepareJob } from '@lambent/core/plan';
import { StandInMachine } from '../apps/stand-in/src/machine.ts';

const key = operationColourKey('house', 'House');

/**
 * Burns a job on a stand-in of a machine whose zero is in a corner.
 * @param unlike what of the stand-in is otherwise than is said of the machine
 * @returns `rows`: from where to where each lit line burns, x and y in turn, in the machine's own frame; its planned and
 * its taken seconds
 */
export function burntBy(machine, job, unlike = {}) {
  const plan = planJob(prepareJob(job, { machines: [machine], keys: [key], materials: [] }));
  const { acceleration, travelSpeed, cornerDeviation, powerScale, topSpeed, bedWidth, bedHeight } = machine;
  const standIn = new StandInMachine({
    name: 'm',
    minX: 0,
    minY: 0,
    maxX: bedWidth,
    maxY: bedHeight,
    topSpeed,
    travelSpeed,
    acceleration,
    accelerationY: null,
    lookAhead: 400,
    lineS: 0,
    cornerDeviation,
    powerScale,
    lowestZ: 0,
    highestZ: 0,
    focusSpeed: 10,
    watts: 60,
    takenIn: 1,
    ...unlike,
  });
  const rows = [];
  standIn.stock.burn = (...row) => rows.push(row.slice(0, 4));
  standIn.advance(10);
  for (const line of writeGcode(plan, 'Burnt')) {
    while (!standIn.hasRoom) standIn.advance(0.1);
    const answer = standIn.take(line);
    if (answer !== 'ok') throw new Error(`${line}: ${answer}`);
  }
  for (let i = 0; i < 100_000 && standIn.status().state === 'running'; i++) standIn.advance(0.1);
  return { rows, plannedS: plan.timeS, takenS: standIn.status().runS };
}
