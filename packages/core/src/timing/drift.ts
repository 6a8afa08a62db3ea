import { machineFigures } from '../machine/figures.ts';
import { lineTo, type Machine } from '../machine/machine.ts';
import { type TimedFigure, timedFigures } from './fit-motion.ts';

/** A run that was burnt to its end: when it began, and how long it was planned to take, and took. */
export interface KeptTime {
  readonly startedAt: string;
  readonly plannedS: number;
  readonly machineS: number;
}

/** By how much the runs of a machine take longer or less than they were planned to. */
export interface Drift {
  /** How many runs say so. */
  readonly count: number;
  /** The median of taken ÷ planned. */
  readonly share: number;
  /** Whether it is more than chance: enough runs, most of them to the same side. */
  readonly isTold: boolean;
}

/** Shorter runs say little: what a run takes beside its moves is a large part of them. In seconds. */
const leastS = 5;
/** The last so many runs count. */
const lastRuns = 20;
const leastRuns = 3;
/** Less than this, as a share, is no drift. */
const leastDrift = 0.02;
const mostToOneSide = 0.7;

/**
 * The drift of a machine by its last runs; null where none says anything.
 * @param runs those that were burnt to their end, in any order
 * @param since runs before that moment do not count
 */
export function driftOf(runs: readonly KeptTime[], since?: string): Drift | null {
  const shares = runs
    .filter(({ startedAt, plannedS }) => plannedS >= leastS && (since === undefined || startedAt >= since))
    .toSorted((a, b) => b.startedAt.localeCompare(a.startedAt))
    .slice(0, lastRuns)
    .map(({ plannedS, machineS }) => machineS / plannedS)
    .toSorted((a, b) => a - b);
  if (shares.length === 0) return null;
  const share = (shares[(shares.length - 1) >> 1] + shares[shares.length >> 1]) / 2;
  const beyond = shares.filter((value) => (share > 1 ? value > 1 + leastDrift / 2 : value < 1 - leastDrift / 2));
  const isTold =
    shares.length >= leastRuns && Math.abs(share - 1) > leastDrift && beyond.length >= mostToOneSide * shares.length;
  return { count: shares.length, share, isTold };
}

/** The machine with its planned times longer or shorter by a drift. @param now as ISO 8601: what counts from then on */
export function corrected(machine: Machine, { share }: Drift, now: string): Machine {
  const percent = (machine.timeShare ?? 100) * share;
  return { ...machine, timeShare: Number(Math.min(400, Math.max(25, percent)).toFixed(1)), timesSince: now };
}

/** A figure to four digits; none where it is too little, or too much, to be a figure of a machine. */
function tellable(figure: TimedFigure, value: number | undefined): number | undefined {
  const { least, most } = machineFigures[figure];
  return value === undefined || value < least || value > most ? undefined : Number(value.toPrecision(4));
}

/** The machine with figures for its times that were measured. @param now as ISO 8601: what counts from then on */
export function withMotion(machine: Machine, motion: Partial<Machine>, now: string): Machine {
  const figures = Object.fromEntries(timedFigures.map((figure) => [figure, tellable(figure, motion[figure])]));
  // That characters take no time is worth saying only where the line would say otherwise.
  const { characterS } = lineTo({ ...machine, characterMs: undefined });
  const characterMs = motion.characterMs || characterS > 0 ? tellable('characterMs', motion.characterMs) : undefined;
  return { ...machine, ...figures, characterMs, timeShare: undefined, timesSince: now };
}
