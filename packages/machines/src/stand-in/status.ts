import { type MachineStatus, restingStatus } from '../driver.ts';

/** A stand-in's status as its line says it (docs/stand-in.md). */
export interface StandInStatus extends Omit<MachineStatus, 'runId' | 'state'> {
  readonly state: Exclude<MachineStatus['state'], 'away'>;
  /** Moves that wait. */
  readonly waiting: number;
  /** The run that was begun last, also when it has ended; lines are counted as they were sent. */
  readonly run: {
    readonly id: string;
    readonly taken: number;
    readonly done: number;
    readonly dropped: boolean;
  } | null;
}

/** What is known of a machine that has not answered yet. */
export const notHeardYet: MachineStatus = { ...restingStatus, state: 'away' };

const airs = ['off', 'low', 'high'] as const;
const states: readonly StandInStatus['state'][] = ['idle', 'homing', 'running', 'held', 'alarm'];

/** Reads a status from JSON; null where it is none, whatever else it is. */
export function statusFromJson(json: string): StandInStatus | null {
  let said: unknown;
  try {
    said = JSON.parse(json);
  } catch {
    return null;
  }
  if (typeof said !== 'object' || said === null) return null;
  const record = said as Record<string, unknown>;
  const state = states.find((known) => known === record.state);
  const { reason, lid } = record;
  const numbers = ['x', 'y', 'feed', 'power', 'line', 'runS', 'waiting'] as const;
  if (!state || (lid !== 'open' && lid !== 'closed') || (reason !== null && typeof reason !== 'string')) return null;
  // One that does not tell these is an older one.
  const { z = null, air: told = null, pointer = null } = record;
  const air = told === null ? null : airs.find((known) => known === told);
  if (air === undefined || !(z === null || Number.isFinite(z)) || !(pointer === null || typeof pointer === 'boolean')) {
    return null;
  }
  if (!numbers.every((name) => Number.isFinite(record[name]))) return null;
  const run = record.run === null || record.run === undefined ? null : runFrom(record.run);
  if (run === undefined) return null;
  const values = Object.fromEntries(numbers.map((name) => [name, record[name]])) as Record<
    (typeof numbers)[number],
    number
  >;
  return { ...values, state, reason, lid, z: z as number | null, air, pointer, run };
}

function runFrom(said: unknown): StandInStatus['run'] | undefined {
  if (typeof said !== 'object' || said === null) return undefined;
  const { id, taken, done, dropped } = said as Record<string, unknown>;
  const counts =
    Number.isInteger(taken) && Number.isInteger(done) && Number(done) >= 0 && Number(taken) >= Number(done);
  if (typeof id !== 'string' || !counts || typeof dropped !== 'boolean') return undefined;
  return { id, taken: taken as number, done: done as number, dropped };
}

/** Whether the machine has nothing under way that it could go on with. */
export function standsIn(state: MachineStatus['state']): boolean {
  return state === 'idle' || state === 'alarm' || state === 'homing';
}

/** How far a run is that the machine has not begun: what it says is of the one before. */
export const nothingDone = { line: 0, runS: 0 };
