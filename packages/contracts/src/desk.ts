import { Transform, Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, Length, Max, MaxLength, Min } from 'class-validator';
import { IsDay } from './is-day.ts';
import {
  type DeskShow,
  type DeskSort,
  deskShows,
  deskSorts,
  type JobState,
  jobStates,
  mostAtOnce,
} from './job-states.ts';
import type { JobCard } from './jobs.ts';
import { UnlessEmpty } from './unless-empty.ts';

/** What of the Desk is asked for. */
export class DeskDto {
  @IsOptional()
  @IsIn(deskShows)
  show?: DeskShow;

  /** Words that all stand in a job's title, project, material, file names, or the name of whose it is. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  seek?: string;

  @IsOptional()
  @IsIn(deskSorts)
  sort?: DeskSort;

  /** Whether the last comes first; as usual by when it was changed alone. */
  @IsOptional()
  @Transform(({ value }) => value === true || value === 'true')
  @IsBoolean()
  down?: boolean;

  /** Counted from 1. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(100_000)
  page?: number;

  /** How many are on a page. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(mostAtOnce)
  size?: number;
}

/** One page of the Desk. */
export interface DeskPage {
  jobs: JobCard[];
  /** How many suit, on all pages. */
  total: number;
  /** How many of those that suit the search each choice of what is shown has. */
  counts: Record<DeskShow, number>;
}

/** A change of where a job stands. */
export class MoveJobDto {
  @IsIn(jobStates, { message: `A job is ${jobStates.join(', ')}.` })
  state!: JobState;

  /** Who moves it. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** What a job is to be called, what it belongs to, and until when it is wanted; what is left out stays. */
export class DescribeJobDto {
  @IsOptional()
  @IsString()
  @Length(1, 120, { message: 'A title has 1 to 120 characters.' })
  title?: string;

  @IsOptional()
  @IsString()
  @MaxLength(120)
  project?: string;

  /** The day until which it is wanted; empty for no day. */
  @UnlessEmpty()
  @IsDay()
  wantedBy?: string;
}

/** A step that a job took through the shop. */
export interface JobStepAnswer {
  id: number;
  state: JobState;
  /** As ISO 8601 in UTC. */
  at: string;
  /** Who moved it; null where it was a run, or nobody said. */
  by: string | null;
  /** The job that it was burnt with, on shared sheets; null where it was not. */
  with: { jobId: string; title: string } | null;
}
