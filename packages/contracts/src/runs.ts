import type { Finding } from '@lambent/core/checks';
import { Type } from 'class-transformer';
import {
  IsArray,
  IsBoolean,
  IsInt,
  IsISO8601,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
} from 'class-validator';
import type { MachineState } from './machines.ts';

/** Which runs are asked for. */
export class RunsWishDto {
  /** Those of this job; of all jobs where none is named. */
  @IsOptional()
  @IsString()
  job?: string;

  /** Those of jobs with this in their title, in large or small letters. */
  @IsOptional()
  @IsString()
  @Length(1, 120)
  title?: string;

  /** Those that burnt on a material with this in its name. */
  @IsOptional()
  @IsString()
  @Length(1, 120)
  material?: string;

  /** Those of this machine, by its id. */
  @IsOptional()
  @IsString()
  @Length(1, 60)
  machine?: string;

  /** Those that began at this moment or later (ISO 8601), */
  @IsOptional()
  @IsISO8601()
  from?: string;

  /** and before this one. */
  @IsOptional()
  @IsISO8601()
  until?: string;
}

export class RunWishDto {
  /** As many seconds are waited for its end before it is answered as it is. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(60)
  wait?: number;
}

export class PlanWishDto {
  /** The saved version to plan; the last where none is named. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  version?: number;

  /** Which of the job's runs, by its id or name; the first where none is named. */
  @IsOptional()
  @IsString()
  @Length(1, 60)
  run?: string;
}

export class StartRunDto {
  /** The saved version to burn. */
  @IsInt()
  @Min(1)
  version!: number;

  /** Which of the job's runs; the first where none is named. */
  @IsOptional()
  @IsString()
  @Length(1, 60)
  runId?: string;

  /** Burn it though it is on record as burnt: for a job of several runs, where that would spoil the stock. */
  @IsOptional()
  @IsBoolean()
  again?: boolean;

  /** Who sends it. */
  @IsOptional()
  @IsString()
  @Length(1, 120)
  by?: string;

  /** Burn it though the run that leaves its stock in place is not on record as burnt. */
  @IsOptional()
  @IsBoolean()
  early?: boolean;
}

/** A run of the record that is to be burnt once more. */
export class AgainDto {
  /** Burn its very program though it would be planned otherwise by now. */
  @IsOptional()
  @IsBoolean()
  asItWas?: boolean;

  /** Who sends it. */
  @IsOptional()
  @IsString()
  @Length(1, 120)
  by?: string;
}

/** A run of the record that goes on from one of its lines. */
export class GoOnDto {
  /** The first line of its program that burns, counted from 1. */
  @IsInt()
  @Min(1)
  fromLine!: number;

  /** Who sends it. */
  @IsOptional()
  @IsString()
  @Length(1, 120)
  by?: string;
}

/** A sheet that a run took from stock; lengths in mm, as it lay in stock. */
export interface TakenSheet {
  /** Which sheet of the job it was. */
  sheetId: string;
  materialId: string;
  /** From which of the material's sheets in stock; null where such sheets are not counted. */
  stockId: string | null;
  width: number;
  height: number;
  price: number | null;
  offcut: boolean;
  /** The outline of an offcut that is no rectangle. */
  outline?: number[][];
  /** It was not used up after all. */
  putBack?: boolean;
  /** What was left of it, and was kept: the parts that it fell in. */
  keptOffcuts?: { width: number; height: number; outline?: number[][] }[];
}

class OfRunsSheetDto {
  /** Who says so. */
  @IsString()
  @Length(1, 120, { message: 'Say who you are, in 1 to 120 characters.' })
  by!: string;

  @IsString()
  sheetId!: string;
}

/** A sheet that goes back into stock. */
export class PutBackDto extends OfRunsSheetDto {}

/** What is left of a sheet, in mm. */
export class OffcutDto extends OfRunsSheetDto {
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: 'The width of an offcut is a length in mm.' })
  @Min(1, { message: 'An offcut is 1 mm wide at least.' })
  @Max(10_000, { message: 'No offcut is that wide.' })
  width!: number;

  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: 'The height of an offcut is a length in mm.' })
  @Min(1, { message: 'An offcut is 1 mm high at least.' })
  @Max(10_000, { message: 'No offcut is that high.' })
  height!: number;

  /** Its outline with its holes, each the x and y of its points from its own top left, in mm; a rectangle where it is left out. */
  @IsOptional()
  @IsArray({ message: 'The outline of an offcut is a list of closed lines.' })
  outline?: number[][];
}

/** `held` is a run that stands, the beam off, and can go on. */
export type RunStatus = 'running' | 'held' | 'done' | 'stopped' | 'refused' | 'broken off';

/** One trip of a machine, as it stays on record. */
export interface RunAnswer {
  id: string;
  jobId: string;
  jobTitle: string;
  version: number;
  /** Which of the job's runs it was, and what that was called. */
  jobRunId: string;
  jobRunName: string;
  machineId: string;
  status: RunStatus;
  /** Why it ended as it did, where there is more to say. */
  reason: string | null;
  startedAt: string;
  endedAt: string | null;
  /** SHA-256 of the program that was sent. */
  programHash: string;
  lines: number;
  /** The last program line whose move was done. */
  doneLine: number;
  plannedS: number;
  machineS: number;
  /** Whether there is a picture of how it came out. */
  hasPicture: boolean;
  /** The sheets that it took from stock. */
  taken: TakenSheet[];
  /** Who sent it; null where nobody said. */
  by: string | null;
  /** What it burnt on, such as `Birch plywood 3 mm`. */
  materials: string[];
  /** The run of whose program this is the rest, and from which of its lines; null of a whole run. */
  afterRunId: string | null;
  fromLine: number | null;
}

/** The details of the error that a run which is to be burnt again is answered with, where it would be planned otherwise. */
export interface ChangedSinceDetails {
  /** What has changed since, a sentence each. */
  changes: string[];
  /** Whether its very program can be burnt all the same. */
  mayBurn: boolean;
}

/** What the bed looked like after a run; see `BurntPicture`. */
export interface BurntPictureAnswer {
  x: number;
  y: number;
  pitchMm: number;
  width: number;
  height: number;
  /** Its points, gzipped, in base64. */
  codes: string;
  /** No camera took it: a stand-in worked it out from a model. */
  simulated: boolean;
}

/** The details of the error that a job which may not be sent is answered with. */
export interface BlockedDetails {
  findings: Finding[];
}

/** What the event stream carries. */
export type ServerEvent =
  | { type: 'machine'; machine: MachineState }
  | { type: 'run'; run: RunAnswer }
  | { type: 'storage'; storage: StorageState }
  /** A job was saved: it has this version now. */
  | { type: 'job'; jobId: string; version: number }
  /** What the Desk says of a job changed: where it stands, or what it was worked out to take. */
  | { type: 'desk'; jobId: string }
  /** The machines of the shop were changed: what goes by them asks for them again. */
  | { type: 'machines' };

/** How the server is. */
export interface HealthAnswer {
  storage: StorageState;
  /** The longest that it answered nobody, in ms, since this was last asked. */
  longestStallMs: number;
}

/** Whether what is sent to the server can be kept on its disk; if not since when (ISO 8601), and what to do. */
export type StorageState = { ok: true } | { ok: false; since: string; message: string };
