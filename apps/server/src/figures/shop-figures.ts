import type { FiguresAnswer, MachineTime, PersonFigures, StockFigures, WeekFigures } from '@lambent/contracts';

/** A run that ended: by whom, on what, when, how long, and which sheets it took from stock. */
export interface EndedRun {
  /** By the shop's clock, such as 2026-12-24. */
  readonly day: string;
  readonly machineId: string;
  readonly seconds: number;
  readonly by: string;
  readonly taken: readonly { readonly materialId: string; readonly offcut: boolean; readonly putBack?: boolean }[];
}

/** A job that was burnt: when, for whom, and what it comes to in the shop's currency; null where that is not known. */
export interface PaidJob {
  readonly day: string;
  readonly whose: string;
  readonly amount: number | null;
}

/** What is in stock of a material: sheets, whole or offcuts. */
export interface StockOfMaterial {
  readonly materialId: string;
  /** Null where its sheets are not counted. */
  readonly stock: readonly { readonly count: number; readonly offcut?: boolean }[] | null;
}

/** The Monday of the week of a day. @param day such as 2026-12-24 */
export function weekOf(day: string): string {
  const date = new Date(`${day}T00:00:00Z`);
  return daysAfter(day, -((date.getUTCDay() + 6) % 7));
}

/** A day so many days later. */
export function daysAfter(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10);
}

interface Gathered {
  readonly from: string;
  readonly until: string;
  readonly currency: string;
  readonly runs: readonly EndedRun[];
  readonly jobs: readonly PaidJob[];
  readonly stock: readonly StockOfMaterial[];
}

/** Sums up what was done in a shop within some days, by week, by person and by material. */
export function shopFigures({ from, until, currency, runs, jobs, stock }: Gathered): FiguresAnswer {
  const priced = jobs.filter((job) => job.amount !== null);
  return {
    currency,
    weeks: weeksFrom(from, until).map((week) => weekFigures(week, runs, priced)),
    people: peopleOf(runs, priced),
    stock: stock.map((material) => stockFigures(material, runs)),
    withoutPrice: jobs.length - priced.length,
  };
}

function weeksFrom(from: string, until: string): string[] {
  const weeks: string[] = [];
  for (let week = weekOf(from); week <= until; week = daysAfter(week, 7)) weeks.push(week);
  return weeks;
}

function weekFigures(week: string, runs: readonly EndedRun[], jobs: readonly PaidJob[]): WeekFigures {
  const next = daysAfter(week, 7);
  const isWithin = ({ day }: { readonly day: string }) => day >= week && day < next;
  const machines = new Map<string, MachineTime>();
  for (const { machineId, seconds } of runs.filter(isWithin)) {
    const known = machines.get(machineId) ?? { machineId, seconds: 0, runs: 0 };
    machines.set(machineId, { machineId, seconds: known.seconds + seconds, runs: known.runs + 1 });
  }
  const burnt = jobs.filter(isWithin);
  return { week, machines: [...machines.values()], amount: sumOf(burnt), jobs: burnt.length };
}

/** In whole hundredths, so that what adds up on paper adds up here. */
function sumOf(jobs: readonly PaidJob[]): number {
  return jobs.reduce((cents, { amount }) => cents + Math.round((amount ?? 0) * 100), 0) / 100;
}

function peopleOf(runs: readonly EndedRun[], jobs: readonly PaidJob[]): PersonFigures[] {
  const names = new Set([...runs.map((run) => run.by), ...jobs.map(({ whose }) => whose)]);
  const people = [...names].map((name) => {
    const sent = runs.filter((run) => run.by === name);
    const theirs = jobs.filter(({ whose }) => whose === name);
    const seconds = sent.reduce((sum, run) => sum + run.seconds, 0);
    return { name, seconds, runs: sent.length, amount: sumOf(theirs), jobs: theirs.length };
  });
  return people.toSorted((a, b) => b.seconds - a.seconds || b.amount - a.amount || a.name.localeCompare(b.name));
}

function stockFigures({ materialId, stock }: StockOfMaterial, runs: readonly EndedRun[]): StockFigures {
  const taken = runs.flatMap((run) => run.taken).filter((sheet) => sheet.materialId === materialId && !sheet.putBack);
  const countOf = (isOffcut: boolean) =>
    (stock ?? []).filter(({ offcut = false }) => offcut === isOffcut).reduce((sum, { count }) => sum + count, 0);
  return {
    materialId,
    used: taken.filter(({ offcut }) => !offcut).length,
    offcutsUsed: taken.filter(({ offcut }) => offcut).length,
    left: stock === null ? null : countOf(false),
    offcutsLeft: countOf(true),
  };
}
