import { IsIn } from 'class-validator';
import { IsDay } from './is-day.ts';

/** Of which days something is told, by the shop's clock. */
export class DaysDto {
  /** The first day, such as 2026-12-01. */
  @IsDay()
  from!: string;

  /** The last day. */
  @IsDay()
  until!: string;
}

/** How long one machine burnt, in s, and in how many runs. */
export interface MachineTime {
  machineId: string;
  seconds: number;
  runs: number;
}

/** What was done in a week: what runs that began in it took, and what was burnt in it comes to. */
export interface WeekFigures {
  /** Its Monday, such as 2026-11-30. */
  week: string;
  machines: MachineTime[];
  amount: number;
  jobs: number;
}

/** What was done by somebody, and burnt for somebody; the name is empty where nobody was said. */
export interface PersonFigures {
  name: string;
  /** Of the runs that they sent, in s. */
  seconds: number;
  runs: number;
  /** Of the jobs that are theirs. */
  amount: number;
  jobs: number;
}

/** Whole sheets of a material. */
export interface StockFigures {
  materialId: string;
  used: number;
  offcutsUsed: number;
  /** In stock now; null where its sheets are not counted. */
  left: number | null;
  offcutsLeft: number;
}

/** The figures of the shop for some days. */
export interface FiguresAnswer {
  currency: string;
  /** Each week of those days, also those in which nothing was done. */
  weeks: WeekFigures[];
  /** Those with most time first. */
  people: PersonFigures[];
  stock: StockFigures[];
  /** So many jobs that were burnt are not in the money: they have no price, or one in another currency. */
  withoutPrice: number;
}

/** What is told as a table of its own. */
export const figureTables = ['hours', 'sheets', 'money', 'people'] as const;
export type FigureTable = (typeof figureTables)[number];

/** Which table is told, and of which days. */
export class FigureTableDto extends DaysDto {
  @IsIn(figureTables)
  table!: FigureTable;
}
