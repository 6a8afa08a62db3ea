/** The figures of a machine that a stand-in of it needs; lengths in mm, speeds in mm/s, the acceleration in mm/s². */
export interface StandInFigures {
  readonly name: string;
  readonly kind: keyof typeof takenIn;
  readonly ratedW: number;
  readonly measuredW?: number | null;
  readonly bedWidth: number;
  readonly bedHeight: number;
  readonly origin: string;
  readonly topSpeed: number;
  readonly travelSpeed: number;
  readonly acceleration: number;
  readonly accelerationY?: number;
  readonly lookAhead?: number;
  readonly moveMs?: number;
  readonly jerk?: number;
  readonly arcsWithin?: number;
  readonly axes?: { readonly x: number; readonly y: number; readonly lean: number };
  readonly cornerDeviation: number;
  readonly powerScale: number;
  readonly focus?: { readonly lowest: number; readonly highest: number; readonly speed: number };
}

/** The light of a CO₂ laser is taken in whole by most stock, that of a diode less well. */
const takenIn = { co2: 1, diode: 0.3, fibre: 0.3 };

/**
 * The words that a stand-in is started with to be like a machine.
 * @param port where it listens; 0 for any that is free
 * @param factor how much faster than a real machine's its time passes
 */
export function standInWords(machine: StandInFigures, port: number, factor: number): string[] {
  const { focus, accelerationY, jerk, arcsWithin, axes, lookAhead, moveMs } = machine;
  const words = {
    name: machine.name,
    port,
    width: machine.bedWidth,
    height: machine.bedHeight,
    origin: machine.origin,
    'top-speed': machine.topSpeed,
    'travel-speed': machine.travelSpeed,
    acceleration: machine.acceleration,
    ...(accelerationY === undefined ? {} : { 'acceleration-y': accelerationY }),
    ...(jerk === undefined ? {} : { jerk }),
    ...(arcsWithin === undefined ? {} : { arcs: arcsWithin }),
    ...(axes ? { 'true-x': axes.x, 'true-y': axes.y, lean: axes.lean } : {}),
    ...(lookAhead === undefined ? {} : { 'look-ahead': lookAhead }),
    ...(moveMs === undefined ? {} : { 'line-ms': moveMs }),
    'corner-deviation': machine.cornerDeviation,
    'power-scale': machine.powerScale,
    ...(focus ? { 'lowest-z': focus.lowest, 'highest-z': focus.highest, 'focus-speed': focus.speed } : {}),
    watts: machine.measuredW ?? machine.ratedW,
    'taken-in': takenIn[machine.kind],
    factor,
  };
  return Object.entries(words).map(([name, value]) => `--${name}=${value}`);
}
