// Random jobs on the stand-in: what the checks let through burns without an alarm, whatever its kerf, corners and bed.
import { expect, test } from '@jest/globals';
import { blocks, checkJob } from '@lambent/core/checks';
import { operationColourKey } from '@lambent/core/colours';
import { newJob } from '@lambent/core/document';
import { addItems, changeSetting, setBurning, setSheet } from '@lambent/core/edits';
import { writeGcode } from '@lambent/core/formats';
import { operationOf } from '@lambent/core/operations';
import { planJob, prepareJob } from '@lambent/core/plan';
import { Controller } from '../apps/plain-stand-in/src/controller.ts';
import { StandInMachine } from '../apps/stand-in/src/machine.ts';
import { randomFrom } from './random.mjs';

const wanted = 200;
const seed = 20_261_128;

const key = operationColourKey('house', 'House');
const recipe = (operation, powerPercent, speedMmPerS) => ({
  machineId: 'm',
  operation,
  powerPercent,
  speedMmPerS,
  passes: 1,
  lineSpacingMm: 0.5,
  evidence: 'proven',
  note: '',
});

/** A job on a machine of its own: shapes that often lie at the edges of its bed. */
function randomJob(random) {
  const between = (low, high) => low + (high - low) * random();
  const pick = (list) => list[Math.floor(random() * list.length)];
  const machine = {
    id: 'm',
    name: 'Random',
    kind: 'co2',
    ratedW: 60,
    bedWidth: Math.round(between(80, 600)),
    bedHeight: Math.round(between(60, 400)),
    origin: pick(['top-left', 'bottom-left', 'centre']),
    margin: pick([0, 0, 2, 5]),
    topSpeed: pick([100, 300, 500]),
    travelSpeed: pick([300, 600]),
    acceleration: pick([500, 2000, 4000]),
    cornerDeviation: pick([0.01, 0.05]),
    // Most know far ahead, and take no time for a line.
    ...pick([{}, {}, { lookAhead: pick([3, 16]), moveMs: pick([1, 4]) }, { accelerationY: pick([300, 3000]) }]),
    ...pick([{}, { jerk: pick([20_000, 100_000, 1e6]) }]),
    powerScale: pick([255, 1000]),
    minLineSpacing: 0.05,
    connection: { kind: 'network', host: '127.0.0.1', port: 1, language: 'lambent', buffer: 127 },
  };
  const material = {
    id: 'ply',
    name: 'Plywood',
    thicknessMm: 3,
    tone: '#EAD9B4',
    sheetWidth: machine.bedWidth,
    sheetHeight: machine.bedHeight,
    forbidden: null,
    recipes: [
      recipe('cut', 60, between(5, 40)),
      recipe('score', 12, between(30, 90)),
      recipe('engrave', 20, between(50, 300)),
    ],
  };
  const items = Array.from({ length: 1 + Math.floor(random() * 5) }, (_, i) => {
    const operation = pick(['cut', 'cut', 'score', 'engrave']);
    const { colour } = operationOf(operation);
    const filled = operation === 'engrave';
    const [width, height] = [between(2, 40), between(2, 30)];
    // At an edge, off it by less than a kerf either way, or anywhere.
    const along = (extent, size) =>
      pick([
        0,
        extent - size,
        between(-1, 1),
        extent - size + between(-1, 1),
        between(0, extent - size),
        between(0, extent - size),
      ]);
    const [x, y] = [along(machine.bedWidth, width), along(machine.bedHeight, height)];
    const [cx, cy] = [x + width / 2, y + height / 2];
    const shape = pick([
      { kind: 'rectangle', x, y, width, height, rx: 0, ry: 0 },
      { kind: 'rectangle', x, y, width, height, rx: 1, ry: 1 },
      { kind: 'ellipse', cx, cy, rx: width / 2, ry: height / 2 },
      { kind: 'polygon', cx, cy, radius: Math.min(width, height) / 2, sides: 5, inner: 0.4, turn: 0 },
      { kind: 'slot', x1: x + 2, y1: cy, x2: x + width, y2: cy, width: 3 },
    ]);
    return {
      id: `i${i}`,
      name: null,
      shape,
      matrix: [1, 0, 0, 1, 0, 0],
      paint: { stroke: filled ? null : colour, strokeWidthMm: filled ? 0 : 0.1, fill: filled ? colour : null },
      fillRule: 'nonzero',
      groupId: null,
      pinned: null,
      hidden: false,
    };
  });
  let job = addItems(newJob('m', 'house'), items);
  job = setSheet(job, {
    id: 's',
    materialId: 'ply',
    x: 0,
    y: 0,
    width: machine.bedWidth,
    height: machine.bedHeight,
    margin: 0,
  });
  job = changeSetting(job, 'cut', 'kerfMm', pick([0, 0.1, 0.3, between(0, 1.5)]));
  job = changeSetting(job, 'cut', 'tabs', pick([0, 0, 1, 4]));
  job = changeSetting(job, 'cut', 'tabWidthMm', between(0.05, 3));
  job = changeSetting(job, 'engrave', 'scanAngle', pick([0, 90, 45, between(0, 180)]));
  job = setBurning(job, 'cut', {
    start: pick(['nearest', 'corner']),
    order: pick(['inside-first', 'nearest', 'parts', 'rows', 'spread']),
    sharedEdges: pick(['each', 'once']),
  });
  return { job, machine, shop: { machines: [machine], keys: [key], materials: [material] } };
}

