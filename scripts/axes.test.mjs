// Axes that are not true to scale, and not square: a burnt square tells it, and programs take it back.
import { expect, test } from '@jest/globals';
import { newJob } from '@lambent/core/document';
import { addItems, changeSetting } from '@lambent/core/edits';
import { axesOfSquare, toldPlace, truePlace, usualMachine } from '@lambent/core/machine';
import fc from 'fast-check';
import { burntBy } from './burnt-by.mjs';

const side = 120;
const [left, top] = [40, 30];

/** A scored square, as it is burnt by a machine that believes of its axes what is said. */
function burntSquare(origin, believed, truth) {
  const machine = { ...usualMachine('co2'), id: 'm', bedWidth: 300, bedHeight: 200, origin, axes: believed };
  const square = {
    id: 'square',
    name: null,
    shape: { kind: 'rectangle', x: left, y: top, width: side, height: side, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: '#000000', strokeWidthMm: 0.1, fill: null },
    fillRule: 'nonzero',
    groupId: null,
    pinned: 'score',
    hidden: false,
  };
  const settings = { powerPercent: 20, speedMmPerS: 60 };
  const job = Object.entries(settings).reduce(
    (known, [name, value]) => changeSetting(known, 'score', name, value),
    addItems({ ...newJob('m', 'house'), sheets: [] }, [square]),
  );
  return burntBy(machine, job, { axes: truth });
}

/** Measures a burnt square as one does with a rule: its sides and its diagonals. */
function measured({ rows }) {
  const corners = rows.map(([x, y]) => ({ x, y }));
  expect(corners).toHaveLength(4);
  const by = (measure) => corners.reduce((best, corner) => (measure(corner) > measure(best) ? corner : best));
  const [lowest, highest] = [by(({ x, y }) => -x - y), by(({ x, y }) => x + y)];
  const [atX, atY] = [by(({ x, y }) => x - y), by(({ x, y }) => y - x)];
  const between = (a, b) => Math.hypot(b.x - a.x, b.y - a.y);
  return {
    drawn: side,
    alongX: between(lowest, atX),
    alongY: between(lowest, atY),
    rising: between(lowest, highest),
    falling: between(atX, atY),
    corner: lowest,
  };
}

test.each([
  ['top-left', { x: 0.997, y: 1.004, lean: 0.003 }],
  ['bottom-left', { x: 1.002, y: 0.995, lean: -0.006 }],
])('from %s, axes of %j are told by a burnt square, and burn square and true to scale then', (origin, truth) => {
  const before = measured(burntSquare(origin, undefined, truth));
  expect(Math.abs(before.alongX - side)).toBeGreaterThan(0.2);
  expect(Math.abs(before.rising - before.falling)).toBeGreaterThan(0.4);
  const found = axesOfSquare({}, before);
  for (const name of ['x', 'y', 'lean']) expect(found[name]).toBeCloseTo(truth[name], 4);
  const burnt = burntSquare(origin, found, truth);
  const after = measured(burnt);
  for (const mm of [after.alongX, after.alongY]) expect(Math.abs(mm - side)).toBeLessThan(0.003);
  for (const mm of [after.rising, after.falling]) expect(Math.abs(mm - side * Math.SQRT2)).toBeLessThan(0.004);
  // Where it was drawn, too.
  expect(Math.abs(after.corner.x - left)).toBeLessThan(0.003);
  expect(Math.abs(after.corner.y - (origin === 'top-left' ? top : 200 - top - side))).toBeLessThan(0.003);
  // The time that is shown is the time that it takes.
  expect(Math.abs(burnt.takenS / burnt.plannedS - 1)).toBeLessThan(0.0005);
  // A second square tells what is left over what is taken back.
  const half = { x: (1 + truth.x) / 2, y: (1 + truth.y) / 2, lean: truth.lean / 2 };
  const again = axesOfSquare({ axes: half }, measured(burntSquare(origin, half, truth)));
  for (const name of ['x', 'y', 'lean']) expect(again[name]).toBeCloseTo(truth[name], 4);
});

test('what is told leads to the place, whatever the axes; a square that is none is refused', () => {
  const share = fc.integer({ min: 800, max: 1250 }).map((n) => n / 1000);
  const lean = fc.integer({ min: -200, max: 200 }).map((n) => n / 1000);
  const mm = fc.integer({ min: -500_000, max: 500_000 }).map((n) => n / 1000);
  fc.assert(
    fc.property(share, share, lean, mm, mm, (x, y, leaning, placeX, placeY) => {
      const machine = { axes: { x, y, lean: leaning } };
      const there = truePlace(machine, toldPlace(machine, { x: placeX, y: placeY }));
      expect(there.x).toBeCloseTo(placeX, 9);
      expect(there.y).toBeCloseTo(placeY, 9);
    }),
  );
  expect(truePlace({}, { x: 3, y: 4 })).toEqual({ x: 3, y: 4 });
  const square = { drawn: 100, alongX: 100, alongY: 100, rising: 141.42, falling: 141.42 };
  expect(axesOfSquare({}, square)).toMatchObject({ x: 1, y: 1 });
  for (const wrong of [{ alongX: 89 }, { alongY: 111 }, { rising: 100 }, { falling: Number.NaN }])
    expect(axesOfSquare({}, { ...square, ...wrong })).toBeNull();
});
