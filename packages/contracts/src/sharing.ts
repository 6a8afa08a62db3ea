import { IsOptional, IsString, Length, MaxLength } from 'class-validator';
import type { JobState } from './job-states.ts';

/** Jobs that are laid onto sheets that they share, as they were shown. */
export class ShareSheetsDto {
  /** The `print` of the layout. Where something has changed since it was made, 409 says so. */
  @IsString()
  @Length(1, 64)
  print!: string;

  /** What the shared job is called. */
  @IsString()
  @Length(1, 120, { message: 'A title has 1 to 120 characters.' })
  title!: string;

  /** Who lays them out. */
  @IsOptional()
  @IsString()
  @MaxLength(120)
  by?: string;
}

/** A job that others share sheets with. */
export interface SharingJob {
  jobId: string;
  title: string;
  whose: string;
  /** How often all of it is burnt. */
  copies: number;
}

/**
 * Why a job is left out: it fits on no sheet; findings block it; it has runs of several kinds, stock of several, or test cards.
 * `many`: there are more than can be laid at once, and it goes with the next ones.
 */
export type LeftOutReason = 'sheet' | 'findings' | 'runs' | 'stock' | 'cards' | 'many';

/** A sheet that jobs share, as it is shown. Outlines are SVG path data in mm from its top left. */
export interface SharedSheetAnswer {
  widthMm: number;
  heightMm: number;
  /** How much of it pieces cover, 0 to 1. */
  use: number;
  outline: string;
  pieces: { jobId: string; outline: string }[];
}

/** How jobs lie on the sheets that they share. */
export interface SharingLayout {
  /** Names it: another one where a job or the shop has changed. */
  print: string;
  sheets: SharedSheetAnswer[];
  /** Of all runs, in s. */
  seconds: number;
  /** Null where the shop takes no money. */
  price: number | null;
  blocks: number;
  warns: number;
}

/** Jobs that are ready and need the same stock on the same machine, with the same lens. */
export interface SharingGroup {
  machineId: string;
  materialId: string;
  jobs: SharingJob[];
  leftOut: { jobId: string; title: string; why: LeftOutReason }[];
  /** Null until it is worked out. */
  layout: SharingLayout | null;
  /** Why there can be none, as a sentence. */
  trouble: string | null;
}

/** A job that lies on shared sheets. */
export interface SharedPartAnswer extends SharingJob {
  state: JobState;
  /** Whether it was changed since it was laid there. */
  isChanged: boolean;
  /** Its share of the price; null where the shop takes no money. */
  price: number | null;
  /** When it left them, to be burnt again alone, as ISO 8601 in UTC; null where it did not. */
  leftAt: string | null;
}

/** What a job shares. */
export interface JobSharing {
  /** On whose sheets it lies; null where on its own. */
  sharedJob: { jobId: string; title: string; state: JobState } | null;
  /** What lies on its sheets; none where it is a job of its own. */
  parts: SharedPartAnswer[];
}

/** The job of the shared sheets. */
export interface SheetsShared {
  jobId: string;
}
