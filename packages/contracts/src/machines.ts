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
  lid: 'open' | 'closed';
  /** The last program line whose move is done. */
  line: number;
  /** Machine seconds spent moving in this run. */
  runS: number;
  runId: string | null;
}
