import type { Finding } from '@lambent/core';
import { IsBoolean, IsInt, IsOptional, IsString, Length, Min } from 'class-validator';

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
}

export type RunStatus = 'running' | 'done' | 'stopped' | 'refused' | 'broken off';

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
  | { type: 'machine'; machine: import('./machines.ts').MachineState }
  | { type: 'run'; run: RunAnswer };
