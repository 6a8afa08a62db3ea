import type { JobJson } from '@lambent/core/document';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Max, MaxLength, Min } from 'class-validator';
import type { Awaits, JobState } from './job-states.ts';

export class CreateJobDto {
  @IsString()
  @Length(1, 120, { message: 'A title has 1 to 120 characters.' })
  title!: string;

  /** What the job belongs to, shown beside its title. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  project?: string;

  @IsString()
  @Length(1, 60, { message: 'Choose a machine.' })
  machineId!: string;

  /** The colour key that it goes by; the shop's first where none is named. */
  @IsOptional()
  @IsString()
  keyId?: string;

  /** What it is burnt on: a sheet of it is laid as it is stocked; none where none is named. */
  @IsOptional()
  @IsString()
  materialId?: string;
}

export class RenameJobDto {
  @IsString()
  @Length(1, 120, { message: 'A title has 1 to 120 characters.' })
  title!: string;
}

/** What stands in the address of a save; the body is the document. */
export class SaveJobDto {
  /** The version this one was made from; if the job has a later one, nothing is saved and 409 says so. */
  @Type(() => Number)
  @IsInt()
  @Min(1)
  base!: number;

  /** The edit that led here, such as `Move 3 items`. */
  @IsString()
  @Length(1, 120)
  edit!: string;
}

/** A file that is brought in; the body is the file. */
export class BringInDto {
  /** As it is called; 200 characters of it are kept. */
  @IsOptional()
  @IsString()
  name?: string;
}

/** How a drawing is read into a job; the body is the file. */
export class ReadDrawingDto extends BringInDto {
  /** The version that it is read into; if the job has a later one, nothing is saved and 409 says so. The last by itself. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  base?: number;

  /** Which page, counted from 1. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  page?: number;

  /** Dashed strokes as solid lines, as usual, or as their dashes. */
  @IsOptional()
  @IsIn(['solid', 'dashed'])
  dashes?: 'solid' | 'dashed';

  /** Parts on the layers that the file names, as usual, or all by their colours. */
  @IsOptional()
  @IsIn(['named', 'by-colour'])
  layers?: 'named' | 'by-colour';

  /** How much larger than the file says it is laid; 1 where nothing is said. */
  @IsOptional()
  @Type(() => Number)
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0.0001)
  @Max(10_000)
  scale?: number;
}

/** What a job was worked out to take and to cost, as of its last version. */
export interface JobEstimate {
  /** Of all its runs, in s; null where it cannot be planned. */
  seconds: number | null;
  /** In the shop's currency; of an accepted quote where there is one; null where it has no price. */
  price: number | null;
  /** How many findings block it, and how many warn. */
  blocks: number;
  warns: number;
}

/** One card of the Desk. */
export interface JobCard {
  id: string;
  title: string;
  project: string;
  version: number;
  updatedAt: string;
  machineId: string;
  materialId: string | null;
  itemCount: number;
  lastRun: { status: string; endedAt: string | null } | null;
  /** Where it stands in the shop, and since when, as ISO 8601 in UTC. */
  state: JobState;
  stateSince: string;
  /** Whose answer it waits for, whatever else it waits for. */
  awaits: Awaits;
  /** The name of whose it is; empty where it is nobody's. */
  whose: string;
  /** The day until which it is wanted, such as 2026-12-24; null for none. */
  wantedBy: string | null;
  /** Null until it has been worked out. */
  estimate: JobEstimate | null;
  /** The job on whose sheets it lies with others; null where it lies on its own. */
  sharedOn: { jobId: string; title: string } | null;
  /** How many jobs lie on its sheets; 0 where it is a job of its own. */
  shares: number;
}

/** A job that was deleted and can be taken back; times as ISO 8601 in UTC. */
export interface DeletedJob {
  id: string;
  title: string;
  deletedAt: string;
  /** From when on it cannot be taken back any more. */
  goneAt: string;
}

/** A document as it was stored: fields that came in later may be missing, and are as usual then. */
export type StoredJob = Pick<JobJson, AlwaysStored> & Partial<Omit<JobJson, AlwaysStored>>;
type AlwaysStored = 'version' | 'machineId' | 'keyId' | 'unit' | 'sheets' | 'drawing';

export interface JobAnswer {
  id: string;
  title: string;
  project: string;
  version: number;
  updatedAt: string;
  document: StoredJob;
}

/** A file that was kept as it was brought in. */
export interface OriginalAnswer {
  id: number;
  sha256: string;
}

/** What became of a drawing that was read into a job; lengths in mm. */
export interface DrawingTaken {
  /** The job's version since. */
  version: number;
  format: string;
  items: number;
  /** As large as the file says the page is; null where it does not say. */
  pageWidthMm: number | null;
  pageHeightMm: number | null;
  /** What was not taken as it was drawn, and how often. */
  warnings: { code: string; message: string; count: number }[];
}

export interface VersionAnswer {
  number: number;
  edit: string;
  savedAt: string;
}

/** The one shape of every error. */
export interface ErrorAnswer {
  error: { code: string; message: string; details?: unknown };
}

/** A font that text can be set in, as its list shows it. */
export interface FontAnswer {
  id: string;
  family: string;
  bold: boolean;
  italic: boolean;
  generic: 'sans-serif' | 'serif' | 'monospace' | null;
}
