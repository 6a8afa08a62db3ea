import type { Machine } from '@lambent/core/machine';
import { type ToldFigures, type WalkShape, walkShapes } from '@lambent/core/machine';
import type { FittedFigure, TimedFigure } from '@lambent/core/timing';
import { IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Max, Min } from 'class-validator';

export const machineCommands = [
  'hold',
  'resume',
  'stop',
  'home',
  'clear',
  'open-lid',
  'close-lid',
  'pointer-on',
  'pointer-off',
] as const;
export type MachineCommand = (typeof machineCommands)[number];

export class MachineCommandDto {
  @IsIn(machineCommands)
  command!: MachineCommand;
}

const aLength = { allowNaN: false, allowInfinity: false };

/** Where a head is to go, unlit: to a place, or so far from where it is; in mm in the machine's own frame. */
export class HeadDto {
  @IsOptional()
  @IsNumber(aLength)
  x?: number;

  @IsOptional()
  @IsNumber(aLength)
  y?: number;

  @IsOptional()
  @IsNumber(aLength)
  dx?: number;

  @IsOptional()
  @IsNumber(aLength)
  dy?: number;
}

/** So many mm the focus is to go up, or down below 0. */
export class FocusDto {
  @IsNumber(aLength)
  @Min(-1000)
  @Max(1000)
  dz!: number;
}

export const airLevels = ['off', 'low', 'high'] as const;

export class AirDto {
  @IsIn(airLevels)
  air!: (typeof airLevels)[number];
}

/** The bounds of a run that a head is to go around, unlit, again and again until it is stopped. */
export class WalkDto {
  /** The saved version whose run it is. */
  @IsInt()
  @Min(1)
  version!: number;

  /** Which of the job's runs; the first where none is named. */
  @IsOptional()
  @IsString()
  @Length(1, 60)
  runId?: string;

  @IsIn(walkShapes)
  shape!: WalkShape;

  /** In mm/s. */
  @IsNumber(aLength)
  @Min(1, { message: 'A walk goes at 1 mm/s at least.' })
  @Max(20_000)
  speed!: number;

  /** What goes around: the beam, which stays off, or the spot of the red pointer. */
  @IsIn(['beam', 'pointer'])
  spot!: 'beam' | 'pointer';
}

/** What a machine does by hand: it moves unlit, and nothing of it is on record. */
export interface Errand {
  kind: 'move' | 'walk' | 'focus' | 'air' | 'timing';
  /** Where the head goes, in mm in the machine's own frame; null where that is no one place. */
  to: { x: number; y: number } | null;
  /** The job whose run is walked around; null of any other. */
  jobId: string | null;
  title: string | null;
  /** How much of it is done, from 0 to 1, where that is known. */
  share?: number;
}

/** A part of a timing card: what it took, and how long it takes by figures. */
export interface TimedPartAnswer {
  title: string;
  tookS: number;
  standsS: number;
  fittedS: number;
}

/** The timing card that a machine ran last. */
export interface TimingCardAnswer {
  measuredAt: string;
  parts: TimedPartAnswer[];
  figures: readonly FittedFigure[];
  /** The figures for its times, as they were found. */
  motion: Pick<Machine, TimedFigure>;
}

export interface TimingAnswer {
  /** Null where none was run yet. */
  card: TimingCardAnswer | null;
  /** Why the last one came to no end; null where it did. */
  trouble: string | null;
}

/** The walk that a machine was told last, which it can be told again. */
export interface LastWalk extends WalkDto {
  jobId: string;
  title: string;
  runName: string;
}

/** What goes by a machine. */
export interface MachineUses {
  /** Jobs that are not deleted, the last one changed first. */
  jobs: { id: string; title: string }[];
  /** How many recipes each material has for it. */
  recipes: { materialId: string; material: string; count: number }[];
}

/** Where a machine is and what it does; places in mm in the machine's own frame. */
export interface MachineState {
  machineId: string;
  /** `away` while it does not answer. */
  state: 'away' | 'idle' | 'homing' | 'running' | 'held' | 'alarm';
  reason: string | null;
  x: number;
  y: number;
  feed: number;
  power: number;
  /** Null where the machine does not tell. */
  lid: 'open' | 'closed' | null;
  /** The last program line whose move is done. */
  line: number;
  /** How far above the stock its focus is, in mm; null where it does not tell. */
  z: number | null;
  /** What blows at its beam; null where it does not tell. */
  air: 'off' | 'low' | 'high' | null;
  /** Whether its red pointer shines; null where it has none, or does not tell. */
  pointer: boolean | null;
  /** What it does by hand. */
  errand: Errand | null;
  /** The walk that it was told last. */
  lastWalk: LastWalk | null;
  /** The title of the job that is being made ready for it. Told to stop, it drops that, too. */
  makingReady: string | null;
  /** Machine seconds spent moving in this run. */
  runS: number;
  runId: string | null;
  /** What it can be told. */
  orders: MachineCommand[];
  /** Whether it holds by itself when it hears nothing. */
  watches: boolean;
}

/** A serial port of the computer that Lambent runs on. */
export interface SerialPortAnswer {
  path: string;
  /** Who made what is plugged in there; null where that is not told. */
  maker: string | null;
  /** The machine of the shop that is at it; null where none is. */
  machine: string | null;
}

/** What was found out about a machine and the line to it. */
export interface ConnectionTest {
  steps: { level: 'good' | 'warns' | 'fails'; message: string }[];
  /** The figures that the machine tells of itself; lengths in mm, speeds in mm/s, accelerations in mm/s². */
  figures: ToldFigures;
}
