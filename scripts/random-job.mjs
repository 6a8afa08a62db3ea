// Jobs of random shapes, on random machines.
import { operationColourKey } from '@lambent/core/colours';
import { newJob } from '@lambent/core/document';
import { addItems, changeSetting, setBurning, setSheet } from '@lambent/core/edits';
import { operationOf } from '@lambent/core/operations';

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

/**
 * A job on a machine of its own: shapes that often lie at the edges of its bed.
 * @returns the job, its machine, and a shop with both
 */
export function randomJob(random) {
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
    ...pick([{}, { arcsWithin: pick([0.001, 0.002, 0.004]) }]),
    ...pick([{}, {}, { axes: { x: between(0.98, 1.02), y: between(0.98, 1.02), lean: between(-0.01, 0.01) } }]),
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
  job = setBurning(job, 'engrave', { scanTurns: pick(['same', 'sooner']) });
  job = setBurning(job, 'cut', {
    start: pick(['nearest', 'corner']),
    order: pick(['inside-first', 'nearest', 'parts', 'rows', 'spread']),
    sharedEdges: pick(['each', 'once']),
  });
  return { job, machine, shop: { machines: [machine], keys: [key], materials: [material] } };
}
