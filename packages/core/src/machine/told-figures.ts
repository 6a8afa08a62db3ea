import type { MachineFigureName } from './figures.ts';
import type { Machine } from './machine.ts';

/** What a machine may tell of itself. */
export type ToldFigures = Readonly<
  Partial<
    Record<
      Extract<
        MachineFigureName,
        'powerScale' | 'travelSpeed' | 'acceleration' | 'accelerationY' | 'bedWidth' | 'bedHeight' | 'lookAhead'
      >,
      number
    >
  >
>;

/** A figure that a machine tells otherwise than it stands here. */
export interface ToldDifference {
  readonly figure: keyof ToldFigures;
  /** Missing where nothing is said here. */
  readonly here: number | undefined;
  readonly there: number;
}

/** Figures that are this near to each other are the same: machines tell theirs rounded. */
const sameWithin = 0.001;

/** The figures that a machine tells otherwise than they stand here. */
export function toldDifferences(machine: Machine, told: ToldFigures): ToldDifference[] {
  return (Object.entries(told) as [keyof ToldFigures, number][]).flatMap(([figure, there]) => {
    // An axis without a figure of its own goes by the other one's.
    const here = figure === 'accelerationY' ? (machine.accelerationY ?? told.acceleration) : machine[figure];
    if (here !== undefined && Math.abs(here - there) <= sameWithin * there) return [];
    return { figure, here: machine[figure], there };
  });
}
