import type { JobJson } from '@lambent/core/document';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Length, MaxLength, Min } from 'class-validator';

export class CreateJobDto {
  @IsString()
  @Length(1, 120)
  title!: string;

  /** What the job belongs to, shown beside its title. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  project?: string;

  @IsString()
  @Length(1, 60)
  machineId!: string;
}

export class RenameJobDto {
  @IsString()
  @Length(1, 120)
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
}

/** A job that was deleted and can be taken back; times as ISO 8601 in UTC. */
export interface DeletedJob {
  id: string;
  title: string;
  deletedAt: string;
  /** From when on it cannot be taken back any more. */
  goneAt: string;
}

export interface JobAnswer {
  id: string;
  title: string;
  project: string;
  version: number;
  updatedAt: string;
  document: JobJson;
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
