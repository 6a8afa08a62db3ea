/** A figure of a machine: how it is called, what it is counted in, and between what it lies. */
export interface MachineFigure {
  readonly name: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
}

/** The figures of a machine: those of a bed as large as a hall, and of a head as fast as there are any, are the limits. */
export const machineFigures = {
  ratedW: { name: 'Rated power', unit: 'W', least: 0.1, most: 20_000 },
  measuredW: { name: 'Measured power', unit: 'W', least: 0.1, most: 20_000 },
  bedWidth: { name: 'Width', unit: 'mm', least: 10, most: 20_000 },
  bedHeight: { name: 'Depth', unit: 'mm', least: 10, most: 20_000 },
  margin: { name: 'Margin', unit: 'mm', least: 0, most: 500 },
  bedGapMm: { name: 'Gaps in the bed', unit: 'mm', least: 0.1, most: 1000 },
  topSpeed: { name: 'Top speed', unit: 'mm/s', least: 0.1, most: 20_000 },
  travelSpeed: { name: 'Travel', unit: 'mm/s', least: 0.1, most: 20_000 },
  acceleration: { name: 'Acceleration', unit: 'mm/s²', least: 1, most: 500_000 },
  accelerationY: { name: 'Acceleration of Y', unit: 'mm/s²', least: 1, most: 500_000 },
  cornerDeviation: { name: 'Corners cut by', unit: 'mm', least: 0.0001, most: 5 },
  lookAhead: { name: 'Looks ahead', unit: 'moves', least: 1, most: 10_000 },
  moveMs: { name: 'Time per line', unit: 'ms', least: 0.001, most: 1000 },
  characterMs: { name: 'Time per character', unit: 'ms', least: 0, most: 100 },
  arcsWithin: { name: 'Arcs made within', unit: 'mm', least: 0.001, most: 0.004 },
  jerk: { name: 'Jerk', unit: 'mm/s³', least: 10, most: 1_000_000_000 },
  timeShare: { name: 'Times corrected to', unit: '%', least: 25, most: 400 },
  powerScale: { name: 'Full power is S', unit: '', least: 1, most: 1_000_000 },
  minLineSpacing: { name: 'Least line spacing', unit: 'mm', least: 0.001, most: 10 },
  leastPower: { name: 'Lights from', unit: '%', least: 0, most: 100 },
  mostPower: { name: 'Driven up to', unit: '%', least: 0, most: 100 },
} satisfies Readonly<Record<string, MachineFigure>>;

/** A figure of a machine, by its name in code. */
export type MachineFigureName = keyof typeof machineFigures;
