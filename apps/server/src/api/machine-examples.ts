import type { Answers } from '@lambent/contracts';
import { restingStatus } from '@lambent/machines';

/** A machine of the demo. */
export const wren: Answers['Machine'] = {
  id: 'wren',
  name: 'Wren',
  kind: 'co2',
  ratedW: 60,
  bedWidth: 600,
  bedHeight: 400,
  origin: 'top-left',
  margin: 5,
  cornerDeviation: 0.01,
  powerScale: 1000,
  minLineSpacing: 0.05,
  topSpeed: 500,
  travelSpeed: 600,
  acceleration: 4000,
  connection: { kind: 'network', host: '127.0.0.1', port: 7451, language: 'lambent', buffer: 127 },
};

/** How it stands. */
export const standing: Answers['MachineState'] = {
  machineId: 'wren',
  ...restingStatus,
  orders: ['hold', 'resume', 'stop', 'home', 'clear', 'open-lid', 'close-lid', 'pointer-on', 'pointer-off'],
  watches: true,
  z: 0,
  air: 'off',
  pointer: false,
  errand: null,
  lastWalk: null,
  makingReady: null,
};

/** What its timing card told. */
export const timing: Answers['Timing'] = {
  card: {
    measuredAt: '2026-11-27T09:30:00.000Z',
    parts: [{ title: 'X: 30 strokes of 2 mm', tookS: 1.55, standsS: 1.41, fittedS: 1.55 }],
    figures: [{ figure: 'acceleration', value: 2480, doubt: 0.001, bound: null }],
    motion: { travelSpeed: 500, acceleration: 2480, cornerDeviation: 0.012 },
  },
  trouble: null,
};
