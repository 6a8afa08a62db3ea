import { Type } from 'class-transformer';
import { IsInt, IsISO8601, IsOptional, IsString, Length, Min, ValidateIf } from 'class-validator';
import { IsDay } from './is-day.ts';
import type { JobState } from './job-states.ts';
import type { RunStatus } from './runs.ts';

/** Which day is asked for. */
export class DayDto {
  /** Such as 2026-12-24; today where none is named. */
  @IsOptional()
  @IsDay()
  day?: string;
}

/** To which machine a job is given, and when it is its turn there. */
export class GiveJobDto {
  @IsString()
  @Length(1, 60, { message: 'Choose a machine.' })
  machineId!: string;

  /** Before which job of that machine it burns; after all of them where none is named. */
  @IsOptional()
  @IsString()
  beforeJobId?: string;

  /** Before when it does not begin (ISO 8601); as soon as it can where nothing is said. */
  @IsOptional()
  @IsISO8601({}, { message: 'A moment is written as 2026-12-24T13:00:00Z.' })
  notBefore?: string;

  /** The `seen` of its block as it was when this was decided; null where it had none. Where it has moved since, 409 says so. */
  @ValidateIf(({ seen }) => seen !== null)
  @IsInt()
  @Min(1)
  seen!: number | null;
}

/** A job that is taken off the day. */
export class TakeOffDayDto {
  /** The `seen` of its block as it was when this was decided. */
  @Type(() => Number)
  @IsInt()
  @Min(1)
  seen!: number;
}

/** A stretch of time, as ISO 8601 in UTC. */
export interface DaySpan {
  from: string;
  until: string;
}

/** A run on a machine. Its `until` is its end, or when it will have ended as planned. */
export interface DayRun extends DaySpan {
  runId: string;
  jobId: string;
  title: string;
  status: RunStatus;
  plannedS: number;
}

/** A job that a machine was given. From its start to its end it burns; it is set up before that. */
export interface DayBlock extends DaySpan {
  jobId: string;
  title: string;
  whose: string;
  state: JobState;
  /** What is left to burn of it, in s; null until it is known, when half an hour is kept free for it. */
  seconds: number | null;
  notBefore: string | null;
  /** The day until which it is wanted, such as 2026-12-24, and whether it ends after that. */
  wantedBy: string | null;
  isLate: boolean;
  /** Changes with every move of it. */
  seen: number;
}

/** What a machine did on a day, does now, and was given. */
export interface DayMachine {
  machineId: string;
  /** What began on the day that is asked for, in its order. */
  runs: DayRun[];
  /** What it runs now, or is held in. */
  running: DayRun | null;
  /** What waits for it, in its order, on any day. */
  blocks: DayBlock[];
  /** When it has done all that. */
  freeAt: string;
}

/** The day of the shop: what its machines did, do, and will do. */
export interface DayAnswer {
  /** The day that is shown, such as 2026-12-24, and today. */
  day: string;
  today: string;
  now: string;
  /** From when until when that day is, by the shop's clock. */
  whole: DaySpan;
  /** When the shop is open, from yesterday on. */
  openings: DaySpan[];
  setUpMinutes: number;
  machines: DayMachine[];
}

/** A piece of stock that is to lie on the bed; lengths in mm. */
export interface StockToLay {
  /** Such as `Birch plywood 3 mm`. */
  name: string;
  width: number;
  height: number;
  /** How many pieces like this, and how many are in stock; null where such sheets are not counted. */
  pieces: number;
  inStock: number | null;
}

/** The run of a job that is burnt next, and what is to lie on the bed for it. */
export interface NextRunAnswer {
  version: number;
  runId: string;
  runName: string;
  /** Whether fresh stock is laid, or that of the run before stays where it lies or is turned over. */
  stock: 'fresh' | 'in place' | 'turned over';
  sheets: StockToLay[];
}
