import type { Limits } from './ramps.ts';
/** As many moves wait in the machine. */
export const bufferSize = 3000;
/** How long it takes to find its zero, in seconds. */
export const homingS = 2;

export type State = 'idle' | 'homing' | 'running' | 'held' | 'alarm';

/** What a stand-in is, in mm, mm/s and mm/s². Coordinates run from `minX`, `minY` to `maxX`, `maxY`. */
export interface Build extends Limits {
  readonly name: string;
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  readonly topSpeed: number;
  readonly travelSpeed: number;
  readonly powerScale: number;
  /** How deep and how high the focus goes, in mm above the stock, and how fast; it does not move where they are one. */
  readonly lowestZ: number;
  readonly highestZ: number;
  readonly focusSpeed: number;
  /** How its axes truly run: x · X + lean · Y along X and y · Y along Y, of what it is told; missing where they are true. */
  readonly axes?: { readonly x: number; readonly y: number; readonly lean: number };
  /** The power of its beam in watts, and the share of it that stock takes in. */
  readonly watts: number;
  readonly takenIn: number;
}

export interface Status {
  readonly state: State;
  /** Why it is held or in alarm; null otherwise. */
  readonly reason: string | null;
  readonly x: number;
  readonly y: number;
  /** How far above the stock the focus is, in mm. */
  readonly z: number;
  readonly air: 'off' | 'low' | 'high';
  /** Whether the red pointer shines. */
  readonly pointer: boolean;
  /** mm/min, as F is. */
  readonly feed: number;
  /** On the S scale; 0 while the beam is off. */
  readonly power: number;
  /** Moves that wait, and how many the buffer holds. */
  readonly waiting: number;
  readonly buffer: number;
  readonly lid: 'open' | 'closed';
  /** The last program line whose move is done, by its number (N) or counted since `run begin`. */
  readonly line: number;
  /** Machine seconds spent moving since `run begin`. */
  readonly runS: number;
  /** The run that was begun last, also when it has ended; null before any. */
  readonly run: RunStatus | null;
  /** The longest it has burnt in one run without hearing a byte, in machine seconds. */
  readonly unheardS: number;
}

/** How far a run has come, in lines as they were taken: a program line may come in several. */
export interface RunStatus {
  readonly id: string;
  /** Lines taken, and the last of them whose move is done. */
  readonly taken: number;
  readonly done: number;
  /** It was dropped: stopped, or by an alarm. */
  readonly dropped: boolean;
}
