import type { ToldFigures } from '@lambent/core/machine';
import { IsIn } from 'class-validator';

export const machineCommands = ['hold', 'resume', 'stop', 'home', 'clear', 'open-lid', 'close-lid'] as const;
export type MachineCommand = (typeof machineCommands)[number];

export class MachineCommandDto {
  @IsIn(machineCommands)
  command!: MachineCommand;
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
