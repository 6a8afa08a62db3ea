// A beam that comes on late shifts what is scanned there and back: the plan takes that back, by what was measured.
import { expect, test } from '@jest/globals';
import { newJob } from '@lambent/core/document';
import { addItems, addOwnRun, changeSetting } from '@lambent/core/edits';
import { layScanCard, readScanCard, scanCardLayerId, scanCardLayers, stepsBetween } from '@lambent/core/fit';
import { usualMachine } from '@lambent/core/machine';
import { burntBy } from './burnt-by.mjs';

const lagS = 0.0005;

const usual = { ...usualMachine('co2'), id: 'm', bedWidth: 300, bedHeight: 300, topSpeed: 500 };
const engraved = (shape, pinned = 'engrave') => ({
  id: `${pinned} ${JSON.stringify(shape)}`,
  name: null,
  shape,
  matrix: [1, 0, 0, 1, 0, 0],
  paint: { stroke: null, strokeWidthMm: 0, fill: '#000000' },
  fillRule: 'nonzero',
  groupId: null,
  pinned,
  hidden: false,
});

/** The rows of a square from 100 to 130 mm, engraved at a speed. */
function burntRows(scanOffsets, speed, scanAngle) {
  const machine = { ...usual, scanOffsets };
  const square = engraved({ kind: 'rectangle', x: 100, y: 100, width: 30, height: 30, rx: 0, ry: 0 });
  const settings = { powerPercent: 20, speedMmPerS: speed, lineSpacingMm: 2, scanAngle };
  const job = Object.entries(settings).reduce(
    (known, [name, value]) => changeSetting(known, 'engrave', name, value),
    addItems({ ...newJob('m', 'house'), sheets: [] }, [square]),
  );
  return burntBy(machine, job, { lagS }).rows;
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

const speeds = [100, 250, 400];
const offsets = stepsBetween(-0.1, 0.6, 0.05);

/** Burns a scan card, and reads it as an operator does. @returns by speed, the number of the bar whose halves meet best */
function readOffCard(scanOffsets, axis) {
  const wish = { axis, speeds, offsets, powerPercent: 15 };
  const card = layScanCard(wish);
  const layers = scanCardLayers(wish, 'c');
  const items = card.bars.map((bar) => {
    const { minX, minY, maxX, maxY } = bar.box;
    const shape = {
      kind: 'rectangle',
      x: minX + 50,
      y: minY + 50,
      width: maxX - minX,
      height: maxY - minY,
      rx: 0,
      ry: 0,
    };
    return engraved(shape, scanCardLayerId('c', bar));
  });
  const job = addOwnRun({ ...newJob('m', 'house'), sheets: [] }, { id: 'r', name: 'Scan card' }, layers, items, {
    id: 'g',
    name: 'Scan card',
    parentId: null,
  });
  const { rows } = burntBy({ ...usual, scanOffsets }, { ...job, runs: job.runs.slice(1) }, { lagS });
  const [u, v] = axis === 'x' ? [0, 1] : [1, 0];
  /** Where the middle of half a bar burnt, along its lines. */
  const middleOf = ({ box }, way) => {
    const [low, high] = axis === 'x' ? [box.minY + 50, box.maxY + 50] : [box.minX + 50, box.maxX + 50];
    const near = (axis === 'x' ? box.minX : box.minY) + 50;
    const own = rows.filter((row) => row[v] > low && row[v] < high && Math.abs(row[u] - near) < 3);
    expect(own.length).toBeGreaterThan(15);
    for (const row of own) expect(Math.sign(row[u + 2] - row[u])).toBe(way === 'there' ? 1 : -1);
    return own.reduce((sum, row) => sum + (row[u] + row[u + 2]) / 2, 0) / own.length;
  };
  return new Map(
    speeds.map((speed) => {
      const apart = offsets.map((offset) => {
        const [there, back] = ['there', 'back'].map((way) =>
          card.bars.find((bar) => bar.speed === speed && bar.offset === offset && bar.way === way),
        );
        return Math.abs(middleOf(there, 'there') - middleOf(back, 'back'));
      });
      return [speed, offsets[apart.indexOf(Math.min(...apart))]];
    }),
  );
}

test.each(['x', 'y'])('a scan card along %s shows the lag at each speed; kept, the next card shows none', (axis) => {
  const read = readOffCard(undefined, axis);
  // Lines burn apart by the lag there, and by as much back.
  expect(Object.fromEntries(read)).toEqual({ 100: 0.1, 250: 0.25, 400: 0.4 });
  const table = readScanCard({}, axis, read);
  expect(table).toEqual(speeds.map((speed) => ({ axis, speed, mm: speed / 1000 })));
  const again = readOffCard(table, axis);
  expect([...again.values()]).toEqual([0, 0, 0]);
  // What a later card shows is added to what is taken back by then; the other axis stays as it is.
  const other = { axis: axis === 'x' ? 'y' : 'x', speed: 400, mm: 0.2 };
  const refined = readScanCard({ scanOffsets: [other, ...table] }, axis, new Map([[250, -0.02]]));
  expect(refined).toContainEqual(other);
  expect(refined.filter((entry) => entry.axis === axis)).toEqual([table[0], { axis, speed: 250, mm: 0.23 }, table[2]]);
});
