import type { Machine, MachineKind } from './machine.ts';

type Figures = Pick<
  Machine,
  | 'ratedW'
  | 'bedWidth'
  | 'bedHeight'
  | 'origin'
  | 'margin'
  | 'topSpeed'
  | 'travelSpeed'
  | 'acceleration'
  | 'minLineSpacing'
>;

/** Where one begins with a machine of a kind: round figures in the middle of what such machines have, to be changed. */
const usualFigures: Readonly<Record<MachineKind, Figures>> = {
  co2: {
    ratedW: 60,
    bedWidth: 600,
    bedHeight: 400,
    origin: 'top-left',
    margin: 5,
    topSpeed: 400,
    travelSpeed: 500,
    acceleration: 3000,
    minLineSpacing: 0.05,
  },
  diode: {
    ratedW: 10,
    bedWidth: 400,
    bedHeight: 400,
    origin: 'bottom-left',
    margin: 2,
    topSpeed: 100,
    travelSpeed: 120,
    acceleration: 1000,
    minLineSpacing: 0.08,
  },
  fibre: {
    ratedW: 30,
    bedWidth: 200,
    bedHeight: 200,
    origin: 'centre',
    margin: 2,
    topSpeed: 1000,
    travelSpeed: 1500,
    acceleration: 20_000,
    minLineSpacing: 0.02,
  },
};

/** A machine of a kind as one begins with it: not measured, and not connected. */
export function usualMachine(kind: MachineKind): Machine {
  return {
    id: 'new',
    name: '',
    kind,
    ...usualFigures[kind],
    cornerDeviation: 0.01,
    powerScale: 1000,
    connection: null,
  };
}
