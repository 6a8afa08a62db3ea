// A beam that comes on late shifts what is scanned there and back: the plan takes that back, by what was measured.
import { expect, test } from '@jest/globals';
import { operationColourKey } from '@lambent/core/colours';
import { newJob } from '@lambent/core/document';
import { addItems, changeSetting } from '@lambent/core/edits';
import { writeGcode } from '@lambent/core/formats';
import { usualMachine } from '@lambent/core/machine';
import { planJob, prepareJob } from '@lambent/core/plan';
import { StandInMachine } from '../apps/stand-in/src/machine.ts';

const key = operationColourKey('house', 'House');
const lagS = 0.0005;

/** From where to where each lit line burns, on a stand-in with a lag: a square from 100 to 130 mm, engraved at a speed. */
function burntRows(scanOffsets, speed, scanAngle) {
  const machine = { ...usualMachine('co2'), id: 'm', bedWidth: 300, bedHeight: 300, topSpeed: 500, scanOffsets };
  const square = {
    id: 'square',
    name: null,
    shape: { kind: 'rectangle', x: 100, y: 100, width: 30, height: 30, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: null, strokeWidthMm: 0, fill: '#000000' },
    fillRule: 'nonzero',
    groupId: null,
    pinned: 'engrave',
    hidden: false,
  };
  const settings = { powerPercent: 20, speedMmPerS: speed, lineSpacingMm: 2, scanAngle };
  const job = Object.entries(settings).reduce(
    (known, [name, value]) => changeSetting(known, 'engrave', name, value),
    addItems({ ...newJob('m', 'house'), sheets: [] }, [square]),
  );
  const plan = planJob(prepareJob(job, { machines: [machine], keys: [key], materials: [] }));
  const { acceleration, travelSpeed, cornerDeviation, powerScale } = machine;
  const standIn = new StandInMachine({
    name: 'm',
    minX: 0,
    minY: 0,
    maxX: 300,
    maxY: 300,
    topSpeed: 500,
    travelSpeed,
    acceleration,
    accelerationY: null,
    lookAhead: 400,
    lineS: 0,
    lagS,
    cornerDeviation,
    powerScale,
    lowestZ: 0,
    highestZ: 0,
    focusSpeed: 10,
    watts: 60,
    takenIn: 1,
  });
  const rows = [];
  standIn.stock.burn = (...row) => rows.push(row.slice(0, 4));
  standIn.advance(10);
  for (const line of writeGcode(plan, 'scan')) {
    while (!standIn.hasRoom) standIn.advance(0.1);
    expect(standIn.take(line)).toBe('ok');
  }
  for (let i = 0; i < 100_000 && standIn.status().state === 'running'; i++) standIn.advance(0.1);
  return rows;
}

const measured = [
  { axis: 'x', speed: 100, mm: 0.1 },
  { axis: 'x', speed: 400, mm: 0.4 },
  { axis: 'y', speed: 400, mm: 0.4 },
];
/** How far the ends of the rows stray from the edges of the square, in mm, at most. */
const strays = (rows, along) =>
  Math.max(
    ...rows.map((row) => {
      const ends = [row[along], row[along + 2]].sort((a, b) => a - b);
      return Math.max(Math.abs(ends[0] - 100), Math.abs(ends[1] - 130));
    }),
  );

test('a lag of 0.5 ms shifts lines at 400 mm/s by 0.2 mm there and 0.2 mm back', () => {
  const rows = burntRows(undefined, 400, 0);
  expect(rows).toHaveLength(15);
  expect(strays(rows, 0)).toBeCloseTo(0.2, 6);
});

test.each([
  [400, 0, 0],
  [250, 0, 0],
  [80, 0, 0],
  [500, 0, 0],
  [400, 90, 1],
])('what was measured is taken back at %s mm/s, scanned at %s°', (speed, angle, along) => {
  const rows = burntRows(measured, speed, angle);
  expect(rows).toHaveLength(15);
  expect(strays(rows, along)).toBeLessThan(0.002);
});