/**
 * Burns a program on a simulated machine.
 * @returns the seconds that it took, and why it was refused, or stands in alarm; null where it ran to its end
 */
function burnt(machine, program) {
  const centred = machine.origin === 'centre';
  const [minX, minY] = centred ? [-machine.bedWidth / 2, -machine.bedHeight / 2] : [0, 0];
  const standIn = new StandInMachine({
    name: machine.name,
    minX,
    minY,
    maxX: minX + machine.bedWidth,
    maxY: minY + machine.bedHeight,
    topSpeed: machine.topSpeed,
    travelSpeed: machine.travelSpeed,
    acceleration: machine.acceleration,
    accelerationY: machine.accelerationY ?? null,
    lookAhead: machine.lookAhead ?? 400,
    lineS: (machine.moveMs ?? 0) / 1000,
    ...(machine.jerk ? { jerk: machine.jerk } : {}),
    cornerDeviation: machine.cornerDeviation,
    powerScale: machine.powerScale,
    lowestZ: 0,
    highestZ: 0,
    focusSpeed: 5,
    watts: 60,
    takenIn: 1,
  });
  standIn.advance(10);
  for (const line of program) {
    while (!standIn.hasRoom) standIn.advance(60);
    const answer = standIn.take(line);
    if (answer !== 'ok') return { trouble: `${line}: ${answer}`, tookS: 0 };
  }
  for (let i = 0; standIn.status().state === 'running' && i < 1e5; i++) standIn.advance(60);
  const { state, reason, runS } = standIn.status();
  return { trouble: state === 'idle' ? null : `${state}: ${reason}`, tookS: runS };
}

test(`${wanted} random jobs that nothing blocks run to their end, in the time that was planned`, () => {
  const random = randomFrom(seed);
  const troubles = [];
  let green = 0;
  let refused = 0;
  let atEdge = 0;
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
    const { trouble, tookS } = burnt(machine, writeGcode(plan, 'Random'));
    if (trouble) troubles.push({ green, trouble });
    else if (Math.abs(tookS / plan.timeS - 1) > 0.001) troubles.push({ green, plannedS: plan.timeS, tookS });
  }
  expect(troubles).toEqual([]);
  // The jobs are hard ones: many are refused, and many of the others go right up to an edge.
  expect(refused).toBeGreaterThan(wanted / 4);
  expect(atEdge).toBeGreaterThan(wanted / 20);
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
    connection: { kind: 'serial', path: '/dev/ttyS0', baud: 115_200, buffer: 127 },
  };
  return { ...machine, ...own };
}

/** Burns a program on a simulated small controller, never more in its buffer than fits there. */
function burntPlainly(machine, program) {
  const said = [];
  const controller = new Controller(
    {
      width: machine.bedWidth,
      height: machine.bedHeight,
      topSpeed: machine.topSpeed,
      travelSpeed: machine.travelSpeed,
      accelerations: [machine.acceleration, machine.accelerationY],
      cornerDeviation: machine.cornerDeviation,
      lookAhead: machine.lookAhead,
      lineS: machine.moveMs / 1000,
      characterS: 10 / machine.connection.baud,
      jerk: machine.jerk ?? 0,
      buffer: machine.connection.buffer,
      powerScale: machine.powerScale,
      tellsRoom: true,
      startsLocked: false,
    },
    (line) => said.push(line),
  );
  const unanswered = [];
  let tookS = 0;
  let trouble = null;
  const state = () => {
    controller.take(Buffer.from('?'));
    return /^<([A-Za-z]+)/.exec(said.pop())[1];
  };
  const pass = (seconds) => {
    controller.advance(seconds);
    tookS += seconds;
    for (const line of said.splice(0)) {
      if (line === 'ok') unanswered.shift();
      else if (/^(error|ALARM)/.test(line)) trouble ??= `${line} at ${unanswered[0]}`;
    }
  };
  said.length = 0;
  for (const line of program) {
    // As the driver does, it leaves out comments.
    if (line.startsWith('(')) continue;
    const bytes = Buffer.from(`${line}\n`);
    while (
      unanswered.reduce((sum, sent) => sum + sent.length, 0) + bytes.length > machine.connection.buffer &&
      !trouble
    )
      pass(0.001);
    if (trouble) return { trouble, tookS };
    unanswered.push(bytes);
    controller.take(bytes);
  }
  while (!trouble && (unanswered.length > 0 || state() !== 'Idle')) pass(0.001);
  return { trouble, tookS };
}

test('on small controllers as well, with few moves ahead and a time for each line', () => {
  const random = randomFrom(seed + 1);
  let green = 0;
  while (green < 40) {
    const { job, machine, shop } = randomJob(random);
    const small = smallController(machine, random);
    const prepared = prepareJob(job, { ...shop, machines: [small] });
    const plan = planJob(prepared);
    if (plan.timeS > 600 || blocks(checkJob(prepared, plan))) continue;
    green++;
    const { trouble, tookS } = burntPlainly(small, writeGcode(plan, 'Random'));
    expect(trouble).toBeNull();
    // The clock here goes in ms.
    expect(Math.abs(tookS - plan.timeS)).toBeLessThan(0.003);
  }
});
